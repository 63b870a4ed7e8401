import { describe, expect, test } from '@jest/globals';
import { outlineBox } from '../../outline';
import { type Gradient, isGradient } from '../../paint';
import { readSvg } from '../../svg';
import { countedIds, drawnPose, pieceOf } from '../../testing/pieces';
import { addFigure, applyPlacementRules, insertPoses, type PieceDraft } from '../edit/edit';
import { emptyPiece } from '../records/defaults';
import type { Part, Piece } from '../records/records';
import { checkPiece, findingOfChange, findingOfParts } from '../rules/check-piece';
import { poseFromSvg } from './from-svg';
import { storableReading } from './storable';

const svg = (inside: string, head = ''): string => `<svg xmlns="http://www.w3.org/2000/svg" ${head}>${inside}</svg>`;
const read = (text: string) => storableReading(readSvg(text));

/** The reading as a pose of a piece, placed by the usual rule. */
function pieceWith(text: string): Piece {
  const newId = countedIds();
  const draft = structuredClone(emptyPiece('test', 'Test')) as PieceDraft;
  addFigure(draft, 'f', 'Figure');
  insertPoses(draft, 'f', [drawnPose('M0 0H10V10H0Z', newId), poseFromSvg(read(text), 'Arrived', newId)], newId);
  applyPlacementRules(draft, 'f');
  return draft as Piece;
}

describe('what a file brings can be stored', () => {
  // A house of 50 m in the coordinates of a map grid, which lie millions of metres from its origin (common practice).
  const HOUSE = svg('<path d="M3500000 5400000h50v30h-50z"/>');

  test.each([
    ['a house at map coordinates without a view box', HOUSE],
    ['a drawing 0.0001 wide', svg('<path d="M0 0h.0001v.0001z"/>')],
    ['a drawing 9,000,000 wide', svg('<path d="M0 0h9000000v9000000z" stroke="red" stroke-width="9000"/>')],
    ['a stroke 100,001 wide', svg('<path d="M0 0h9v9z" stroke="red" stroke-width="100001"/>')],
    [
      '128 stops',
      svg(
        `<linearGradient id="g">${'<stop offset=".5" stop-color="red"/>'.repeat(128)}</linearGradient><path fill="url(#g)" d="M0 0h9v9z"/>`,
      ),
    ],
    ['a picture 200,000 px wide', svg('<path d="M0 0h9v9z"/>', 'width="200000" height="0.01"')],
  ])('%s', (_name, text) => {
    const piece = pieceWith(text);
    expect(checkPiece(JSON.parse(JSON.stringify(piece)))).toEqual(piece);
    expect(read(text).notes.length).toBeGreaterThanOrEqual(/picture/.test(_name) ? 0 : 1);
  });

  test('far away: all shapes are moved alike, and keep their size', () => {
    const { shapes, notes } = read(svg('<path d="M3500000 5400000h50v30h-50z"/><path d="M3500100 5400000h10v10z"/>'));
    const boxes = shapes.map(({ outline }) => outlineBox(outline));
    expect(boxes.map(({ minX, maxX }) => [minX, maxX])).toEqual([
      [0, 50],
      [100, 110],
    ]);
    expect(notes).toEqual(['The drawing lies 5,400,030 px away from the origin of its file; it was moved there']);
  });

  test('tiny: outline, stroke, dashes and gradient grow alike', () => {
    const { shapes } = read(
      svg(
        '<linearGradient id="g" gradientUnits="userSpaceOnUse" x2=".001"><stop/><stop offset="1" stop-color="red"/></linearGradient><path d="M0 0h.001v.001z" fill="url(#g)" stroke="red" stroke-width=".0001" stroke-dasharray=".0002"/>',
      ),
    );
    const [{ outline, stroke, fill }] = shapes;
    expect(outlineBox(outline).maxX).toBeCloseTo(1_000, 6);
    expect(stroke?.width).toBeCloseTo(100, 6);
    expect(stroke?.dash[0]).toBeCloseTo(200, 6);
    expect(isGradient(fill) && (fill as Gradient & { to: number[] }).to[0]).toBeCloseTo(1_000, 6);
  });

  test('a usual drawing stays as it is', () => {
    const text = svg('<path d="M10 10h90v90z" stroke="red"/>');
    expect(read(text).shapes).toEqual(readSvg(text).shapes);
  });

  test('a shape with 5,001 contours is left out by name; one with 5,000 is taken', () => {
    const dots = (count: number): string => 'M0 0h1v1z'.repeat(count);
    const both = read(svg(`<path id="sand" d="${dots(5_001)}"/><path id="bar" d="M0 0h9v9z"/>`));
    expect(both.shapes.map(({ name }) => name)).toEqual(['bar']);
    expect(both.notes.join()).toMatch(/“sand” was left out: it has 5,001 contours/);
    expect(read(svg(`<path id="sand" d="${dots(5_000)}"/>`)).shapes).toHaveLength(1);
  });

  test('equal shapes are joined to parts of at most 5,000 contours', () => {
    const dots = svg('<path d="M0 0h1v1z"/>'.repeat(5_100));
    const { parts } = poseFromSvg(read(dots), 'Dots', countedIds());
    expect(parts.map(({ contours }) => contours.length)).toEqual([5_000, 100]);
  });
});

