import type { Lane } from '../lane';

/** The value of a lane before its first ramp. */
export function firstValue(lane: Lane): Float64Array {
  const out = new Float64Array(lane.size);
  lane.ramps[0].blend.write(0, out, 0);
  return out;
}

/** Some places of a ramp: what holds at these holds all the way for what goes straight. */
const LOOKED_AT = [0, 0.37, 1];

/** Are both radii of a radial gradient the same all the time? */
export const isCircle = (ellipse: Lane): boolean =>
  ellipse.ramps.every(({ blend }) =>
    LOOKED_AT.every((progress) => {
      const out = new Float64Array(blend.size);
      blend.write(progress, out, 0);
      return Math.abs(out[2] - out[3]) < 1e-6;
    }),
  );
