import { describe, expect, test } from '@jest/globals';
import {
  checkPiece,
  type LaneProperty,
  outlineOfPart,
  type Piece,
  type PieceDraft,
  pieceDuration,
  placementMatrix,
  setLaneAtStop,
} from '../../piece';
import { countedIds, pieceOf } from '../../testing/pieces';
import { RecordingTarget } from '../../testing/recording-target';
import { mapPoint, multiply } from '../../vec';
import { drawFrame } from '../picture/draw';
import { prepareFrame, sampleFrame } from '../picture/sample';
import { shiftInput } from './input-of-shift';
import { motionAt, motionMatrix } from './motion';
import { planAndCompile } from './plan-and-compile';

const SQUARE = 'M0 0H10V10H0Z';
const DIAMOND = 'M5 0L10 5L5 10L0 5Z';
const MOVES: Partial<Record<LaneProperty, readonly number[]>> = { position: [40, -20], turn: [-300], scale: [2, 0.5] };

/** Two poses held for 0.8 s with an even shift of 0.6 s; the second is moved, turned and scaled about (320, 320). */
function moved(values = MOVES): Piece {
  const draft = structuredClone(pieceOf([SQUARE, DIAMOND])) as PieceDraft;
  draft.shifts[draft.figures.f.rail[0]].easing = { kind: 'linear' };
  draft.figures.f.middle = [320, 320];
  const newId = countedIds();
  for (const [property, value = []] of Object.entries(values))
    setLaneAtStop(draft, 'f', property as LaneProperty, 1, value, newId);
  return draft as Piece;
}
const sampleOf = (piece: Piece, seconds: number) => {
  const motion = motionAt(piece, 'f', seconds);
  return motion && { position: [...motion.position], turn: motion.turn[0], scale: [...motion.scale] };
};

describe('motion', () => {
  test('is none without lanes, and costs nothing', () => {
    const piece = pieceOf([SQUARE, DIAMOND]);
    expect(motionAt(piece, 'f', 0.5)).toBeNull();
    const compiled = planAndCompile(piece);
    expect(compiled.figures[0].motion).toBeNull();
    expect(sampleFrame(compiled, 0.5, prepareFrame(compiled)).figures[0].motion).toBeNull();
  });
  test('stands level through the holds, and goes straight between them with the easing of the shift', () => {
    const piece = moved();
    expect(sampleOf(piece, 0)).toEqual(sampleOf(piece, 0.79));
    expect(sampleOf(piece, 0.8 + 0.15)).toEqual({
      position: [expect.closeTo(10, 9), expect.closeTo(-5, 9)],
      turn: expect.closeTo(-75, 9),
      scale: [expect.closeTo(1.25, 9), expect.closeTo(0.875, 9)],
    });
    expect(sampleOf(piece, 1.4)).toEqual({ position: [40, -20], turn: -300, scale: [2, 0.5] });
    expect(sampleOf(piece, 2)).toEqual(sampleOf(piece, 1.4));
  });
  test('goes beyond its ends as the easing does', () => {
    const draft = structuredClone(moved()) as PieceDraft;
    const back = { kind: 'cubic-bezier', x1: 0.3, y1: 0, x2: 0.3, y2: 2 } as const;
    draft.shifts[draft.figures.f.rail[0]].easing = back;
    const most = Math.max(
      ...Array.from({ length: 60 }, (_, i) => motionAt(draft as Piece, 'f', 0.8 + i / 100)?.scale[0] ?? 0),
    );
    expect(most).toBeGreaterThan(2.1);
  });
  test('equal neighbouring keys never move, whatever the easing does', () => {
    const draft = structuredClone(moved({ turn: [90] })) as PieceDraft;
    setLaneAtStop(draft, 'f', 'turn', 0, [90], countedIds());
    draft.shifts[draft.figures.f.rail[0]].easing = { kind: 'cubic-bezier', x1: 0.3, y1: -5, x2: 0.3, y2: 5 };
    for (let i = 0; i <= 60; i++) expect(motionAt(draft as Piece, 'f', 0.8 + i / 100)?.turn[0]).toBe(90);
  });
  test('maps what is drawn about its pivot: scaled, turned, moved', () => {
    const motion = motionAt(moved({ position: [40, -20], turn: [90], scale: [2, 0.5] }), 'f', 2);
    const matrix = motionMatrix(motion as NonNullable<typeof motion>);
    // 10 px to the right of the pivot: 20 by scale, downwards by a quarter turn clockwise.
    expect(mapPoint(matrix, 330, 320)).toEqual([expect.closeTo(360, 9), expect.closeTo(320, 9)]);
    expect(mapPoint(matrix, 320, 320)).toEqual([expect.closeTo(360, 9), expect.closeTo(300, 9)]);
  });
  test('is no matter of the match', () => {
    const still = moved({});
    const [shift] = Object.values(still.shifts);
    expect(shiftInput(moved(), shift)).toEqual(shiftInput(still, shift));
  });
  test('frame n is the same however it is reached', () => {
    const compiled = planAndCompile(moved());
    const frame = prepareFrame(compiled);
    const at = (seconds: number): number[] => {
      const { motion } = sampleFrame(compiled, seconds, frame).figures[0];
      return motion ? [...motion.position, ...motion.turn, ...motion.scale] : [];
    };
    const played = Array.from({ length: 130 }, (_, n) => at(n / 60));
    for (const n of [100, 3, 60, 61, 129, 0]) expect(at(n / 60)).toEqual(played[n]);
  });
  test('a scale of nothing draws no ink and breaks nothing', () => {
    const compiled = planAndCompile(moved({ scale: [0, 0] }));
    const target = new RecordingTarget();
    drawFrame(sampleFrame(compiled, 2, prepareFrame(compiled)), target);
    expect(target.calls).toContain('scale 0 0');
    expect(target.calls.join(' ')).not.toMatch(/NaN|Infinity/);
  });
  test('the opacity of a lane thins what the figure has', () => {
    const draft = structuredClone(moved({ opacity: [0.5] })) as PieceDraft;
    draft.figures.f.opacity = 0.8;
    const compiled = planAndCompile(draft as Piece);
    const frame = prepareFrame(compiled);
    expect(sampleFrame(compiled, 0, frame).figures[0].opacity[0]).toBeCloseTo(0.8, 12);
    expect(sampleFrame(compiled, 2, frame).figures[0].opacity[0]).toBeCloseTo(0.4, 12);
  });
});

