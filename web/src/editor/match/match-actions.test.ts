import { AUTOMATIC_MATCH, type MatchChoices, type Piece, placedParts, shiftInput } from '@core';
import { beforeEach, describe, expect, test } from '@jest/globals';
import { type AppStore, createStore, documentActions } from '../../state';
import { pieceOf } from '../../testing/pieces';
import {
  addCut,
  addShiftPoint,
  addTie,
  backToAutomatic,
  releaseContour,
  removeCut,
  removeTie,
  setChoice,
  setContourDirection,
  setCuts,
  setEven,
  setMethod,
  setPair,
  setSmoothing,
  setWipe,
  takeAlternative,
  withCutEnd,
  withStart,
  withTie,
  withTouchUp,
} from './match-actions';
import { matchedShift } from './match-editing';
import { contourNear, locate, placeAtOutline, placeNear, stepAlong } from './picture-places';

const piece = pieceOf(['M0 0H100V100H0Z', 'M50 0L100 50L50 100L0 50Z']);
const [shiftId] = piece.figures.f.rail;
let store: AppStore;
const shift = () => (store.getState().document.piece as Piece).shifts[shiftId];
const match = (): MatchChoices => shift().match;
const anchor = (side: 'from' | 'to', i: number): { anchor: string } => ({
  anchor: piece.parts[piece.poses[piece.shifts[shiftId][side]].parts[0]].contours[0].anchors[i].id,
});

beforeEach(() => {
  store = createStore();
  store.dispatch(documentActions.opened({ piece, revision: 1 }));
});

describe('decisions about a match', () => {
  test('are one undoable step each, and given back one by one or all together', () => {
    setChoice(store, shiftId, 'Direction', 'direction', 'reversed');
    setMethod(store, shiftId, 'turning', 'Turning');
    setSmoothing(store, shiftId, 6);
    setEven(store, shiftId, 32);
    expect(match()).toMatchObject({ direction: 'reversed', smoothing: 6, even: 32 });
    expect(shift().method).toBe('turning');
    expect(store.getState().document.past.map(({ name }) => name)).toEqual([
      'Direction: Reversed',
      'Method: Turning',
      'Smoothness of the in-between: 6',
      '32 even points',
    ]);
    backToAutomatic(store, shiftId, 'smoothing');
    expect(match().smoothing).toBeNull();
    expect(match().even).toBe(32);
    backToAutomatic(store, shiftId, 'method');
    expect(shift().method).toBe('auto');
    backToAutomatic(store, shiftId, 'all');
    expect(match()).toEqual(AUTOMATIC_MATCH);
    for (let i = 0; i < 7; i++) store.dispatch(documentActions.undone());
    expect(match()).toEqual(AUTOMATIC_MATCH);
    expect(store.getState().document.past).toEqual([]);
  });

  test('ties are added, moved and removed; others stay', () => {
    const first = addTie(store, shiftId, { a: anchor('from', 0), b: anchor('to', 0) });
    const second = addTie(store, shiftId, { a: anchor('from', 1), b: anchor('to', 1) });
    const moved = withTie(match(), first, 'b', anchor('to', 3));
    expect(moved.ties.map(({ b }) => b)).toEqual([anchor('to', 3), anchor('to', 1)]);
    removeTie(store, shiftId, first);
    expect(match().ties.map(({ id }) => id)).toEqual([second]);
  });

  test('a contour has one start: a new one takes its place', () => {
    const ids = (side: 'from' | 'to'): string[] => [0, 1, 2, 3].map((i) => anchor(side, i).anchor);
    const once = withStart(AUTOMATIC_MATCH, { a: anchor('from', 0), b: anchor('to', 0) }, ids('from'), ids('to'));
    const twice = withStart(once, { a: anchor('from', 2), b: anchor('to', 1) }, ids('from'), ids('to'));
    expect(twice.starts.map(({ a, b }) => [a, b])).toEqual([[anchor('from', 2), anchor('to', 1)]]);
  });

  test('what is said about a contour replaces what was said before, on both sides', () => {
    setPair(store, shiftId, { a: 'one', b: 'x' });
    setPair(store, shiftId, { a: 'two', b: null });
    setPair(store, shiftId, { a: 'one', b: null });
    expect(match().pairs).toEqual([
      { a: 'two', b: null },
      { a: 'one', b: null },
    ]);
    setPair(store, shiftId, { a: 'three', b: 'x' });
    setPair(store, shiftId, { a: null, b: 'x' });
    expect(match().pairs).toHaveLength(3);
    releaseContour(store, shiftId, 'two');
    expect(match().pairs.map(({ a }) => a)).toEqual(['one', null]);
  });

  test('cuts are on one side at a time; points are added', () => {
    addCut(store, shiftId, { side: 'from', line: [0, 0, 1, 1] });
    addCut(store, shiftId, { side: 'from', line: [0, 1, 1, 0] });
    expect(match().cuts).toHaveLength(2);
    addCut(store, shiftId, { side: 'to', line: [0, 0, 1, 1] });
    expect(match().cuts.map(({ side }) => side)).toEqual(['to']);
    addShiftPoint(store, shiftId, anchor('from', 1));
    expect(match().points).toEqual([anchor('from', 1)]);
  });

  test('a point touched up again moves further; another moment is another touch-up', () => {
    const point = (x: number) => ({
      place: anchor('from', 0),
      by: [x, 0] as const,
      before: [0, 0] as const,
      after: [0, 0] as const,
    });
    const once = withTouchUp(AUTOMATIC_MATCH, 0.4, point(3));
    const again = withTouchUp(once, 0.405, point(2));
    expect(again.touchUps).toHaveLength(1);
    expect(again.touchUps[0].points[0].by).toEqual([5, 0]);
    expect(withTouchUp(again, 0.6, point(1)).touchUps).toHaveLength(2);
  });

  test('an alternative decides start, method, rounding and pairs at once', () => {
    takeAlternative(store, shiftId, {
      method: 'blended',
      smoothing: 4,
      starts: [{ a: anchor('from', 1), b: anchor('to', 2) }],
      taken: { look: [0, 0.5], pairs: [{ a: 'one', b: 'x' }] },
    });
    expect(shift().method).toBe('blended');
    expect(match()).toMatchObject({ smoothing: 4, pairs: [], taken: { look: [0, 0.5] } });
    expect(match().starts[0]).toMatchObject({ a: anchor('from', 1), b: anchor('to', 2) });
    expect(store.getState().document.past).toHaveLength(1);
  });

  test('an alternative that was taken stays while points are added and moved; else its pairs become decisions', () => {
    const taken = {
      look: [0, 0.5],
      pairs: [
        { a: 'one', b: 'x' },
        { a: 'two', b: null },
      ],
    };
    const choice = { method: 'turning' as const, smoothing: 0, starts: [], taken };
    const take = (): void => takeAlternative(store, shiftId, choice);
    take();
    setEven(store, shiftId, 24);
    addShiftPoint(store, shiftId, anchor('from', 0));
    expect(match().taken).toEqual(taken);
    const settling: (() => void)[] = [
      () => addTie(store, shiftId, { a: anchor('from', 0), b: anchor('to', 0) }),
      () => setSmoothing(store, shiftId, 6),
      () => setMethod(store, shiftId, 'straight', 'Straight'),
      () => backToAutomatic(store, shiftId, 'starts'),
      () => setChoice(store, shiftId, 'Direction', 'direction', 'reversed'),
    ];
    for (const change of settling) {
      backToAutomatic(store, shiftId, 'all');
      expect(match()).toEqual({ ...AUTOMATIC_MATCH });
      take();
      change();
      expect([match().taken, match().pairs]).toEqual([null, taken.pairs]);
    }
    // What is said of one of the contours goes before what the alternative paired.
    backToAutomatic(store, shiftId, 'all');
    take();
    setPair(store, shiftId, { a: 'one', b: null });
    expect(match().pairs).toEqual([
      { a: 'two', b: null },
      { a: 'one', b: null },
    ]);
  });
});

