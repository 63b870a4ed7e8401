import { areaCentre, type Contour, contourBox, flattenContour, measureArcLength, shareOfAnchor } from '../outline';
import { boxSize } from '../vec';
import type { ContourFit } from './contour-pair';
import { fitThrough } from './fixed-fit';

/** Moments along half of a contour at which both halves are compared. */
const PROBES = 32;
/** Distances from the centre that agree to this share of the size are the same. */
const SAME_REL = 0.004;
/** Axes of both outlines within this angle of each other are one, rad. */
const SAME_ANGLE = 0.02;
/** At most so many common axes are tried. */
const MOST_AXES = 2;
const FLATTEN_REL = 2e-4;
/** What a match is worth that keeps a symmetry which both outlines have, in the terms of its cost. */
const WORTH = 0.35;

/** Half an axis of mirror symmetry: the direction from the centre to where it meets the contour, rad, and the share of the length there. */
interface HalfAxis {
  readonly angle: number;
  readonly share: number;
}

/**
 * Matches of two closed contours, run the same way, that keep a mirror symmetry which both have about one line through their centres. Where
 * the line meets the one goes to where it meets the other, and one half is matched like the other. Their cost is reduced by what symmetry
 * is worth.
 */
export function symmetricFits(a: Contour, b: Contour): ContourFit[] {
  const [first, second] = [new MirrorFinder(a), new MirrorFinder(b)];
  const axesA = first.isRound() ? second.axes().map(({ angle }) => first.towards(angle)) : first.axes();
  const axesB = second.isRound() ? first.axes().map(({ angle }) => second.towards(angle)) : second.axes();
  const fits: ContourFit[] = [];
  const used: number[] = [];
  for (const axis of axesA) {
    const other = axesB.find(({ angle }) => Math.abs(turn(angle - axis.angle)) < SAME_ANGLE);
    // Both halves of one axis give the same match.
    if (!other || used.some((angle) => Math.abs(Math.sin(angle - axis.angle)) < SAME_ANGLE)) continue;
    used.push(axis.angle);
    const far = (share: number): number => (share >= 0.5 ? share - 0.5 : share + 0.5);
    const pairs = [
      { a: axis.share, b: other.share },
      { a: far(axis.share), b: far(other.share) },
    ];
    const fit = fitThrough(a, b, pairs, false);
    if (fit) fits.push({ ...fit, map: mirrored(fit.map), cost: Math.max(0, fit.cost - WORTH) });
    if (fits.length === MOST_AXES) break;
  }
  return fits;
}

const turn = (angle: number): number => angle - 2 * Math.PI * Math.round(angle / (2 * Math.PI));

/** The map of the first half, and for the second half the same the other way round. */
function mirrored({ a, b }: ContourFit['map']): ContourFit['map'] {
  const halfA: number[] = [];
  const halfB: number[] = [];
  for (let k = 0; k < a.length && a[k] < 0.5 - 1e-9 && b[k] < 0.5 - 1e-9; k++) {
    halfA.push(a[k]);
    halfB.push(b[k]);
  }
  const turned = (half: readonly number[]): number[] => half.map((share) => 1 - share).reverse();
  return {
    a: Float64Array.from([...halfA, 0.5, ...turned(halfA)]),
    b: Float64Array.from([...halfB, 0.5, ...turned(halfB)]),
  };
}

/** Finds the axes of mirror symmetry of a closed contour by its distance from the centre along it, which no turning changes. */
class MirrorFinder {
  private readonly shares: Float64Array;
  private readonly line: Float64Array;
  private readonly cx: number;
  private readonly cy: number;
  private readonly tolerance: number;

  constructor(private readonly contour: Contour) {
    const size = boxSize(contourBox(contour)) || 1;
    const centre = areaCentre({ contours: [contour], fillRule: 'nonzero' });
    this.cx = centre.x;
    this.cy = centre.y;
    this.tolerance = SAME_REL * size;
    this.line = flattenContour(contour, FLATTEN_REL * size);
    const n = this.line.length / 2;
    this.shares = new Float64Array(n + 1);
    for (let i = 0; i < n; i++) {
      const j = (i + 1) % n;
      const length = Math.hypot(this.line[2 * j] - this.line[2 * i], this.line[2 * j + 1] - this.line[2 * i + 1]);
      this.shares[i + 1] = this.shares[i] + length;
    }
    const total = this.shares[n] || 1;
    for (let i = 0; i <= n; i++) this.shares[i] /= total;
  }

  /** Axes through anchors or middles of segments: nothing else can be on one where there are corners. */
  axes(): HalfAxis[] {
    const table = measureArcLength(this.contour);
    const segments = table.cumulative.length - 1;
    const candidates: number[] = [];
    for (let i = 0; i < segments; i++) {
      const [from, to] = [shareOfAnchor(table, i), shareOfAnchor(table, i + 1)];
      candidates.push(from, (from + to) / 2);
    }
    return candidates
      .filter((share) => this.isMirrored(share))
      .map((share) => {
        const [x, y] = this.at(share);
        return { angle: Math.atan2(y - this.cy, x - this.cx), share };
      });
  }

  /** Is it a circle, near enough? */
  isRound(): boolean {
    const radius = this.radius(0);
    for (let k = 1; k < 2 * PROBES; k++)
      if (Math.abs(this.radius(k / (2 * PROBES)) - radius) > this.tolerance) return false;
    return true;
  }

  /** Where a round contour lies in a direction from its centre. */
  towards(angle: number): HalfAxis {
    let share = 0;
    let least = Infinity;
    for (let i = 0; i < this.line.length; i += 2) {
      const away = Math.abs(turn(Math.atan2(this.line[i + 1] - this.cy, this.line[i] - this.cx) - angle));
      if (away < least) [least, share] = [away, this.shares[i / 2]];
    }
    return { angle, share };
  }

  private isMirrored(share: number): boolean {
    for (let k = 1; k <= PROBES; k++) {
      const away = (0.5 * k) / PROBES;
      if (Math.abs(this.radius(share + away) - this.radius(share - away)) > this.tolerance) return false;
    }
    // Distances alone would take a shape and its turned copy for mirrored: angles tell.
    const [x, y] = this.at(share);
    const axis = Math.atan2(y - this.cy, x - this.cx);
    for (let k = 1; k < 8; k++) {
      const [px, py] = this.at(share + k / 16);
      const [qx, qy] = this.at(share - k / 16);
      const radius = Math.hypot(px - this.cx, py - this.cy);
      const sum =
        turn(Math.atan2(py - this.cy, px - this.cx) - axis) + turn(Math.atan2(qy - this.cy, qx - this.cx) - axis);
      if (Math.abs(turn(sum)) * radius > 2 * this.tolerance) return false;
    }
    return true;
  }

  private radius(share: number): number {
    const [x, y] = this.at(share);
    return Math.hypot(x - this.cx, y - this.cy);
  }

  private at(share: number): [number, number] {
    const s = share - Math.floor(share);
    let low = 0;
    let high = this.shares.length - 1;
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if (this.shares[middle] <= s) low = middle;
      else high = middle;
    }
    const n = this.line.length / 2;
    const width = this.shares[high] - this.shares[low];
    const t = width > 0 ? (s - this.shares[low]) / width : 0;
    const [i, j] = [2 * (low % n), 2 * (high % n)];
    return [
      this.line[i] + (this.line[j] - this.line[i]) * t,
      this.line[i + 1] + (this.line[j + 1] - this.line[i + 1]) * t,
    ];
  }
}
