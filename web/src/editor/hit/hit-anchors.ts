import {
  type Anchor,
  type AnchorRef,
  type ContourRecord,
  mapPoint,
  nearestOnContour,
  outlineOfPart,
  type Part,
} from '@core';
import type { EditTarget } from '../scene/scene';

/** An anchor with where it stands on the canvas, px. */
export interface PlacedAnchor {
  readonly ref: AnchorRef;
  readonly target: EditTarget;
  readonly part: Part;
  readonly contour: ContourRecord;
  readonly anchor: Anchor;
  readonly index: number;
  readonly x: number;
  readonly y: number;
}

/** All anchors of the parts that are worked on and consist of points. */
export function placedAnchors(targets: readonly EditTarget[]): PlacedAnchor[] {
  const out: PlacedAnchor[] = [];
  for (const target of targets) {
    for (const part of target.targets) {
      if (part.source) continue;
      for (const contour of part.contours) {
        contour.anchors.forEach((anchor, index) => {
          const [x, y] = mapPoint(target.matrix, anchor.at[0], anchor.at[1]);
          const ref = { part: part.id, contour: contour.id, anchor: anchor.id };
          out.push({ ref, target, part, contour, anchor, index, x, y });
        });
      }
    }
  }
  return out;
}

/** The anchor nearest to a point of the canvas within `reach` px; later parts lie on top. */
export function nearestAnchor(
  anchors: readonly PlacedAnchor[],
  x: number,
  y: number,
  reach: number,
): PlacedAnchor | undefined {
  let best: PlacedAnchor | undefined;
  let least = reach;
  for (const placed of anchors) {
    const d = Math.hypot(placed.x - x, placed.y - y);
    if (d <= least) {
      least = d;
      best = placed;
    }
  }
  return best;
}

/** Points that lie on each other, to this many canvas px. */
const COINCIDENT_PX = 0.02;

/** All of `among` that lie where one of `chosen` lies. */
export function coincident(chosen: readonly PlacedAnchor[], among: readonly PlacedAnchor[]): PlacedAnchor[] {
  const cell = (v: number): number => Math.round(v / COINCIDENT_PX / 4);
  const places = new Map<string, PlacedAnchor[]>();
  for (const placed of chosen) {
    const key = `${cell(placed.x)},${cell(placed.y)}`;
    places.set(key, [...(places.get(key) ?? []), placed]);
  }
  return among.filter((placed) => {
    for (let i = -1; i <= 1; i++)
      for (let j = -1; j <= 1; j++)
        for (const other of places.get(`${cell(placed.x) + i},${cell(placed.y) + j}`) ?? [])
          if (Math.hypot(other.x - placed.x, other.y - placed.y) <= COINCIDENT_PX) return true;
    return false;
  });
}

/** A place on an outline that is worked on. */
export interface OutlineHit {
  readonly target: EditTarget;
  readonly part: Part;
  readonly contour: ContourRecord;
  readonly segment: number;
  readonly t: number;
  readonly x: number;
  readonly y: number;
}

/** The nearest place on the outlines within `reach` canvas px; of equally near ones the topmost. */
export function hitOutline(
  targets: readonly EditTarget[],
  x: number,
  y: number,
  reach: number,
): OutlineHit | undefined {
  let best: OutlineHit | undefined;
  let least = reach;
  for (const target of targets) {
    const [px, py] = mapPoint(target.inverse, x, y);
    const k = Math.hypot(target.inverse[0], target.inverse[1]);
    for (const part of target.targets) {
      if (part.source) continue;
      outlineOfPart(part).contours.forEach((contour, i) => {
        const found = nearestOnContour(contour, px, py, least * k);
        if (!found) return;
        least = found.distance / k;
        const [hx, hy] = mapPoint(target.matrix, found.x, found.y);
        best = { target, part, contour: part.contours[i], segment: found.segment, t: found.t, x: hx, y: hy };
      });
    }
  }
  return best;
}
