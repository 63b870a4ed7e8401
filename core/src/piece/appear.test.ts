import { describe, expect, test } from '@jest/globals';
import { frameAt } from '../frame';
import { readPathData } from '../svg';
import { countedIds, pieceOf } from '../testing/pieces';
import { appearanceOf, setAppearance } from './appear';
import { checkPiece } from './check-piece';
import type { PieceDraft } from './edit';
import { setLaneAtStop } from './edit-lanes';
import { stretchOf } from './moments';
import { moveAlongOutline } from './motion-path';
import type { Piece } from './records';
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
