import { current, type Draft, isDraft } from 'immer';
import { toMillionths } from '../../num';
import type { Figure, Id, IdSource, LaneKey, LaneProperty, LaneRecord, Piece } from '../records';
import { isDriven, isNeutral, isShapeNumber, laneLimits, laneOf, neutralOf, standsInPlace } from '../records';
import { ownValue, poseCanHave, railTimeline, stopName, stopNamed, stopsOf, timedKeys } from '../time';
import type { PieceDraft } from './edit';

/**
 * Gives a figure a value at a stop. A lane that it did not have begins with keys at all stops, so that the others stay as they are; one that says nothing
 * anywhere goes again.
 */
export function setLaneAtStop(
  draft: PieceDraft,
  figureId: Id,
  property: LaneProperty,
  stop: number,
  value: readonly number[],
  newId: IdSource,
): void {
  const piece = plain(draft);
  const figure = piece.figures[figureId];
  const stops = stopsOf(piece, figure);
  const lane = laneOf(piece, figureId, property);
  if (!lane) {
    if (isNeutral(property, value)) return;
    // The return of a closed rail takes the value of its beginning, until it is given one of its own.
    const own = stops.flatMap((pose, i) =>
      i === stop || (stops.indexOf(pose) === i && poseCanHave(piece, pose, property)) ? [i] : [],
    );
    const begins = (i: number) =>
      standsInPlace(property) ? ownValue(piece, figureId, property, i) : neutralOf(property);
    const keys = own.map((i) => newKey(newId, figure, stops, i, i === stop ? value : begins(i)));
    const id = newId('l');
    draft.lanes[id] = { id, figure: figureId, property, keys } as Draft<LaneRecord>;
    return;
  }
  const held = lane.keys.findIndex(
    (key) => key.after === null && key.stop && stopNamed(figure, stops, key.stop) === stop,
  );
  const keys = [...lane.keys];
  if (held >= 0) keys[held] = { ...keys[held], value: [...value] };
  else keys.push(newKey(newId, figure, stops, stop, value));
  if (keys.every((key) => isNeutral(property, key.value)) && !isDriven(lane)) delete draft.lanes[lane.id];
  else draft.lanes[lane.id].keys = keys as Draft<LaneKey>[];
}

/**
 * Gives a figure, or the canvas, a lane that changes nothing yet, with a key at each stop, or at the beginning; nothing happens where it has one.
 * @returns its id; undefined where it cannot have one
 */
export function addLane(
  draft: PieceDraft,
  figureId: Id | null,
  property: LaneProperty,
  newId: IdSource,
): Id | undefined {
  const piece = plain(draft);
  const known = laneOf(piece, figureId, property);
  if (known) return known.id;
  const id = newId('l');
  if (figureId === null) {
    const keys = [
      { id: newId('k'), stop: null, after: 0, value: [...ownValue(piece, null, property, 0)], easing: null },
    ];
    draft.lanes[id] = { id, figure: null, property, keys } as Draft<LaneRecord>;
    return id;
  }
  const figure = piece.figures[figureId];
  const stops = stopsOf(piece, figure);
  const own = stops.flatMap((pose, i) => (stops.indexOf(pose) === i && poseCanHave(piece, pose, property) ? [i] : []));
  if (own.length === 0) return undefined;
  const begins = (i: number) =>
    standsInPlace(property) ? ownValue(piece, figureId, property, i) : neutralOf(property);
  const keys = own.map((i) => newKey(newId, figure, stops, i, begins(i)));
  draft.lanes[id] = { id, figure: figureId, property, keys } as Draft<LaneRecord>;
  return id;
}

/** Puts a free key into a lane, at a time in s; it belongs to the stop before it, with which it travels. */
export function addFreeKey(
  draft: PieceDraft,
  laneId: Id,
  seconds: number,
  value: readonly number[],
  newId: IdSource,
): Id {
  const piece = plain(draft);
  const { figure: figureId } = piece.lanes[laneId];
  const id = newId('k');
  draft.lanes[laneId].keys.push({
    id,
    ...placeOfKey(piece, figureId, seconds),
    value: [...value],
    easing: null,
  } as Draft<LaneKey>);
  return id;
}

/** How a free key at a time in s is stored: after the stop that stands, or is left, then; on the canvas after the beginning. */
export function placeOfKey(piece: Piece, figureId: Id | null, seconds: number): Pick<LaneKey, 'stop' | 'after'> {
  if (figureId === null) return { stop: null, after: toMillionths(seconds) };
  const figure = piece.figures[figureId];
  const { stops: timed } = railTimeline(piece, figure);
  const before = timed.reduce((best, { start }, i) => (start <= seconds ? i : best), 0);
  return { stop: stopName(figure, stopsOf(piece, figure), before), after: toMillionths(seconds - timed[before].start) };
}

