/**
 * Gauss–Legendre quadrature. Nodes and weights are computed by Newton's method on the Legendre polynomials
 * (Press, Teukolsky, Vetterling, Flannery: Numerical Recipes, 3rd edition, 2007, section 4.6).
 */
export interface QuadratureRule {
  /** Nodes in (0, 1), ascending. */
  readonly nodes: Float64Array;
  /** Weights that sum to 1. */
  readonly weights: Float64Array;
}

/** The rule with `n` nodes on [0, 1]; exact for polynomials up to degree 2n − 1. `n` at least 1. */
export function gaussLegendre(n: number): QuadratureRule {
  const nodes = new Float64Array(n);
  const weights = new Float64Array(n);
  const half = (n + 1) >> 1;
  for (let i = 0; i < half; i++) {
    let x = Math.cos((Math.PI * (i + 0.75)) / (n + 0.5));
    let derivative = 1;
    for (let step = 0; step < 100; step++) {
      let p = 1;
      let before = 0;
      for (let k = 0; k < n; k++) {
        const older = before;
        before = p;
        p = ((2 * k + 1) * x * before - k * older) / (k + 1);
      }
      derivative = (n * (x * p - before)) / (x * x - 1);
      const dx = p / derivative;
      x -= dx;
      if (Math.abs(dx) < 1e-15) break;
    }
    const weight = 1 / ((1 - x * x) * derivative * derivative);
    nodes[i] = (1 - x) / 2;
    nodes[n - 1 - i] = (1 + x) / 2;
    weights[i] = weight;
    weights[n - 1 - i] = weight;
  }
  return { nodes, weights };
}
