import { current, type Draft, isDraft } from 'immer';
import type { Figure, Id, IdSource, LaneRecord, Part, Piece, Pose, Shift, TextRecord } from '../records';
import { lanesOf } from '../records';
import type { PieceDraft } from './edit';

/** What people call something is never an id. */
const WORDS = new Set(['name', 'content', 'font']);

/**
 * Puts copies of figures on top of the others, in their order: poses, shifts with all that was decided about them, lanes, texts and, where both are copied, what clips them.
 * Anchors remember the ones that they were copied from.
 *
 * @returns the ids of the copies, in stacking order
 */
export function duplicateFigures(draft: PieceDraft, figureIds: readonly Id[], newId: IdSource): Id[] {
  const piece = structuredClone(plainPiece(draft, figureIds));
  const ids = new Map<string, string>();
  collectIds(piece, newId, ids);
  const copy = withIds(piece, ids) as typeof piece;
  for (const figure of copy.figures) {
    draft.figures[figure.id] = figure as Draft<Figure>;
    draft.figureOrder.push(figure.id);
  }
  for (const pose of copy.poses) draft.poses[pose.id] = pose as Draft<Pose>;
  for (const [i, part] of copy.parts.entries()) draft.parts[part.id] = withOrigins(part, piece.parts[i]) as Draft<Part>;
  for (const shift of copy.shifts) draft.shifts[shift.id] = shift as Draft<Shift>;
  for (const lane of copy.lanes) draft.lanes[lane.id] = lane as Draft<LaneRecord>;
  for (const text of copy.texts) draft.texts[text.id] = text as Draft<TextRecord>;
  return copy.figures.map(({ id }) => id);
}

interface Copied {
  readonly figures: readonly Figure[];
  readonly poses: readonly Pose[];
  readonly parts: readonly Part[];
  readonly shifts: readonly Shift[];
  readonly lanes: readonly LaneRecord[];
  readonly texts: readonly TextRecord[];
}

/** All records that belong to figures, as plain data. */
function plainPiece(draft: PieceDraft, figureIds: readonly Id[]): Copied {
  const piece = (isDraft(draft) ? current(draft) : draft) as Piece;
  const figures = piece.figureOrder.filter((id) => figureIds.includes(id)).map((id) => piece.figures[id]);
  const poses = figures.flatMap((figure) => figure.poses.map((id) => piece.poses[id]));
  const parts = poses.flatMap((pose) => pose.parts.map((id) => piece.parts[id]));
  const used = new Set(parts.flatMap(({ source }) => (source?.kind === 'glyph' ? [source.text] : [])));
  return {
    figures,
    poses,
    parts,
    shifts: figures.flatMap((figure) => figure.rail.map((id) => piece.shifts[id])),
    lanes: figures.flatMap(({ id }) => lanesOf(piece, id)),
    texts: [...used].map((id) => piece.texts[id]),
  };
}

/** A new id for every record in a value that has one. */
function collectIds(value: unknown, newId: IdSource, ids: Map<string, string>): void {
  if (Array.isArray(value)) for (const item of value) collectIds(item, newId, ids);
  else if (typeof value === 'object' && value !== null)
    for (const [key, inner] of Object.entries(value)) {
      if (key === 'id' && typeof inner === 'string') ids.set(inner, newId('d'));
      else collectIds(inner, newId, ids);
    }
}

/** A value with all its ids, and all that refers to them, replaced; other records' ids stay. */
function withIds(value: unknown, ids: ReadonlyMap<string, string>): unknown {
  if (typeof value === 'string') return ids.get(value) ?? value;
  if (Array.isArray(value)) return value.map((item) => withIds(item, ids));
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, inner]) => [
      key,
      WORDS.has(key) || key === 'origin' ? inner : withIds(inner, ids),
    ]),
  );
}

/** The copy of a part with anchors that remember where they come from. */
const withOrigins = (copy: Part, original: Part): Part => ({
  ...copy,
  contours: copy.contours.map((contour, c) => ({
    ...contour,
    anchors: contour.anchors.map((anchor, i) => {
      const before = original.contours[c].anchors[i];
      return { ...anchor, origin: before.origin ?? before.id };
    }),
  })),
});