/** Changes a key: its value, how it goes on, or when a free one stands. */
export function changeKey(
  draft: PieceDraft,
  laneId: Id,
  keyId: Id,
  change: Partial<Pick<LaneKey, 'value' | 'easing' | 'after' | 'path'>>,
): void {
  const key = draft.lanes[laneId]?.keys.find(({ id }) => id === keyId);
  if (key) Object.assign(key, structuredClone(change));
}

/**
 * A wind-up before, and an overshoot after, the way from a key to the next one. It goes a tenth to a fifth of the way back for a third of the time, and a tenth too far
 * before it settles (common practice). They are free keys: the first travels with what is left, the second with what is reached.
 */
const WIND_UP = { way: 0.15, time: 0.33 } as const;
const SETTLE = { way: 0.1, time: 0.22 } as const;

/** The nearest number that a lane can have. */
function possible(property: LaneProperty, part: number, value: number): number {
  const [least, most] = laneLimits(property, part);
  return Math.min(most, Math.max(least, toMillionths(value)));
}

/** Puts a wind-up and an overshoot on the way from a key to the next; nothing happens where it leads nowhere, or takes no time. */
export function addWindUp(draft: PieceDraft, laneId: Id, keyId: Id, newId: IdSource): void {
  const piece = plain(draft);
  const lane = piece.lanes[laneId];
  const figure = lane.figure === null ? null : piece.figures[lane.figure];
  const keys = timedKeys(piece, figure, lane);
  const at = keys.findIndex(({ key }) => key.id === keyId);
  const [from, to] = [keys[at], keys[at + 1]];
  if (!from || !to || from.key.value.every((v, i) => v === to.key.value[i])) return;
  const seconds = to.from - from.until;
  if (!(seconds > 0) || !figure) return;
  const { stops } = railTimeline(piece, figure);
  const names = stopsOf(piece, figure);
  const set = newId('w');
  const free = (stop: number, when: number, share: number): LaneKey => ({
    id: newId('k'),
    stop: stopName(figure, names, stop),
    after: toMillionths(when - stops[stop].start),
    value: from.key.value.map((v, i) => possible(lane.property, i, v + (to.key.value[i] - v) * share)),
    easing: null,
    set,
  });
  draft.lanes[laneId].keys.push(
    free(from.stop, from.until + WIND_UP.time * seconds, -WIND_UP.way) as Draft<LaneKey>,
    free(to.stop, to.from - SETTLE.time * seconds, 1 + SETTLE.way) as Draft<LaneKey>,
  );
}

/** Lets a lane follow, drift or pulse, or (undefined) no longer; a lane that says nothing any more goes. */
export function driveLane(
  draft: PieceDraft,
  laneId: Id,
  drives: Partial<Pick<LaneRecord, 'follow' | 'drift' | 'pulse'>>,
): void {
  const lane = draft.lanes[laneId];
  if (!lane) return;
  for (const name of ['follow', 'drift', 'pulse'] as const) {
    if (!(name in drives)) continue;
    if (drives[name] === undefined) delete lane[name];
    else Object.assign(lane, { [name]: structuredClone(drives[name]) });
  }
  if (lane.keys.length === 0 && !isDriven(lane as LaneRecord)) delete draft.lanes[laneId];
}

/** Takes all keys of a set away that one action put in. */
export function removeKeySet(draft: PieceDraft, set: Id): void {
  for (const lane of Object.values(draft.lanes)) {
    const keys = lane.keys.filter((key) => key.set !== set);
    if (keys.length === 0 && lane.keys.length > 0 && !isDriven(lane)) delete draft.lanes[lane.id];
    else if (keys.length < lane.keys.length) lane.keys = keys;
  }
}

/** Takes keys out of a lane, and the lane with the last of them. */
export function removeKeys(draft: PieceDraft, laneId: Id, keyIds: readonly Id[]): void {
  const lane = draft.lanes[laneId];
  if (!lane) return;
  const gone = new Set(keyIds);
  const keys = lane.keys.filter(({ id }) => !gone.has(id));
  if (keys.length === 0 && !isDriven(lane)) delete draft.lanes[laneId];
  else lane.keys = keys;
}

