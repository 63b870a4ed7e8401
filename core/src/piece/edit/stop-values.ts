import { isAboutPivot, linearOf } from '../../lane';
import { toMillionths } from '../../num';
import type { Id, IdSource, LaneProperty, Piece } from '../records';
import { isNeutral, laneOf, lanesOf, neutralOf, standsInPlace } from '../records';
import { canHave, stopNamed, stopsOf } from '../time';
import type { PieceDraft } from './edit';
import { setLaneAtStop } from './edit-lanes';
import { fixMiddle, middleOf } from './motion-path';

/** What the lanes of a figure say at one of its stops. */
export interface StopValues {
  /** What it is turned and scaled about, canvas px. */
  readonly pivot: readonly [x: number, y: number];
  readonly values: readonly { readonly property: LaneProperty; readonly value: readonly number[] }[];
}

/** The values of the keys that stand at a stop; of lanes that have none there nothing is said. */
export function valuesAtStop(piece: Piece, figureId: Id, stop: number): StopValues {
  const figure = piece.figures[figureId];
  const stops = stopsOf(piece, figure);
  const values = lanesOf(piece, figureId).flatMap(({ property, keys }) => {
    // The return of a closed rail has the value of its beginning, unless it has one of its own.
    const at = (wanted: number) =>
      keys.find((key) => key.after === null && key.stop && stopNamed(figure, stops, key.stop) === wanted);
    const key = at(stop) ?? at(stops.indexOf(stops[stop]));
    return key ? [{ property, value: key.value }] : [];
  });
  return { pivot: figure.pivot ?? figure.middle ?? middleOf(piece, figureId), values };
}

/**
 * Gives a figure at a stop what another one, or itself elsewhere, has: a pose that was copied there looks as where it came from. What only one of both has a lane of
 * is there too; about another pivot the same turn and scale need another position.
 */
export function putValuesAtStop(
  draft: PieceDraft,
  figureId: Id,
  stop: number,
  { pivot, values }: StopValues,
  newId: IdSource,
): void {
  const given = new Map(values.map(({ property, value }) => [property, value]));
  const turned = values.some(({ property, value }) => isAboutPivot(property) && !isNeutral(property, value));
  if (turned) fixMiddle(draft, figureId);
  const own = draft.figures[figureId].pivot ?? draft.figures[figureId].middle;
  if (turned && own) {
    const [a, b, c, d] = linearOf((id) => given.get(id) ?? neutralOf(id));
    const [dx, dy] = [pivot[0] - own[0], pivot[1] - own[1]];
    const [x, y] = given.get('position') ?? neutralOf('position');
    const moved = [x + dx - a * dx - c * dy, y + dy - b * dx - d * dy].map((v) => toMillionths(v));
    if (moved[0] !== x || moved[1] !== y) given.set('position', moved);
  }
  // What lies on top of a pose is not there where nothing is said of it.
  for (const { property } of lanesOf(draft as Piece, figureId))
    if (!given.has(property) && !standsInPlace(property)) given.set(property, neutralOf(property));
  for (const [property, value] of given) {
    if (
      laneOf(draft as Piece, figureId, property) ||
      canHave(draft as Piece, draft.figures[figureId] as never, property)
    )
      setLaneAtStop(draft, figureId, property, stop, value, newId);
  }
}
