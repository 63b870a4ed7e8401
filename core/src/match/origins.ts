import { cubicLength, cubicStretch } from '../curve';
import {
  type ArcLengthTable,
  anchorCount,
  appendStretch,
  type Contour,
  measureArcLength,
  type Outline,
  pieceAt,
  pieceCount,
  shareOfAnchor,
  totalLength,
} from '../outline';
import type { ShareMap } from './match';

/** Knots nearer to each other than this share of the length are one. */
const KNOT_EPS = 1e-9;
/** Knots along a piece that has a partner of its own. */
const PIECE_KNOTS = 8;
/** A copy turned by more than this is matched anew: on straight ways its points would fall through the middle. */
const TURNED_RAD = Math.PI / 3;
/** It counts as turned where turning explains all but this share of what moved. */
const TURNED_REST = 0.25;

/** The anchor's own id or the one that it was copied from: equal for an anchor and its copies. */
const keysOf = (contour: Contour): (string | undefined)[] =>
  Array.from(
    { length: contour.anchorIds ? anchorCount(contour) : 0 },
    (_, i) => contour.originIds?.[i] ?? contour.anchorIds?.[i],
  );

const outlineKeys = (outline: Outline): Set<string> =>
  new Set(outline.contours.flatMap(keysOf).filter((key) => key !== undefined));

/**
 * Pairs of things that are copies of each other: at least half of the anchors of the one with fewer have a partner by origin. Each belongs
 * to one pair at most, the most alike first.
 */
export function pairByOrigin(a: readonly Outline[], b: readonly Outline[]): [number, number][] {
  const keysA = a.map(outlineKeys);
  const keysB = b.map(outlineKeys);
  const found: { i: number; j: number; shared: number }[] = [];
  keysA.forEach((p, i) => {
    if (p.size === 0) return;
    keysB.forEach((q, j) => {
      let shared = 0;
      for (const key of q) if (p.has(key)) shared++;
      if (shared > 0 && 2 * shared >= Math.min(p.size, q.size)) found.push({ i, j, shared });
    });
  });
  found.sort((p, q) => q.shared - p.shared || p.i - q.i || p.j - q.j);
  const pairs: [number, number][] = [];
  for (const { i, j } of found) if (!pairs.some(([p, q]) => p === i || q === j)) pairs.push([i, j]);
  return pairs;
}

/** A match that follows the anchors' origins: where the contours start, and the map of the shares from there on. */
export interface OriginFit {
  readonly startA: number;
  readonly startB: number;
  readonly map: ShareMap;
}

/**
 * The match of an edited copy: anchors that come from the same anchor stay together, a piece between two such neighbours goes with its
 * partner parameter by parameter, and `between` decides about stretches in which one side has anchors of its own. Undefined where fewer
 * than half of the anchors have a partner, where these come in another order, or where the copy was merely turned.
 */
export function fitByOrigin(
  a: Contour,
  b: Contour,
  between: (a: Contour, b: Contour) => ShareMap,
): OriginFit | undefined {
  const pairs = anchorPairs(a, b);
  if (!pairs || isTurned(a, b, pairs)) return undefined;
  const tableA = measureArcLength(a);
  const tableB = measureArcLength(b);
  if (!(totalLength(tableA) > 0 && totalLength(tableB) > 0)) return undefined;
  // An open line starts where it starts; a closed partner is opened there.
  if (!a.closed && b.closed && pairs[0][0] !== 0) return undefined;
  const startA = a.closed ? shareOfAnchor(tableA, pairs[0][0]) : 0;
  const startB = b.closed ? shareOfAnchor(tableB, pairs[0][1]) : 0;
  const ahead = (table: ArcLengthTable, i: number, start: number): number => {
    const share = shareOfAnchor(table, i) - start;
    return share < -KNOT_EPS ? share + 1 : Math.max(0, share);
  };
  const fixed = [{ i: pairs[0][0], j: pairs[0][1], a: 0, b: 0 }];
  if (!b.closed) Object.assign(fixed[0], { i: 0, j: 0 });
  for (const [i, next] of pairs) {
    // Past the end of a closed contour indices count on.
    const j = next < pairs[0][1] ? next + pieceCount(b) : next;
    const knot = { i, j, a: ahead(tableA, i, startA), b: ahead(tableB, next, startB) };
    const last = fixed[fixed.length - 1];
    if (knot.a > last.a + KNOT_EPS && knot.b > last.b + KNOT_EPS && knot.a < 1 - KNOT_EPS && knot.b < 1 - KNOT_EPS)
      fixed.push(knot);
  }
  const endOf = (contour: Contour, first: number): number =>
    contour.closed ? first + pieceCount(contour) : pieceCount(contour);
  fixed.push({ i: endOf(a, fixed[0].i), j: endOf(b, fixed[0].j), a: 1, b: 1 });
  const map = { a: [0], b: [0] };
  for (let k = 1; k < fixed.length; k++) {
    const p = fixed[k - 1];
    const q = fixed[k];
    const stretchA = stretchOf(a, p.i, q.i);
    const stretchB = stretchOf(b, p.j, q.j);
    const inner = pieceCount(stretchA) === 1 && pieceCount(stretchB) === 1 ? byParameter : between;
    const part = inner(stretchA, stretchB);
    for (let n = 1; n < part.a.length - 1; n++) {
      map.a.push(p.a + (q.a - p.a) * part.a[n]);
      map.b.push(p.b + (q.b - p.b) * part.b[n]);
    }
    map.a.push(q.a);
    map.b.push(q.b);
  }
  return { startA, startB, map: { a: Float64Array.from(map.a), b: Float64Array.from(map.b) } };
}

