import { describe, expect, test } from '@jest/globals';
import { cubicPoint } from '../../curve';
import { evaluate, measureHealth } from '../../morph';
import { nearestOnContour } from '../../outline';
import {
  AS_DRAWN,
  AUTOMATIC_MATCH,
  addFigure,
  duplicateFigures,
  emptyPiece,
  insertPoses,
  type MatchChoices,
  type Part,
  type Piece,
  type PieceDraft,
  plainStroke,
  recordOfContour,
} from '../../piece';
import { readPathData } from '../../svg';
import { countedIds, drawnPose, inputBetween } from '../../testing/pieces';
import { type PartPlan, type PoseShiftPlan, planPoseShift } from '../plan/part-plans';
import { sameShiftInput } from '../plan/shift-input';
import { shiftInput } from './input-of-shift';

/** Two shapes of a hill line, drawn anew, not copied: nothing links their points. */
const LINE_A = 'M0 60C20 60 30 10 50 10S80 40 100 30';
const LINE_B = 'M0 20C15 50 40 70 60 50S85 5 100 15';
const areaUnder = (line: string): string => `${line}V100H0Z`;

const part = (id: string, d: string, open = false): Part => {
  const newId = countedIds();
  return {
    id,
    name: id,
    contours: readPathData(d).contours.map((contour) => recordOfContour(contour, (prefix) => newId(`${id}${prefix}`))),
    fillRule: 'nonzero',
    fill: open ? null : '#305080',
    stroke: null,
  };
};

function planned(from: Part[], to: Part[], match: Partial<MatchChoices> = {}, method: 'auto' | 'turning' = 'auto') {
  const pose = (parts: Part[]) => ({ placement: AS_DRAWN, parts });
  return planPoseShift(inputBetween(pose(from), pose(to), { method, match: { ...AUTOMATIC_MATCH, ...match } }));
}

/** How far points along the segments of one plan that lie on the other's contour at both ends stray from it at 21 moments, px. */
function strayed(leader: PartPlan, follower: PartPlan): number {
  const contourAt = (plan: PartPlan, p: number) => {
    const frame = evaluate(plan.plan, p);
    const { at, segments, closed } = plan.plan.contours[0];
    return { points: frame.slice(at, at + 6 * segments + 2), closed };
  };
  let worst = 0;
  for (let k = 0; k <= 20; k++) {
    const line = contourAt(leader, k / 20);
    const area = contourAt(follower, k / 20);
    for (let i = 0; i + 6 < line.points.length; i += 6)
      for (const t of [0, 0.3, 0.5, 0.7]) {
        const [x, y] = cubicPoint(line.points, i, t, new Float64Array(2));
        worst = Math.max(worst, nearestOnContour(area, x, y)?.distance ?? Infinity);
      }
  }
  return worst;
}
const codes = (plan: PoseShiftPlan): string[] => plan.reasons.map(({ code }) => code);

