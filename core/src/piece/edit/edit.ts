import { current, type Draft, isDraft } from 'immer';
import { type AreaCentre, placementsOfFigure, rememberCentre } from '../place';
import type { Figure, Id, IdSource, Part, Piece, Placement, PlacementRule, Pose, Shift } from '../records';
import { DEFAULT_RULE, newFigure, newShift } from '../records';
import { isClosedRail, stopsOf } from '../time';

/** Changes to a piece, as recipes that write into a draft; the caller turns them into reversible diffs. */
export type PieceDraft = Draft<Piece>;

/** A pose with its parts, not yet in a piece. */
export interface NewPose {
  readonly pose: Pose;
  readonly parts: readonly Part[];
  /** Centres of the parts' areas, where somebody has measured them already. */
  readonly centres?: readonly AreaCentre[];
}

/** Adds a figure without poses on top of the others. */
export function addFigure(draft: PieceDraft, id: Id, name: string): void {
  draft.figures[id] = newFigure(id, name) as Draft<Figure>;
  draft.figureOrder.push(id);
}

/**
 * Puts poses on a figure's rail before stop `at` (default: at the end; on a closed rail before the return), with eased shifts between them,
 * and places them by their rules.
 */
export function insertPoses(
  draft: PieceDraft,
  figureId: Id,
  added: readonly NewPose[],
  newId: IdSource,
  at?: number,
): void {
  const figure = draft.figures[figureId];
  const stops = stopsOf(draft as Piece, figure as Figure);
  const index = at ?? (isClosedRail(draft as Piece, figure as Figure) ? stops.length - 1 : stops.length);
  const known = new Set(stops);
  for (const { pose, parts, centres } of added) {
    if (centres) for (const [i, part] of parts.entries()) rememberCentre(part, centres[i]);
    draft.poses[pose.id] = pose as Draft<Pose>;
    // Frozen at its door, a part is not walked through to be frozen all over: that took half a second for some thousand contours.
    for (const part of parts) draft.parts[part.id] = Object.freeze(part) as Draft<Part>;
  }
  stops.splice(index, 0, ...added.map(({ pose }) => pose.id));
  // The first pose of the table is the one that others are fitted to: it stays so unless the new ones come before it.
  const others = figure.poses.filter((id) => !known.has(id));
  figure.poses = [...new Set([...stops, ...others])];
  rebuildRail(draft, figureId, stops, newId);
  applyPlacementRules(draft, figureId);
}

/** Takes a stop off the rail; a pose that no stop shows any more goes with its parts. A closed rail stays closed where it can. */
export function removeStop(draft: PieceDraft, figureId: Id, stop: number, newId: IdSource): void {
  const figure = draft.figures[figureId];
  const stops = stopsOf(draft as Piece, figure as Figure);
  const closed = isClosedRail(draft as Piece, figure as Figure);
  const [gone] = stops.splice(stop, 1);
  // The first stop of a closed rail is also its last.
  if (closed && stop === 0) stops[stops.length - 1] = stops[0];
  const chain = stops.filter((id, i) => i === 0 || id !== stops[i - 1]);
  rebuildRail(draft, figureId, chain, newId);
  if (!chain.includes(gone)) {
    figure.poses = figure.poses.filter((id) => id !== gone);
    dropPose(draft, gone);
  }
  applyPlacementRules(draft, figureId);
}

/** Takes a pose out of the tables, with its parts and texts; the caller has taken it off its rail. */
function dropPose(draft: PieceDraft, poseId: Id): void {
  for (const id of draft.poses[poseId].parts) delete draft.parts[id];
  delete draft.poses[poseId];
  dropUnusedTexts(draft);
}

/** Texts that no glyph belongs to any more go. */
export function dropUnusedTexts(draft: PieceDraft): void {
  const used = new Set(
    Object.values(draft.parts).flatMap(({ source }) => (source?.kind === 'glyph' ? [source.text] : [])),
  );
  for (const id of Object.keys(draft.texts)) if (!used.has(id)) delete draft.texts[id];
}

