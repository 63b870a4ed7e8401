import { type Contour, contourArea, contourLength, pieceCount } from '../outline';
import { type Alignment, SampleAligner } from './alignment';
import type { FixedPair, ShareMap } from './match';
import { type ContourSamples, isPoint, sampleContour } from './samples';
import { evenShareMap, invertShareMap, smoothShareMap } from './share-map';

const COARSE = 40;
const FINE = 96;
/** How many local minima of the coarse look are looked at again. */
const STARTS_KEPT = 6;
/** Starts nearer than this share of the length are one. */
const SAME_START = 0.012;

/** How two contours fit together, run in the directions in which they were given. */
export interface ContourFit {
  readonly startA: number;
  readonly startB: number;
  readonly map: ShareMap;
  /** Places that the map must pass, counted from the starts. */
  readonly fixed: readonly FixedPair[];
  readonly cost: number;
}

/**
 * The best matches of two contours in their given directions, the cheapest first, at most six; a closed one may start anywhere, an open one
 * at its start only. Which of the two is given first makes no difference.
 */
export function fitContours(a: Contour, b: Contour): ContourFit[] {
  const swapped = a.closed !== b.closed ? a.closed : comesFirst(b, a);
  if (!swapped) return fitInOrder(a, b);
  return fitInOrder(b, a).map((fit) => ({
    ...fit,
    startA: fit.startB,
    startB: fit.startA,
    map: invertShareMap(fit.map),
  }));
}

/** An order of contours that depends on their shapes alone. */
function comesFirst(p: Contour, q: Contour): boolean {
  if (p.closed && q.closed) {
    const round = (c: Contour): number => Math.abs(contourArea(c)) / (contourLength(c) ** 2 || 1);
    const gap = round(p) - round(q);
    if (Math.abs(gap) > 1e-6) return gap > 0;
  }
  return pieceCount(p) < pieceCount(q);
}

/** A contour that is open goes first. */
function fitInOrder(a: Contour, b: Contour): ContourFit[] {
  const fineA = sampleContour(a, FINE);
  const fineB = sampleContour(b, FINE);
  // Is one of them a point? Then any map will do.
  if (isPoint(fineA) || isPoint(fineB)) return [{ startA: 0, startB: 0, map: evenShareMap(), fixed: [], cost: 1 }];
  const aligner = new SampleAligner(fineA, fineB);
  const i0 = a.closed ? originSample(fineA) : 0;
  const groups: Start[] = b.closed ? likelyStarts(fineA, i0, fineB) : [{ samples: [0] }];
  const found: { start: number; path: Alignment }[] = [];
  for (const group of groups) {
    let best: Alignment | undefined;
    let start = 0;
    for (const j0 of group.samples) {
      const path = aligner.align(i0, j0, { limit: best?.cost, guide: group.guide });
      if (!path) continue;
      best = path;
      start = j0;
    }
    if (best) found.push({ start, path: best });
  }
  found.sort((p, q) => (Math.abs(p.path.cost - q.path.cost) > 1e-7 ? p.path.cost - q.path.cost : p.start - q.start));
  const fits: ContourFit[] = [];
  for (const { start, path } of found) {
    const startB = fineB.share[start];
    if (b.closed && fits.some((fit) => around(fit.startB - startB) < SAME_START)) continue;
    const map = smoothShareMap(rawMap(path, fineA, i0, fineB, start));
    fits.push({ startA: fineA.share[i0], startB, map, fixed: [], cost: path.cost });
  }
  if (fits.length > 0) return fits;
  // No way within the band (a contour of very few, very uneven pieces): walk evenly.
  return [
    { startA: fineA.share[i0], startB: fineB.share[groups[0].samples[0]], map: evenShareMap(), fixed: [], cost: 10 },
  ];
}

/** Distance of two shares on a closed contour. */
const around = (gap: number): number => {
  const away = Math.abs(gap) % 1;
  return Math.min(away, 1 - away);
};

/** A sample that depends on the shape alone, not on where the file starts: the corner farthest from the centroid, or the farthest place. */
function originSample(s: ContourSamples): number {
  let best = 0;
  let bestScore = -Infinity;
  for (let i = 0; i < s.count; i++) {
    const score = Math.hypot(s.x[i], s.y[i]) + 0.5 * Math.abs(s.turn[i]) + 1e-7 * s.x[i] + 1e-8 * s.y[i];
    if (score > bestScore + 1e-9) {
      best = i;
      bestScore = score;
    }
  }
  return best;
}

/** Samples of B at which a fine look starts, and the coarse way that led to them. */
interface Start {
  readonly samples: readonly number[];
  readonly guide?: (share: number) => number;
}

/** Starts on B worth a fine look, in groups: around each of the best local minima over all starts of a coarse sampling. */
function likelyStarts(fineA: ContourSamples, i0: number, fineB: ContourSamples): Start[] {
  const originA = fineA.closed ? fineA.share[i0] : 0;
  const coarseA = sampleContour(fineA.contour, COARSE, false, originA);
  const coarseB = sampleContour(fineB.contour, COARSE, false, fineB.share[originSample(fineB)]);
  const aligner = new SampleAligner(coarseA, coarseB);
  const coarseStart = fineA.closed ? nearestSample(coarseA, originA) : 0;
  const guides: (Start['guide'] | undefined)[] = [];
  const costs = Array.from({ length: COARSE }, (_, j) => {
    const path = aligner.align(coarseStart, j);
    guides.push(path && aligner.guideOf(path));
    return path?.cost ?? Infinity;
  });
  const minima = costs
    .map((cost, j) => ({ cost, j }))
    .filter(({ cost, j }) => cost <= costs[(j + 1) % COARSE] + 1e-9 && cost <= costs[(j - 1 + COARSE) % COARSE] + 1e-9)
    .filter(({ cost }) => cost !== Infinity)
    .sort((p, q) => Math.round((p.cost - q.cost) * 1e7) || p.j - q.j)
    .slice(0, STARTS_KEPT);
  const reach = 0.6 / COARSE;
  const groups = minima.map(({ j }) => {
    const middle = coarseB.share[j];
    const group = new Set<number>([nearestSample(fineB, middle)]);
    for (let k = 0; k < fineB.count; k++) {
      const distance = around(fineB.share[k] - middle);
      if (distance <= reach || (fineB.turn[k] !== 0 && distance <= 2.5 * reach)) group.add(k);
    }
    return { samples: [...group], guide: guides[j] };
  });
  return groups.length > 0 ? groups : [{ samples: [originSample(fineB)] }];
}

function nearestSample(s: ContourSamples, share: number): number {
  let best = 0;
  let bestDistance = Infinity;
  for (let i = 0; i < s.count; i++) {
    const distance = around(s.share[i] - share);
    if (distance < bestDistance) {
      best = i;
      bestDistance = distance;
    }
  }
  return best;
}

function rawMap(path: Alignment, a: ContourSamples, i0: number, b: ContourSamples, j0: number) {
  const along = (s: ContourSamples, start: number, k: number): number => {
    if (k === s.count) return 1;
    const ahead = s.share[(start + k) % s.share.length] - s.share[start];
    return ahead < 0 ? ahead + 1 : ahead;
  };
  const corner = (s: ContourSamples, start: number, k: number): boolean => s.turn[(start + k) % s.share.length] !== 0;
  return {
    a: path.i.map((i) => along(a, i0, i)),
    b: path.j.map((j) => along(b, j0, j)),
    pinned: path.i.map((i, k) => corner(a, i0, i) && corner(b, j0, path.j[k])),
  };
}
