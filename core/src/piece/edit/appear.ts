import { current, isDraft } from 'immer';
import type { Easing } from '../../easing';
import type { Id, IdSource, LaneKey, Piece } from '../records';
import { isDriven, isNeutral, laneOf, neutralOf } from '../records';
import { railTimeline, stopNamed, stopsOf, timedKeys } from '../time';
import type { PieceDraft } from './edit';
import { addLane, placeOfKey, removeKeySet, setLaneAtStop } from './edit-lanes';
import { fixMiddle } from './motion-path';

export const APPEARANCES = ['held', 'once', 'fading', 'growing'] as const;
/** Held before, or after, its poses; at once, at an exact frame; fading in or out; growing from, or shrinking to, its pivot or middle. */
export type Appearance = (typeof APPEARANCES)[number];

/**
 * Lets a figure appear where its first pose begins to stand, or disappear where its last one ends, in one action. Before, or after, it is hidden, and what it
 * fades or grows by are two free keys that go by one. `seconds` is how long that takes at most: not longer than the figure lasts.
 */
export function setAppearance(
  draft: PieceDraft,
  figureId: Id,
  side: 'appears' | 'disappears',
  how: Appearance,
  seconds: number,
  newId: IdSource,
): void {
  takeAway(draft, figureId, side, newId);
  draft.figures[figureId][side === 'appears' ? 'before' : 'after'] = how === 'held' ? 'held' : 'hidden';
  if (how === 'once' || how === 'held') return;
  const property = PROPERTY_OF[how];
  if (how === 'growing') fixMiddle(draft, figureId);
  const laneId = addLane(draft, figureId, property, newId);
  const piece = plain(draft);
  const figure = piece.figures[figureId];
  const { stops, duration } = railTimeline(piece, figure);
  if (!laneId || stops.length === 0) return;
  const lane = piece.lanes[laneId];
  const names = stopsOf(piece, figure);
  const stop = side === 'appears' ? 0 : stops.length - 1;
  const held = lane.keys.find(
    ({ stop: name, after }) => after === null && name && stopNamed(figure, names, name) === stop,
  );
  const timed = timedKeys(piece, figure, lane);
  const there = held ?? (side === 'appears' ? timed[0] : timed[timed.length - 1])?.key;
  const value = there?.value.some((v) => v !== 0) ? there.value : neutralOf(property);
  const nothing = value.map(() => 0);
  const set = newId('a');
  const room = Math.min(seconds, duration - figure.start);
  const [first, last] = side === 'appears' ? [figure.start, figure.start + room] : [duration - room, duration];
  const key = (time: number, at: readonly number[], easing: Easing | null = null): LaneKey => ({
    id: newId('k'),
    ...placeOfKey(piece, figureId, time),
    value: [...at],
    easing,
    set,
  });
  const made = side === 'appears' ? [key(first, nothing), key(last, value)] : [key(first, value), key(last, nothing)];
  // For the rest of its hold it stands at what it was, and goes on from there as the shift does.
  const { start, hold } = stops[stop];
  const shift = piece.shifts[figure.rail[0]];
  if (held && side === 'appears' && shift && start + hold > last) made.push(key(start + hold, value, shift.easing));
  if (held && side === 'disappears' && stop > 0 && start < first) made.push(key(start, value));
  // The key of that stop would stand level through all of its hold.
  const kept = lane.keys.filter(({ id }) => id !== held?.id || (held && stops.length > 1 && isReturn(names, stop)));
  draft.lanes[laneId].keys = structuredClone([...kept, ...made]) as PieceDraft['lanes'][string]['keys'];
}

/** Does a later stop show the same pose as the first, so that it takes its value from it? */
const isReturn = (names: readonly Id[], stop: number): boolean => stop > 0 && names[stop] === names[0];

const PROPERTY_OF = { fading: 'opacity', growing: 'scale' } as const;
type Side = 'appears' | 'disappears';

/** The two keys by which a figure fades or grows at a side; undefined where there are none. */
function keysOf(piece: Piece, figureId: Id, property: 'opacity' | 'scale', side: Side): readonly LaneKey[] | undefined {
  const figure = piece.figures[figureId];
  const lane = laneOf(piece, figureId, property);
  const timed = lane ? timedKeys(piece, figure, lane) : [];
  const { duration } = railTimeline(piece, figure);
  const edge = side === 'appears' ? figure.start : duration;
  const zero = timed.find(
    ({ key, from }) => key.set !== undefined && key.value.every((v) => v === 0) && Math.abs(from - edge) < AT_EDGE_S,
  );
  return zero && lane?.keys.filter(({ set }) => set === zero.key.set);
}

