import { describe, expect, test } from '@jest/globals';
import { DEFAULT_EASING } from '../../easing';
import { type CompiledPiece, planAndCompile, prepareFrame, sampleFrame } from '../../frame';
import type { Outline } from '../../outline';
import { addFigure, emptyPiece, insertPoses, type Piece, type PieceDraft, poseFromSvg } from '../../piece';
import { readPathData, readSvg } from '../../svg';
import { realIcons } from '../../testing/icons';
import { outlineDistance } from '../../testing/outline-distance';
import { countedIds } from '../../testing/pieces';
import { writeAnimatedSvg } from '../animated-svg';
import { writeLottie } from '../lottie/write-lottie';
import { readMovingFile } from './moving-file';
import { plainOutline } from './plain-outline';

/** Icons of one contour, one after another, as they are placed when they arrive. */
function chainOf(count: number): Piece {
  const newId = countedIds();
  const draft = structuredClone(emptyPiece('chain', 'Chain')) as PieceDraft;
  addFigure(draft, 'f', 'Icon');
  const icons = realIcons(200).filter(({ d }) => readPathData(d).contours.length === 1);
  const poses = icons
    .slice(0, count)
    .map(({ d }) =>
      poseFromSvg(
        readSvg(`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 24 24"><path d="${d}"/></svg>`),
        'Icon',
        newId,
      ),
    );
  insertPoses(draft, 'f', poses, newId);
  return draft as Piece;
}

function outlineAt(compiled: CompiledPiece, seconds: number): Outline {
  const { figures } = sampleFrame(compiled, seconds, prepareFrame(compiled));
  return {
    contours: figures[0].parts.flatMap(({ points, contours }) =>
      contours.map(({ at, segments, closed }) => ({
        points: Float64Array.from(points.slice(at, at + 6 * segments + 2)),
        closed,
      })),
    ),
    fillRule: 'nonzero',
  };
}

describe('what comes back from a file of its own', () => {
  const chain = chainOf(8);
  const compiled = planAndCompile(chain);
  const backFrom = (text: string): Piece => readMovingFile(text, { id: 'p', name: 'Read', newId: countedIds() }).piece;
  const strayOf = (piece: Piece): number => {
    const back = planAndCompile(piece);
    const moments = Array.from({ length: 40 }, (_, i) => ((i + 0.37) / 40) * compiled.duration);
    return Math.max(...moments.map((time) => outlineDistance(outlineAt(back, time), outlineAt(compiled, time))));
  };

  test('a chain of eight icons is eight poses again, within 0.1 px, with the easing of its shifts', () => {
    const piece = backFrom(writeAnimatedSvg(compiled, { title: 'Chain' }));
    expect(Object.values(piece.poses)).toHaveLength(8);
    expect(Object.values(piece.shifts).map(({ easing }) => easing)).toEqual(new Array(7).fill(DEFAULT_EASING));
    expect(strayOf(piece)).toBeLessThan(0.1);
  });

  test('from Lottie, where handles are rounded by themselves, one way stays point by point: ten poses, within 0.1 px', () => {
    const piece = backFrom(writeLottie(compiled, { name: 'Chain' }));
    expect(Object.values(piece.poses)).toHaveLength(10);
    expect(Object.values(piece.shifts).filter(({ method }) => method === 'points')).toHaveLength(1);
    expect(strayOf(piece)).toBeLessThan(0.1);
  });

  test('a mark of two parts that become four, and two again, is its three poses and goes back to the first', () => {
    const wave =
      '<path fill="#1c7c8c" d="M14 146C22 84 62 34 118 34C156 34 182 56 186 92C174 78 154 74 142 84C126 98 136 126 170 146Z"/><path fill="#17324d" d="M14 158C40 146 64 146 90 158C116 170 142 170 186 154L186 172C142 188 116 188 90 176C64 164 40 164 14 176Z"/>';
    const sail =
      '<path fill="#eeb03a" d="M88 16C130 48 158 92 166 144L38 144C64 108 82 66 88 16Z"/><path fill="#17324d" d="M22 152L178 152C174 172 158 184 136 184L64 184C42 184 26 172 22 152Z"/>';
    const lantern =
      '<path fill="#e58a2f" d="M70 62L130 62C142 86 147 118 140 148L60 148C53 118 58 86 70 62Z"/><path fill="#17324d" d="M56 156L144 156L154 174C157 180 154 184 148 184L52 184C46 184 43 180 46 174Z"/><path fill="#20406a" d="M62 54L138 54L124 38C118 30 110 26 100 26C90 26 82 30 76 38Z"/><path fill="#fff6d8" d="M101 78C116 98 122 110 116 124C110 136 90 136 84 124C80 114 86 108 92 100C97 93 100 87 101 78Z"/>';
    const newId = countedIds();
    const draft = structuredClone(emptyPiece('mark', 'Mark')) as PieceDraft;
    addFigure(draft, 'f', 'Mark');
    const poses = [wave, sail, lantern].map((shapes) =>
      poseFromSvg(
        readSvg(`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 200 200">${shapes}</svg>`),
        'Pose',
        newId,
      ),
    );
    insertPoses(draft, 'f', poses, newId);
    const { rail } = draft.figures.f;
    const { from } = draft.shifts[rail[0]];
    const { to } = draft.shifts[rail[1]];
    draft.shifts.back = { ...draft.shifts[rail[0]], id: 'back', from: to, to: from };
    draft.figures.f.rail = [...rail, 'back'];
    const mark = planAndCompile(draft as Piece);
    for (const text of [writeAnimatedSvg(mark, { title: 'Mark' }), writeLottie(mark, { name: 'Mark' })]) {
      const piece = backFrom(text);
      const [figure] = Object.values(piece.figures);
      expect(figure.poses).toHaveLength(3);
      expect(figure.poses.map((id) => piece.poses[id].parts.length)).toEqual([2, 2, 4]);
      expect(figure.rail.map((id) => piece.shifts[id].to)).toEqual([...figure.poses.slice(1), figure.poses[0]]);
      const back = planAndCompile(piece);
      expect(back.duration).toBeCloseTo(mark.duration, 3);
      for (let i = 0; i < 12; i++) {
        const time = ((i + 0.37) / 12) * mark.duration;
        expect(outlineDistance(outlineAt(back, time), outlineAt(mark, time), 0.02)).toBeLessThan(0.1);
      }
    }
  });

  test('an outline is freed of what a shift added: split curves, a slit to a hole, a cut, points', () => {
    const square = 'M0 0H90V90H0Z';
    const slit = readPathData('M0 0H45H90V90H0Z M9 9Z');
    expect(plainOutline(slit).contours.map(({ points }) => points.length)).toEqual([26]);
    const joined = readPathData('M0 0H90V90H0V40L30 40V60H60V30H30V40L0 40Z');
    const [outer, inner] = plainOutline(joined).contours.map(({ points }) => points.length);
    expect([outer, inner]).toEqual([26, 26]);
    const halves = readPathData('M0 0H40V90H0Z M40 0H90V90H40V0Z');
    expect(outlineDistance(plainOutline(halves), readPathData(square))).toBeLessThan(1e-3);
    expect(plainOutline(halves).contours).toHaveLength(1);
  });
});
