import type { Contour } from '../outline';
import { type Alignment, SampleAligner } from './alignment';
import type { ShareMap } from './match';
import { type ContourSamples, isPoint, sampleContour } from './samples';
import { evenShareMap, invertShareMap, smoothShareMap } from './share-map';

const COARSE = 40;
const FINE = 96;
const STARTS_KEPT = 6;

/** How two contours fit together, run in the directions in which they were given. */
export interface ContourFit {
  readonly startA: number;
  readonly startB: number;
  readonly map: ShareMap;
  readonly cost: number;
}

/** The cheapest match of two contours in their given directions; a closed one may start anywhere, an open one at its start only. */
export function fitContours(a: Contour, b: Contour): ContourFit {
  if (a.closed && !b.closed) {
    const { startA, startB, map, cost } = fitContours(b, a);
    return { startA: startB, startB: startA, map: invertShareMap(map), cost };
  }
  const fineA = sampleContour(a, FINE);
  const fineB = sampleContour(b, FINE);
  // Is one of them a point? Then any map will do.
  if (isPoint(fineA) || isPoint(fineB)) return { startA: 0, startB: 0, map: evenShareMap(), cost: 1 };
  const aligner = new SampleAligner(fineA, fineB);
  const i0 = a.closed ? originSample(fineA) : 0;
  const starts = b.closed ? likelyStarts(fineA, i0, fineB) : [0];
  let best: Alignment | undefined;
  let bestStart = 0;
  for (const j0 of starts) {
    const found = aligner.align(i0, j0, best?.cost);
    if (found) {
      best = found;
      bestStart = j0;
    }
  }
  const startA = fineA.share[i0];
  const startB = fineB.share[bestStart];
  // No way within the band (a contour of very few, very uneven pieces): walk evenly.
  if (!best) return { startA, startB, map: evenShareMap(), cost: 10 };
  return { startA, startB, map: smoothShareMap(rawMap(best, fineA, i0, fineB, bestStart)), cost: best.cost };
}

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

/** Starts on B worth a fine look: the best local minima over all starts of a coarse sampling, with their neighbours. */
function likelyStarts(fineA: ContourSamples, i0: number, fineB: ContourSamples): number[] {
  const coarseA = sampleContour(fineA.contour, COARSE, false);
  const coarseB = sampleContour(fineB.contour, COARSE, false);
  const aligner = new SampleAligner(coarseA, coarseB);
  const coarseStart = fineA.closed ? nearestSample(coarseA, fineA.share[i0]) : 0;
  const offset = fineA.closed ? fineA.share[i0] - coarseA.share[coarseStart] : 0;
  const costs = Array.from({ length: COARSE }, (_, j) => aligner.align(coarseStart, j)?.cost ?? Infinity);
  const minima = costs
    .map((cost, j) => ({ cost, j }))
    .filter(({ cost, j }) => cost <= costs[(j + 1) % COARSE] + 1e-9 && cost <= costs[(j - 1 + COARSE) % COARSE] + 1e-9)
    .sort((p, q) => Math.round((p.cost - q.cost) * 1e7) || p.j - q.j)
    .slice(0, STARTS_KEPT);
  const out = new Set<number>();
  const reach = 0.6 / COARSE;
  for (const { j } of minima) {
    const middle = coarseB.share[j] + offset;
    for (let k = 0; k < fineB.count; k++) {
      const away = Math.abs(fineB.share[k] - middle);
      const distance = Math.min(away % 1, 1 - (away % 1));
      if (distance <= reach || (fineB.turn[k] !== 0 && distance <= 2.5 * reach)) out.add(k);
    }
    out.add(nearestSample(fineB, middle));
  }
  return [...out];
}

function nearestSample(s: ContourSamples, share: number): number {
  let best = 0;
  let bestDistance = Infinity;
  for (let i = 0; i < s.count; i++) {
    const away = Math.abs(s.share[i] - share) % 1;
    const distance = Math.min(away, 1 - away);
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
