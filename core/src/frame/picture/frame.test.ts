import { describe, expect, test } from '@jest/globals';
import { ease } from '../../easing';
import { inBetweenOutline } from '../../morph';
import {
  AUTOMATIC_MATCH,
  addFigure,
  insertPoses,
  type Part,
  type Piece,
  type PieceDraft,
  setClosedRail,
} from '../../piece';
import { strayOf } from '../../testing/distance';
import { countedIds, drawnPose, pieceBetween, pieceOf } from '../../testing/pieces';
import { RecordingTarget } from '../../testing/recording-target';
import { compilePiece } from '../lanes/compile';
import { shiftInput } from '../lanes/input-of-shift';
import { planAndCompile } from '../lanes/plan-and-compile';
import { planPoseShift } from '../plan/part-plans';
import { sameShiftInput } from '../plan/shift-input';
import { drawFrame } from './draw';
import { frameAt } from './frame-at';
import { layOutAll, layOutAt, prepareFrame, runTime, sampleFrame } from './sample';

const SQUARE = 'M0 0H10V10H0Z';
const DIAMOND = 'M5 0L10 5L5 10L0 5Z';
const piece = pieceOf([SQUARE, DIAMOND, SQUARE]);
const points = (seconds: number): Float64Array => frameAt(piece, seconds).figures[0].parts[0].points.slice();

/** A row of squares that become a row of diamonds, each a part of its own. */
function manyParts(count: number): Piece {
  const newId = countedIds();
  const row = (shape: string): Part[] =>
    Array.from({ length: count }, (_, i) => drawnPose(`M${12 * i} 0${shape}`, newId).parts[0]);
  return pieceBetween(row('h10v10h-10z'), row('l5 5l-5 5l-5 -5z'));
}

describe('the frame of a piece', () => {
  test('stands still during a hold and moves during a shift', () => {
    expect(points(0)).toEqual(points(0.79));
    expect(points(0.9)).not.toEqual(points(0.8));
    expect(points(1.4)).toEqual(points(2.2));
  });

  test('is the same picture whatever was shown before', () => {
    const compiled = planAndCompile(piece);
    const frame = prepareFrame(compiled);
    const direct = [...sampleFrame(compiled, 1.1, frame).figures[0].parts[0].points];
    for (const t of [0, 3.3, 0.95, 2.5, 1.39]) sampleFrame(compiled, t, frame);
    expect([...sampleFrame(compiled, 1.1, frame).figures[0].parts[0].points]).toEqual(direct);
  });

  test('is laid out in steps when time is short: first what is in sight, then the rest, with the same picture', () => {
    const compiled = compilePiece(manyParts(100), () => undefined);
    let looks = 0;
    const late = (): boolean => ++looks > 0;
    const steps = (work: () => boolean): number => {
      let count = 1;
      while (!work()) count++;
      return count;
    };
    // Time is looked at after every 32 parts: 100 take three looks.
    expect([steps(() => layOutAt(compiled, 0, late)), looks]).toEqual([4, 3]);
    // What is in sight is there; the pose after it is not.
    expect([layOutAt(compiled, 0, late), layOutAt(compiled, compiled.duration - 0.01, late)]).toEqual([true, false]);
    expect([steps(() => layOutAll(compiled, late)) > 1, layOutAll(compiled, late)]).toEqual([true, true]);
    const picture = (made: typeof compiled): number[][] =>
      sampleFrame(made, 0.3, prepareFrame(made)).figures[0].parts.map(({ points }) => [...points]);
    expect(picture(compiled)).toEqual(picture(compilePiece(manyParts(100), () => undefined)));
    expect(picture(compiled)).toHaveLength(100);
  });

  test('progress in a shift is the eased share of its time', () => {
    const shift = piece.shifts[piece.figures.f.rail[0]];
    const part = frameAt(piece, 0.8 + 0.6 * 0.3).figures[0].parts[0];
    expect(part.progress).toBeCloseTo(ease(shift.easing, 0.3), 9);
  });

  test('time loops or is held at the ends', () => {
    const loop = planAndCompile(piece);
    expect(
      [runTime(loop, loop.duration + 0.5), runTime(loop, -0.1), runTime(loop, loop.duration)].map((v) => +v.toFixed(9)),
    ).toEqual([0.5, 3.5, 0]);
    const once = planAndCompile({ ...piece, playback: 'once' });
    expect([runTime(once, 99), runTime(once, -1)]).toEqual([once.duration, 0]);
    expect(runTime(planAndCompile(pieceOf([])), 4)).toBe(0);
  });

  test('a loop with a way back closes without a jump', () => {
    const draft = structuredClone(piece) as PieceDraft;
    setClosedRail(draft, 'f', true, (prefix) => `back-${prefix}`);
    const compiled = planAndCompile(draft as Piece);
    const at = (t: number) => {
      const [part] = sampleFrame(compiled, t, prepareFrame(compiled)).figures[0].parts;
      return inBetweenOutline(part.lanes.plan, part.points);
    };
    const end = at(compiled.duration - 1e-7);
    expect(Math.max(strayOf(at(0), end), strayOf(end, at(0)))).toBeLessThan(0.01);
  });

  test('while a plan is missing, the pose that is left is shown until the middle, then the one that is reached', () => {
    const compiled = compilePiece(piece, () => undefined);
    const at = (t: number): number[] => [
      ...sampleFrame(compiled, t, prepareFrame(compiled)).figures[0].parts[0].points,
    ];
    expect(at(1)).toEqual(at(0));
    expect(at(1.2)).toEqual(at(1.5));
    expect(at(1.2)).not.toEqual(at(1));
    expect(compiled.duration).toBeCloseTo(3.6, 9);
  });

  test('a shift of zero seconds is a cut', () => {
    const draft = structuredClone(piece) as PieceDraft;
    draft.shifts[draft.figures.f.rail[0]].duration = 0;
    const at = (t: number): number => frameAt(draft as Piece, t).figures[0].parts[0].progress;
    expect([at(0.79), at(0.81)]).toEqual([0, 0]);
    expect(frameAt(draft as Piece, 0.81).figures[0].parts[0].points).not.toEqual(
      frameAt(draft as Piece, 0.79).figures[0].parts[0].points,
    );
  });
});

