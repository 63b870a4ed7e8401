import { Lane, type Ramp, RampTime } from './lane';

/** Writes a value at a time in s to `out[at …]`; allocates nothing. */
export type Formula = (seconds: number, out: Float64Array, at: number) => void;

const LINEAR = { kind: 'linear' } as const;
/** How far before its end a piece of a formula is looked at, s: it may jump there. */
const BEFORE = 1e-6;

/**
 * A lane that is a function of time: of other lanes, of noise, of a beat. Between its breaks it runs smoothly; at a break it may jump. For outputs it is a ramp
 * from each break to the next, in even time.
 */
export class FormulaLane extends Lane {
  /** `breaks` in s, in any order: two at least, the first and the last as far as it is looked at. */
  constructor(
    size: number,
    breaks: readonly number[],
    private readonly formula: Formula,
  ) {
    super(rampsOf(size, tidy(breaks), formula));
  }

  override sample(seconds: number, out: Float64Array, at = 0): void {
    this.formula(seconds, out, at);
  }
}

/** Breaks nearer than this are looked at as one, s: many driven lanes have thousands. */
const LEAST_BREAK = 1e-5;

function tidy(breaks: readonly number[]): number[] {
  const sorted = [...breaks].sort((p, q) => p - q);
  const kept = sorted.filter((time, i) => i === 0 || time - sorted[i - 1] > LEAST_BREAK);
  return kept.length > 1 ? kept : [kept[0] ?? 0, (kept[0] ?? 0) + 1];
}

const rampsOf = (size: number, breaks: readonly number[], formula: Formula): Ramp[] =>
  breaks.slice(1).map((end, i) => rampOf(size, breaks[i], end, formula));

function rampOf(size: number, start: number, end: number, formula: Formula): Ramp {
  const last = Math.max(start, end - BEFORE);
  const write = (progress: number, out: Float64Array, at: number): void =>
    formula(Math.min(last, start + progress * (end - start)), out, at);
  return {
    time: new RampTime(start, end, LINEAR),
    blend: { size, breaks: [], jumps: false, still: standsStill(size, write), write },
  };
}

/** Where it is looked at to see whether a stretch changes at all: at no even shares, where a beat could stand alike. */
const LOOKS = [0, 0.137, 0.291, 0.463, 0.618, 0.809, 1];

function standsStill(size: number, write: (progress: number, out: Float64Array, at: number) => void): boolean {
  const [first, other] = [new Float64Array(size), new Float64Array(size)];
  write(0, first, 0);
  return LOOKS.every((share) => {
    write(share, other, 0);
    return other.every((v, i) => v === first[i]);
  });
}
