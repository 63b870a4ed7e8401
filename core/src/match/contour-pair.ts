import { type Contour, contourArea, contourLength, segmentCount } from '../outline';
import { type Alignment, SampleAligner, WEIGHTS, type Weights } from './alignment';
import type { FixedPair, ShareMap } from './match';
import { type ContourSamples, isPoint, type Sampler, sampleContour } from './samples';
import { evenShareMap, invertShareMap, smoothShareMap } from './share-map';

/** How many samples are taken along a contour: for a look at all starts, and for the way itself. */
export interface Sampling {
  readonly coarse: number;
  readonly fine: number;
}
export const SAMPLING: Sampling = { coarse: 40, fine: 96 };
/** For contours that are one of very many. */
export const SPARSE_SAMPLING: Sampling = { coarse: 28, fine: 64 };
/** How many local minima of the coarse look are looked at again. */
const STARTS_KEPT = 6;
/** Starts nearer than this share of the length are one. */
const SAME_START = 0.012;
/** Origins scored nearer than this are equally good. */
const SAME_SCORE = 1e-3;
const MOST_ORIGINS = 6;
/** Coarse matches whose costs are nearer than this are equally good. */
const SAME_COST = 1e-4;

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
 * at its start only. Which of the two is given first makes no difference. `sample` may be one that keeps its samples.
 */