describe('parts with paint of their own', () => {
  const build = (): Piece => {
    const newId = countedIds();
    const draft = structuredClone(pieceOf([])) as PieceDraft;
    addFigure(draft, 'g', 'Two parts');
    const a = drawnPose(SQUARE, newId, 'A', '#ff0000');
    const b = drawnPose('M20 0H30V10H20Z', newId, 'B', '#0000ff');
    const both = { pose: { ...a.pose, parts: [a.parts[0].id, b.parts[0].id] }, parts: [a.parts[0], b.parts[0]] };
    const c = drawnPose('M20 0H30V10H20Z', newId, 'C', '#0000ff');
    insertPoses(draft, 'g', [both, c], newId);
    return draft as Piece;
  };

  test('go to the part that is near and alike; an unpaired one shrinks away in its own paint', () => {
    const two = build();
    const plan = planPoseShift(shiftInput(two, Object.values(two.shifts)[0]));
    expect(plan.parts).toHaveLength(2);
    const roles = plan.parts.map(({ plan: { contours } }) => contours[0].role).sort();
    expect(roles).toEqual(['pair', 'vanishes']);
    const frame = frameAt(two, 1.1).figures[1].parts;
    const dying = frame.find(({ contours }) => contours[0].role === 'vanishes');
    expect([...(dying?.fill?.colour ?? [])].map((v) => +v.toFixed(3))).toEqual([1, 0, 0, 1]);
  });

  test('drawing: one path a part; what has vanished is not drawn', () => {
    const two = build();
    const at = (t: number): string[] => {
      const target = new RecordingTarget();
      drawFrame(frameAt(two, t), target);
      return target.calls.filter((call) => /begin|move|close|fill/.test(call)).map((call) => call.split(' ')[0]);
    };
    expect(at(0.5)).toEqual(['begin', 'move', 'close', 'fill', 'begin', 'move', 'close', 'fill']);
    expect(at(2)).toEqual(['begin', 'fill', 'begin', 'move', 'close', 'fill']);
  });
});

describe('what a plan depends on', () => {
  test('the same records give the same input; any change of what matters another', () => {
    const shift = piece.shifts[piece.figures.f.rail[0]];
    const input = shiftInput(piece, shift);
    expect(
      sameShiftInput(
        input,
        shiftInput({ ...piece, name: 'Other' }, { ...shift, duration: 9, easing: { kind: 'linear' } }),
      ),
    ).toBe(true);
    expect(
      sameShiftInput(input, shiftInput(piece, { ...shift, match: { ...AUTOMATIC_MATCH, direction: 'reversed' } })),
    ).toBe(false);
    const moved = {
      ...piece,
      poses: {
        ...piece.poses,
        [shift.to]: { ...piece.poses[shift.to], placement: { ...piece.poses[shift.to].placement, x: 1 } },
      },
    };
    expect(sameShiftInput(input, shiftInput(moved, shift))).toBe(false);
  });
});
