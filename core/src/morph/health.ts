import { contourArea, contourLength, type Outline } from '../outline';
import { findCrossings } from './crossings';
import { evaluate } from './evaluate';
import type { ShiftPlan } from './plan';
import { frameOutline } from './plan-outline';

export const VERDICTS = ['good', 'look', 'broken'] as const;
export type Verdict = (typeof VERDICTS)[number];

/** What is measured on a shift over progress 0..1. */
export interface Health {
  readonly verdict: Verdict;
  /** One sentence on what is worst, when and where. */
  readonly sentence: string;
  /** Self-crossings of a contour beyond those of the ends, in the worst frame. */
  readonly folds: number;
  /** Crossings of contours with each other beyond those of the ends, in the worst frame. */
  readonly crossings: number;
  /** Least area over the smaller end's; 1 where there is no area. */
  readonly areaDip: number;
  /** Largest area over the larger end's. */
  readonly swell: number;
  /** Longest outline over the longer end's. */
  readonly perimeter: number;
  /** Progress and place (px) where it is worst, when something is. */
  readonly worst?: { readonly progress: number; readonly x?: number; readonly y?: number };
}

const FRAMES = 21;
/** A curl shorter than this share of the size does not count. */
const LEAST_LOOP = 0.005;
const FLATTEN = 0.0008;

interface FrameFigures {
  readonly progress: number;
  readonly folds: number;
  readonly crossings: number;
  readonly area: number;
  readonly length: number;
  readonly place?: { x: number; y: number };
}

/** Measures a plan at 21 moments. Sizes count relative to the larger end. Never throws. */
export function measureHealth(plan: ShiftPlan): Health {
  const out = new Float64Array(plan.from.length);
  const frames: FrameFigures[] = [];
  for (let i = 0; i < FRAMES; i++) frames.push(measureFrame(plan, i / (FRAMES - 1), out));
  const first = frames[0];
  const last = frames[FRAMES - 1];
  const of = (pick: (f: FrameFigures) => number): { max: FrameFigures; min: FrameFigures } => ({
    max: frames.reduce((best, f) => (pick(f) > pick(best) ? f : best)),
    min: frames.reduce((best, f) => (pick(f) < pick(best) ? f : best)),
  });
  const baseFolds = Math.max(first.folds, last.folds);
  const baseCrossings = Math.max(first.crossings, last.crossings);
  const smaller = Math.min(first.area, last.area);
  const larger = Math.max(first.area, last.area);
  const size2 = plan.size * plan.size;
  const hasArea = smaller > 1e-6 * size2;
  const worstFold = of((f) => f.folds).max;
  const thinnest = of((f) => f.area).min;
  const widest = of((f) => f.area).max;
  const longest = of((f) => f.length).max;
  const figures = {
    folds: Math.max(0, worstFold.folds - baseFolds),
    crossings: Math.max(0, of((f) => f.crossings).max.crossings - baseCrossings),
    areaDip: hasArea ? thinnest.area / smaller : 1,
    swell: hasArea ? widest.area / larger : 1,
    perimeter: Math.max(first.length, last.length) > 0 ? longest.length / Math.max(first.length, last.length) : 1,
  };
  const at = (f: FrameFigures): Health['worst'] => ({ progress: f.progress, ...f.place });
  const percent = (f: FrameFigures): string => `${Math.round(f.progress * 100)} %`;
  if (figures.folds > 0) {
    return {
      verdict: 'broken',
      sentence: `The outline folds over itself at ${percent(worstFold)}. Try the other direction.`,
      ...figures,
      worst: at(worstFold),
    };
  }
  if (figures.areaDip < 0.5) {
    return {
      verdict: 'broken',
      sentence: `The shape shrinks to ${Math.round(figures.areaDip * 100)} % of its area at ${percent(thinnest)}. Try the other direction.`,
      ...figures,
      worst: at(thinnest),
    };
  }
  if (figures.perimeter > 1.25) {
    return {
      verdict: 'look',
      sentence: `The outline gets ${Math.round((figures.perimeter - 1) * 100)} % longer than both ends at ${percent(longest)}.`,
      ...figures,
      worst: at(longest),
    };
  }
  if (figures.swell > 1.2) {
    return {
      verdict: 'look',
      sentence: `The shape swells to ${Math.round(figures.swell * 100)} % of the larger end at ${percent(widest)}.`,
      ...figures,
      worst: at(widest),
    };
  }
  if (figures.crossings > 0) {
    const f = of((g) => g.crossings).max;
    return { verdict: 'look', sentence: `Two contours cross each other at ${percent(f)}.`, ...figures, worst: at(f) };
  }
  return { verdict: 'good', sentence: 'No folds, and the area stays even.', ...figures };
}

function measureFrame(plan: ShiftPlan, progress: number, out: Float64Array): FrameFigures {
  const outline: Outline = frameOutline(plan, evaluate(plan, progress, out));
  const { self, between } = findCrossings(outline, FLATTEN * plan.size || 1);
  const folds = self.filter((crossing) => crossing.loop >= LEAST_LOOP * plan.size);
  const closed = outline.contours.filter((contour) => contour.closed);
  return {
    progress,
    folds: folds.length,
    crossings: between.length,
    area: Math.abs(closed.reduce((sum, contour) => sum + contourArea(contour), 0)),
    length: outline.contours.reduce((sum, contour) => sum + contourLength(contour), 0),
    place: folds[0] ?? between[0],
  };
}