describe('places on the pictures', () => {
  const input = shiftInput(piece, piece.shifts[shiftId]);
  const parts = placedParts(input.from);
  const corner = (i: number): [number, number] => {
    const { points } = parts[0].outline.contours[0];
    return [points[6 * i], points[6 * i + 1]];
  };

  test('an anchor within reach goes before the nearest place; beyond reach there is none', () => {
    const [x, y] = corner(1);
    const near = placeNear(parts, x + 3, y + 3, 10, 6);
    expect(near?.place).toEqual(anchor('from', 1));
    const [u, v] = corner(0);
    const middle = placeNear(parts, (x + u) / 2, (y + v) / 2 + 2, 10, 1);
    expect(middle?.place).toMatchObject({ after: anchor('from', 0).anchor, share: expect.closeTo(0.5, 6) });
    expect(placeNear(parts, x + 500, y + 500, 10, 6)).toBeUndefined();
    expect(contourNear(parts, x + 3, y, 10)?.contourId).toBe(near?.contourId);
  });

  test('the arrow keys go from anchor to anchor, and round the end; finely by a hundredth', () => {
    const start = placeAtOutline(parts[0], 0, 0);
    if (!start) throw new Error('There is no place.');
    expect(stepAlong(parts, start, 1, false)?.place).toEqual(anchor('from', 1));
    expect(stepAlong(parts, start, -1, false)?.place).toEqual(anchor('from', 3));
    expect(stepAlong(parts, start, 1, true)?.share).toBeCloseTo(0.01, 9);
    expect(stepAlong(parts, start, -1, true)?.share).toBeCloseTo(0.99, 9);
  });

  test('a stored place is found where it stands on the canvas', () => {
    const found = locate(parts, anchor('from', 2));
    expect([found?.x, found?.y]).toEqual(corner(2).map((v) => expect.closeTo(v, 6)));
    expect(locate(parts, { anchor: 'gone' })).toBeUndefined();
  });

  test('the room is about the chosen shift, else the one that leaves the chosen pose, else the first', () => {
    const other = { kind: 'stop', figureId: 'f', stop: 1 } as const;
    expect(matchedShift(piece, null)?.id).toBe(shiftId);
    expect(matchedShift(piece, { kind: 'shift', figureId: 'f', shiftId })?.id).toBe(shiftId);
    expect(matchedShift(piece, other)?.id).toBe(piece.figures.f.rail[piece.figures.f.rail.length - 1]);
  });
});

