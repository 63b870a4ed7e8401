import { type BlendSpace, blendColour, type ColourBlend, planColourBlend } from '../../paint';

/** A value at a moment: numbers that are mixed as they are, and colours that are mixed as colours. */
export interface Sample {
  /** What is equal in all samples that can become each other. */
  readonly kind: string;
  readonly numbers: Float64Array;
  /** By how much each number may stray. */
  readonly errors: Float64Array;
  /** Red, green, blue, alpha of each colour, 0 to 1. */
  readonly colours: Float64Array;
}

/** Colours may stray by this share. */
const COLOUR_ERROR = 0.008;

/** Are two samples so near to each other that nobody sees a difference? */
export const isSame = (p: Sample, q: Sample): boolean => p.kind === q.kind && new Mixer(p, p, 'srgb').isNear(q, 0);

/** What lies between two samples. */
export class Mixer {
  private readonly blends: readonly ColourBlend[];
  private readonly mixed = new Float64Array(4);

  constructor(
    private readonly from: Sample,
    private readonly to: Sample,
    space: BlendSpace,
  ) {
    this.blends = Array.from({ length: from.colours.length / 4 }, (_, i) =>
      planColourBlend(colourAt(from.colours, i), colourAt(to.colours, i), space),
    );
  }

  /** Is a sample where it should be at a progress? */
  isNear(sample: Sample, progress: number): boolean {
    const { from, to } = this;
    if (sample.kind !== from.kind) return false;
    for (let i = 0; i < from.numbers.length; i++) {
      const wanted = from.numbers[i] + (to.numbers[i] - from.numbers[i]) * progress;
      if (!(Math.abs(sample.numbers[i] - wanted) <= sample.errors[i])) return false;
    }
    if (this.blends.length === 0) return true;
    const within = Math.min(1, Math.max(0, progress));
    return this.blends.every((blend, i) => {
      blendColour(blend, within, this.mixed, 0);
      const seen = Math.max(this.mixed[3], sample.colours[4 * i + 3]);
      return this.mixed.every((v, k) => (k === 3 ? 1 : seen) * Math.abs(v - sample.colours[4 * i + k]) <= COLOUR_ERROR);
    });
  }
}

const colourAt = (colours: Float64Array, i: number) => ({
  r: colours[4 * i],
  g: colours[4 * i + 1],
  b: colours[4 * i + 2],
  alpha: colours[4 * i + 3],
});
