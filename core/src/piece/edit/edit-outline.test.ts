import { describe, expect, test } from '@jest/globals';
import { readPathData } from '../../svg';
import { countedIds, drawnPose, pieceOf, plainText } from '../../testing/pieces';
import { multiply, scaling, translation } from '../../vec';
import { letterBoxes } from '../place/letter-boxes';
import { kindOf, movedAnchor, withHandle, withKind, withoutHandles } from '../records/anchors';
import { plainStroke } from '../records/defaults';
import type { Anchor, Piece } from '../records/records';
import { checkPiece } from '../rules/check-piece';
import type { PieceDraft } from './edit';
import {
  changeContour,
  setOutline,
  setShape,
  setText,
  shapePart,
  transformedPart,
  turnIntoPoints,
} from './edit-outline';

const SQUARE = 'M0 0H10V10H0Z';
/** Ids that no test piece has. */
let fresh = 0;
const newIds = (prefix: string): string => `${prefix}-new-${++fresh}`;
const draftOf = (...ds: string[]): PieceDraft => structuredClone(pieceOf(ds)) as PieceDraft;
const partOf = (draft: PieceDraft, pose = 0): Piece['parts'][string] =>
  (draft as Piece).parts[(draft as Piece).poses[draft.figures.f.poses[pose]].parts[0]];

describe('anchors', () => {
  const anchor: Anchor = { id: 'a', at: [0, 0], in: [-3, 0], out: [6, 0] };
  test('their kind is read from their handles until it is chosen', () => {
    expect([
      kindOf(anchor),
      kindOf({ ...anchor, out: [3, 0] }),
      kindOf({ ...anchor, out: [0, 6] }),
      kindOf({ id: 'b', at: [0, 0] }),
    ]).toEqual(['smooth', 'symmetric', 'corner', 'corner']);
    expect(kindOf({ ...anchor, kind: 'corner' })).toBe('corner');
  });

  test('dragging a handle takes the other along as the kind asks', () => {
    expect(withHandle(anchor, 'out', [0, 4])).toMatchObject({ out: [0, 4], in: [expect.closeTo(0, 9), -3] });
    expect(withHandle({ ...anchor, kind: 'symmetric' }, 'out', [0, 4]).in?.[1]).toBeCloseTo(-4, 9);
    expect(withHandle(anchor, 'out', [0, 4], true)).toMatchObject({ in: [-3, 0], kind: 'corner' });
    expect(withHandle(anchor, 'in', [0, 0]).in).toBeUndefined();
  });

  test('smoothing lays handles on one line, also where there were none', () => {
    const smooth = withKind({ id: 'a', at: [5, 5] }, 'smooth', [0, 0], [10, 0]);
    expect(smooth.in?.[1]).toBeCloseTo(5, 9);
    expect(kindOf(smooth)).toBe('smooth');
    const even = withKind(anchor, 'symmetric', [-9, 0], [9, 0]);
    expect([even.in, even.out].map((p) => p?.map((v) => +v.toFixed(6)))).toEqual(
      [
        [-4.5, 0],
        [4.5, 0],
      ].map(([x]) => [x, expect.closeTo(0, 9)]),
    );
    expect(withoutHandles(even)).toEqual({ id: 'a', at: [0, 0] });
    expect(movedAnchor(anchor, 1, 2)).toMatchObject({ at: [1, 2], in: [-2, 2], out: [7, 2] });
  });
});