describe('a figure that begins late', () => {
  const late = (change: Partial<PieceDraft['figures'][string]>): Piece => {
    const draft = structuredClone(moved({ turn: [90] })) as PieceDraft;
    Object.assign(draft.figures.f, { start: 0.5, ...change });
    return draft as Piece;
  };
  const partsAt = (piece: Piece, seconds: number): number => {
    const compiled = planAndCompile({ ...piece, playback: 'once' });
    return sampleFrame(compiled, seconds, prepareFrame(compiled)).figures[0].parts.length;
  };
  test('has all its poses, shifts and keys so much later', () => {
    const piece = late({});
    expect(pieceDuration(piece)).toBeCloseTo(2.7, 9);
    expect(motionAt(piece, 'f', 1.29)?.turn[0]).toBe(0);
    expect(motionAt(piece, 'f', 1.6)?.turn[0]).toBeCloseTo(45, 9);
    expect(motionAt(piece, 'f', 1.9)?.turn[0]).toBe(90);
  });
  test('is held before and after, or hidden, from an exact frame on', () => {
    expect([0, 0.49, 0.5, 2.7].map((seconds) => partsAt(late({}), seconds))).toEqual([1, 1, 1, 1]);
    const hidden = late({ before: 'hidden' });
    expect([0, 29 / 60, 30 / 60, 2.7].map((seconds) => partsAt(hidden, seconds))).toEqual([0, 0, 1, 1]);
    const gone = late({ after: 'hidden' });
    expect([0, 2.69, 2.7].map((seconds) => partsAt(gone, seconds))).toEqual([1, 1, 0]);
  });
});

describe('a piece from before motion', () => {
  /** As version 5 wrote it: turned by hand, which was baked into the placement. */
  function old(rotations: readonly number[]) {
    const { lanes: _none, ...piece } = structuredClone(pieceOf([SQUARE, DIAMOND])) as unknown as Record<string, never>;
    const data = piece as unknown as PieceDraft;
    data.figures.f.poses.forEach((id, i) => {
      Object.assign(data.poses[id].placement, { rotation: rotations[i], rule: null, scaleX: 1.5, scaleY: -2 });
    });
    const { middle: _middle, ...figure } = data.figures.f;
    return JSON.parse(JSON.stringify({ ...data, version: 5, figures: { f: figure } })) as PieceDraft;
  }
  /** The points of a pose as it is shown at a time. */
  const pointsAt = (piece: Piece, stop: number, seconds: number): number[] => {
    const pose = piece.poses[piece.figures.f.poses[stop]];
    const motion = motionAt(piece, 'f', seconds);
    const base = placementMatrix(pose.placement);
    const matrix = motion ? multiply(motionMatrix(motion), base) : base;
    return pose.parts.flatMap((id) =>
      outlineOfPart(piece.parts[id]).contours.flatMap(({ points }) =>
        Array.from({ length: points.length / 2 }, (_, i) => mapPoint(matrix, points[2 * i], points[2 * i + 1])).flat(),
      ),
    );
  };

  test('shows the same at its poses; what was turned is the value of its turn now', () => {
    const data = old([30, -300]);
    const before = [0, 1].map((stop) => pointsAt({ ...data, lanes: {} } as unknown as Piece, stop, 0));
    const piece = checkPiece(structuredClone(data));
    expect(piece.figures.f.middle).not.toBeNull();
    [0, 1.4].forEach((seconds, stop) => {
      expect(motionAt(piece, 'f', seconds)?.turn[0]).toBe([30, -300][stop]);
      pointsAt(piece, stop, seconds).forEach((v, i) => expect(v).toBeCloseTo(before[stop][i], 6));
      expect(piece.poses[piece.figures.f.poses[stop]].placement.rotation).toBe(0);
    });
  });
  test('without anything turned it gets no lanes', () => {
    const piece = checkPiece(old([0, 0]));
    expect([piece.lanes, piece.figures.f.middle]).toEqual([{}, null]);
  });
  test('and what is no piece at all is refused with a message, not by breaking', () => {
    for (const spoiled of [
      { poses: null },
      { figures: { f: null } },
      { shifts: 7, figures: { f: { rail: [1, {}], poses: 'x' } } },
    ])
      expect(() => checkPiece({ ...old([30, 0]), ...spoiled })).toThrow(/cannot be used/);
  });
});
