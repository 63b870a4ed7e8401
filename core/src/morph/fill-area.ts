import type { ShiftPlan } from './plan';
import type { InBetweenProbe } from './probe';

/** Filled areas of an in-between in px². */
export interface FillArea {
  /** Where the winding number is not zero. */
  readonly filled: number;
  /** Where it has the sign that solids do not have: a loop turned inside out, a hole outside its solid. */
  readonly inverted: number;
}

/** Areas of in-betweens by horizontal lines: exact along each line, `rows` lines over the extent given. Memory is made once. */
export class FillMeter {
  private readonly hits: { x: number; winding: number }[][];

  constructor(
    private readonly plan: ShiftPlan,
    private readonly probe: InBetweenProbe,
    private readonly top: number,
    private readonly bottom: number,
    rows: number,
  ) {
    this.hits = Array.from({ length: rows }, () => []);
  }

  /** @param sign 1 when solids run clockwise on screen, −1 when they run the other way */
  measure(sign: number): FillArea {
    const { hits, probe, top, bottom } = this;
    const rows = hits.length;
    const step = (bottom - top) / rows;
    for (const row of hits) row.length = 0;
    const p = probe.points;
    this.plan.contours.forEach(({ closed }, c) => {
      if (!closed) return;
      const first = probe.starts[c];
      const count = probe.counts[c];
      for (let k = 0; k < count; k++) {
        const i = 2 * (first + k);
        const j = 2 * (first + ((k + 1) % count));
        if (p[i + 1] === p[j + 1]) continue;
        const down = p[j + 1] > p[i + 1];
        const [x0, y0, x1, y1] = down ? [p[i], p[i + 1], p[j], p[j + 1]] : [p[j], p[j + 1], p[i], p[i + 1]];
        const from = Math.max(0, Math.ceil((y0 - top) / step - 0.5));
        const to = Math.min(rows - 1, Math.ceil((y1 - top) / step - 0.5) - 1);
        for (let r = from; r <= to; r++) {
          const y = top + (r + 0.5) * step;
          hits[r].push({ x: x0 + ((x1 - x0) * (y - y0)) / (y1 - y0), winding: down ? 1 : -1 });
        }
      }
    });
    let filled = 0;
    let inverted = 0;
    for (const row of hits) {
      row.sort((a, b) => a.x - b.x);
      let winding = 0;
      for (let k = 0; k + 1 < row.length; k++) {
        // Clockwise on screen: the left edge runs up.
        winding -= row[k].winding;
        if (winding === 0) continue;
        const area = (row[k + 1].x - row[k].x) * step;
        filled += area;
        if (winding * sign < 0) inverted += area;
      }
    }
    return { filled, inverted };
  }
}
