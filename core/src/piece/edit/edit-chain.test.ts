import { describe, expect, test } from '@jest/globals';
import { ease, reverseEasing } from '../../easing';
import { frameAt } from '../../frame';
import { inBetweenOutline } from '../../morph';
import type { Outline } from '../../outline';
import { readPathData } from '../../svg';
import { strayOf } from '../../testing/distance';
import { countedIds, drawnPose, pieceOf, plainText } from '../../testing/pieces';
import { AUTOMATIC_MATCH, reversedMatch } from '../records/decisions';
import type { MatchChoices, Piece } from '../records/records';
import { checkPiece } from '../rules/check-piece';
import { pieceDuration, stopsOf } from '../time/rail';
import { addFigure, insertPoses, type PieceDraft, setClosedRail } from './edit';
import { insertChain, joinFigures, removeStops, reverseStops } from './edit-chain';
import { setText } from './edit-outline';

const PAINT = { fill: '#000000', stroke: null };
const SHAPES = ['M0 0H10V10H0Z', 'M0 0H30L0 30Z', 'M5 0A5 5 0 1 1 5 10A5 5 0 1 1 5 0Z', 'M0 0H20V8H0Z'];
const chain = (closed = false): PieceDraft => {
  const draft = structuredClone(pieceOf(SHAPES)) as PieceDraft;
  if (closed) setClosedRail(draft, 'f', true, countedIds());
  return draft;
};
const names = (draft: PieceDraft): string =>
  stopsOf(draft as Piece, (draft as Piece).figures.f)
    .map((id) => draft.poses[id].name.replace('Pose ', ''))
    .join(' ');
/** The only part of a picture. */
const outlineAt = (draft: PieceDraft, seconds: number): Outline => {
  const [part] = frameAt(draft as Piece, seconds).figures[0].parts;
  return inBetweenOutline(part.lanes.plan, part.points);
};
const fresh = countedIds();
const newId = (prefix: string): string => `new-${fresh(prefix)}`;

describe('a stretch of a rail run the other way', () => {
  test('shows the same pictures backwards', () => {
    // A round shape could be begun anywhere: of corners there is no doubt.
    const before = structuredClone(pieceOf([SHAPES[0], SHAPES[1], SHAPES[3], SHAPES[1]])) as PieceDraft;
    const durations = before.figures.f.rail.map((id, i) => {
      before.shifts[id].duration = 0.4 + 0.2 * i;
      // The best way there need not be the best way back.
      before.shifts[id].method = 'straight';
      before.shifts[id].easing = { kind: 'cubic-bezier', x1: 0.7, y1: 0, x2: 0.9, y2: 0.6 };
      return before.shifts[id].duration;
    });
    const after = structuredClone(before);
    expect(reverseStops(after, 'f', 0, 3, newId)).toEqual([]);
    expect(names(after)).toBe('4 3 2 1');
    expect(after.figures.f.rail.map((id) => after.shifts[id].duration)).toEqual([...durations].reverse());
    const duration = pieceDuration(before as Piece);
    for (const share of [0.05, 0.3, 0.42, 0.5, 0.61, 0.8]) {
      const there = outlineAt(before, share * duration);
      const back = outlineAt(after, (1 - share) * duration);
      expect(strayOf(there, back)).toBeLessThan(0.1);
    }
  });

  test('leaves the rest of the rail as it is', () => {
    const draft = chain();
    const [first] = draft.figures.f.rail;
    draft.shifts[first].duration = 2;
    reverseStops(draft, 'f', 1, 3, newId);
    expect(names(draft)).toBe('1 4 3 2');
    // The shift into the stretch reaches another pose now, and takes as long as before.
    expect(draft.shifts[draft.figures.f.rail[0]].duration).toBe(2);
  });

  test.each([
    [0, 3, '1 4 3 2 1'],
    [0, 4, '1 4 3 2 1'],
    [1, 3, '1 4 3 2 1'],
    [0, 1, '2 1 3 4 2'],
  ])('of a closed rail from stop %d to %d keeps it closed', (first, last, expected) => {
    const draft = chain(true);
    expect(names(draft)).toBe('1 2 3 4 1');
    reverseStops(draft, 'f', first, last, newId);
    expect(names(draft)).toBe(expected);
  });

  test('turns round what was decided about its matches, and says what cannot be', () => {
    const place = (id: string) => ({ contour: 'c', before: id, after: id, share: 0 }) as never;
    const match: MatchChoices = {
      ...AUTOMATIC_MATCH,
      direction: 'reversed',
      smoothing: 4,
      starts: [{ id: 't', a: place('p'), b: place('q') }],
      pairs: [{ a: 'one', b: null }],
      wipes: [{ contour: 'one', angle: 270 }],
      cuts: [{ id: 'k', side: 'from', line: [0, 0, 1, 1] }],
      points: [place('r'), place('s')],
    };
    const { match: turned, lost } = reversedMatch(match);
    expect(turned).toMatchObject({
      direction: 'reversed',
      smoothing: 4,
      starts: [{ id: 't', a: place('q'), b: place('p') }],
      pairs: [{ a: null, b: 'one' }],
      wipes: [{ contour: 'one', angle: 90 }],
      cuts: [{ id: 'k', side: 'to' }],
      points: [],
    });
    expect(lost).toEqual(['2 added points']);
    expect(reversedMatch(turned).match).toEqual({ ...match, points: [] });
  });

  test('the easing of the way back is what is left at the time that is left', () => {
    for (const easing of [{ kind: 'linear' }, { kind: 'cubic-bezier', x1: 0.3, y1: -0.4, x2: 0.2, y2: 1.3 }] as const)
      for (const t of [0, 0.1, 0.35, 0.8, 1])
        expect(ease(reverseEasing(easing), t)).toBeCloseTo(1 - ease(easing, 1 - t), 9);
  });
});

