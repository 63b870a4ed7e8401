const DEPTH = 10;
/** Shares of a stretch at which its cubic is compared with the curve. */
const PROBES = [0.125, 0.25, 0.375, 0.5, 0.625, 0.75, 0.875] as const;
/** Slopes are taken this far inside the ends, where a kind may have none. */
const INSIDE = 1e-6;

/**
 * Few cubics along a curve from (0, 0) to (1, 1): Hermite segments that are halved until they stay within `error` of it (de Boor: A Practical
 * Guide to Splines, 2001, chapter IV). `value` and `slope` are asked inside (0, 1) only. Returns 3n + 1 points (time, progress).
 */
export function fitSegments(value: (time: number) => number, slope: (time: number) => number, error: number): number[] {
  const out = [0, 0];
  const at = (time: number): number => (time <= 0 ? 0 : time >= 1 ? 1 : value(time));
  const slopeAt = (time: number): number => slope(Math.min(1 - INSIDE, Math.max(INSIDE, time)));
  const halve = (a: number, b: number, depth: number): void => {
    const width = b - a;
    const [ya, yb] = [at(a), at(b)];
    const [ma, mb] = [slopeAt(a), slopeAt(b)];
    const strays = PROBES.some((u) => {
      const v = 1 - u;
      const hermite =
        v * v * (1 + 2 * u) * ya + width * u * v * v * ma + u * u * (1 + 2 * v) * yb - width * u * u * v * mb;
      return !(Math.abs(hermite - at(a + width * u)) <= error);
    });
    if (strays && depth < DEPTH) {
      const middle = (a + b) / 2;
      halve(a, middle, depth + 1);
      halve(middle, b, depth + 1);
      return;
    }
    out.push(a + width / 3, ya + (ma * width) / 3, b - width / 3, yb - (mb * width) / 3, b, yb);
  };
  halve(0, 1, 0);
  return out;
}
