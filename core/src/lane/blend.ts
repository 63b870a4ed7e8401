import { evaluate, type ShiftPlan } from '../morph';
import { type BlendSpace, blendColour, planColourBlend, type Rgba } from '../paint';

/** A value of `size` numbers as a function of progress, made once and then written again and again without allocating. */
export interface Blend {
  readonly size: number;
  /** Progress where the value bends or jumps, ascending, perhaps beyond 0..1: between them it runs smoothly. */
  readonly breaks: readonly number[];
  /** Does it jump at its breaks and stand still between them? */
  readonly jumps: boolean;
  /** Is it one value all the way? */
  readonly still: boolean;
  /** Writes the value at `progress` to `out[at …]`. */
  write(progress: number, out: Float64Array, at: number): void;
}

/** How numbers go on outside 0..1: held at their ends, or on along their line; never below `least`. */
export interface NumberRange {
  readonly beyond: 'held' | 'on';
  readonly least: number;
}

const NO_BREAKS: readonly number[] = [];
const HALF_WAY: readonly number[] = [0.5];

/** Numbers that go straight from one end to the other. */
export function blendNumbers(from: readonly number[], to: readonly number[], { beyond, least }: NumberRange): Blend {
  const a = Float64Array.from(from);
  const b = Float64Array.from(to);
  return {
    size: a.length,
    breaks: floorBreaks(a, b, beyond, least),
    jumps: false,
    still: a.every((v, i) => v === b[i]),
    write(progress, out, at) {
      const p = beyond === 'on' ? progress : within(progress);
      for (let i = 0; i < a.length; i++) {
        const v = a[i] + (b[i] - a[i]) * p;
        out[at + i] = v > least ? v : least;
      }
    },
  };
}

/** Where numbers that go on along their line come down to what they never fall below. */
function floorBreaks(
  a: Float64Array,
  b: Float64Array,
  beyond: NumberRange['beyond'],
  least: number,
): readonly number[] {
  if (beyond === 'held' || least === -Infinity) return NO_BREAKS;
  const met = Array.from(a, (v, i) => (least - v) / (b[i] - v)).filter(Number.isFinite);
  return [...new Set(met)].sort((p, q) => p - q);
}

/** A choice that cannot be mixed: an index that changes half-way. */
export function blendChoice(from: number, to: number): Blend {
  return {
    size: 1,
    breaks: from === to ? NO_BREAKS : HALF_WAY,
    jumps: true,
    still: from === to,
    write(progress, out, at) {
      out[at] = progress < 0.5 ? from : to;
    },
  };
}

/** A colour as r, g, b and alpha in 0..1; outside 0..1 of progress it is held, since a colour beyond a colour means nothing. */
export function blendColours(from: Rgba, to: Rgba, space: BlendSpace): Blend {
  if (sameColour(from, to)) return stillColour(from);
  const blend = planColourBlend(from, to, space);
  return {
    size: 4,
    breaks: NO_BREAKS,
    jumps: false,
    still: false,
    write: (progress, out, at) => void blendColour(blend, progress, out, at),
  };
}

/** A colour as it is: no way leads through a space. */
const stillColour = ({ r, g, b, alpha }: Rgba): Blend => ({
  size: 4,
  breaks: NO_BREAKS,
  jumps: false,
  still: true,
  write(_progress, out, at) {
    out[at] = r;
    out[at + 1] = g;
    out[at + 2] = b;
    out[at + 3] = alpha;
  },
});

/** A colour that goes to `middle` in the first half, and on from there in the second. */
export function blendColoursVia(from: Rgba, middle: Rgba, to: Rgba, space: BlendSpace): Blend {
  const first = planColourBlend(from, middle, space);
  const second = planColourBlend(middle, to, space);
  return {
    size: 4,
    breaks: HALF_WAY,
    jumps: false,
    still: sameColour(from, middle) && sameColour(middle, to),
    write(progress, out, at) {
      const p = within(progress);
      if (p < 0.5) blendColour(first, 2 * p, out, at);
      else blendColour(second, 2 * p - 1, out, at);
    },
  };
}

/** The points of a shift's plan, x and y in px. Always written from the start of `out`. */
export function blendOutline(plan: ShiftPlan): Blend {
  return {
    size: plan.from.length,
    breaks: plan.contours.every(({ begin, end }) => begin === 0 && end === 1) ? NO_BREAKS : turnsOf(plan),
    jumps: false,
    still: plan.from === plan.to,
    write: (progress, out) => void evaluate(plan, progress, out),
  };
}

function turnsOf({ contours }: ShiftPlan): number[] {
  const turns = contours.flatMap(({ begin, end }) => [begin, end]).filter((p) => p > 0 && p < 1);
  return [...new Set(turns)].sort((p, q) => p - q);
}

const within = (progress: number): number => (progress > 0 ? (progress < 1 ? progress : 1) : 0);

const sameColour = (p: Rgba, q: Rgba): boolean => p.r === q.r && p.g === q.g && p.b === q.b && p.alpha === q.alpha;