describe('unpaired contours, open ends and cuts', () => {
  const contour = (side: 'from' | 'to'): string =>
    piece.parts[piece.poses[piece.shifts[shiftId][side]].parts[0]].contours[0].id;

  test('a wipe says that the contour is alone; pairing it, or giving it back, takes the wipe away', () => {
    const alone = { a: contour('from'), b: null };
    setWipe(store, shiftId, alone, 90);
    expect(match()).toMatchObject({ pairs: [alone], wipes: [{ contour: alone.a, angle: 90 }] });
    setWipe(store, shiftId, alone, 180);
    expect(match().wipes).toEqual([{ contour: alone.a, angle: 180 }]);
    expect(match().pairs).toEqual([alone]);
    setPair(store, shiftId, { a: contour('from'), b: contour('to') });
    expect(match()).toMatchObject({ pairs: [{ a: contour('from'), b: contour('to') }], wipes: [] });
    setWipe(store, shiftId, { a: null, b: contour('to') }, 0);
    releaseContour(store, shiftId, contour('to'));
    expect(match()).toMatchObject({ pairs: [], wipes: [] });
    setWipe(store, shiftId, alone, 0);
    backToAutomatic(store, shiftId, 'pairs');
    expect(match()).toMatchObject({ pairs: [], wipes: [] });
  });

  test('the direction of one contour: the last word counts; taken back alone, or with that of all', () => {
    const id = contour('from');
    setContourDirection(store, shiftId, id, 'reversed');
    setContourDirection(store, shiftId, id, 'same');
    expect(match().directions).toEqual([{ contour: id, direction: 'same' }]);
    setContourDirection(store, shiftId, id, null);
    expect(match().directions).toEqual([]);
    setContourDirection(store, shiftId, id, 'reversed');
    setChoice(store, shiftId, 'Direction', 'direction', 'same');
    backToAutomatic(store, shiftId, 'direction');
    expect(match()).toMatchObject({ direction: 'auto', directions: [] });
  });

  test('when contours come and go is said and taken back', () => {
    setChoice(store, shiftId, 'Appearing and vanishing', 'unpairedOrder', 'after');
    expect(match().unpairedOrder).toBe('after');
    expect(store.getState().document.past.map(({ name }) => name)).toEqual([
      'Appearing and vanishing: One after the other',
    ]);
    backToAutomatic(store, shiftId, 'unpairedOrder');
    expect(match().unpairedOrder).toBe('auto');
  });

  test('what happens where open meets closed is a decision of its own', () => {
    setChoice(store, shiftId, 'Open and closed', 'opening', 'chord');
    expect(match().opening).toBe('chord');
    expect(store.getState().document.past.map(({ name }) => name)).toEqual(['Open and closed: By chord']);
    backToAutomatic(store, shiftId, 'opening');
    expect(match().opening).toBe('auto');
  });

  test('lines of one side are kept together; an end is moved, a line removed', () => {
    addCut(store, shiftId, { side: 'from', line: [0, 0, 10, 10] });
    addCut(store, shiftId, { side: 'from', line: [5, 0, 5, 10] });
    expect(match().cuts).toHaveLength(2);
    const [first, second] = match().cuts;
    expect(withCutEnd(match(), first.id, 0, [-1, -2]).cuts.map(({ line }) => line)).toEqual([
      [-1, -2, 10, 10],
      [5, 0, 5, 10],
    ]);
    setCuts(store, shiftId, withCutEnd(match(), second.id, 1, [6, 20]).cuts);
    expect(match().cuts[1].line).toEqual([5, 0, 6, 20]);
    removeCut(store, shiftId, first.id);
    expect(match().cuts.map(({ id }) => id)).toEqual([second.id]);
    // Only one side of a shift is cut.
    addCut(store, shiftId, { side: 'to', line: [0, 0, 1, 1] });
    expect(match().cuts.map(({ side }) => side)).toEqual(['to']);
  });
});
