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
  /** For each row where edges cross it, those that run down and those that run up. */
  private readonly down: readonly Crossed[];
  private readonly up: readonly Crossed[];

  constructor(
    private readonly plan: ShiftPlan,
    private readonly probe: InBetweenProbe,
    private readonly top: number,
    private readonly bottom: number,
    rows: number,
  ) {
    this.down = Array.from({ length: rows }, () => new Crossed());
    this.up = Array.from({ length: rows }, () => new Crossed());
  }

  /** @param sign 1 when solids run clockwise on screen, −1 when they run the other way */
  measure(sign: number): FillArea {
    const { probe, top, bottom } = this;
    const rows = this.down.length;
    const step = (bottom - top) / rows;
    for (let r = 0; r < rows; r++) this.down[r].count = this.up[r].count = 0;
    const p = probe.points;
    this.plan.contours.forEach(({ closed }, c) => {
      if (!closed) return;
      const first = probe.starts[c];
      const count = probe.counts[c];
      for (let k = 0; k < count; k++) {
        const i = 2 * (first + k);
        const j = 2 * (first + ((k + 1) % count));
        if (p[i + 1] === p[j + 1]) continue;
        const runsDown = p[j + 1] > p[i + 1];
        const [x0, y0, x1, y1] = runsDown ? [p[i], p[i + 1], p[j], p[j + 1]] : [p[j], p[j + 1], p[i], p[i + 1]];
        const crossed = runsDown ? this.down : this.up;
        const from = Math.max(0, Math.ceil((y0 - top) / step - 0.5));
        const to = Math.min(rows - 1, Math.ceil((y1 - top) / step - 0.5) - 1);
        for (let r = from; r <= to; r++) {
          const y = top + (r + 0.5) * step;
          crossed[r].add(x0 + ((x1 - x0) * (y - y0)) / (y1 - y0));
        }
      }
    });
    let filled = 0;
    let inverted = 0;
    for (let r = 0; r < rows; r++) {
      const [down, up] = [this.down[r], this.up[r]];
      down.sort();
      up.sort();
      let winding = 0;
      let before = 0;
      for (let d = 0, u = 0; d < down.count || u < up.count; ) {
        const falls = u === up.count || (d < down.count && down.x[d] <= up.x[u]);
        const x = falls ? down.x[d++] : up.x[u++];
        if (winding !== 0) {
          const area = (x - before) * step;
          filled += area;
          if (winding * sign < 0) inverted += area;
        }
        // Clockwise on screen: the left edge runs up.
        winding += falls ? -1 : 1;
        before = x;
      }
    }
    return { filled, inverted };
  }
}

/** Places at which a row is crossed; the memory is used again. */
class Crossed {
  x = new Float64Array(8);
  count = 0;

  add(x: number): void {
    if (this.count === this.x.length) {
      const more = new Float64Array(2 * this.count);
      more.set(this.x);
      this.x = more;
    }
    this.x[this.count++] = x;
  }

  sort(): void {
    const { x, count } = this;
    if (count > FEW) {
      x.subarray(0, count).sort();
      return;
    }
    for (let i = 1; i < count; i++) {
      const value = x[i];
      let j = i - 1;
      for (; j >= 0 && x[j] > value; j--) x[j + 1] = x[j];
      x[j + 1] = value;
    }
  }
}

/** So many are sorted by insertion. */
const FEW = 24;