describe('a figure that becomes poses of another', () => {
  test('comes after the stop that is meant, with its own timing; the figure goes, its poses and letters stay', () => {
    const draft = chain();
    addFigure(draft, 'g', 'Other');
    const row = ['A', 'B'].map((name) => drawnPose(SHAPES[1], newId, name));
    insertPoses(draft, 'g', row, newId);
    draft.shifts[draft.figures.g.rail[0]].duration = 0.3;
    const text = plainText('l');
    setText(
      draft,
      row[1].pose.id,
      text,
      [{ index: 0, character: 'l', outline: readPathData(SHAPES[0]) }],
      PAINT,
      newId,
    );
    joinFigures(draft, 'g', 'f', 1, newId);
    expect(names(draft)).toBe('1 2 A B 3 4');
    expect(draft.figureOrder).toEqual(['f']);
    expect(draft.figures.f.rail.map((id) => draft.shifts[id].duration)).toEqual([0.6, 0.6, 0.3, 0.6, 0.6]);
    expect(Object.keys(draft.texts)).toEqual(['t']);
    expect(() => checkPiece(JSON.parse(JSON.stringify(draft)))).not.toThrow();
  });
});

describe('several stops', () => {
  test('are taken off together; the first of a closed rail is also its return', () => {
    const open = chain();
    removeStops(open, 'f', [0, 2], newId);
    expect(names(open)).toBe('2 4');
    const closed = chain(true);
    removeStops(closed, 'f', [4, 1], newId);
    expect(names(closed)).toBe('3 4 3');
  });

  test('all of them take the figure along', () => {
    const draft = chain(true);
    removeStops(draft, 'f', [0, 1, 2, 3, 4], newId);
    expect([draft.figureOrder, Object.keys(draft.poses), Object.keys(draft.shifts)]).toEqual([[], [], []]);
  });

  test('a row of poses brings its timing along', () => {
    const draft = chain();
    const timing = { duration: 0.15, easing: { kind: 'linear' }, blend: 'srgb', method: 'straight' } as const;
    const row = ['A', 'B', 'C'].map((name) => drawnPose(SHAPES[0], newId, name));
    insertChain(draft, 'f', row, [timing, undefined, undefined], newId, 1);
    expect(names(draft)).toBe('1 A B C 2 3 4');
    const shifts = draft.figures.f.rail.map((id) => draft.shifts[id]);
    expect(shifts[1]).toMatchObject(timing);
    expect([shifts[0].duration, shifts[2].duration, shifts[2].method]).toEqual([0.6, 0.6, 'auto']);
  });
});
