import { CoreError } from '../../errors';
import { isObject, type Json } from './json';

/** Values inside each other, deeper than any exporter goes. */
const MOST_DEPTH = 400;

/** A Lottie file as the specification has it now, and what of it cannot be. */
export interface ModernLottie {
  readonly file: Json;
  readonly notes: readonly string[];
}

/**
 * Brings older dialects of Lottie to the one that the specification describes. Colours from 0 to 255 (before version 4.1.9 of the exporter) become shares, and a
 * path that says beside itself whether it is closed (before 4.4.18) says it itself. The two versions are from memory. Expressions are told: what has one stands, or
 * goes by its keys alone.
 *
 * @throws CoreError 'svg-too-complex'
 */
export function modernLottie(file: Json): ModernLottie {
  let expressions = 0;
  const visit = (value: unknown, depth = 0): unknown => {
    if (depth > MOST_DEPTH)
      throw new CoreError(
        'svg-too-complex',
        `Expected a Lottie file of at most ${MOST_DEPTH} levels; this one has more.`,
      );
    if (Array.isArray(value)) return value.map((each) => visit(each, depth + 1));
    if (!isObject(value)) return value;
    const { ty, x, c, ks, closed, cl, pt } = value;
    if (typeof x === 'string' && 'k' in value) expressions++;
    const own: Record<string, unknown> = Object.fromEntries(
      Object.entries(value).map(([key, inner]) => [key, visit(inner, depth + 1)]),
    );
    if ((ty === 'fl' || ty === 'st') && isObject(c)) own.c = withShares(c);
    if (ty === 'sh' && typeof closed === 'boolean' && isObject(ks)) own.ks = withClosing(own.ks, closed);
    // A mask says it beside its path in the same dialect.
    if (typeof cl === 'boolean' && isObject(pt)) own.pt = withClosing(own.pt, cl);
    return own;
  };
  const modern = visit(file) as Json;
  if (expressions === 0) return { file: modern, notes: [] };
  const many = expressions === 1 ? 'One value is' : `${expressions} values are`;
  return {
    file: modern,
    notes: [`${many} worked out by an expression, which is not run: they stand, or go by their keys.`],
  };
}

/** A colour over time with shares in the place of numbers up to 255. */
function withShares(colour: Json): Json {
  const numbersIn = (value: unknown): number[] =>
    Array.isArray(value) ? value.flatMap(numbersIn) : typeof value === 'number' ? [value] : [];
  const keys = Array.isArray(colour.k) ? colour.k.filter(isObject) : [];
  const said = keys.length > 0 ? keys.flatMap(({ s, e }) => [...numbersIn(s), ...numbersIn(e)]) : numbersIn(colour.k);
  if (!said.some((value) => value > 1)) return colour;
  const shared = (value: unknown): unknown =>
    Array.isArray(value) ? value.map((each) => (typeof each === 'number' ? each / 255 : each)) : value;
  const keyed = (key: unknown): unknown =>
    isObject(key) ? { ...key, ...('s' in key && { s: shared(key.s) }), ...('e' in key && { e: shared(key.e) }) } : key;
  return {
    ...colour,
    k: keys.length > 0 && Array.isArray(colour.k) ? colour.k.map(keyed) : shared(colour.k),
  };
}

/** Paths that say whether they are closed, where they did not. */
function withClosing(value: unknown, closed: boolean): unknown {
  if (Array.isArray(value)) return value.map((each) => withClosing(each, closed));
  if (!isObject(value)) return value;
  if (Array.isArray(value.v)) return 'c' in value ? value : { ...value, c: closed };
  const own: Record<string, unknown> = { ...value };
  for (const key of ['k', 's', 'e']) if (key in own) own[key] = withClosing(own[key], closed);
  return own;
}
