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
  const [{ points, contours }] = figures[0].parts;
  return {
    contours: contours.map(({ at, segments, closed }) => ({
      points: Float64Array.from(points.slice(at, at + 6 * segments + 2)),
      closed,
    })),
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