describe('edges that lie on each other at both ends', () => {
  test('a line and the area under it, drawn apart, stay within 0.05 px of each other at 21 moments', () => {
    const plan = planned(
      [part('area', areaUnder(LINE_A)), part('line', LINE_A, true)],
      [part('area2', areaUnder(LINE_B)), part('line2', LINE_B, true)],
    );
    const [area, line] = plan.parts;
    expect(line.plan.contours[0].closed).toBe(false);
    expect(strayed(line, area)).toBeLessThan(0.05);
    expect(codes(plan)).toContain('shared-edge');
    expect(codes(plan)).not.toContain('method-own');
    expect(measureHealth(area.plan).verdict).not.toBe('broken');
  });

  test('also where the two have different anchors on the edge, or run it the other way', () => {
    // The same curve with one more anchor, and the area written from its far corner backwards.
    const more = 'M0 60C10 60 17.5 47.5 25 35C32.5 22.5 40 10 50 10C70 10 80 40 100 30';
    const back = (line: string): string => {
      const { points } = readPathData(line).contours[0];
      let d = `M0 100H100V${points[points.length - 1]}`;
      for (let i = points.length - 2; i >= 6; i -= 6)
        d += `C${points[i - 2]} ${points[i - 1]} ${points[i - 4]} ${points[i - 3]} ${points[i - 6]} ${points[i - 5]}`;
      return `${d}Z`;
    };
    const plan = planned(
      [part('line', more, true), part('area', back(LINE_A))],
      [part('line2', LINE_B, true), part('area2', back(LINE_B))],
    );
    const [line, area] = plan.parts;
    expect(strayed(line, area)).toBeLessThan(0.05);
  });

  test('two regions with a common border keep it', () => {
    const left = (x: number): string => `M0 0H${x}C${x + 30} 30 ${x - 30} 70 ${x} 100H0Z`;
    const right = (x: number): string => `M${x} 0H100V100H${x}C${x - 30} 70 ${x + 30} 30 ${x} 0Z`;
    const plan = planned(
      [part('left', left(40)), part('right', right(40))],
      [part('left2', left(65)), part('right2', right(65))],
    );
    const [p, q] = plan.parts.map(({ plan: shift }) => shift);
    for (let k = 0; k <= 20; k++) {
      const [f, g] = [evaluate(p, k / 20), evaluate(q, k / 20)];
      const total = (frame: Float64Array, shift: typeof p): number => {
        const { at, segments } = shift.contours[0];
        let double = 0;
        for (let i = at; i < at + 6 * segments; i += 6)
          for (let s = 0; s < 50; s++) {
            const [x0, y0] = cubicPoint(frame, i, s / 50, new Float64Array(2));
            const [x1, y1] = cubicPoint(frame, i, (s + 1) / 50, new Float64Array(2));
            double += x0 * y1 - x1 * y0;
          }
        return Math.abs(double / 2);
      };
      // No gap and no overlap: together they are the square.
      expect(total(f, p) + total(g, q)).toBeCloseTo(10_000, 0);
    }
  });

  test('strangers, and edges that lie on each other at one end only, are left alone', () => {
    const apart = planned(
      [part('area', areaUnder(LINE_A)), part('line', LINE_A, true)],
      [part('area2', areaUnder(LINE_B)), part('line2', 'M0 95C30 80 70 80 100 95', true)],
    );
    expect(codes(apart)).not.toContain('shared-edge');
  });

  test('a chosen method goes before it', () => {
    const plan = planned(
      [part('area', areaUnder(LINE_A)), part('line', LINE_A, true)],
      [part('area2', areaUnder(LINE_B)), part('line2', LINE_B, true)],
      {},
      'turning',
    );
    expect(codes(plan)).not.toContain('shared-edge');
    expect(plan.parts.every(({ plan: shift }) => shift.contours.every(({ method }) => method === 'turning'))).toBe(
      true,
    );
  });
});

