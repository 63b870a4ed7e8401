import { flattenContour, type Outline } from '../../outline';

/** Curves are flattened to this, px. */
const FLAT_PX = 0.02;
/** So many places of each contour, about, are looked at. */
const PLACES = 32;

/** An outline as lines, to be held against another one. */
export class DrawnLines {
  /** x and y of both ends of each line, px. */
  private readonly lines: Float64Array;
  /** Places on the lines, x and y in turn. */
  private readonly places: Float64Array;

  constructor(outline: Outline) {
    const lines: number[] = [];
    const places: number[] = [];
    for (const contour of outline.contours) {
      const flat = flattenContour(contour, FLAT_PX);
      const count = flat.length / 2;
      const ends = contour.closed ? count : count - 1;
      const step = Math.max(1, Math.floor(count / PLACES));
      for (let i = 0; i < ends; i++) {
        const [a, b] = [2 * i, 2 * ((i + 1) % count)];
        lines.push(flat[a], flat[a + 1], flat[b], flat[b + 1]);
        if (i % step === 0) places.push(flat[a], flat[a + 1], (flat[a] + flat[b]) / 2, (flat[a + 1] + flat[b + 1]) / 2);
      }
    }
    this.lines = Float64Array.from(lines);
    this.places = Float64Array.from(places);
  }

  /** How far places of this lie from another outline at most, px. */
  farthestFrom(other: DrawnLines): number {
    let most = 0;
    for (let i = 0; i < this.places.length; i += 2)
      most = Math.max(most, other.squareTo(this.places[i], this.places[i + 1]));
    return Math.sqrt(most);
  }

  /** The mean of the squares of how far places of this lie from another outline, px². */
  meanSquareFrom(other: DrawnLines): number {
    let sum = 0;
    // Every other place says enough.
    for (let i = 0; i < this.places.length; i += 4) sum += other.squareTo(this.places[i], this.places[i + 1]);
    return sum / Math.max(1, this.places.length / 4);
  }

  /** The square of the distance of a point from the lines, px². */
  private squareTo(x: number, y: number): number {
    const { lines } = this;
    let least = Infinity;
    for (let i = 0; i < lines.length; i += 4) {
      const [dx, dy] = [lines[i + 2] - lines[i], lines[i + 3] - lines[i + 1]];
      const [px, py] = [x - lines[i], y - lines[i + 1]];
      const length = dx * dx + dy * dy;
      const t = length > 0 ? Math.min(1, Math.max(0, (px * dx + py * dy) / length)) : 0;
      least = Math.min(least, (px - t * dx) ** 2 + (py - t * dy) ** 2);
    }
    return least;
  }
}
