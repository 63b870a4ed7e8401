import { describe, expect, test } from '@jest/globals';
import { countedIds, drawnPose, pieceOf } from '../../testing/pieces';
import { laneOf } from '../records/lane-values';
import type { LaneProperty, Piece } from '../records/records';
import { checkPiece } from '../rules/check-piece';
import { stopName, stopNamed, timedKeys } from '../time/lane-keys';
import { stopsOf } from '../time/rail';
import { insertPoses, moveStop, type PieceDraft, removeFigure, removeStop, setClosedRail } from './edit';
import { addWindUp, driveLane, keepLanes, removeKeySet, setLaneAtStop } from './edit-lanes';

const SQUARE = 'M0 0H10V10H0Z';
const DIAMOND = 'M5 0L10 5L5 10L0 5Z';
const BAR = 'M0 0H20V4H0Z';
/** Three poses held for 0.8 s each, with shifts of 0.6 s. */
const three = (): PieceDraft => structuredClone(pieceOf([SQUARE, DIAMOND, BAR])) as PieceDraft;
const as = (draft: PieceDraft): Piece => structuredClone(draft) as Piece;

const set = (draft: PieceDraft, property: LaneProperty, stop: number, value: readonly number[]): void =>
  setLaneAtStop(draft, 'f', property, stop, value, countedIds());
/** Values of a lane in time: from, until, value. */
const valuesOf = (piece: Piece, property: LaneProperty) => {
  const lane = laneOf(piece, 'f', property);
  return lane
    ? timedKeys(piece, piece.figures.f, lane).map(({ from, until, key }) => [
        +from.toFixed(3),
        +until.toFixed(3),
        ...key.value,
      ])
    : [];
};
/** A change of the rail, with the lanes carried over as the program does. */
function changed(draft: PieceDraft, change: (next: PieceDraft) => void): Piece {
  const before = as(draft);
  const next = structuredClone(before) as PieceDraft;
  change(next);
  for (const [id, lane] of keepLanes(before, as(next)))
    if (lane) next.lanes[id] = lane as PieceDraft['lanes'][string];
    else delete next.lanes[id];
  const after = as(next);
  // Whatever was done to the rail, it can be saved.
  checkPiece(JSON.parse(JSON.stringify(after)));
  return after;
}

describe('a value at a stop', () => {
  test('leaves the other stops as they are, and stands through its hold', () => {
    const draft = three();
    set(draft, 'position', 1, [30, -5]);
    expect(valuesOf(as(draft), 'position')).toEqual([
      [0, 0.8, 0, 0],
      [1.4, 2.2, 30, -5],
      [2.8, 3.6, 0, 0],
    ]);
    set(draft, 'position', 1, [7, 8]);
    expect(valuesOf(as(draft), 'position')[1]).toEqual([1.4, 2.2, 7, 8]);
  });
  test('that says nothing makes no lane, and the last one that said something takes its lane along', () => {
    const draft = three();
    set(draft, 'turn', 0, [0]);
    expect(draft.lanes).toEqual({});
    set(draft, 'turn', 2, [90]);
    expect(Object.keys(draft.lanes)).toHaveLength(1);
    set(draft, 'turn', 2, [0]);
    expect(draft.lanes).toEqual({});
  });
  test('goes on as the shift that lies between, or by an easing of its own', () => {
    const draft = three();
    set(draft, 'turn', 1, [90]);
    const [first] = draft.figures.f.rail;
    draft.shifts[first].easing = { kind: 'linear' };
    const keys = () => timedKeys(as(draft), as(draft).figures.f, laneOf(as(draft), 'f', 'turn') as never);
    expect(keys()[0].easing).toEqual({ kind: 'linear' });
    const [lane] = Object.values(draft.lanes);
    lane.keys[0].easing = { kind: 'cubic-bezier', x1: 0, y1: 0, x2: 1, y2: 1 };
    expect(keys()[0].easing).toEqual(lane.keys[0].easing);
  });
  test('comes back at the end of a closed rail, unless the return has its own', () => {
    const draft = three();
    setClosedRail(draft, 'f', true, countedIds());
    set(draft, 'turn', 0, [20]);
    expect(valuesOf(as(draft), 'turn').at(-1)).toEqual([4.2, 4.2, 20]);
    set(draft, 'turn', 3, [380]);
    expect(valuesOf(as(draft), 'turn').map(([, , value]) => value)).toEqual([20, 0, 0, 380]);
  });
  test('a free key stands at its time after the stop, and travels with it', () => {
    const draft = three();
    set(draft, 'opacity', 1, [0.5]);
    const [lane] = Object.values(draft.lanes);
    const stop = stopName(as(draft).figures.f, stopsOf(as(draft), as(draft).figures.f), 1);
    lane.keys.push({ id: 'free', stop, after: -0.2, value: [0.1], easing: null });
    expect(valuesOf(as(draft), 'opacity')[1]).toEqual([1.2, 1.2, 0.1]);
    draft.poses[draft.figures.f.poses[0]].hold = 1.8;
    expect(valuesOf(as(draft), 'opacity')[1]).toEqual([2.2, 2.2, 0.1]);
  });
});