describe('edges of two figures', () => {
  function twoFigures(): Piece {
    const newId = countedIds();
    const draft = structuredClone(emptyPiece('test', 'Test')) as PieceDraft;
    for (const [figure, of] of [
      ['area', areaUnder],
      ['line', (d: string) => d],
    ] as const) {
      addFigure(draft, figure, figure);
      insertPoses(
        draft,
        figure,
        [LINE_A, LINE_B].map((d) => drawnPose(of(d), newId)),
        newId,
      );
    }
    for (const pose of Object.values(draft.poses)) pose.placement = structuredClone(AS_DRAWN) as typeof pose.placement;
    for (const id of draft.figures.line.poses.flatMap((pose) => draft.poses[pose].parts))
      draft.parts[id] = {
        ...draft.parts[id],
        fill: null,
        stroke: plainStroke('#204060', 2) as PieceDraft['parts'][string]['stroke'],
      };
    return draft as Piece;
  }
  const shiftOf = (piece: Piece, figure: string) => piece.shifts[piece.figures[figure].rail[0]];

  test('shifts in step are planned with each other in mind', () => {
    const piece = twoFigures();
    const inputs = ['line', 'area'].map((id) => shiftInput(piece, shiftOf(piece, id)));
    expect(inputs.map(({ inStep }) => inStep?.map(({ below }) => below))).toEqual([[true], [false]]);
    const [line, area] = inputs.map((input) => planPoseShift(input).parts[0]);
    expect(strayed(line, area)).toBeLessThan(0.05);
    // Planned alone they part.
    const [aloneLine, aloneArea] = inputs.map((input) => planPoseShift({ ...input, inStep: undefined }).parts[0]);
    expect(strayed(aloneLine, aloneArea)).toBeGreaterThan(0.05);
  });

  test('not those at another time, with another easing, or elsewhere', () => {
    const changed = (recipe: (draft: PieceDraft) => void): boolean => {
      const draft = structuredClone(twoFigures()) as PieceDraft;
      recipe(draft);
      return shiftInput(draft as Piece, shiftOf(draft as Piece, 'line')).inStep === undefined;
    };
    expect(changed(() => {})).toBe(false);
    expect(changed((draft) => void (draft.shifts[draft.figures.area.rail[0]].duration = 2))).toBe(true);
    expect(changed((draft) => void (draft.shifts[draft.figures.area.rail[0]].easing = { kind: 'linear' }))).toBe(true);
    expect(changed((draft) => void (draft.poses[draft.figures.area.poses[0]].hold = 3))).toBe(true);
    expect(changed((draft) => void (draft.poses[draft.figures.area.poses[1]].placement.x = 40))).toBe(true);
    expect(changed((draft) => void (draft.figures.area.hidden = true))).toBe(true);
  });

  test('a change of the one inStep makes a plan out of date', () => {
    const piece = twoFigures();
    const draft = structuredClone(piece) as PieceDraft;
    const moved = shiftOf(piece, 'area');
    draft.shifts[moved.id].match.direction = 'reversed';
    const before = shiftInput(piece, shiftOf(piece, 'line'));
    expect(sameShiftInput(before, shiftInput(piece, shiftOf(piece, 'line')))).toBe(true);
    const other = { ...piece, shifts: { ...piece.shifts, [moved.id]: draft.shifts[moved.id] } } as Piece;
    expect(sameShiftInput(before, shiftInput(other, shiftOf(piece, 'line')))).toBe(false);
  });

  test('a copy of a figure needs no other in mind to go the same way; of many only the nearest are', () => {
    const piece = twoFigures();
    const draft = structuredClone(piece) as PieceDraft;
    const newId = countedIds();
    duplicateFigures(draft, ['area'], (prefix) => `copy-${newId(prefix)}`);
    const copied = draft as Piece;
    const [area, , copy] = copied.figureOrder;
    const inputs = [area, copy].map((id) => shiftInput(copied, shiftOf(copied, id)));
    // Of the other two figures only the line is in mind.
    expect(inputs.map(({ inStep }) => inStep?.length)).toEqual([1, 1]);
    // A copy that goes another way, or is no longer alike, is in mind too.
    const others = (now: Piece): number => shiftInput(now, shiftOf(now, area)).inStep?.length ?? 0;
    const own = shiftOf(copied, copy);
    const turned = { ...own, match: { ...own.match, direction: 'reversed' as const } };
    expect(others({ ...copied, shifts: { ...copied.shifts, [own.id]: turned } })).toBe(2);
    const part = copied.parts[copied.poses[own.to].parts[0]];
    const [{ anchors, ...contour }] = part.contours;
    const bent = {
      ...contour,
      anchors: anchors.map((anchor, i) => (i === 1 ? { ...anchor, at: [50, 11] as const } : anchor)),
    };
    expect(others({ ...copied, parts: { ...copied.parts, [part.id]: { ...part, contours: [bent] } } })).toBe(2);
    for (let k = 0; k < 6; k++) {
      duplicateFigures(draft, ['line'], (prefix) => `more${k}-${newId(prefix)}`);
      const last = draft.figureOrder[draft.figureOrder.length - 1];
      for (const pose of draft.figures[last].poses)
        for (const id of draft.poses[pose].parts) {
          const [contour] = draft.parts[id].contours;
          // A line of its own that has both ends in common.
          contour.anchors[1] = { ...contour.anchors[1], at: [50, 10 + k] };
        }
    }
    const crowded = structuredClone(draft) as Piece;
    expect(shiftInput(crowded, shiftOf(crowded, 'area')).inStep).toHaveLength(4);
  });
});
