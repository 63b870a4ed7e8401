import { describe, expect, test } from '@jest/globals';
import { planAndCompile } from '../frame';
import type { PieceDraft } from '../piece';
import { countedIds, drawnPose, pieceBetween, pieceOf } from '../testing/pieces';
import { writeClipPath } from './clip-path';

const SQUARE = 'M0 0H64V64H0Z';
const DIAMOND = 'M32 0L64 32L32 64L0 32Z';

describe('a figure as a clip path over time', () => {
  const compiled = planAndCompile(pieceOf([SQUARE, DIAMOND]));

  test('a rule of the piece’s and the figure’s names with its keyframes; less motion leaves the shape that stands for the piece', () => {
    const css = writeClipPath(compiled, { title: 'Two Ways' });
    expect(css).toMatch(/^\.two-ways-figure \{\n {2}clip-path: path\("m/);
    expect(css).toMatch(/animation: two-ways-figure [\d.]+s linear infinite;/);
    expect(css).toMatch(/@keyframes two-ways-figure \{\n {2}0%\{clip-path:path\("/);
    // The second pose is held longest of those that are not the first: a diamond.
    expect(css).toMatch(
      /@media \(prefers-reduced-motion: reduce\) \{\n {2}\.two-ways-figure \{\n {4}clip-path: path\("m320 128l192 192/,
    );
  });

  test('in percent of the canvas it stretches with what it clips', () => {
    const css = writeClipPath(compiled, { unit: 'percent' });
    expect(css).toMatch(
      /clip-path: shape\(from [\d.]+% [\d.]+%, curve to [\d.]+% [\d.]+% with [\d.]+% [\d.]+% \/ [\d.]+% [\d.]+%/,
    );
    expect(css).not.toContain('path(');
  });

  test.each([
    ['once', /linear forwards;/],
    ['back', /linear infinite alternate;/],
  ] as const)('it plays %s as the piece does', (playback, words) => {
    expect(writeClipPath({ ...compiled, playback })).toMatch(words);
  });

  test('a stretch that plays again is a second animation that begins when the first has ended', () => {
    const css = writeClipPath({ ...compiled, playback: 'stretch', stretch: [0.5, 1.25] });
    expect(css).toContain(
      'animation: piece-figure 1.25s linear forwards, piece-figure-again 0.75s 1.25s linear infinite;',
    );
    expect(css).toContain('@keyframes piece-figure-again');
  });

  test('before a figure comes and after it is gone nothing is left to be seen', () => {
    const [figure] = compiled.figures;
    const { duration } = compiled;
    const gone = writeClipPath({ ...compiled, figures: [{ ...figure, until: duration / 2 }] });
    expect(gone).toMatch(/100%\{clip-path:path\("M0 0"\)/);
    expect(writeClipPath(compiled)).not.toContain('"M0 0"');
  });

  test('what does not change has no animation; a piece without figures, and two fill rules, are refused', () => {
    expect(writeClipPath(planAndCompile(pieceOf([SQUARE])))).toContain('clip-path: path(');
    expect(() => writeClipPath({ ...compiled, figures: [] })).toThrow('the piece shows none');
    expect(() => writeClipPath(compiled, { figureId: 'nobody' })).toThrow('the piece shows none');
    const newId = countedIds();
    const parts = (rule: 'nonzero' | 'evenodd') =>
      [SQUARE, DIAMOND].map((d, i) => ({
        ...drawnPose(d, newId).parts[0],
        fillRule: i === 0 ? ('nonzero' as const) : rule,
      }));
    const mixed = structuredClone(pieceBetween(parts('evenodd'), parts('evenodd'))) as PieceDraft;
    expect(() => writeClipPath(planAndCompile(mixed as never))).toThrow(/parts of both fill rules/);
  });
});
