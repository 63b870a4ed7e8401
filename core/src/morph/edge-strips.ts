/** So many strips at most, and so many entries for each edge on average: strips about as high as edges are. */
const MOST_STRIPS = 1_024;
const ENTRIES_PER_EDGE = 4;
/** Widens strips against rounding, as a share of the height. */
const MARGIN = 1e-9;
/** x is compared in steps of this share of the width; a step and the index of an entry share one number. */
const STEPS = 2 ** 24;
const ENTRIES = 2 ** 28;

/**
 * Finds edges of polylines that may cross, where there are thousands: the picture is cut into horizontal strips, in each of which the parts of edges are swept in
 * the order of x. A long slanted edge is compared with what is near its course, not with all in its box. Memory is made once and grows only where it must.
 */
export class EdgeStrips {
  private readonly first: Int32Array;
  private readonly last: Int32Array;
  private starts = new Int32Array(MOST_STRIPS + 1);
  private keys = new Float64Array(0);
  private edges = new Int32Array(0);
  private highs = new Float64Array(0);
  /** Of the entries in the order of x: the edge, and the key up to which others may meet it. */
  private row = new Int32Array(0);
  private reaches = new Float64Array(0);
  private strips = 1;
  private top = 0;
  private height = 1;

  /** @param edgeFirst for each edge the index of its first point; `edgeNext` that of its second */
  constructor(
    private readonly edgeFirst: Int32Array,
    private readonly edgeNext: Int32Array,
  ) {
    this.first = new Int32Array(edgeFirst.length);
    this.last = new Int32Array(edgeFirst.length);
  }

  /** The strip that a height lies in; a crossing is found in that strip, whatever others its edges share. */
  stripOf(y: number): number {
    const strip = Math.floor((y - this.top) / this.height);
    return strip < 0 ? 0 : strip >= this.strips ? this.strips - 1 : strip;
  }

  /** Calls `found` with pairs of edges (the lower index first) that may cross in a strip, as long as it answers true. @param points x, y of all points, px */
  eachPair(points: Float64Array, found: (e: number, f: number, strip: number) => boolean): void {
    this.fill(points);
    const { keys, starts, edges, highs, row, reaches } = this;
    for (let strip = 0; strip < this.strips; strip++) {
      const [from, to] = [starts[strip], starts[strip + 1]];
      keys.subarray(from, to).sort();
      for (let i = from; i < to; i++) {
        const entry = keys[i] % ENTRIES;
        row[i] = edges[entry];
        reaches[i] = (highs[entry] + 1) * ENTRIES;
      }
      for (let i = from; i < to; i++) {
        const e = row[i];
        const reach = reaches[i];
        for (let j = i + 1; j < to && keys[j] < reach; j++) {
          const f = row[j];
          if (!(e < f ? found(e, f, strip) : found(f, e, strip))) return;
        }
      }
    }
  }

  /** Puts every edge into the strips that it goes through, each entry with the x that it covers there. */
  private fill(points: Float64Array): void {
    const { edgeFirst, edgeNext, first, last, starts } = this;
    const count = edgeFirst.length;
    let [left, right, top, bottom, climb] = [Infinity, -Infinity, Infinity, -Infinity, 0];
    for (let e = 0; e < count; e++) {
      const [x, y] = [points[2 * edgeFirst[e]], points[2 * edgeFirst[e] + 1]];
      if (x < left) left = x;
      if (x > right) right = x;
      if (y < top) top = y;
      if (y > bottom) bottom = y;
      const end = 2 * edgeNext[e];
      if (points[end] < left) left = points[end];
      if (points[end] > right) right = points[end];
      if (points[end + 1] < top) top = points[end + 1];
      if (points[end + 1] > bottom) bottom = points[end + 1];
      climb += Math.abs(points[end + 1] - y);
    }
    const extent = bottom - top;
    const wanted = climb > 0 ? Math.ceil(((ENTRIES_PER_EDGE - 1) * count * extent) / climb) : 1;
    this.strips = Math.max(1, Math.min(MOST_STRIPS, count, wanted));
    this.top = top;
    this.height = extent / this.strips || 1;
    const margin = MARGIN * extent;
    starts.fill(0);
    for (let e = 0; e < count; e++) {
      const [y0, y1] = [points[2 * edgeFirst[e] + 1], points[2 * edgeNext[e] + 1]];
      // An edge without length crosses nothing; contours that are a point have thousands in one place.
      if (y0 === y1 && points[2 * edgeFirst[e]] === points[2 * edgeNext[e]]) {
        [first[e], last[e]] = [1, 0];
        continue;
      }
      first[e] = this.stripOf(Math.min(y0, y1) - margin);
      last[e] = this.stripOf(Math.max(y0, y1) + margin);
      for (let strip = first[e]; strip <= last[e]; strip++) starts[strip + 1]++;
    }
    for (let strip = 0; strip < this.strips; strip++) starts[strip + 1] += starts[strip];
    const total = starts[this.strips];
    if (total > this.keys.length) {
      this.keys = new Float64Array(total);
      this.edges = new Int32Array(total);
      this.highs = new Float64Array(total);
      this.row = new Int32Array(total);
      this.reaches = new Float64Array(total);
    }
    const { keys, edges, highs } = this;
    const scale = right > left ? (STEPS - 1) / (right - left) : 0;
    const next = starts.slice(0, this.strips);
    for (let e = 0; e < count; e++) {
      const [i, j] = [2 * edgeFirst[e], 2 * edgeNext[e]];
      const [x0, y0, x1, y1] = [points[i], points[i + 1], points[j], points[j + 1]];
      const slope = y1 === y0 ? 0 : (x1 - x0) / (y1 - y0);
      for (let strip = first[e]; strip <= last[e]; strip++) {
        let [low, high] = x0 < x1 ? [x0, x1] : [x1, x0];
        if (slope !== 0) {
          // Where the edge enters and leaves the strip.
          const upper = x0 + (top + strip * this.height - margin - y0) * slope;
          const lower = x0 + (top + (strip + 1) * this.height + margin - y0) * slope;
          low = Math.max(low, Math.min(upper, lower));
          high = Math.min(high, Math.max(upper, lower));
        }
        const entry = next[strip]++;
        edges[entry] = e;
        highs[entry] = Math.floor((high - left) * scale) + 1;
        keys[entry] = Math.max(0, Math.floor((low - left) * scale) - 1) * ENTRIES + entry;
      }
    }
  }
}
