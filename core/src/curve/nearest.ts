import { cubicPoint } from './cubic';

const COARSE = 16;
const ROUNDS = 40;
const GOLDEN = (Math.sqrt(5) - 1) / 2;

/** The place of a cubic that is nearest to a point. */
export interface NearestPlace {
  readonly t: number;
  /** px */
  readonly distance: number;
}

/**
 * The parameter at which a cubic comes nearest to (x, y), to about 1e-8: the valleys among 17 even samples, narrowed by golden section
 * (Press et al.: Numerical Recipes, 3rd edition, 2007, section 10.2), which needs no derivative and so is safe at cusps.
 */
export function nearestOnCubic(p: Float64Array, at: number, x: number, y: number): NearestPlace {
  const out = new Float64Array(2);
  const distance2 = (t: number): number => {
    cubicPoint(p, at, t, out);
    return (out[0] - x) ** 2 + (out[1] - y) ** 2;
  };
  const samples = Array.from({ length: COARSE + 1 }, (_, k) => distance2(k / COARSE));
  let t = 0;
  let least = samples[0];
  const consider = (at2: number, d: number): void => {
    if (d >= least) return;
    least = d;
    t = at2;
  };
  consider(1, samples[COARSE]);
  // A curve may come near several times: every valley of the samples is searched.
  for (let k = 0; k <= COARSE; k++) {
    if (samples[k] > (samples[k - 1] ?? Infinity) || samples[k] > (samples[k + 1] ?? Infinity)) continue;
    const found = valley(distance2, Math.max(0, (k - 1) / COARSE), Math.min(1, (k + 1) / COARSE));
    consider(found, distance2(found));
    consider(k / COARSE, samples[k]);
  }
  return { t, distance: Math.sqrt(least) };
}

function valley(value: (t: number) => number, low: number, high: number): number {
  let a = low;
  let b = high;
  let u = b - GOLDEN * (b - a);
  let v = a + GOLDEN * (b - a);
  let du = value(u);
  let dv = value(v);
  for (let i = 0; i < ROUNDS; i++) {
    if (du < dv) {
      b = v;
      v = u;
      dv = du;
      u = b - GOLDEN * (b - a);
      du = value(u);
    } else {
      a = u;
      u = v;
      du = dv;
      v = a + GOLDEN * (b - a);
      dv = value(v);
    }
  }
  return (a + b) / 2;
}