describe('changing outlines', () => {
  test('a changed contour keeps ids and kinds of the anchors that stay', () => {
    const draft = draftOf(SQUARE);
    const part = partOf(draft);
    const [contour] = part.contours;
    draft.parts[part.id].contours[0].anchors[2].kind = 'smooth';
    changeContour(draft, part.id, contour.id, (c) => ({ ...c, points: c.points.map((v) => v + 1) }), countedIds());
    const after = partOf(draft).contours[0];
    expect([after.id, after.anchors.map(({ id }) => id), after.anchors[2].kind]).toEqual([
      contour.id,
      contour.anchors.map(({ id }) => id),
      'smooth',
    ]);
    changeContour(draft, part.id, contour.id, (c) => [c, c], countedIds());
    expect(partOf(draft).contours).toHaveLength(2);
    changeContour(draft, part.id, contour.id, () => undefined, countedIds());
    expect(partOf(draft).contours).toHaveLength(1);
  });

  test('adjusting a shape keeps the ids of as many points as stay', () => {
    const draft = draftOf(SQUARE);
    const newId = countedIds();
    const part = shapePart(
      { kind: 'polygon', x: 0, y: 0, rotation: 0, radius: 10, sides: 5, rounding: 0 },
      'P',
      { fill: '#000', stroke: null },
      newId,
    );
    draft.parts[part.id] = structuredClone(part) as PieceDraft['parts'][string];
    setShape(
      draft,
      part.id,
      { ...(part.source as { kind: 'polygon' } & typeof part.source), sides: 7 } as never,
      newId,
    );
    const ids = draft.parts[part.id].contours[0].anchors.map(({ id }) => id);
    expect(ids.slice(0, 5)).toEqual(part.contours[0].anchors.map(({ id }) => id));
    expect(new Set(ids).size).toBe(7);
    turnIntoPoints(draft, [part.id]);
    expect(draft.parts[part.id].source).toBeUndefined();
  });

  test('a part is mapped with its paint and its stroke', () => {
    const { parts } = drawnPose(SQUARE, countedIds());
    const part = {
      ...parts[0],
      fill: {
        kind: 'linear' as const,
        from: [0, 0] as const,
        to: [10, 0] as const,
        stops: [
          { at: 0, colour: '#000' },
          { at: 1, colour: '#fff' },
        ],
      },
      stroke: { ...plainStroke('#000', 2), dash: [3, 1] },
    };
    const mapped = transformedPart(part, multiply(translation(5, 5), scaling(2)));
    expect(mapped.fill).toMatchObject({ from: [5, 5], to: [expect.closeTo(25, 9), 5] });
    expect(mapped.stroke).toMatchObject({ width: 4, dash: [6, 2] });
    expect(mapped.contours[0].anchors[2].at).toEqual([25, 25]);
  });

  test('texts: letters that stay keep their part and paint, the text goes with its last letter', () => {
    const draft = draftOf(SQUARE);
    const poseId = draft.figures.f.poses[0];
    const text = plainText('ab');
    const glyph = (index: number, character: string) => ({
      index,
      character,
      outline: readPathData(`M${10 * index} 0h8v8h-8z`),
    });
    const newId = newIds;
    const paint = { fill: '#111111', stroke: null };
    setText(draft, poseId, text, [glyph(0, 'a'), glyph(1, 'b')], paint, newId);
    const [, first, second] = draft.poses[poseId].parts;
    draft.parts[first].fill = '#ff0000';
    setText(draft, poseId, { ...text, content: 'xbc' }, [glyph(0, 'x'), glyph(1, 'b'), glyph(2, 'c')], paint, newId);
    const now = draft.poses[poseId].parts.slice(1);
    expect(now.slice(0, 2)).toEqual([first, second]);
    expect(now.map((id) => [draft.parts[id].name, draft.parts[id].fill])).toEqual([
      ['x', '#ff0000'],
      ['b', '#111111'],
      ['c', '#ff0000'],
    ]);
    expect(() => checkPiece(JSON.parse(JSON.stringify(draft)))).not.toThrow();
    const gap = letterBoxes(draft as Piece, (draft as Piece).poses[poseId]);
    expect(gap.map(({ character }) => character)).toEqual(['x', 'b', 'c']);
    turnIntoPoints(draft, now);
    expect(draft.texts).toEqual({});
  });

  test('a missing letter has the box between its neighbours', () => {
    const draft = draftOf(SQUARE);
    const poseId = draft.figures.f.poses[0];
    draft.poses[poseId].placement = { x: 0, y: 0, scaleX: 1, scaleY: 1, rotation: 0, rule: null };
    const text = plainText('F R');
    setText(
      draft,
      poseId,
      text,
      [
        { index: 0, character: 'F', outline: readPathData('M0 0h8v10h-8z') },
        { index: 2, character: 'R', outline: readPathData('M20 2h8v9h-8z') },
      ],
      { fill: '#000000', stroke: null },
      countedIds(),
    );
    const missing = letterBoxes(draft as Piece, (draft as Piece).poses[poseId]).find(
      ({ character }) => character === ' ',
    );
    expect(missing?.box).toEqual({ minX: 8, maxX: 20, minY: 0, maxY: 11 });
  });

  test('an outline put in another’s place has contour and anchor ids of its own kind', () => {
    const draft = draftOf(SQUARE);
    const before = partOf(draft).contours[0];
    setOutline(draft, partOf(draft).id, readPathData('M0 0H5V5ZM9 9H12V12Z'), countedIds());
    const after = partOf(draft);
    expect(after.contours.map(({ anchors }) => anchors.length)).toEqual([3, 3]);
    expect(after.contours[0].id).toBe(before.id);
  });
});
