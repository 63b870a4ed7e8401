import { mapPoint, type Place } from '@core';
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import type { AppStore } from '../../state';
import { openMatchRoom } from '../../testing/match-room';
import { pieceOf } from '../../testing/pieces';
import type { PlanStore } from '../plans/plan-store';
import { addCut } from './match-actions';
import type { MatchEditing } from './match-editing';
import { dragCutEnd, dragStart, dragTie, dragTouchPoint, pressSide, touchPoints } from './match-gestures';
import type { MatchPainter, PictureId } from './match-painter';

const RING = 'M0 0H100V100H0ZM30 30V70H70V30Z';
const piece = pieceOf([RING, RING]);
const [shiftId] = piece.figures.f.rail;
/** The three pictures stand side by side. */
const LEFT: Readonly<Record<PictureId, number>> = { a: 0, middle: 3000, b: 6000 };
const WIDTH = 2500;

/** As much of a page's window as a pointer needs. */
class Page extends EventTarget {
  send(type: string, fields: object): void {
    this.dispatchEvent(Object.assign(new Event(type, { cancelable: true }), fields));
  }
}

let page: Page;
let store: AppStore;
let plans: PlanStore;
let editing: MatchEditing;
let painter: MatchPainter;
const match = () => {
  const now = store.getState().document.piece;
  if (!now) throw new Error('No piece is open.');
  return now.shifts[shiftId].match;
};
/** The id of the anchor at a place, where it lies on one. */
const anchorOf = (place: Place): string | undefined => ('anchor' in place ? place.anchor : undefined);
const steps = (): string[] => store.getState().document.past.map(({ name }) => name);
const gesture = () => ({ store, painter });

/** A place of a side, in the coordinates of its part, as a pointer there. */
function at(picture: PictureId, x: number, y: number): React.PointerEvent {
  const [{ matrix }] = editing.parts(picture === 'b' ? 'b' : 'a');
  const [px, py] = mapPoint(matrix, x, y);
  return { pointerId: 1, clientX: LEFT[picture] + px, clientY: py } as React.PointerEvent;
}
const drop = (to: React.PointerEvent): void => {
  page.send('pointermove', to);
  page.send('pointerup', to);
};
const giveUp = (to: React.PointerEvent): void => {
  page.send('pointermove', to);
  page.send('keydown', { key: 'Escape' });
};
const use = (tool: 'tie' | 'pair' | 'cut' | 'point'): void => editing.change({ tool });

beforeEach(async () => {
  page = new Page();
  Object.assign(globalThis, { window: page });
  ({ store, plans, editing } = await openMatchRoom(piece));
  const element = (id: PictureId) => ({
    canvas: {
      getBoundingClientRect: () => ({ left: LEFT[id], right: LEFT[id] + WIDTH, top: 0, bottom: WIDTH }),
    },
  });
  const unit = { scale: 1, dx: 0, dy: 0 };
  painter = {
    editing,
    elements: { a: element('a'), middle: element('middle'), b: element('b') },
    views: { a: unit, middle: unit, b: unit },
    dragged: new Map(),
    rubber: null,
    ask: () => {},
    cutEnd: () => [0, 0],
    contours: () =>
      (editing.shown?.parts ?? []).flatMap((plan) =>
        plan.plan.contours.map((contour) => ({ contour, plan, partA: plan.a })),
      ),
  } as unknown as MatchPainter;
});
afterEach(() => {
  editing.destroy();
  plans.destroy();
  Object.assign(globalThis, { window: undefined });
});

