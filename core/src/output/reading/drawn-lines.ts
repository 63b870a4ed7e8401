import { flattenContour, type Outline } from '../../outline';

/** Curves are flattened to this, px. */
const FLAT_PX = 0.02;
/** So many places of each contour, about, are looked at. */
const PLACES = 32;

/** An outline as lines, to be held against another one. */
export class DrawnLines {
  /** x and y of where each line begins, how far it goes, px, and one over the square of that; 0 for a line without length. */
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
        const [dx, dy] = [flat[b] - flat[a], flat[b + 1] - flat[a + 1]];
        const square = dx * dx + dy * dy;
        lines.push(flat[a], flat[a + 1], dx, dy, square > 0 ? 1 / square : 0);
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
    for (let i = 0; i < lines.length; i += 5) {
      const dx = lines[i + 2];
      const dy = lines[i + 3];
      const px = x - lines[i];
      const py = y - lines[i + 1];
      const along = (px * dx + py * dy) * lines[i + 4];
      const t = along < 0 ? 0 : along > 1 ? 1 : along;
      const offX = px - t * dx;
      const offY = py - t * dy;
      const square = offX * offX + offY * offY;
      if (square < least) least = square;
    }
    return least;
  }
}
