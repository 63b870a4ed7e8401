import { describe, expect, test } from '@jest/globals';

import { ease } from '../../easing';
import { contourArea } from '../../outline';
import {
  AS_DRAWN,
  addFigure,
  addFreeKey,
  addLane,
  adjustShape,
  checkPiece,
  insertPoses,
  keepLanes,
  type LaneProperty,
  laneOf,
  newPose,
  type Part,
  type Piece,
  type PieceDraft,
  propertiesOf,
  setLaneAtStop,
  shapePart,
} from '../../piece';
import { adjustableContours, type ShapeSource } from '../../shapes';
import { outlineDistance } from '../../testing/outline-distance';
import { type BetweenOptions, countedIds, drawnPose, pieceBetween } from '../../testing/pieces';
import { prepareFrame, sampleFrame } from '../picture/sample';
import { stillPiece } from '../picture/still-piece';
import { planPoseShift } from '../plan/part-plans';
import { shiftInput } from './input-of-shift';
import { compileLane } from './motion';
import { planAndCompile } from './plan-and-compile';
import { partAt, shapeLanesOf } from './shape-lanes';

const newId = countedIds();
const frame = { x: 100, y: 100, rotation: 0 };
const BOX: ShapeSource = { kind: 'rectangle', ...frame, width: 100, height: 60, radii: [0, 0, 0, 0] };
const ARC: ShapeSource = { kind: 'arc', ...frame, radius: 50, from: 0, to: 45 };
const STAR: ShapeSource = { kind: 'star', ...frame, radius: 50, points: 5, inner: 0.5, rounding: 0 };
const shaped = (source: ShapeSource, change: Partial<Part> = {}): Part => ({
  ...shapePart(source, 'Shape', { fill: '#204060', stroke: null }, newId),
  ...change,
});
const drawn = (): Part => drawnPose('M40 40H160V160H40Z', newId).parts[0];

/** A second of change between two poses, of which the first stands a second before and the second a second after; lanes as `also` makes them. */
function pieceOf(from: Part[], to: Part[], options: BetweenOptions, also: (draft: PieceDraft) => void): Piece {
  const draft = structuredClone(pieceBetween(from, to, options)) as PieceDraft;
  draft.poses.A.hold = 1;
  draft.poses.B.hold = 1;
  also(draft);
  return checkPiece(JSON.parse(JSON.stringify(draft)));
}
const keys = (draft: PieceDraft, property: LaneProperty, ...values: (readonly number[])[]): string => {
  const id = addLane(draft, 'f', property, newId) as string;
  values.forEach((value, stop) => {
    setLaneAtStop(draft, 'f', property, stop, value, newId);
  });
  for (const key of draft.lanes[id].keys) key.easing = { kind: 'linear' };
  return id;
};
const NUMBERS: BetweenOptions = { shift: { method: 'numbers' } };

/** What is drawn of the first part at a time, as an outline. */
function outlineAt(piece: Piece, seconds: number) {
  const compiled = planAndCompile(piece);
  const [part] = sampleFrame(compiled, seconds, prepareFrame(compiled)).figures[0].parts;
  return {
    contours: part.contours.map(({ at, segments, closed }) => ({
      points: part.points.slice(at, at + 6 * segments + 2),
      closed,
    })),
    fillRule: part.fillRule,
  };
}
const isShape = (piece: Piece, seconds: number, wanted: ShapeSource): void =>
  expect(
    outlineDistance(outlineAt(piece, seconds), { contours: adjustableContours(wanted), fillRule: 'nonzero' }),
  ).toBeLessThan(0.02);