describe('a tie', () => {
  test('is drawn from one outline to the other, from either side', () => {
    use('tie');
    pressSide(gesture(), at('a', 100, 0), 'a');
    drop(at('b', 100, 100));
    const [{ a, b }] = match().ties;
    const contours = Object.values(piece.parts).map((part) => part.contours[0].anchors);
    expect([anchorOf(a), anchorOf(b)]).toEqual([contours[0][1].id, contours[1][2].id]);
    pressSide(gesture(), at('b', 0, 100), 'b');
    drop(at('a', 0, 0));
    expect(match().ties).toHaveLength(2);
    expect(anchorOf(match().ties[1].a)).toBe(contours[0][0].id);
  });

  test('is begun by a press and ended by one on the other side; a press beside all outlines forgets it', () => {
    use('tie');
    const click = (side: 'a' | 'b', x: number, y: number): void => {
      pressSide(gesture(), at(side, x, y), side);
      page.send('pointerup', at(side, x, y));
    };
    click('a', 100, 0);
    expect(editing.snapshot().waiting?.side).toBe('a');
    pressSide(gesture(), { pointerId: 1, clientX: -900, clientY: -900 } as React.PointerEvent, 'a');
    expect([editing.snapshot().waiting, match().ties]).toEqual([null, []]);
    click('a', 100, 0);
    click('b', 100, 0);
    expect([editing.snapshot().waiting, match().ties.length]).toEqual([null, 1]);
  });

  test('dropped anywhere else, or given up, it is none', () => {
    use('tie');
    pressSide(gesture(), at('a', 100, 0), 'a');
    drop(at('middle', 100, 0));
    pressSide(gesture(), at('a', 100, 0), 'a');
    giveUp(at('b', 100, 0));
    expect([match().ties, steps(), editing.dragging, painter.rubber]).toEqual([[], [], 0, null]);
  });

  test('has ends that are dragged along their outline; Escape leaves it where it was', () => {
    use('tie');
    pressSide(gesture(), at('a', 100, 0), 'a');
    drop(at('b', 100, 0));
    const tie = match().ties[match().ties.length - 1];
    dragTie(gesture(), at('b', 100, 0), 'b', tie.id);
    expect(editing.dragging).toBe(1);
    giveUp(at('b', 0, 100));
    expect(match().ties.at(-1)?.b).toEqual(tie.b);
    dragTie(gesture(), at('b', 100, 0), 'b', tie.id);
    page.send('pointermove', at('b', 0, 100));
    expect(painter.dragged.has(`b:tie:${tie.id}`)).toBe(true);
    page.send('pointerup', at('b', 0, 100));
    expect(match().ties.at(-1)?.b).not.toEqual(tie.b);
    expect([match().ties.at(-1)?.a, painter.dragged.size, editing.dragging]).toEqual([tie.a, 0, 0]);
  });
});

test('a point is added on the first outline only', () => {
  use('point');
  pressSide(gesture(), at('b', 50, 0), 'b');
  expect(match().points).toEqual([]);
  pressSide(gesture(), at('a', 50, 0), 'a');
  expect(match().points).toHaveLength(1);
});

describe('contours are paired by hand', () => {
  const ids = Object.values(piece.parts).map(({ contours }) => contours.map(({ id }) => id));

  test('by a drag from one to the other; on the in-between it leaves or arrives alone', () => {
    use('pair');
    pressSide(gesture(), at('a', 30, 50), 'a');
    drop(at('b', 0, 50));
    expect(match().pairs).toMatchObject([{ a: ids[0][1], b: ids[1][0] }]);
    pressSide(gesture(), at('a', 30, 50), 'a');
    drop(at('middle', 50, 50));
    expect(match().pairs.find(({ a }) => a === ids[0][1])?.b).toBeNull();
    pressSide(gesture(), at('b', 30, 50), 'b');
    drop(at('middle', 50, 50));
    expect(match().pairs.find(({ b }) => b === ids[1][1])?.a).toBeNull();
  });

  test('from the second side too; nothing is paired on the same side or by giving up', () => {
    use('pair');
    pressSide(gesture(), at('b', 30, 50), 'b');
    drop(at('a', 0, 50));
    expect(match().pairs).toMatchObject([{ a: ids[0][0], b: ids[1][1] }]);
    const before = steps().length;
    pressSide(gesture(), at('a', 30, 50), 'a');
    drop(at('a', 0, 50));
    pressSide(gesture(), at('a', 30, 50), 'a');
    giveUp(at('b', 0, 50));
    expect(steps()).toHaveLength(before);
  });
});

