/** How far apart two items are by how far apart their features are (all ≥ 0); never less where one of these is more. */
export type FeatureDistance = (apart: Float64Array) => number;

const LEAF = 8;

/**
 * Finds the items of a set that are nearest to a place by features of any kind and number: a tree that halves the set along the feature that
 * differs most (Bentley: Multidimensional binary search trees used for associative searching, 1975; search by distance to boxes after Friedman, Bentley & Finkel 1977).
 */
export class NearestByFeatures {
  private readonly order: Int32Array;
  /** For each node the least and the greatest of every feature. */
  private readonly boxes: Float64Array[] = [];
  private readonly apart: Float64Array;

  /** @param features of each item `axes` numbers, one item after the other */
  constructor(
    private readonly features: Float64Array,
    private readonly axes: number,
    private readonly distance: FeatureDistance,
  ) {
    this.order = Int32Array.from({ length: features.length / axes }, (_, i) => i);
    this.apart = new Float64Array(axes);
    if (this.order.length > 0) this.divide(0, 0, this.order.length);
  }

  /** Indices of up to `count` items that are nearest to a place, the nearest first. */
  nearest(place: Float64Array, count: number): number[] {
    const found: number[] = [];
    const distances: number[] = [];
    const take = (item: number): void => {
      for (let k = 0; k < this.axes; k++) this.apart[k] = Math.abs(place[k] - this.features[item * this.axes + k]);
      const d = this.distance(this.apart);
      if (found.length === count && d >= distances[count - 1]) return;
      let at = found.length === count ? count - 1 : found.length;
      for (; at > 0 && distances[at - 1] > d; at--) {
        distances[at] = distances[at - 1];
        found[at] = found[at - 1];
      }
      distances[at] = d;
      found[at] = item;
    };
    const visit = (node: number, from: number, to: number): void => {
      if (to - from <= LEAF) {
        for (let k = from; k < to; k++) take(this.order[k]);
        return;
      }
      const middle = (from + to) >> 1;
      const left = { node: 2 * node + 1, from, to: middle, gap: this.gap(place, 2 * node + 1) };
      const right = { node: 2 * node + 2, from: middle, to, gap: this.gap(place, 2 * node + 2) };
      for (const half of right.gap < left.gap ? [right, left] : [left, right])
        if (found.length < count || half.gap < distances[count - 1]) visit(half.node, half.from, half.to);
    };
    if (this.order.length > 0 && count > 0) visit(0, 0, this.order.length);
    return found;
  }

  private divide(node: number, from: number, to: number): void {
    const { axes, features, order } = this;
    const box = new Float64Array(2 * axes);
    let widest = 0;
    for (let axis = 0; axis < axes; axis++) {
      let [low, high] = [Infinity, -Infinity];
      for (let k = from; k < to; k++) {
        const value = features[order[k] * axes + axis];
        if (value < low) low = value;
        if (value > high) high = value;
      }
      box[2 * axis] = low;
      box[2 * axis + 1] = high;
      if (high - low > box[2 * widest + 1] - box[2 * widest]) widest = axis;
    }
    this.boxes[node] = box;
    if (to - from <= LEAF) return;
    order.subarray(from, to).sort((p, q) => features[p * axes + widest] - features[q * axes + widest] || p - q);
    const middle = (from + to) >> 1;
    this.divide(2 * node + 1, from, middle);
    this.divide(2 * node + 2, middle, to);
  }

  /** The least distance that an item of a node can have. */
  private gap(place: Float64Array, node: number): number {
    const box = this.boxes[node];
    for (let k = 0; k < this.axes; k++) this.apart[k] = Math.max(0, box[2 * k] - place[k], place[k] - box[2 * k + 1]);
    return this.distance(this.apart);
  }
}