/** Takes a figure away with all that is its own; figures that it clipped are seen whole again. */
export function removeFigure(draft: PieceDraft, figureId: Id): void {
  const figure = draft.figures[figureId];
  for (const id of figure.rail) delete draft.shifts[id];
  for (const id of [...figure.poses]) dropPose(draft, id);
  draft.figureOrder = draft.figureOrder.filter((id) => id !== figureId);
  for (const lane of Object.values(draft.lanes)) if (lane.figure === figureId) delete draft.lanes[lane.id];
  delete draft.figures[figureId];
  for (const other of Object.values(draft.figures)) if (other.clip === figureId) other.clip = null;
  if (figure.group && !Object.values(draft.figures).some(({ group }) => group === figure.group))
    delete draft.groups[figure.group];
}

/** Moves a stop to another place in the order. */
export function moveStop(draft: PieceDraft, figureId: Id, from: number, to: number, newId: IdSource): void {
  const figure = draft.figures[figureId];
  const closed = isClosedRail(draft as Piece, figure as Figure);
  const stops = stopsOf(draft as Piece, figure as Figure);
  if (closed) stops.pop();
  const [moved] = stops.splice(from, 1);
  stops.splice(Math.min(to, stops.length), 0, moved);
  if (closed) stops.push(stops[0]);
  rebuildRail(
    draft,
    figureId,
    stops.filter((id, i) => i === 0 || id !== stops[i - 1]),
    newId,
  );
}

/** Adds the way back from the last pose to the first, or takes it off. */
export function setClosedRail(draft: PieceDraft, figureId: Id, closed: boolean, newId: IdSource): void {
  const figure = draft.figures[figureId];
  if (isClosedRail(draft as Piece, figure as Figure) === closed) return;
  const stops = stopsOf(draft as Piece, figure as Figure);
  if (closed) stops.push(stops[0]);
  else stops.pop();
  rebuildRail(draft, figureId, stops, newId);
}

/**
 * Makes the rail pass `stops`. Shifts between the same two poses are kept with all that was set. A new shift takes duration and easing
 * from the one whose place it takes, and one that leads back to the beginning from the one before it.
 */
export function rebuildRail(draft: PieceDraft, figureId: Id, stops: readonly Id[], newId: IdSource): void {
  const figure = draft.figures[figureId];
  const old = figure.rail.map((id) => draft.shifts[id]);
  const free = new Set(old);
  const rail: Id[] = [];
  for (let i = 0; i + 1 < stops.length; i++) {
    const kept = [...free].find((shift) => shift.from === stops[i] && shift.to === stops[i + 1]);
    if (kept) {
      free.delete(kept);
      rail.push(kept.id);
      continue;
    }
    const shift = newShift(newId('s'), stops[i], stops[i + 1]);
    const back = i > 0 && stops[i + 1] === stops[0] ? draft.shifts[rail[i - 1]] : undefined;
    const like = old.find((other) => other.from === stops[i]) ?? old.find((other) => other.to === stops[i + 1]) ?? back;
    draft.shifts[shift.id] = {
      ...shift,
      ...(like && { duration: like.duration, easing: { ...like.easing } }),
    } as Draft<Shift>;
    rail.push(shift.id);
  }
  for (const shift of free) delete draft.shifts[shift.id];
  figure.rail = rail;
}

/** Places every pose of the figure whose rule is alive. */
export function applyPlacementRules(draft: PieceDraft, figureId: Id): void {
  // Read as plain records: what was not changed is then known by identity and is not measured again.
  const piece = (isDraft(draft) ? current(draft) : draft) as Piece;
  for (const [id, placement] of placementsOfFigure(piece, piece.figures[figureId])) {
    draft.poses[id].placement = placement as Draft<Placement>;
  }
}

/** Gives a pose a placement rule and places it. */
export function setPlacementRule(
  draft: PieceDraft,
  figureId: Id,
  poseId: Id,
  rule: PlacementRule = DEFAULT_RULE,
): void {
  draft.poses[poseId].placement.rule = { ...rule } as Draft<PlacementRule>;
  applyPlacementRules(draft, figureId);
}