const newKey = (
  newId: IdSource,
  figure: Figure,
  stops: readonly Id[],
  stop: number,
  value: readonly number[],
): LaneKey => ({
  id: newId('k'),
  stop: stopName(figure, stops, stop),
  after: null,
  value: [...value],
  easing: null,
});

/**
 * Carries lanes over a change of the rails. Keys are named by the stops that they stand at now, those of poses that are gone go. A new stop of a lane that
 * had a key at every stop gets one with the value of the stop before it. Returns the lanes that are other now; null: the lane goes.
 */
export function keepLanes(before: Piece, after: Piece): ReadonlyMap<Id, LaneRecord | null> {
  const changed = new Map<Id, LaneRecord | null>();
  for (const lane of Object.values(after.lanes)) {
    // What follows a figure that is gone keeps its keys, and goes where it has none.
    const { follow, ...free } = lane;
    if (follow && follow.figure !== null && !after.figures[follow.figure]) {
      changed.set(lane.id, lane.keys.length > 0 || isDriven(free) ? free : null);
      continue;
    }
    if (lane.figure === null) continue;
    const figure = after.figures[lane.figure];
    const was = before.figures[lane.figure];
    if (!figure) {
      changed.set(lane.id, null);
      continue;
    }
    if (!was || (was.rail === figure.rail && was.poses === figure.poses && sameShifts(before, after, figure))) continue;
    const keys = keysOn(after, figure, lane, stopsOf(before, was), was);
    if (keys.length === 0 && !isDriven(lane)) changed.set(lane.id, null);
    else if (keys.length !== lane.keys.length || keys.some((key, i) => key !== lane.keys[i]))
      changed.set(lane.id, { ...lane, keys });
  }
  return changed;
}

/** Do the shifts of a rail lead from and to the poses that they did? */
const sameShifts = (before: Piece, after: Piece, { rail }: Figure): boolean =>
  rail.every(
    (id) => before.shifts[id]?.from === after.shifts[id].from && before.shifts[id]?.to === after.shifts[id].to,
  );

function keysOn(piece: Piece, figure: Figure, lane: LaneRecord, oldStops: readonly Id[], was: Figure): LaneKey[] {
  const stops = stopsOf(piece, figure);
  const taken = new Set<number>();
  const keys: LaneKey[] = [];
  const held = new Map<number, LaneKey>();
  for (const key of lane.keys) {
    const stop = key.stop ? stopNamed(figure, stops, key.stop) : -1;
    if (stop < 0 || (key.after === null && taken.has(stop))) continue;
    const name = stopName(figure, stops, stop);
    const same = name.pose === key.stop?.pose && name.shift === key.stop.shift;
    const kept = same ? key : { ...key, stop: name };
    keys.push(kept);
    if (key.after !== null) continue;
    taken.add(stop);
    held.set(stop, kept);
  }
  const atOld = new Set(
    lane.keys.flatMap((key) => (key.after === null && key.stop ? [stopNamed(was, oldStops, key.stop)] : [])),
  );
  const can = (pose: Id): boolean => piece.poses[pose] !== undefined && poseCanHave(piece, pose, lane.property);
  const everywhere = oldStops.every((pose, i) => atOld.has(i) || oldStops.indexOf(pose) < i || !can(pose));
  if (!everywhere || lane.keys.length === 0) return keys;
  const known = new Set(oldStops);
  stops.forEach((pose, i) => {
    if (known.has(pose) || held.has(i) || stops.indexOf(pose) < i || !can(pose)) return;
    const like = i > 0 ? held.get(i - 1) : held.get(1);
    // Named after its pose, so that the same change gives the same record.
    const key: LaneKey = {
      id: `k-${pose}`.slice(0, 64),
      stop: stopName(figure, stops, i),
      after: null,
      value: valueOfNewStop(piece, figure, lane.property, i, like),
      easing: null,
    };
    held.set(i, key);
    keys.push(key);
  });
  return keys;
}

/** What a new stop begins with: the value of the stop before it, but another shape has its own numbers. */
function valueOfNewStop(
  piece: Piece,
  figure: Figure,
  property: LaneProperty,
  stop: number,
  like: LaneKey | undefined,
): readonly number[] {
  if (!isShapeNumber(property)) return like?.value ?? neutralOf(property);
  const own = ownValue(piece, figure.id, property, stop);
  const before = stop > 0 ? ownValue(piece, figure.id, property, stop - 1) : own;
  return like && own.every((v, i) => v === before[i]) ? like.value : own;
}

const plain = (draft: PieceDraft): Piece => (isDraft(draft) ? current(draft) : draft) as Piece;