/** Anchors that come from the same anchor, in the order of `a`; undefined where they are too few, or in another order on `b`. */
function anchorPairs(a: Contour, b: Contour): [number, number][] | undefined {
  const at = new Map(keysOf(b).map((key, j) => [key, j]));
  const pairs = keysOf(a).flatMap((key, i): [number, number][] => {
    const j = key === undefined ? undefined : at.get(key);
    return j === undefined ? [] : [[i, j]];
  });
  if (pairs.length < 2 || 2 * pairs.length < Math.min(anchorCount(a), anchorCount(b))) return undefined;
  const drops = pairs.filter(([, j], k) => k > 0 && j <= pairs[k - 1][1]).length;
  const round = drops + (pairs[pairs.length - 1][1] >= pairs[0][1] ? 1 : 0);
  return (b.closed ? round === 1 : drops === 0) ? pairs : undefined;
}

/** Is the copy little else than the original turned about? By the least-squares angle of the paired anchors (orthogonal Procrustes). */
function isTurned(a: Contour, b: Contour, pairs: readonly (readonly [number, number])[]): boolean {
  const centred = (points: Float64Array, side: 0 | 1): number[] => {
    const list = pairs.flatMap((pair) => [points[6 * pair[side]], points[6 * pair[side] + 1]]);
    const mean = (k: number): number => list.reduce((sum, v, i) => (i % 2 === k ? sum + v : sum), 0) / pairs.length;
    const [x, y] = [mean(0), mean(1)];
    return list.map((v, i) => v - (i % 2 ? y : x));
  };
  const p = centred(a.points, 0);
  const q = centred(b.points, 1);
  let dot = 0;
  let cross = 0;
  for (let i = 0; i < p.length; i += 2) {
    dot += p[i] * q[i] + p[i + 1] * q[i + 1];
    cross += p[i] * q[i + 1] - p[i + 1] * q[i];
  }
  const angle = Math.atan2(cross, dot);
  if (Math.abs(angle) <= TURNED_RAD) return false;
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  let moved = 0;
  let rest = 0;
  for (let i = 0; i < p.length; i += 2) {
    moved += (q[i] - p[i]) ** 2 + (q[i + 1] - p[i + 1]) ** 2;
    rest += (q[i] - c * p[i] + s * p[i + 1]) ** 2 + (q[i + 1] - s * p[i] - c * p[i + 1]) ** 2;
  }
  return rest < TURNED_REST * moved;
}

/** The contour from one anchor to a later one, open; indices count on past the end of a closed one. */
function stretchOf(contour: Contour, from: number, to: number): Contour {
  const at = pieceAt(from % pieceCount(contour));
  const points = [contour.points[at], contour.points[at + 1]];
  appendStretch(contour, { piece: from, t: 0 }, { piece: to, t: 0 }, points);
  return { points: Float64Array.from(points), closed: false };
}

/** Two single pieces, equal parameters together: their control points then go straight, as the designer moved them. */
function byParameter(a: Contour, b: Contour): ShareMap {
  const shares = ({ points }: Contour): Float64Array => {
    const out = new Float64Array(PIECE_KNOTS + 1);
    const buffer = new Float64Array(8);
    for (let k = 0; k < PIECE_KNOTS; k++) {
      cubicStretch(points, 0, k / PIECE_KNOTS, (k + 1) / PIECE_KNOTS, buffer, 0);
      out[k + 1] = out[k] + cubicLength(buffer, 0);
    }
    const total = out[PIECE_KNOTS];
    return total > 0 ? out.map((v) => v / total) : out.map((_, k) => k / PIECE_KNOTS);
  };
  return { a: shares(a), b: shares(b) };
}
