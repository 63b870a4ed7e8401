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
 * The parameter at which a cubic comes nearest to (x, y), to about 1e-8: the best of 16 even stretches, narrowed by golden section
 * (Press et al.: Numerical Recipes, 3rd edition, 2007, section 10.2), which needs no derivative and so is safe at cusps.
 */
export function nearestOnCubic(p: Float64Array, at: number, x: number, y: number): NearestPlace {
  const out = new Float64Array(2);
  const distance2 = (t: number): number => {
    cubicPoint(p, at, t, out);
    return (out[0] - x) ** 2 + (out[1] - y) ** 2;
  };
  let best = 0;
  let least = Infinity;
  for (let k = 0; k <= COARSE; k++) {
    const d = distance2(k / COARSE);
    if (d < least) {
      least = d;
      best = k;
    }
  }
  let a = Math.max(0, (best - 1) / COARSE);
  let b = Math.min(1, (best + 1) / COARSE);
  let u = b - GOLDEN * (b - a);
  let v = a + GOLDEN * (b - a);
  let du = distance2(u);
  let dv = distance2(v);
  for (let i = 0; i < ROUNDS; i++) {
    if (du < dv) {
      b = v;
      v = u;
      dv = du;
      u = b - GOLDEN * (b - a);
      du = distance2(u);
    } else {
      a = u;
      u = v;
      du = dv;
      v = a + GOLDEN * (b - a);
      dv = distance2(v);
    }
  }
  const t = (a + b) / 2;
  const inner = distance2(t);
  // The ends of the curve and the coarse hit may be better than the valley that was searched.
  return inner <= least ? { t, distance: Math.sqrt(inner) } : { t: best / COARSE, distance: Math.sqrt(least) };
}