export function fitContours(
  a: Contour,
  b: Contour,
  sampling: Sampling = SAMPLING,
  weights: Weights = WEIGHTS,
  sample: Sampler = sampleContour,
): ContourFit[] {
  const swapped = a.closed !== b.closed ? a.closed : comesFirst(b, a);
  if (!swapped) return fitInOrder(a, b, sampling, weights, sample);
  return fitInOrder(b, a, sampling, weights, sample).map((fit) => ({
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
  return segmentCount(p) < segmentCount(q);
}

/** A contour that is open goes first. */
function fitInOrder(a: Contour, b: Contour, sampling: Sampling, weights: Weights, sample: Sampler): ContourFit[] {
  const fineA = sample(a, sampling.fine);
  const fineB = sample(b, sampling.fine);
  // Is one of them a point? Then any map will do.
  if (isPoint(fineA) || isPoint(fineB)) return [{ startA: 0, startB: 0, map: evenShareMap(), fixed: [], cost: 1 }];
  const aligner = new SampleAligner(fineA, fineB, weights);
  const { i0, starts: groups } = b.closed
    ? likelyStarts(fineA, a.closed ? originSamples(fineA) : [0], fineB, sampling.coarse, weights, sample)
    : { i0: 0, starts: [{ samples: [0] }] as Start[] };
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
  // No way within the band (a contour of very few, very uneven segments): walk evenly.
  return [
    { startA: fineA.share[i0], startB: fineB.share[groups[0].samples[0]], map: evenShareMap(), fixed: [], cost: 10 },
  ];
}

/** Distance of two shares on a closed contour. */
const around = (gap: number): number => {
  const away = Math.abs(gap) % 1;
  return Math.min(away, 1 - away);
};

/**
 * Samples that depend on the shape alone, not on where the file starts: the corner farthest from the centroid, or the farthest place. A
 * symmetric shape has several.
 */
function originSamples(s: ContourSamples): number[] {
  const scores = Array.from({ length: s.count }, (_, i) => Math.hypot(s.x[i], s.y[i]) + 0.5 * Math.abs(s.turn[i]));
  const best = Math.max(...scores);
  return scores.flatMap((score, i) => (score > best - SAME_SCORE ? [i] : []));
}

/** Samples of B at which a fine look starts, and the coarse way that led to them. */
interface Start {
  readonly samples: readonly number[];
  readonly guide?: (share: number) => number;
}

/**
 * Starts on B worth a fine look, in groups: around each of the best local minima over all starts of a coarse sampling; and the origin on A,
 * of the given ones, that fits best.
 */
function likelyStarts(
  fineA: ContourSamples,
  origins: readonly number[],
  fineB: ContourSamples,
  coarse: number,
  weights: Weights,
  sample: Sampler,
): { i0: number; starts: Start[] } {
  const allB = originSamples(fineB);
  const originsB = allB.length > MOST_ORIGINS ? nearestTo(fineB, allB, fineA, origins.slice(0, MOST_ORIGINS)) : allB;
  // A circle has origins all round: those that lie nearest to the other's are taken.
  const tried = origins.length > MOST_ORIGINS ? nearestTo(fineA, origins, fineB, originsB) : origins;
  let best:
    | { i0: number; costs: number[]; guides: Start['guide'][]; least: number; coarseB: ContourSamples; gap: number }
    | undefined;
  for (const i0 of tried) {
    // Of several origins on B the one that lies nearest: so the sampling depends on how the shapes lie to each other, on nothing else.
    const gapTo = (j: number): number => Math.hypot(fineA.x[i0] - fineB.x[j], fineA.y[i0] - fineB.y[j]);
    const originB = originsB.reduce((near, j) => (gapTo(j) < gapTo(near) - 1e-9 ? j : near));
    const coarseB = sample(fineB.contour, coarse, false, fineB.share[originB]);
    const originA = fineA.closed ? fineA.share[i0] : 0;
    const coarseA = sample(fineA.contour, coarse, false, originA);
    const aligner = new SampleAligner(coarseA, coarseB, weights);
    const coarseStart = fineA.closed ? nearestSample(coarseA, originA) : 0;
    const guides: Start['guide'][] = [];
    const costs = Array.from({ length: coarse }, (_, j) => {
      const path = aligner.align(coarseStart, j);
      guides.push(path && aligner.guideOf(path));
      return path?.cost ?? Infinity;
    });
    const least = Math.min(...costs);
    const gap = gapTo(originB);
    const better = !best || least < best.least - SAME_COST || (least < best.least + SAME_COST && gap < best.gap - 1e-9);
    if (better) best = { i0, costs, guides, least, coarseB, gap };
  }
  if (!best) return { i0: 0, starts: [{ samples: [originsB[0]] }] };
  const { costs, guides, coarseB } = best;
  const minima = costs
    .map((cost, j) => ({ cost, j }))
    .filter(({ cost, j }) => cost <= costs[(j + 1) % coarse] + 1e-9 && cost <= costs[(j - 1 + coarse) % coarse] + 1e-9)
    .filter(({ cost }) => cost !== Infinity)
    .sort((p, q) => Math.round((p.cost - q.cost) * 1e7) || p.j - q.j)
    .slice(0, STARTS_KEPT);
  const reach = 0.6 / coarse;
  const starts = minima.map(({ j }): Start => {
    const middle = coarseB.share[j];
    const samples = new Set<number>([nearestSample(fineB, middle)]);
    for (let k = 0; k < fineB.count; k++) {
      const distance = around(fineB.share[k] - middle);
      if (distance <= reach || (fineB.turn[k] !== 0 && distance <= 2.5 * reach)) samples.add(k);
    }
    return { samples: [...samples], guide: guides[j] };
  });
  return { i0: best.i0, starts: starts.length > 0 ? starts : [{ samples: [originsB[0]] }] };
}

/** Of many samples of `s`, for each of a few of `other` the one that lies nearest to it. */
function nearestTo(
  s: ContourSamples,
  many: readonly number[],
  other: ContourSamples,
  few: readonly number[],
): number[] {
  const found = few
    .slice(0, MOST_ORIGINS)
    .map((j) =>
      many.reduce((near, i) =>
        Math.hypot(s.x[i] - other.x[j], s.y[i] - other.y[j]) <
        Math.hypot(s.x[near] - other.x[j], s.y[near] - other.y[j]) - 1e-9
          ? i
          : near,
      ),
    );
  return [...new Set(found)];
}

function nearestSample(s: ContourSamples, share: number): number {
  let best = 0;
  let bestDistance = Infinity;
  for (let i = 0; i < s.count; i++) {
    const distance = around(s.share[i] - share);
    if (distance < bestDistance - 1e-9) {
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
