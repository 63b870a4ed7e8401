import {
  areaCentre,
  type Id,
  mapPoint,
  nearestOnContour,
  outlineBox,
  outlineOfPart,
  type Piece,
  transformOutline,
} from '@core';
import type { SnapChoices } from '../../state';
import { type ShownPose, shownBox } from '../scene/scene';

/** A line to show while something snaps, canvas px; undefined ends go on for ever. */
export interface SnapHint {
  readonly axis: 'x' | 'y' | 'point';
  readonly x: number;
  readonly y: number;
  readonly label: string;
}

export interface Snapped {
  readonly x: number;
  readonly y: number;
  readonly hints: readonly SnapHint[];
}

interface Line {
  readonly at: number;
  readonly label: string;
}
interface Spot {
  readonly x: number;
  readonly y: number;
  readonly label: string;
}

/** How near something must come, screen px. */
const REACH_PX = 7;

/** Everything that a gesture may snap to, gathered once when it begins. */
export class SnapField {
  private readonly spots: Spot[] = [];
  private readonly xs: Line[] = [];
  private readonly ys: Line[] = [];

  /** `left` names figures or parts that move and so are no target; `skip` single anchors. */
  constructor(
    piece: Piece,
    private readonly poses: readonly ShownPose[],
    private readonly choices: SnapChoices,
    private readonly left: ReadonlySet<Id>,
    skip: ReadonlySet<Id> = new Set(),
  ) {
    const { width, height } = piece.canvas;
    if (choices.centres) {
      this.xs.push(
        { at: width / 2, label: 'middle of the canvas' },
        { at: 0, label: 'edge' },
        { at: width, label: 'edge' },
      );
      this.ys.push(
        { at: height / 2, label: 'middle of the canvas' },
        { at: 0, label: 'edge' },
        { at: height, label: 'edge' },
      );
    }
    if (choices.guides)
      for (const { axis, at } of piece.aids.guides) (axis === 'x' ? this.xs : this.ys).push({ at, label: 'guide' });
    this.grid = choices.grid ? piece.aids.grid.size : 0;
    for (const shown of poses) {
      if (left.has(shown.figure.id) || shown.figure.hidden) continue;
      if (choices.centres) {
        const box = shownBox(shown);
        if (box.minX <= box.maxX) {
          this.xs.push({ at: (box.minX + box.maxX) / 2, label: `middle of ${shown.figure.name}` });
          this.ys.push({ at: (box.minY + box.maxY) / 2, label: `middle of ${shown.figure.name}` });
        }
      }
      for (const part of shown.parts) {
        if (left.has(part.id)) continue;
        if (choices.centres) {
          const outline = transformOutline(outlineOfPart(part), shown.matrix);
          if (outlineBox(outline).minX <= outlineBox(outline).maxX)
            this.spots.push({ ...areaCentre(outline), label: 'centre' });
        }
        if (!choices.points) continue;
        for (const { anchors } of part.contours)
          for (const { id, at } of anchors) {
            if (skip.has(id)) continue;
            const [x, y] = mapPoint(shown.matrix, at[0], at[1]);
            this.spots.push({ x, y, label: 'point' });
          }
      }
    }
  }
  private readonly grid: number;

  /** Snaps a point: to spots and outlines first, then to lines of each axis. `zoom` is screen px for each canvas px. */
  point(x: number, y: number, zoom: number): Snapped {
    const reach = REACH_PX / zoom;
    let best: Spot | undefined;
    let least = reach;
    for (const spot of this.spots) {
      const d = Math.hypot(spot.x - x, spot.y - y);
      if (d < least) {
        least = d;
        best = spot;
      }
    }
    if (!best && this.choices.outlines) {
      for (const shown of this.poses) {
        if (this.left.has(shown.figure.id) || shown.figure.hidden) continue;
        const [px, py] = mapPoint(shown.inverse, x, y);
        const k = Math.hypot(shown.inverse[0], shown.inverse[1]);
        for (const part of shown.parts) {
          if (this.left.has(part.id)) continue;
          for (const contour of outlineOfPart(part).contours) {
            const found = nearestOnContour(contour, px, py, least * k);
            if (!found) continue;
            least = found.distance / k;
            const [hx, hy] = mapPoint(shown.matrix, found.x, found.y);
            best = { x: hx, y: hy, label: 'outline' };
          }
        }
      }
    }
    if (best) return { x: best.x, y: best.y, hints: [{ axis: 'point', x: best.x, y: best.y, label: best.label }] };
    const onX = this.onLine(this.xs, x, reach);
    const onY = this.onLine(this.ys, y, reach);
    const sx = onX?.at ?? x;
    const sy = onY?.at ?? y;
    return {
      x: sx,
      y: sy,
      hints: [
        ...(onX ? [{ axis: 'x' as const, x: sx, y: sy, label: onX.label }] : []),
        ...(onY ? [{ axis: 'y' as const, x: sx, y: sy, label: onY.label }] : []),
      ],
    };
  }

  private onLine(lines: readonly Line[], v: number, reach: number): Line | undefined {
    let best: Line | undefined;
    let least = reach;
    const consider = (line: Line): void => {
      const d = Math.abs(line.at - v);
      if (d < least) {
        least = d;
        best = line;
      }
    };
    lines.forEach(consider);
    if (this.grid > 0) consider({ at: Math.round(v / this.grid) * this.grid, label: 'grid' });
    return best;
  }

  /** Snaps a moving box by its corners, edges and middle: how far it should move beyond (dx, dy). */
  box(box: { minX: number; minY: number; maxX: number; maxY: number }, dx: number, dy: number, zoom: number): Snapped {
    const reach = REACH_PX / zoom;
    const pick = (lines: readonly Line[], at: readonly number[]): { shift: number; line?: Line } => {
      let best: { shift: number; line?: Line } = { shift: 0 };
      let least = reach;
      for (const v of at) {
        const line = this.onLine(lines, v, least);
        if (!line) continue;
        least = Math.abs(line.at - v);
        best = { shift: line.at - v, line };
      }
      return best;
    };
    const px = pick(this.xs, [(box.minX + box.maxX) / 2 + dx, box.minX + dx, box.maxX + dx]);
    const py = pick(this.ys, [(box.minY + box.maxY) / 2 + dy, box.minY + dy, box.maxY + dy]);
    const [sx, sy] = [dx + px.shift, dy + py.shift];
    return {
      x: sx,
      y: sy,
      hints: [
        ...(px.line ? [{ axis: 'x' as const, x: px.line.at, y: 0, label: px.line.label }] : []),
        ...(py.line ? [{ axis: 'y' as const, x: 0, y: py.line.at, label: py.line.label }] : []),
      ],
    };
  }
}

/** (x, y) turned about (x0, y0) to the nearest step of `degrees`. */
export function snapAngle(x0: number, y0: number, x: number, y: number, degrees = 45): [number, number] {
  const step = (degrees * Math.PI) / 180;
  const angle = Math.round(Math.atan2(y - y0, x - x0) / step) * step;
  const along = (x - x0) * Math.cos(angle) + (y - y0) * Math.sin(angle);
  return [x0 + along * Math.cos(angle), y0 + along * Math.sin(angle)];
}