describe('a cut', () => {
  test.each([
    ['a', 'from'],
    ['b', 'to'],
  ] as const)('is drawn on side %s as a line in the part’s own coordinates; a click draws none', (side, name) => {
    use('cut');
    pressSide(gesture(), at(side, -10, 50), side);
    page.send('pointerup', at(side, -9.9, 50));
    expect(match().cuts).toEqual([]);
    pressSide(gesture(), at(side, -10, 50), side);
    drop(at(side, 110, 60));
    const [cut] = match().cuts;
    expect([match().cuts.length, cut.side]).toEqual([1, name]);
    [-10, 50, 110, 60].forEach((v, k) => expect(cut.line[k]).toBeCloseTo(v, 6));
  });

  test('has ends that are dragged, each by itself', () => {
    addCut(store, shiftId, { side: 'from', line: [-10, 50, 110, 50] });
    const [{ id }] = match().cuts;
    dragCutEnd(gesture(), at('a', 110, 50), 'a', id, 1);
    drop(at('a', 110, 80));
    [-10, 50, 110, 80].forEach((v, k) => expect(match().cuts[0].line[k]).toBeCloseTo(v, 6));
    dragCutEnd(gesture(), at('a', -10, 50), 'a', id, 0);
    giveUp(at('a', -10, 0));
    expect(match().cuts[0].line[1]).toBeCloseTo(50, 6);
  });
});

test('a start point is dragged round its outline, the other stays, and it is chosen in one step', () => {
  const [a, b] = Object.values(piece.parts);
  const handle = {
    key: 'k',
    partA: a.id,
    partB: b.id,
    contourA: a.contours[0].id,
    contourB: b.contours[0].id,
    reversed: false,
  };
  dragStart(gesture(), at('a', 0, 0), 'a', handle);
  page.send('pointermove', at('a', 100, 0));
  page.send('pointermove', at('a', 100, 100));
  const [{ matrix }] = editing.parts('a');
  expect(painter.dragged.get('a:start:k')).toEqual(mapPoint(matrix, 100, 100).map((v) => expect.closeTo(v, 6)));
  page.send('pointerup', at('a', 100, 100));
  expect(match().starts).toHaveLength(1);
  expect(anchorOf(match().starts[0].a)).toBe(a.contours[0].anchors[2].id);
  expect(anchorOf(match().starts[0].b)).toBe(b.contours[0].anchors[0].id);
  expect(steps()).toHaveLength(1);
});

describe('touching up', () => {
  const frames = () =>
    new Map<object, Float64Array>((editing.shown?.parts ?? []).map((plan) => [plan, plan.plan.from]));

  test('offers the points of all pairs, and moves the nearest by what it was dragged', () => {
    const points = touchPoints(painter, frames());
    expect(points).toHaveLength(8);
    editing.progress = 0.5;
    dragTouchPoint(gesture(), at('middle', 101, 1), points);
    drop(at('middle', 111, 21));
    const [{ progress, points: moved }] = match().touchUps;
    expect([progress, moved.length]).toEqual([0.5, 1]);
    expect([moved[0].by[0], moved[0].by[1]].map((v) => +v.toFixed(6))).toEqual([10, 20]);
  });

  test('does nothing at the ends, and nothing far from all points', () => {
    const points = touchPoints(painter, frames());
    for (const progress of [0, 1]) {
      editing.progress = progress;
      dragTouchPoint(gesture(), at('middle', 100, 0), points);
      drop(at('middle', 120, 0));
    }
    editing.progress = 0.5;
    dragTouchPoint(gesture(), { pointerId: 1, clientX: 5000, clientY: 900 } as React.PointerEvent, points);
    drop(at('middle', 120, 0));
    expect([match().touchUps, steps()]).toEqual([[], []]);
  });
});