describe('a lane of a number of an adjustable shape', () => {
  test('shapes a pose while it stands: at each moment it is the rectangle of that width, with its other numbers', () => {
    const piece = pieceOf([shaped(BOX)], [shaped(BOX)], NUMBERS, (draft) => {
      const lane = keys(draft, 'rectangle.width', [100], [160]);
      addFreeKey(draft, lane, 0.5, [40], newId);
      draft.lanes[lane].keys[2].easing = { kind: 'linear' };
    });
    isShape(piece, 0.5, { ...BOX, width: 40 });
    // From the free key in the hold straight to the stop that is reached at 2 s.
    isShape(piece, 1.25, { ...BOX, width: 100 });
    isShape(piece, 2.7, { ...BOX, width: 160 });
  });

  test('goes before the numbers that the poses have, which still go by the shift where they have no lane', () => {
    const tall = { ...BOX, width: 20, height: 120 };
    const piece = pieceOf([shaped(BOX)], [shaped(tall)], NUMBERS, (draft) => {
      keys(draft, 'rectangle.radii', [0, 0, 0, 0], [10, 10, 10, 10]);
      keys(draft, 'rectangle.width', [100], [200]);
    });
    isShape(piece, 1.5, { ...BOX, width: 150, height: 90, radii: [5, 5, 5, 5] });
    isShape(piece, 3, { ...BOX, width: 200, height: 120, radii: [10, 10, 10, 10] });
  });

  test('runs by its own easing, and the numbers stay within what a shape can have', () => {
    const back = { kind: 'back', side: 'in', overshoot: 3 } as const;
    const piece = pieceOf([shaped(BOX)], [shaped(BOX)], NUMBERS, (draft) => {
      const lane = keys(draft, 'rectangle.width', [20], [100]);
      draft.lanes[lane].keys[0].easing = back;
    });
    for (const share of [0.3, 0.5, 0.9])
      isShape(piece, 1 + share, { ...BOX, width: Math.max(0.01, 20 + 80 * ease(back, share)) });
  });

  test('a shift that goes by points begins with the shape as it is then, and nothing jumps', () => {
    const piece = pieceOf([shaped(BOX)], [drawn()], {}, (draft) => {
      const lane = keys(draft, 'rectangle.width', [100]);
      addFreeKey(draft, lane, 1, [30], newId);
      Object.assign(draft.lanes[lane].keys[0], { after: 0 });
    });
    isShape(piece, 0.5, { ...BOX, width: 65 });
    isShape(piece, 1 - 1e-6, { ...BOX, width: 30 });
    isShape(piece, 1 + 1e-6, { ...BOX, width: 30 });
    expect(
      outlineDistance(
        outlineAt(piece, 2),
        outlineAt(
          pieceOf([drawn()], [drawn()], {}, () => {}),
          0,
        ),
      ),
    ).toBeLessThan(0.02);
  });

  test('a shift that nobody chose a way for goes by the numbers that a lane changes; one that goes by points does not', () => {
    const pulse = { shape: 'saw', period: 0.5, from: 0, until: null, amount: [50] } as const;
    const made = (shift: BetweenOptions['shift']): Piece =>
      pieceOf([shaped(BOX)], [shaped(BOX)], { shift }, (draft) => {
        draft.lanes.l = {
          id: 'l',
          figure: 'f',
          property: 'rectangle.width',
          keys: [],
          pulse: structuredClone(pulse),
        } as never;
      });
    isShape(made({}), 1.25, { ...BOX, width: 125 });
    isShape(made({ method: 'straight' }), 1.25, BOX);
    const [shift] = Object.values(made({}).shifts);
    expect([shift.method, shiftInput(made({}), shift).method]).toEqual(['auto', 'numbers']);
    // The very same shift without the lane.
    const piece = made({});
    const [own] = Object.values(piece.shifts);
    expect(shiftInput(piece, own).method).toBe('numbers');
    expect(shiftInput({ ...piece, lanes: {} }, own).method).toBe('auto');
  });

  test('points keep their ids while there are as many, so that what was set on a match holds', () => {
    const part = shaped(BOX);
    const piece = pieceOf([part], [drawn()], {}, (draft) => keys(draft, 'rectangle.width', [40]));
    const { from, to } = shiftInput(piece, piece.shifts[piece.figures.f.rail[0]]);
    const ids = (each: Part | (typeof from.parts)[number]) =>
      each.contours.map(({ id, anchors }) => [id, anchors.map((a) => a.id)]);
    expect(ids(from.parts[0])).toEqual(ids(part));
    expect(from.parts[0].contours[0].anchors[0].at).toEqual([80, 70]);
    expect(to.parts[0].contours).toBe(piece.parts[to.parts[0].id].contours);
    const both = pieceOf([shaped(BOX)], [shaped({ ...BOX, height: 9 })], { shift: { method: 'straight' } }, (draft) =>
      keys(draft, 'rectangle.width', [40], [70]),
    );
    const reached = shiftInput(both, both.shifts[both.figures.f.rail[0]]).to.parts[0].contours[0];
    expect(reached.anchors[0].at).toEqual([65, 95.5]);
    // The same piece gives the same records: no plan is made again.
    expect(shiftInput(piece, piece.shifts[piece.figures.f.rail[0]]).from).toBe(from);
  });

  test('a shape that gets more points on its way is the same picture before and after', () => {
    const piece = pieceOf([shaped(ARC, { fill: null })], [shaped(ARC, { fill: null })], NUMBERS, (draft) =>
      keys(draft, 'arc.to', [45], [300]),
    );
    const compiled = planAndCompile(piece);
    const counts = compiled.figures[0].spans.map(({ parts }) => parts[0].plan.contours[0].segments);
    expect(counts).toEqual([1, 2, 3, 4, 4]);
    for (const seconds of [0.5, 1.1, 1.17, 1.18, 1.5, 1.9, 2.5])
      isShape(piece, seconds, { ...ARC, to: 45 + 255 * Math.min(1, Math.max(0, seconds - 1)) });
  });

  test('a shape that goes far stays itself: an arc that runs once round is on its circle all the way', () => {
    const line = { fill: null };
    const piece = pieceOf([shaped(ARC, line)], [shaped(ARC, line)], NUMBERS, (draft) => {
      keys(draft, 'arc.from', [0], [360]);
      keys(draft, 'arc.to', [80], [440]);
    });
    for (const share of [0.03, 0.21, 0.5, 0.83])
      isShape(piece, 1 + share, { ...ARC, from: 360 * share, to: 80 + 360 * share });
  });

  test('what is counted goes from one to the next at once', () => {
    const piece = pieceOf([shaped(STAR)], [shaped(STAR)], NUMBERS, (draft) => keys(draft, 'star.points', [5], [7]));
    const counts = [0.5, 1.2, 1.3, 1.7, 1.8, 2.5].map((time) => outlineAt(piece, time).contours[0].points.length);
    expect(counts.map((count) => (count / 2 - 1) / 3 / 2)).toEqual([5, 5, 6, 6, 7, 7]);
    isShape(piece, 1.5, { ...STAR, points: 6 });
    // The shift itself goes by numbers still, in good health: nothing is matched from five points to seven.
    const { health, reasons } = planPoseShift(shiftInput(piece, Object.values(piece.shifts)[0]));
    expect([health.verdict, reasons.map(({ code }) => code)]).toEqual(['good', ['by-numbers']]);
  });

  test('pulses without keys about the number that the shape has, and a shape without extent is not drawn', () => {
    const ring: ShapeSource = { kind: 'ellipse', ...frame, width: 80, height: 80 };
    const piece = pieceOf([shaped(ring)], [shaped(ring)], NUMBERS, (draft) => {
      draft.lanes.l = {
        id: 'l',
        figure: 'f',
        property: 'ellipse.width',
        keys: [],
        pulse: { shape: 'saw', period: 0.5, from: 0.5, until: null, amount: [-200] },
      };
    });
    isShape(piece, 0.3, ring);
    isShape(piece, 0.55, { ...ring, width: 60 });
    expect(outlineAt(piece, 0.9).contours).toEqual([]);
    isShape(piece, 1 - 1e-4 + 1e-3, { ...ring, width: 80 - 200 * 0.0018 });
  });

  test('one frame sampled again and again goes along while the pose stands', () => {
    const piece = pieceOf([shaped(BOX)], [shaped(BOX)], NUMBERS, (draft) => {
      const lane = keys(draft, 'rectangle.width', [100]);
      addFreeKey(draft, lane, 1, [20], newId);
      Object.assign(draft.lanes[lane].keys[0], { after: 0 });
    });
    const compiled = planAndCompile(piece);
    const frame = prepareFrame(compiled);
    const widths = [0.1, 0.5, 0.9, 0.5].map((seconds) => {
      const [{ points }] = sampleFrame(compiled, seconds, frame).figures[0].parts;
      const xs = points.filter((_, i) => i % 2 === 0);
      return Math.round(Math.max(...xs) - Math.min(...xs));
    });
    expect(widths).toEqual([92, 60, 28, 60]);
  });

  test('goes on after the last pose was reached, as long as the piece lasts', () => {
    const piece = pieceOf([shaped(BOX)], [shaped(BOX)], NUMBERS, (draft) => {
      keys(draft, 'rectangle.width', [100]);
      addFigure(draft, 'long', 'Long');
      const { pose, parts } = drawnPose('M0 0H9V9H0Z', newId);
      insertPoses(draft, 'long', [{ pose: { ...pose, hold: 9 }, parts }], newId);
      const [lane] = Object.values(draft.lanes);
      lane.pulse = { shape: 'saw', period: 4, from: 4, until: null, amount: [40] };
    });
    isShape(piece, 7, { ...BOX, width: 130 });
  });

  test('is told to be no less and no more than such a number can be', () => {
    const piece = pieceOf([shaped(STAR)], [shaped(STAR)], NUMBERS, (draft) => {
      const lane = keys(draft, 'star.inner', [0.9]);
      draft.lanes[lane].pulse = { shape: 'square', period: 1, from: 0, until: null, amount: [5] };
    });
    const value = new Float64Array(1);
    compileLane(piece, 'f', 'star.inner')?.sample(0.2, value);
    expect(value[0]).toBe(1);
  });

  test('figures whose shapes change by lanes are planned by themselves, though they touch others', () => {
    const twins = (also: (draft: PieceDraft) => void): Piece =>
      pieceOf([shaped({ ...BOX, x: 50 })], [shaped({ ...BOX, x: 50, height: 90 })], {}, (draft) => {
        addFigure(draft, 'g', 'Neighbour');
        const next = { ...BOX, x: 150 };
        const poses = [next, { ...next, height: 90 }].map((source, i) => {
          const part = shaped(source);
          return { pose: { ...newPose(`g${i}`, `G${i}`, [part.id]), hold: 1, placement: AS_DRAWN }, parts: [part] };
        });
        insertPoses(draft, 'g', poses, newId);
        Object.assign(draft.shifts[draft.figures.g.rail[0]], { duration: 1, easing: { kind: 'linear' } });
        also(draft);
      });
    const inStep = (piece: Piece): number =>
      Object.values(piece.shifts).reduce((sum, shift) => sum + (shiftInput(piece, shift).inStep?.length ?? 0), 0);
    expect(inStep(twins(() => {}))).toBe(2);
    expect(inStep(twins((draft) => keys(draft, 'rectangle.width', [100])))).toBe(0);
  });

  test('a piece taken still at a moment has the outline of that moment', () => {
    const piece = pieceOf([shaped(BOX)], [shaped(BOX)], NUMBERS, (draft) =>
      keys(draft, 'rectangle.width', [100], [20]),
    );
    const still = stillPiece(planAndCompile(piece), 1.5);
    const [{ parts }] = sampleFrame(still, 0, prepareFrame(still)).figures;
    const [{ points, contours }] = parts;
    expect(Math.abs(contourArea({ points: points.slice(contours[0].at), closed: true }))).toBeCloseTo(60 * 60, 1);
  });
});

