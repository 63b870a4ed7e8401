import { current, isDraft } from 'immer';
import { type Contour, measureArcLength, segmentAt, segmentCount, totalLength } from '../../outline';
import { poseBox } from '../place';
import type { Id, IdSource, LaneKey, Piece } from '../records';
import { railTimeline, stopsOf } from '../time';
import type { PieceDraft } from './edit';
import { addLane, placeOfKey } from './edit-lanes';

/** The middle of a figure's first pose, canvas px before any motion: what it turns and grows about unless another pivot was chosen. */
export function middleOf(piece: Piece, figureId: Id): readonly [x: number, y: number] {
  const pose = piece.poses[stopsOf(piece, piece.figures[figureId])[0]];
  const box = pose && poseBox(piece, pose);
  return box && box.maxX >= box.minX ? [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2] : [0, 0];
}

/** Fixes the middle about which a figure turns and grows, unless it has one or a pivot of its own. */
export function fixMiddle(draft: PieceDraft, figureId: Id): void {
  const figure = draft.figures[figureId];
  if (!figure.pivot && !figure.middle) figure.middle = [...middleOf(plain(draft), figureId)];
}

/**
 * Moves a figure along a contour, which lies in canvas px: its pivot, or middle, runs along it at even speed from the end of its first hold until its last stop
 * begins. What it had as a path goes. Nothing happens where there is no time or no way.
 */
export function moveAlongOutline(draft: PieceDraft, figureId: Id, contour: Contour, newId: IdSource): void {
  fixMiddle(draft, figureId);
  const piece = plain(draft);
  const figure = piece.figures[figureId];
  const [px, py] = figure.pivot ?? figure.middle ?? [0, 0];
  const { stops, duration } = railTimeline(piece, figure);
  if (stops.length === 0) return;
  const alone = stops.length === 1;
  const from = alone ? stops[0].start : stops[0].start + stops[0].hold;
  const until = alone ? duration : stops[stops.length - 1].start;
  const table = measureArcLength(contour);
  const length = totalLength(table);
  if (!(until > from) || !(length > 0)) return;
  const laneId = addLane(draft, figureId, 'position', newId);
  if (!laneId) return;
  const { points: p } = contour;
  const count = segmentCount(contour);
  const keys = Array.from({ length: count + 1 }, (_, i): LaneKey => {
    const at = segmentAt(i);
    const handle = (j: number): [number, number] => [p[j] - p[at], p[j + 1] - p[at + 1]];
    return {
      id: newId('k'),
      ...placeOfKey(piece, figureId, from + ((until - from) * table.cumulative[i]) / length),
      value: [p[at] - px, p[at + 1] - py],
      easing: { kind: 'linear' },
      path: { ...(i > 0 && { in: handle(at - 2) }), ...(i < count && { out: handle(at + 2) }) },
    };
  });
  draft.lanes[laneId].keys = structuredClone(keys) as PieceDraft['lanes'][string]['keys'];
}

const plain = (draft: PieceDraft): Piece => (isDraft(draft) ? current(draft) : draft) as Piece;