describe('names of stops', () => {
  test('tell a pose that is passed twice apart, and find it when its shift is gone', () => {
    const draft = three();
    setClosedRail(draft, 'f', true, countedIds());
    const piece = as(draft);
    const { f } = piece.figures;
    const stops = stopsOf(piece, f);
    expect(stops.map((_, i) => stopNamed(f, stops, stopName(f, stops, i)))).toEqual([0, 1, 2, 3]);
    expect(stopNamed(f, stops, { pose: stops[1], shift: 'gone' })).toBe(1);
    expect(stopNamed(f, stops, { pose: 'gone', shift: f.rail[0] })).toBe(-1);
  });
});

describe('a changed rail', () => {
  const turned = (): PieceDraft => {
    const draft = three();
    set(draft, 'turn', 0, [10]);
    set(draft, 'turn', 1, [20]);
    set(draft, 'turn', 2, [30]);
    return draft;
  };
  const turns = (piece: Piece): number[] => valuesOf(piece, 'turn').map(([, , value]) => value);

  test('a pose that is put in stands as the one before it', () => {
    const newId = countedIds();
    const ids = (prefix: string): string => `new-${newId(prefix)}`;
    const after = changed(turned(), (next) => insertPoses(next, 'f', [drawnPose(BAR, ids)], ids, 2));
    expect(turns(after)).toEqual([10, 20, 20, 30]);
    const first = changed(turned(), (next) => insertPoses(next, 'f', [drawnPose(BAR, ids)], ids, 0));
    expect(turns(first)).toEqual([10, 10, 20, 30]);
  });
  test('values go with their poses when these change places, and go away with them', () => {
    expect(turns(changed(turned(), (next) => moveStop(next, 'f', 0, 2, countedIds())))).toEqual([20, 30, 10]);
    expect(turns(changed(turned(), (next) => removeStop(next, 'f', 1, countedIds())))).toEqual([10, 30]);
    expect(changed(turned(), (next) => removeFigure(next, 'f')).lanes).toEqual({});
  });
  test('a lane that leaves a stop out goes on straight through what is put in', () => {
    const draft = turned();
    const [lane] = Object.values(draft.lanes);
    lane.keys.splice(1, 1);
    const newId = countedIds();
    const ids = (prefix: string): string => `new-${newId(prefix)}`;
    expect(turns(changed(draft, (next) => insertPoses(next, 'f', [drawnPose(BAR, ids)], ids, 1)))).toEqual([10, 30]);
  });
});