describe('editing numbers that have lanes', () => {
  const base = (): PieceDraft =>
    structuredClone(
      pieceOf([shaped(BOX)], [shaped(BOX)], NUMBERS, (draft) => keys(draft, 'rectangle.width', [100], [160])),
    ) as PieceDraft;

  test('a part is seen with them, in the same record as often as it is asked for', () => {
    const piece = base() as Piece;
    const part = piece.parts[piece.poses.B.parts[0]];
    const lanes = shapeLanesOf(piece, 'f');
    expect(partAt(part, lanes, 2).source).toMatchObject({ width: 160, height: 60 });
    expect(partAt(part, lanes, 2)).toBe(partAt(part, lanes, 2.5));
    expect(partAt(part, lanes, 1)).toBe(part);
  });

  test('what has a lane is set in the lane at that stop, what has none in the shape', () => {
    const draft = base();
    const part = draft.poses.B.parts[0];
    const shown = { ...BOX, width: 160 };
    adjustShape(draft, { figure: 'f', stop: 1, part }, shown, { ...shown, width: 80, height: 30, x: 120 }, newId);
    expect(laneOf(draft as Piece, 'f', 'rectangle.width')?.keys.map(({ value }) => value[0])).toEqual([100, 80]);
    expect(draft.parts[part].source).toMatchObject({ width: 100, height: 30, x: 120 });
  });

  test('a change of another number leaves the lane alone', () => {
    const draft = base();
    const part = draft.poses.A.parts[0];
    const before = JSON.stringify(draft.lanes);
    adjustShape(draft, { figure: 'f', stop: 0, part }, BOX, { ...BOX, height: 10 }, newId);
    expect(JSON.stringify(draft.lanes)).toBe(before);
  });

  test('a new pose begins with its own number, a copy of the one before it with what the lane says there', () => {
    const add = (...sources: ShapeSource[]): number[] => {
      let draft = base();
      for (const source of sources) {
        const before = structuredClone(draft) as Piece;
        const part = shaped(source);
        const pose = { ...newPose(newId('q'), 'New', [part.id]), placement: AS_DRAWN };
        insertPoses(draft, 'f', [{ pose, parts: [part] }], newId);
        const kept = keepLanes(before, draft as Piece);
        draft = structuredClone(draft);
        for (const [id, lane] of kept) draft.lanes[id] = structuredClone(lane) as PieceDraft['lanes'][string];
      }
      return laneOf(draft as Piece, 'f', 'rectangle.width')?.keys.map(({ value }) => value[0]) ?? [];
    };
    expect(add(BOX)).toEqual([100, 160, 160]);
    expect(add({ ...BOX, width: 33 })).toEqual([100, 160, 33]);
    // What is no rectangle has no width, and the lane needs no key there; what comes after it is not forgotten.
    const ellipse: ShapeSource = { kind: 'ellipse', ...frame, width: 20, height: 20 };
    expect(add(ellipse)).toEqual([100, 160]);
    expect(add(ellipse, { ...BOX, width: 33 })).toEqual([100, 160, 33]);
  });

  test('a figure can have those of its own shapes, and a new lane has no key where another shape stands', () => {
    const piece = pieceOf([shaped(BOX)], [drawn()], {}, () => {});
    const offered = propertiesOf(piece, piece.figures.f).filter((property) => property.includes('.'));
    expect(offered).toEqual(['rectangle.width', 'rectangle.height', 'rectangle.radii']);
    const draft = structuredClone(piece) as PieceDraft;
    const lane = addLane(draft, 'f', 'rectangle.height', newId) as string;
    expect(draft.lanes[lane].keys.map(({ stop, value }) => [stop?.pose, [...value]])).toEqual([['A', [60]]]);
  });

  test.each([
    ['a shape that there is not', 'circle.size', [4], /number of an adjustable shape.*circle\.size/],
    ['a place, which is the figure’s', 'rectangle.x', [4], /number of an adjustable shape/],
    ['a width below nothing', 'rectangle.width', [-1], /from 0 to 100000.*-1/],
    ['one radius of four', 'rectangle.radii', [4], /4 numbers/],
  ])('%s is refused with its place', (_name, property, value, message) => {
    const draft = base();
    const [lane] = Object.values(draft.lanes);
    lane.property = property as LaneProperty;
    lane.keys = [{ ...lane.keys[0], value }];
    expect(() => checkPiece(JSON.parse(JSON.stringify(draft)))).toThrow(message);
  });
});
