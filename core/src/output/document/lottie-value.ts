import { EVEN_SPLINE } from '../../easing';
import { CoreError } from '../../errors';
import { blendAlong } from '../../lane';
import type { Outline } from '../../outline';
import { splineValue } from '../runtime/track-value';
import { isObject, type Json, number, numbers, objects } from './json';

export const LOTTIE_BYTE_LIMIT = 40 * 1024 * 1024;

/**
 * The JSON of a Lottie file (Lottie Specification 1.0), with layers and a frame rate.
 * @throws CoreError 'file-too-large', 'json-syntax'
 */
export function readLottieFile(text: string): Json {
  if (text.length > LOTTIE_BYTE_LIMIT)
    throw new CoreError('file-too-large', `Expected a Lottie file of at most ${LOTTIE_BYTE_LIMIT / 1024 / 1024} MB.`);
  let file: unknown;
  try {
    file = JSON.parse(text);
  } catch (error) {
    throw new CoreError(
      'json-syntax',
      `Expected a Lottie file in JSON; it cannot be read: ${(error as Error).message}.`,
    );
  }
  if (!isObject(file) || !Array.isArray(file.layers) || !(number(file.fr) > 0))
    throw new CoreError('json-syntax', 'Expected a Lottie file with layers and a frame rate; found something else.');
  return file;
}

/** Frames a second that make sense. */
const LEAST_RATE = 0.1;
const MOST_RATE = 1_000;

/** Frames a second of a file. @throws CoreError 'number-range' */
export function rateOf({ fr }: Json): number {
  const rate = number(fr);
  if (rate >= LEAST_RATE && rate <= MOST_RATE) return rate;
  throw new CoreError(
    'number-range',
    `Expected a Lottie file of ${LEAST_RATE} to ${MOST_RATE.toLocaleString('en')} frames a second (fr); this one has ${rate}.`,
    '/fr',
  );
}

/** Does a property have keys? */
export const isKeyed = (property: unknown): boolean =>
  isObject(property) && Array.isArray(property.k) && property.k.length > 0 && isObject(property.k[0]);

/** How a value goes on from a key: control values of the curve in the unit square, one for each number where they differ; null: it stands. */
export function onwardOf(key: Json): readonly (readonly [number, number, number, number])[] | null {
  if (key.h === 1) return null;
  const side = (value: unknown, name: 'x' | 'y'): number[] => (isObject(value) ? numbers(value[name]) : []);
  const all = [side(key.o, 'x'), side(key.o, 'y'), side(key.i, 'x'), side(key.i, 'y')];
  const count = Math.max(...all.map(({ length }) => length));
  if (all.some(({ length }) => length === 0)) return [EVEN_SPLINE];
  return Array.from({ length: count }, (_, i) => {
    const [x1, y1, x2, y2] = all.map((list) => list[Math.min(i, list.length - 1)]);
    return [Math.min(1, Math.max(0, x1)), y1, Math.min(1, Math.max(0, x2)), y2];
  });
}

/** The value at which a key's way arrives: older files say it in the key itself. */
export const arrivalOf = (key: Json, next: Json): unknown => key.e ?? next.s;

/** The value of a property at a frame; undefined where there is none. */
export function valueAt(property: unknown, frame: number): unknown {
  if (!isObject(property)) return undefined;
  if (!isKeyed(property)) return property.k;
  const keys = objects(property.k);
  let k = 0;
  while (k + 1 < keys.length && number(keys[k + 1].t) <= frame) k++;
  const [key, next] = [keys[k], keys[k + 1]];
  const at = number(key.t);
  if (!next || frame <= at) return key.s ?? (k > 0 ? arrivalOf(keys[k - 1], key) : undefined);
  const onward = onwardOf(key);
  if (!onward) return key.s;
  const x = (frame - at) / (number(next.t) - at);
  const ways = onward.map((spline) => splineValue(spline, x));
  const to = arrivalOf(key, next);
  if (isCurved(key)) return alongCurve(key, to, ways[0]);
  return mixed(key.s, to, ways);
}

/** Does a position go along a curve? */
export const isCurved = (key: Json): boolean =>
  [key.to, key.ti].some((handle) => Array.isArray(handle) && numbers(handle).some((v) => v !== 0));

/** A place on the curve from one position to another, by arc length. */
function alongCurve(key: Json, to: unknown, way: number): number[] {
  const pair = (value: unknown): [number, number] => [numbers(value)[0], numbers(value)[1] ?? 0];
  let curve = curves.get(key);
  if (!curve) {
    curve = blendAlong(pair(key.s), pair(key.to ?? [0, 0]), pair(key.ti ?? [0, 0]), pair(to));
    curves.set(key, curve);
  }
  const out = new Float64Array(2);
  curve.write(way, out, 0);
  return [...out];
}
/** The curves of keys, which are measured once. */
const curves = new WeakMap<Json, ReturnType<typeof blendAlong>>();

function mixed(p: unknown, q: unknown, ways: readonly number[], i = 0): unknown {
  const way = ways[Math.min(i, ways.length - 1)];
  if (typeof p === 'number' && typeof q === 'number') return p + (q - p) * way;
  if (Array.isArray(p) && Array.isArray(q)) return p.map((each, k) => mixed(each, q[k], ways, k));
  if (isObject(p) && isObject(q))
    return Object.fromEntries(Object.keys(p).map((key) => [key, mixed(p[key], q[key], ways.slice(0, 1))]));
  return p;
}

/** A shape of the format as an outline. */
export function outlineOf(value: unknown): Outline {
  const shape = Array.isArray(value) ? value[0] : value;
  if (!isObject(shape)) return { fillRule: 'nonzero', contours: [] };
  const list = (key: string): number[][] => (Array.isArray(shape[key]) ? (shape[key] as unknown[]).map(numbers) : []);
  const [v, inward, outward] = [list('v'), list('i'), list('o')];
  const closed = shape.c === true;
  if (v.length === 0) return { fillRule: 'nonzero', contours: [] };
  const count = closed ? v.length : v.length - 1;
  const points = [v[0][0], v[0][1]];
  for (let k = 0; k < count; k++) {
    const [from, to] = [k, (k + 1) % v.length];
    const [ox = 0, oy = 0] = outward[from] ?? [];
    const [ix = 0, iy = 0] = inward[to] ?? [];
    points.push(v[from][0] + ox, v[from][1] + oy, v[to][0] + ix, v[to][1] + iy, v[to][0], v[to][1]);
  }
  return { fillRule: 'nonzero', contours: [{ points: Float64Array.from(points), closed }] };
}
