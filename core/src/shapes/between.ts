import { type ShapeSource, shapeParameters } from './shapes';

type Value = number | string | boolean | readonly number[];

/**
 * A shape between two of one kind, by their numbers: radii, sizes, angles and place go straight. Undefined where that means nothing: for other kinds, and where
 * what is counted, chosen or seeded differs.
 */
export function shapeBetween(a: ShapeSource, b: ShapeSource, share: number): ShapeSource | undefined {
  if (a.kind !== b.kind) return undefined;
  const whole = new Set(shapeParameters(a.kind).flatMap(({ key, whole: counted }) => (counted ? [key] : [])));
  const own = a as unknown as Record<string, Value>;
  const other = b as unknown as Record<string, Value>;
  const between: Record<string, Value> = {};
  const mixed = (p: number, q: number): number => p + (q - p) * share;
  for (const key of Object.keys(own)) {
    const [p, q] = [own[key], other[key]];
    if (Array.isArray(p) && Array.isArray(q)) {
      if (p.length !== q.length) return undefined;
      between[key] = p.map((v: number, i: number) => mixed(v, q[i] as number));
    } else if (typeof p === 'number' && typeof q === 'number' && !whole.has(key) && key !== 'seed')
      between[key] = mixed(p, q);
    else if (p === q) between[key] = p;
    else return undefined;
  }
  return between as unknown as ShapeSource;
}
