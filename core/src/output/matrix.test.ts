import { describe, expect, test } from '@jest/globals';
import { planAndCompile } from '../frame';
import { type Part, type Piece, type PieceDraft, plainStroke } from '../piece';
import { countedIds, drawnPose, pieceBetween } from '../testing/pieces';
import { figureNames } from './figure-names';
import { makeTextFiles, stillOf, TEXT_FORMS } from './forms/text-forms';
import { type FeatureId, featuresOf, refusalsOf } from './matrix';

const newId = countedIds();
const part = (change: Partial<Part> = {}): Part => ({ ...drawnPose('M10 10H110V110H10Z', newId).parts[0], ...change });
const radial = (radii: [number, number], focus: [number, number] = [0, 0]) => ({
  kind: 'radial' as const,
  centre: [60, 60] as [number, number],
  radii,
  rotation: 0,
  focus,
  stops: [
    { at: 0, colour: '#ff0000' },
    { at: 1, colour: '#0000ff' },
  ],
});
const has = (from: Partial<Part>, to: Partial<Part> = from): FeatureId[] => {
  const piece = pieceBetween([part(from)], [part(to)]);
  return featuresOf(piece, planAndCompile(piece));
};

describe('what a piece has', () => {
  test('a plain one has outlines and fills', () => expect(has({})).toEqual(['outline', 'fill', 'curves']));

  test.each([
    ['a stroke', { stroke: plainStroke('#000000', 2) }, undefined, ['stroke']],
    ['a circle that stands', { fill: radial([40, 40]) }, undefined, ['gradient']],
    ['a circle that grows', { fill: radial([40, 40]) }, { fill: radial([60, 60]) }, ['gradient', 'movingGradient']],
    ['an ellipse that stands', { fill: radial([40, 20]) }, undefined, ['gradient']],
    [
      'an ellipse that grows',
      { fill: radial([40, 20]) },
      { fill: radial([60, 20]) },
      ['gradient', 'movingGradient', 'ellipse'],
    ],
    [
      'an ellipse on a line',
      { stroke: { ...plainStroke('#000000', 2), paint: radial([40, 20]) } },
      undefined,
      ['stroke', 'gradient', 'ellipse'],
    ],
    ['a focus off the middle', { fill: radial([40, 40], [0.5, 0]) }, undefined, ['gradient', 'focus']],
  ] as const)('%s', (_name, from, to, features) => {
    const found = has(from as Partial<Part>, to as Partial<Part> | undefined);
    expect(found.filter((id) => !['outline', 'fill', 'curves'].includes(id)).sort()).toEqual([...features].sort());
  });

  test('what is seen inside the lowest figure is clipped too', () => {
    const draft = structuredClone(pieceBetween([part()], [part()])) as PieceDraft;
    draft.figures.g = { ...structuredClone(draft.figures.f), id: 'g', poses: ['G'], rail: [], clip: 'f' };
    draft.poses.G = { ...structuredClone(draft.poses.A), id: 'G' };
    draft.figureOrder.push('g');
    const compiled = planAndCompile(draft as Piece);
    expect(compiled.figures[1].clip).toBe(0);
    expect(featuresOf(draft as Piece, compiled)).toContain('clip');
  });

  test('what is refused is refused with its reason, what is beside the form is not', () => {
    expect(refusalsOf('lottie', ['outline', 'softness', 'loop']).map(({ feature }) => feature)).toEqual(['softness']);
    expect(refusalsOf('clip-path', ['softness', 'fill', 'gradient'])).toEqual([]);
    expect(refusalsOf('gif', ['stretch'])[0].reason).toMatch(/begins again at its first frame/);
  });
});

describe('forms of text', () => {
  const two = (): Piece => {
    const draft = structuredClone(pieceBetween([part()], [part()])) as PieceDraft;
    draft.figures.g = { ...structuredClone(draft.figures.f), id: 'g', poses: ['G'], rail: [] };
    draft.poses.G = { ...structuredClone(draft.poses.A), id: 'G' };
    draft.figureOrder.push('g');
    return draft as Piece;
  };

  test('a still of one figure shows it alone, trimmed to what is seen', () => {
    const compiled = planAndCompile(two());
    const options = { at: '0', figure: 'g', trimmed: 'yes', ground: 'no' };
    const still = stillOf(compiled, options);
    expect(still.compiled.figures.map(({ id, hidden }) => [id, hidden])).toEqual([
      ['f', true],
      ['g', false],
    ]);
    expect(still.compiled.background).toBeNull();
    expect(still.box).toEqual({ x: 10, y: 10, width: 100, height: 100 });
    expect(() => stillOf(compiled, { ...options, figure: 'nobody' })).toThrow('“nobody” is none');
  });

  test('a piece without figures, and one that a form cannot show, make no file', () => {
    const empty = { ...two(), figureOrder: [] };
    for (const form of TEXT_FORMS)
      expect(() => makeTextFiles(form, { piece: empty, compiled: planAndCompile(empty) }, {})).toThrow(
        'the piece has no figures yet',
      );
  });

  test('names of figures are good as ids, none twice', () => {
    const names = ['Ärmel Links', 'ärmel links', '2nd', '…', '', 'ärmel-links-2'].map((name) => ({ name }));
    expect(figureNames(names)).toEqual([
      'armel-links',
      'armel-links-2',
      'figure-2nd',
      'figure',
      'figure-2',
      'armel-links-2-2',
    ]);
  });
});
