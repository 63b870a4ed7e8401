import { describe, expect, test } from '@jest/globals';
import { frameAt } from '../../frame';
import { readPathData } from '../../svg';
import { countedIds, pieceOf } from '../../testing/pieces';
import type { Piece } from '../records/records';
import { checkPiece } from '../rules/check-piece';
import { stretchOf } from '../time/moments';
import { railTimeline } from '../time/rail';
import { appearanceOf, keepAppearances, setAppearance } from './appear';
import type { PieceDraft } from './edit';
import { setLaneAtStop } from './edit-lanes';
import { moveAlongOutline } from './motion-path';
import { retime } from './retime';

const SQUARE = 'M0 0H10V10H0Z';
const newId = countedIds();
/** Two poses of 0.8 s with a shift of 0.6 s between them, from 0.5 s on. */
function late(): PieceDraft {
  const draft = structuredClone(pieceOf([SQUARE, 'M5 0L10 5L5 10L0 5Z'])) as PieceDraft;
  draft.playback = 'once';
  draft.figures.f.start = 0.5;
  return draft;
}
const frame = (draft: PieceDraft, seconds: number) => {
  const [figure] = frameAt(checkPiece(JSON.parse(JSON.stringify(draft))), seconds).figures;
  return { parts: figure.parts.length, opacity: +figure.opacity[0].toFixed(6), scale: figure.motion?.scale[0] };
};

describe('appearing and disappearing', () => {
  test('at once: at an exact frame', () => {
    const draft = late();
    setAppearance(draft, 'f', 'appears', 'once', 0.4, newId);
    setAppearance(draft, 'f', 'disappears', 'once', 0.4, newId);
    expect([29, 30, 161, 162].map((n) => frame(draft, n / 60).parts)).toEqual([0, 1, 1, 0]);
    expect(['appears', 'disappears'].map((side) => appearanceOf(draft as Piece, 'f', side as 'appears'))).toEqual([
      'once',
      'once',
    ]);
  });
  test('fading in goes from nothing to what it was, and out again; opacity that was set stays', () => {
    const draft = late();
    setLaneAtStop(draft, 'f', 'opacity', 0, [0.6], newId);
    setAppearance(draft, 'f', 'appears', 'fading', 0.4, newId);
    setAppearance(draft, 'f', 'disappears', 'fading', 0.4, newId);
    expect([0.5, 0.9, 1.2, 2.2, 2.69].map((t) => frame(draft, t).opacity)).toEqual([
      0,
      0.6,
      0.6,
      1,
      expect.closeTo(0, 1),
    ]);
    expect(appearanceOf(draft as Piece, 'f', 'appears')).toBe('fading');
  });
  test('growing is about its middle; another choice, or none, takes it back without a trace', () => {
    const draft = late();
    const before = JSON.stringify(draft);
    setAppearance(draft, 'f', 'appears', 'growing', 0.4, newId);
    expect([0.5, 0.9, 1.5].map((t) => frame(draft, t).scale)).toEqual([0, 1, 1]);
    const { middle } = draft.figures.f;
    expect(middle).not.toBeNull();
    setAppearance(draft, 'f', 'appears', 'held', 0.4, newId);
    draft.figures.f.middle = null;
    expect(JSON.stringify(draft)).toBe(before);
  });
});

describe('what a figure appears and disappears by', () => {
  /** Its opacity or scale a moment before its end, and the end. */
  const ends = (piece: Piece): [duration: number, parts: (number | undefined)[]] => {
    const { duration } = railTimeline(piece, piece.figures.f);
    return [
      +duration.toFixed(6),
      [0.5, 0.2, 1e-4].map((left) => {
        const [figure] = frameAt(piece, duration - left).figures;
        return +(figure.motion?.scale[0] ?? figure.opacity[0]).toFixed(2);
      }),
    ];
  };
  test.each(['fading', 'growing'] as const)('%s out follows the end when hold, shift or start change', (how) => {
    const draft = late();
    setAppearance(draft, 'f', 'disappears', how, 0.4, newId);
    const before = structuredClone(draft) as Piece;
    const [, wanted] = ends(before);
    expect(wanted).toEqual([1, expect.closeTo(0.22, 2), 0]);
    const changes: ((piece: PieceDraft) => void)[] = [
      (piece) => void (piece.poses[piece.figures.f.poses[1]].hold = 2),
      (piece) => void (piece.shifts[piece.figures.f.rail[0]].duration = 0.2),
      (piece) => void (piece.figures.f.start = 1.3),
      (piece) => void (piece.poses[piece.figures.f.poses[0]].hold = 0.1),
    ];
    for (const change of changes) {
      const after = structuredClone(draft);
      change(after);
      for (const [id, keys] of keepAppearances(before, after as Piece))
        after.lanes[id].keys = structuredClone(keys) as (typeof after.lanes)[string]['keys'];
      expect(ends(checkPiece(JSON.parse(JSON.stringify(after))))[1]).toEqual(wanted);
      expect(appearanceOf(after as Piece, 'f', 'disappears')).toBe(how);
    }
    // What did not change, and what was taken away, is left alone.
    expect(keepAppearances(before, before).size).toBe(0);
    const gone = structuredClone(draft);
    gone.lanes = {};
    expect(keepAppearances(before, gone as Piece).size).toBe(0);
  });
});

describe('an outline as path', () => {
  test('carries the middle along it at even speed, from the end of the first hold until the last stop', () => {
    const draft = late();
    const [contour] = readPathData('M100 100H200V150').contours;
    moveAlongOutline(draft, 'f', contour, newId);
    const [x0, y0] = draft.figures.f.middle ?? [0, 0];
    const place = (t: number): number[] => {
      const [figure] = frameAt(checkPiece(JSON.parse(JSON.stringify(draft))), t).figures;
      return [...(figure.motion?.position ?? [])].map((v, i) => +(v + [x0, y0][i]).toFixed(3));
    };
    // 150 px in 0.6 s, from 1.3 s on.
    expect([0, 1.3, 1.5, 1.7, 1.8, 1.9, 2.5].map(place)).toEqual([
      [100, 100],
      [100, 100],
      [150, 100],
      [200, 100],
      [200, 125],
      [200, 150],
      [200, 150],
    ]);
  });
});

describe('a stretch that plays again', () => {
  test('goes with its stops, ends with the piece, and is all of it where its ends are gone or the wrong way round', () => {
    const draft = late();
    const [shift] = draft.figures.f.rail;
    const stop = { pose: draft.figures.f.poses[1], shift };
    draft.playback = 'stretch';
    draft.stretch = { from: { at: { figure: 'f', stop }, after: 0.1 }, until: { at: null, after: 3600 } };
    const rounded = () => stretchOf(draft as Piece).map((v) => +v.toFixed(6));
    expect(rounded()).toEqual([2, 2.7]);
    draft.shifts[shift].duration = 1;
    expect(rounded()).toEqual([2.4, 3.1]);
    retime(draft, 2);
    expect(rounded()).toEqual([4.8, 6.2]);
    draft.stretch.until = { at: null, after: 1 };
    expect(rounded()).toEqual([0, 6.2]);
    draft.stretch = { from: { at: { figure: 'gone', stop }, after: 0 }, until: { at: null, after: 3 } };
    expect(rounded()).toEqual([0, 6.2]);
    delete draft.stretch;
    expect(() => checkPiece(JSON.parse(JSON.stringify(draft)))).toThrow(/stretch must say what is played again/);
  });
});