/** A key that a hand set lies at an edge where it is as near to it as this, s. */
const AT_EDGE_S = 1e-3;

/**
 * Lanes whose keys by which figures fade or grow lie where they began, or ended, before a change of their holds, shifts or start: with these keys where they
 * begin, or end, now. What a change did to the keys themselves stays.
 *
 * @returns keys by lane
 */
export function keepAppearances(before: Piece, after: Piece): Map<Id, readonly LaneKey[]> {
  const out = new Map<Id, readonly LaneKey[]>();
  for (const id of after.figureOrder) {
    if (!before.figures[id] || before.figures[id].rail.length === 0) continue;
    const [was, is] = [before, after].map((piece) => railTimeline(piece, piece.figures[id]));
    for (const side of ['appears', 'disappears'] as const) {
      const [old, now] =
        side === 'appears' ? [before.figures[id].start, after.figures[id].start] : [was.duration, is.duration];
      for (const property of ['opacity', 'scale'] as const) {
        const keys = keysOf(before, id, property, side);
        const lane = laneOf(after, id, property);
        if (!keys || !lane || keysOf(after, id, property, side)) continue;
        const moved = movedKeys(before, after, id, keys, now - old);
        const known = out.get(lane.id) ?? lane.keys;
        out.set(
          lane.id,
          known.map((key) => moved.get(key.id) ?? key),
        );
      }
    }
  }
  return out;
}

/** The two keys of an appearance later by so many s, not before the figure begins; the one that holds its value until then goes with its stop anyway. */
function movedKeys(
  before: Piece,
  after: Piece,
  figureId: Id,
  keys: readonly LaneKey[],
  later: number,
): ReadonlyMap<Id, LaneKey> {
  const lane = Object.values(before.lanes).find((each) => each.keys.includes(keys[0]));
  const timed = lane ? timedKeys(before, before.figures[figureId], lane) : [];
  const times = keys.flatMap((key) => {
    const from = timed.find((each) => each.key.id === key.id)?.from;
    return from === undefined ? [] : [{ key, from }];
  });
  const zero = times.find(({ key }) => key.value.every((v) => v === 0));
  if (!zero) return new Map();
  const beside = times
    .filter(({ key }) => key !== zero.key)
    .sort((p, q) => Math.abs(p.from - zero.from) - Math.abs(q.from - zero.from))[0];
  const { start } = after.figures[figureId];
  return new Map(
    [zero, beside].flatMap((each) =>
      each
        ? [[each.key.id, { ...each.key, ...placeOfKey(after, figureId, Math.max(start, each.from + later)) }] as const]
        : [],
    ),
  );
}

/** How a figure appears, or disappears. */
export function appearanceOf(piece: Piece, figureId: Id, side: Side): Appearance {
  if (piece.figures[figureId][side === 'appears' ? 'before' : 'after'] === 'held') return 'held';
  for (const how of ['fading', 'growing'] as const) if (keysOf(piece, figureId, PROPERTY_OF[how], side)) return how;
  return 'once';
}

/** Takes away by what it faded or grew: the stop has its value again. */
function takeAway(draft: PieceDraft, figureId: Id, side: Side, newId: IdSource): void {
  for (const property of ['opacity', 'scale'] as const) {
    const piece = plain(draft);
    const keys = keysOf(piece, figureId, property, side);
    if (!keys) continue;
    const value = keys.find((key) => key.value.some((v) => v !== 0))?.value ?? neutralOf(property);
    const count = stopsOf(piece, piece.figures[figureId]).length;
    setLaneAtStop(draft, figureId, property, side === 'appears' ? 0 : count - 1, value, newId);
    removeKeySet(draft, keys[0].set ?? '');
    const lane = laneOf(plain(draft), figureId, property);
    if (lane && !isDriven(lane) && lane.keys.every((key) => isNeutral(property, key.value)))
      delete draft.lanes[lane.id];
  }
}

const plain = (draft: PieceDraft): Piece => (isDraft(draft) ? current(draft) : draft) as Piece;
