/** sine: out and back; saw: out evenly, back at once; beat: out quickly, back slowly, then rest; square: out for half of it. */
export type BeatShape = 'sine' | 'saw' | 'beat' | 'square';

/** A single beat rises in so much of its period and is gone after so much. */
const RISE = 0.15;
const GONE = 0.6;

/** Shares of a period at which a shape bends or jumps. */
export const BEAT_BREAKS: Readonly<Record<BeatShape, readonly number[]>> = {
  sine: [],
  saw: [],
  beat: [RISE, GONE],
  square: [0.5],
};

const smooth = (x: number): number => x * x * (3 - 2 * x);

/** How far a beat is out at a share of its period in [0, 1): 0 to 1. All but the square begin at 0. */
export function beatAt(shape: BeatShape, share: number): number {
  switch (shape) {
    case 'sine':
      return (1 - Math.cos(2 * Math.PI * share)) / 2;
    case 'saw':
      return share;
    case 'square':
      return share < 0.5 ? 1 : 0;
    case 'beat':
      if (share < RISE) return smooth(share / RISE);
      return share < GONE ? 1 - smooth((share - RISE) / (GONE - RISE)) : 0;
  }
}

/** Times nearer than this to the end of a period are the beginning of the next, s: sums of frames are no exact multiples. */
const NEAR = 1e-7;

/** The share of the running period, and −1 where none runs: before `from`, and after the last period that begins before `until`. */
export function shareOfPeriod(seconds: number, period: number, from: number, until: number | null): number {
  const since = seconds - from + NEAR;
  if (since < 0) return -1;
  const begins = Math.floor(since / period) * period;
  if (until !== null && from + begins >= until - NEAR) return -1;
  return Math.max(0, since - NEAR - begins) / period;
}