describe('lanes that lead nowhere', () => {
  const spoil = (change: (draft: PieceDraft) => void) => (): void => {
    const draft = three();
    set(draft, 'scale', 1, [2, 2]);
    change(draft);
    checkPiece(JSON.parse(JSON.stringify(draft)));
  };
  const lane = (draft: PieceDraft) => Object.values(draft.lanes)[0];

  test.each<[string, RegExp, (draft: PieceDraft) => void]>([
    ['of a figure that is not there', /figure must name a figure/, (d) => void (lane(d).figure = 'none')],
    [
      'with a key at a pose that is not there',
      /stop\/pose must name a pose/,
      (d) => void (lane(d).keys[0].stop = { pose: 'none', shift: null }),
    ],
    [
      'with a key at a shift that is not there',
      /stop\/shift must name a shift/,
      (d) => void Object.assign(lane(d).keys[1].stop ?? {}, { shift: 'none' }),
    ],
    [
      'with two keys at one stop',
      /stop that has no key yet/,
      (d) => void (lane(d).keys[1].stop = structuredClone(lane(d).keys[0].stop)),
    ],
    ['with too few numbers', /2 numbers for scale/, (d) => void (lane(d).keys[0].value = [1])],
    ['twice the same', /only one of its figure/, (d) => void (d.lanes.again = { ...lane(d), id: 'again' })],
    ['without keys', /have a key, or follow, drift or pulse/, (d) => void (lane(d).keys = [])],
  ])('%s', (_name, says, change) => {
    expect(spoil(change)).toThrow(says);
  });
  test('an opacity beyond 1', () => {
    const draft = three();
    set(draft, 'opacity', 1, [1.5]);
    expect(() => checkPiece(JSON.parse(JSON.stringify(draft)))).toThrow(/from 0 to 1, for opacity/);
  });
});

describe('wind-up and settle', () => {
  test('never leave what a lane can have: no width below nothing, no share beyond the whole', () => {
    for (const [property, value] of [
      ['strokeWidth', [20]],
      ['softness', [9]],
      ['drawn', [0, 0.4, 0]],
      ['opacity', [0.1]],
    ] as const) {
      const draft = three();
      set(draft, property, 1, value);
      const [{ id, keys }] = Object.values(draft.lanes);
      addWindUp(draft, id, keys[0].id, countedIds());
      expect(keys.filter((key) => key.set)).toHaveLength(2);
      expect(() => checkPiece(JSON.parse(JSON.stringify(draft)))).not.toThrow();
    }
  });
  const moved = (): PieceDraft => {
    const draft = three();
    set(draft, 'position', 1, [100, 0]);
    return draft;
  };
  const lane = (draft: PieceDraft) => Object.values(draft.lanes)[0];

  test('a little back for a third of the time, a tenth too far before it arrives; both go as one', () => {
    const draft = moved();
    const { id, keys } = lane(draft);
    addWindUp(draft, id, keys[0].id, countedIds());
    const values = valuesOf(as(draft), 'position');
    expect(values).toEqual([
      [0, 0.8, 0, 0],
      [0.998, 0.998, -15, 0],
      [1.268, 1.268, 110, 0],
      [1.4, 2.2, 100, 0],
      [2.8, 3.6, 0, 0],
    ]);
    // The second travels with the pose that is reached.
    draft.shifts[draft.figures.f.rail[0]].duration = 1.6;
    expect(valuesOf(as(draft), 'position')[2].slice(0, 1)).toEqual([2.268]);
    checkPiece(JSON.parse(JSON.stringify(draft)));
    removeKeySet(draft, lane(draft).keys.find((key) => key.set)?.set ?? '');
    expect(lane(draft).keys).toHaveLength(3);
  });
  test('there is none where nothing moves, and an opacity stays one', () => {
    const draft = moved();
    set(draft, 'position', 0, [100, 0]);
    addWindUp(draft, lane(draft).id, lane(draft).keys[0].id, countedIds());
    expect(lane(draft).keys).toHaveLength(3);
    const faded = three();
    set(faded, 'opacity', 1, [0]);
    addWindUp(faded, lane(faded).id, lane(faded).keys[0].id, countedIds());
    expect(
      lane(faded)
        .keys.slice(3)
        .map(({ value }) => value[0]),
    ).toEqual([1, 0]);
  });
});

describe('what drives a lane', () => {
  test('is put in and taken away; a lane without keys goes with the last of it', () => {
    const draft = three();
    const pulse = { shape: 'saw', period: 1, from: 0, until: null, amount: [5] } as const;
    set(draft, 'turn', 1, [90]);
    const [{ id }] = Object.values(draft.lanes);
    driveLane(draft, id, { pulse, drift: { amount: [3], speed: 1, seed: 2 } });
    driveLane(draft, id, { drift: undefined });
    expect([draft.lanes[id].pulse, 'drift' in draft.lanes[id]]).toEqual([pulse, false]);
    draft.lanes[id].keys = [];
    driveLane(draft, id, { pulse: undefined });
    expect(draft.lanes).toEqual({});
  });
});