describe('an edit that could not be saved is found', () => {
  const before = pieceOf(['M0 0H10V10H0Z', 'M0 0H20V10H0Z']);
  const edited = (recipe: (draft: PieceDraft) => void): Piece => {
    const draft = structuredClone(before) as PieceDraft;
    recipe(draft);
    // As an edit leaves it: what was not touched is the very same record.
    for (const table of ['figures', 'poses', 'parts', 'shifts'] as const)
      for (const id of Object.keys(before[table]))
        if (JSON.stringify(draft[table][id]) === JSON.stringify(before[table][id]))
          (draft[table] as Record<string, unknown>)[id] = before[table][id];
    return draft as Piece;
  };
  const first = <T>(table: Record<string, T>): T => Object.values(table)[0];
  const firstPose = Object.values(before.poses)[0];

  test.each<[string, RegExp, (draft: PieceDraft) => void]>([
    ['a scale beyond the range', /scaleX must be <= 1000000/, (d) => void (first(d.poses).placement.scaleX = 2e6)],
    [
      'a scale that is all but zero',
      /scaleX must be 0 or at least/,
      (d) => void (first(d.poses).placement.scaleX = 1e-9),
    ],
    [
      'scale times coordinate',
      /leave its points within 10,000,000 px/,
      (d) => void Object.assign(first(d.poses).placement, { scaleX: 9e5, scaleY: 9e5, x: 9e6 }),
    ],
    ['an endless duration', /duration must be <= 3600/, (d) => void (first(d.shifts).duration = 1e9)],
    [
      'a duration that is all but none',
      /duration must be 0 or at least 0\.0001 s/,
      (d) => void (first(d.shifts).duration = 5e-324),
    ],
    ['an empty name', /name must NOT have fewer than 1/, (d) => void (first(d.figures).name = '')],
    ['a colour that is none', /fill must be a CSS colour/, (d) => void (first(d.parts).fill = 'seasick')],
    ['a shift from a pose that is not there', /must join two poses/, (d) => void (first(d.shifts).from = 'nowhere')],
    [
      'two touch-ups at one progress',
      /lie at least 0\.0001 of progress/,
      (d) =>
        void first(d.shifts).match.touchUps.push(
          { id: 'a', progress: 0.5, points: [] },
          { id: 'b', progress: 0.5, points: [] },
        ),
    ],
    [
      'more frames than can be counted through',
      /at most 1,000,000 frames/,
      (d) => {
        d.canvas.rate = { num: 240, den: 1 };
        for (const pose of Object.values(d.poses)) pose.hold = 3_600;
      },
    ],
    [
      'a rate that is faster than can be typed',
      /canvas\/rate must be at most 240 frames a second; found 240.5/,
      (d) => void (d.canvas.rate = { num: 481, den: 2 }),
    ],
    ['a pose in two figures', /its own, once/, (d) => void first(d.figures).poses.push(first(d.figures).poses[0])],
    ['a width that is none', /canvas\/width must be >= 1/, (d) => void (d.canvas.width = 0)],
    [
      'more references than are kept',
      /references must NOT have more than 50/,
      (d) => {
        const reference = {
          id: 'r',
          name: 'R',
          asset: 'a'.repeat(64),
          x: 0,
          y: 0,
          width: 1,
          height: 1,
          opacity: 1,
          locked: true,
          shown: true,
        };
        d.references = Array.from({ length: 51 }, (_, i) => ({ ...reference, id: `r${i}` }));
      },
    ],
  ])('%s', (_name, says, recipe) => {
    const after = edited(recipe);
    expect(findingOfChange(before, after)).toMatch(says);
    // The whole check agrees.
    expect(() => checkPiece(JSON.parse(JSON.stringify(after)))).toThrow(/cannot be used/);
  });

  test('a usual edit has no finding, and what did not change is not looked at', () => {
    expect(
      findingOfChange(
        before,
        edited((d) => void (first(d.poses).hold = 2)),
      ),
    ).toBeUndefined();
    const spoiled = {
      ...before,
      poses: { ...before.poses, [firstPose.id]: { ...firstPose, hold: -1 } },
    };
    expect(findingOfChange(spoiled, { ...spoiled, name: 'Renamed' })).toBeUndefined();
  });

  test('parts are looked at beforehand: those that fit are not looked at again, those that do not are found both times', () => {
    const [part] = Object.values(before.parts);
    const good = { ...part, id: 'good' };
    const bad = { ...part, id: 'bad', name: 'x'.repeat(1_000) };
    expect(findingOfParts([good])).toBeUndefined();
    expect(findingOfParts([good, bad])).toMatch(/\/parts\/bad\/name must NOT have more than/);
    const withPart = (each: Part): Piece => ({
      ...before,
      parts: { ...before.parts, [each.id]: each },
      poses: { ...before.poses, [firstPose.id]: { ...firstPose, parts: [...firstPose.parts, each.id] } },
    });
    expect(findingOfChange(before, withPart(good))).toBeUndefined();
    expect(findingOfChange(before, withPart(bad))).toMatch(/bad\/name/);
    // A part that was found to fit is taken at its word: were it changed in place, only a whole check would notice.
    Object.assign(good, { name: 'x'.repeat(1_000) });
    expect(findingOfChange(before, withPart(good))).toBeUndefined();
  });
});
