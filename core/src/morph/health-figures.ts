export const VERDICTS = ['good', 'look', 'broken'] as const;
/** good: nothing to mend; look: the eye may mind something; broken: folds, gaps, insides turned out. */
export type Verdict = (typeof VERDICTS)[number];

/** Figures of a shift at one moment, for charts. */
export interface HealthMoment {
  readonly progress: number;
  /** Filled area, px². */
  readonly area: number;
  /** Length of all contours, px. */
  readonly length: number;
  readonly folds: number;
  readonly crossings: number;
  /** Largest distance of an outline's point from the outline of the moment before, as a share of the size; 0 at the first. */
  readonly step: number;
}

/** When and where something is worst; px. */
export interface WorstMoment {
  readonly progress: number;
  readonly x?: number;
  readonly y?: number;
}

/** The figures by which a shift is judged; all of them are plain numbers that compare between shifts. */
export interface HealthFigures {
  /** Self-crossings of a contour beyond those of the ends, in the worst in-between. */
  readonly folds: number;
  /** Crossings of contours with each other beyond those of the ends, in the worst in-between. */
  readonly crossings: number;
  /** Least area over the smaller end's (lines: least length over the shorter end's). */
  readonly areaDip: number;
  /** Least area over that of an even change from the one end to the other at the same moment; 1 where there is no area. */
  readonly evenDip: number;
  /** Largest area over the larger end's; 1 where there is no area. */
  readonly swell: number;
  /** Longest outline over the longer end's. */
  readonly perimeter: number;
  /** How far it leaves the box of both ends, as a share of the size. */
  readonly excursion: number;
  /** Total turning over the more restless end's. */
  readonly restlessness: number;
  /** Largest move between two of 21 moments, as a share of the size. */
  readonly largestStep: number;
  /** Area turned inside out over the smaller end's. */
  readonly inverted: number;
  /** Worst kink at a place that is smooth at both ends, degrees. */
  readonly kink: number;
  /** How far the first and last in-between are from the outlines, px; 0 unless points were set evenly. */
  readonly endError: number;
}

/** What is measured on a shift over progress 0..1. */
export interface Health extends HealthFigures {
  /** Is it within `HEALTH_LIMITS`: is nothing technically wrong with it? What is said to designers, the verdict, is stricter. */
  readonly sound: boolean;
  readonly verdict: Verdict;
  /** One sentence on what is worst, when and where, and what may help. */
  readonly sentence: string;
  /** When and where it is worst, when something is. */
  readonly worst?: WorstMoment;
  /** 21 moments, evenly from 0 to 1. */
  readonly moments: readonly HealthMoment[];
}

/** Limits between sound and not: of the figures above. */
export const HEALTH_LIMITS = {
  areaDip: 0.5,
  perimeter: 1.25,
  swell: 1.2,
  excursion: 0.05,
  restlessness: 1.6,
  restlessnessOfSeveral: 2.2,
  largestStep: 0.12,
  largestStepOfSeveral: 0.25,
  inverted: 0.005,
  endError: 0.01,
} as const;

/**
 * How much of the area, or length, may be lost or gained on the way before it is said. On strips of 300 real pairs a designer minds what a figure of
 * `HEALTH_LIMITS` lets pass. Where contours come and go more of it is expected. `evenDip` catches what collapses between a large and a small end, and is still
 * larger than the small one.
 */
export const SAID_LIMITS = {
  even: { look: 0.15, broken: 0.35, evenDip: 0.25 },
  coming: { look: 0.25, broken: 0.45, evenDip: 0.38 },
} as const;

/** Are figures within `HEALTH_LIMITS`? */
export function isSound(figures: HealthFigures, several: boolean, open: boolean): boolean {
  const limits = HEALTH_LIMITS;
  return (
    figures.folds === 0 &&
    figures.inverted <= limits.inverted &&
    figures.areaDip >= limits.areaDip &&
    figures.endError <= limits.endError &&
    figures.perimeter <= limits.perimeter &&
    (open || figures.swell <= limits.swell) &&
    figures.excursion <= limits.excursion &&
    figures.restlessness <= (several ? limits.restlessnessOfSeveral : limits.restlessness) &&
    figures.largestStep <= (several ? limits.largestStepOfSeveral : limits.largestStep)
  );
}
