import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { areaCentre, contourArea, enclosingCircle, outlineBox, transformOutline } from '../outline';
import { readPathData, readSvg } from '../svg';
import { countedIds, drawnPose, pieceOf, poseOfSvg } from '../testing/pieces';
import { multiply, rotation, scaling, translation } from '../vec';
import { kindOf, movedAnchor, withHandle, withKind, withoutHandles } from './anchors';
import { alignBoxes, distributeBoxes } from './arrange';
import { type ArrivingFile, posesOfArrival } from './arrive';
import { checkPiece } from './check-piece';
import { AS_DRAWN, emptyPiece, plainStroke } from './defaults';
import { type PieceDraft, removeFigure, setPlacementRule } from './edit';
import {
  changeContour,
  setOutline,
  setShape,
  setText,
  shapePart,
  transformedPart,
  turnIntoPoints,
} from './edit-outline';
import { exchangePose } from './exchange';
import { contourOfRecord, outlineOfPart, placementMatrix } from './geometry';
import { letterBoxes } from './letter-boxes';
import { mapPlacement, placeByRule } from './placement';
import type { Anchor, Piece, Placement } from './records';

const SQUARE = 'M0 0H10V10H0Z';
const L_SHAPE = 'M0 0H60V20H20V80H0Z';
/** Ids that no test piece has. */
let fresh = 0;
const newIds = (prefix: string): string => `${prefix}-new-${++fresh}`;
const draftOf = (...ds: string[]): PieceDraft => structuredClone(pieceOf(ds)) as PieceDraft;
const partOf = (draft: PieceDraft, pose = 0): Piece['parts'][string] =>
  (draft as Piece).parts[(draft as Piece).poses[draft.figures.f.poses[pose]].parts[0]];
const placed = (piece: Piece, pose: string) =>
  transformOutline(
    outlineOfPart(piece.parts[piece.poses[pose].parts[0]]),
    placementMatrix(piece.poses[pose].placement),
  );

describe('placements', () => {
  test('mapping a placement is mapping what it places, for moves, turns, mirrors and scaling along the axes', () => {
    const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    fc.assert(
      fc.property(
        number(-50, 50),
        number(0.2, 3),
        number(0.2, 3),
        fc.boolean(),
        number(-200, 200),
        number(-3, 3),
        number(0.3, 2),
        fc.boolean(),
        (x, sx, sy, flip, turn, angle, k, mirror) => {
          const before: Placement = { x, y: -x, scaleX: flip ? -sx : sx, scaleY: sy, rotation: turn, rule: null };
          const map = multiply(translation(4, -9), multiply(rotation(angle), scaling(mirror ? -k : k, k)));
          const wanted = multiply(map, placementMatrix(before));
          placementMatrix(mapPlacement(before, map)).forEach((v, i) => {
            expect(v).toBeCloseTo(wanted[i], 6);
          });
        },
      ),
      { seed: 8, numRuns: 200 },
    );
  });

  test('centring by area, box and enclosing circle put three different middles on the target', () => {
    const { parts } = drawnPose(L_SHAPE, countedIds());
    const canvas = emptyPiece('x', 'X').canvas;
    const outline = outlineOfPart(parts[0]);
    const middle = (placement: Placement, of: { x: number; y: number }): number[] => {
      const [a, b, c, d, e, f] = placementMatrix(placement);
      return [a * of.x + c * of.y + e, b * of.x + d * of.y + f];
    };
    const box = outlineBox(outline);
    const middles = {
      area: areaCentre(outline),
      box: { x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2 },
      circle: enclosingCircle(outline),
    };
    for (const centre of ['area', 'box', 'circle'] as const) {
      const at = placeByRule({ centre, fit: 'longest', to: 'canvas' }, parts, canvas);
      middle(at, middles[centre]).forEach((v) => {
        expect(v).toBeCloseTo(320, 6);
      });
    }
    expect(Math.hypot(middles.area.x - middles.circle.x, middles.area.y - middles.circle.y)).toBeGreaterThan(5);
  });

  test('by eye lies between area and longest side: a thin star is made larger than by its box, smaller than by its area', () => {
    const star = drawnPose('M50 0L58 42L100 50L58 58L50 100L42 58L0 50L42 42Z', countedIds()).parts;
    const disc = drawnPose('M0 0H100V100H0Z', countedIds()).parts;
    const canvas = emptyPiece('x', 'X').canvas;
    const scale = (fit: 'longest' | 'area' | 'eye'): number =>
      placeByRule({ centre: 'area', fit, to: 'previous' }, star, canvas, { parts: disc, placement: AS_DRAWN }).scaleX;
    expect(scale('longest')).toBeCloseTo(1, 9);
    expect(scale('eye')).toBeGreaterThan(scale('longest'));
    expect(scale('eye')).toBeLessThan(scale('area'));
  });

  test('turned and mirrored poses keep their rule and stay centred', () => {
    const draft = draftOf(SQUARE, L_SHAPE);
    const id = draft.figures.f.poses[1];
    draft.poses[id].placement.rotation = 30;
    draft.poses[id].placement.scaleX *= -1;
    setPlacementRule(draft, 'f', id, { centre: 'box', fit: 'longest', to: 'previous' });
    const { placement } = (draft as Piece).poses[id];
    expect([placement.rotation, Math.sign(placement.scaleX), Math.sign(placement.scaleY)]).toEqual([30, -1, 1]);
    const box = outlineBox(placed(draft as Piece, id));
    expect([(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2].map((v) => +v.toFixed(6))).toEqual([320, 320]);
  });

  test('into a box: wholly inside it, touching two sides', () => {
    const { parts } = drawnPose(L_SHAPE, countedIds());
    const at = placeByRule(
      { centre: 'box', fit: 'longest', to: 'box', box: [100, 50, 30, 80] },
      parts,
      emptyPiece('x', 'X').canvas,
    );
    const box = outlineBox(transformOutline(outlineOfPart(parts[0]), placementMatrix(at)));
    expect([box.minX, box.maxX].map((v) => +v.toFixed(6))).toEqual([100, 130]);
    expect(box.minY).toBeGreaterThanOrEqual(50);
    expect(box.maxY).toBeLessThanOrEqual(130);
  });
});

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
    const text = {
      id: 't',
      content: 'ab',
      font: 'archivo-black',
      size: 10,
      tracking: 0,
      kerning: true,
      lineSpacing: 1,
      align: 'start' as const,
      x: 0,
      y: 0,
    };
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
    const text = {
      id: 't',
      content: 'F R',
      font: 'archivo-black',
      size: 10,
      tracking: 0,
      kerning: true,
      lineSpacing: 1,
      align: 'start' as const,
      x: 0,
      y: 0,
    };
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

describe('figures', () => {
  test('a figure goes with all that is its own, and clips nothing any more', () => {
    const draft = draftOf(SQUARE, L_SHAPE);
    draft.figures.g = { ...structuredClone(draft.figures.f), id: 'g', poses: [], rail: [], clip: 'f' };
    draft.figureOrder.push('g');
    removeFigure(draft, 'f');
    expect([
      draft.figureOrder,
      Object.keys(draft.poses),
      Object.keys(draft.parts),
      Object.keys(draft.shifts),
      draft.figures.g.clip,
    ]).toEqual([['g'], [], [], [], null]);
  });

  test.each([
    ['a figure that clips itself', (d: PieceDraft) => void (d.figures.f.clip = 'f'), '/figures/f/clip'],
    ['a clip that is not there', (d: PieceDraft) => void (d.figures.f.clip = 'gone'), '/figures/f/clip'],
    ['a group that is not there', (d: PieceDraft) => void (d.figures.f.group = 'gone'), '/figures/f/group'],
    [
      'a gradient whose stops go back',
      (d: PieceDraft) =>
        void (d.parts[partOf(d).id].fill = {
          kind: 'linear',
          from: [0, 0],
          to: [1, 1],
          stops: [
            { at: 0.6, colour: '#000' },
            { at: 0.2, colour: '#fff' },
          ],
        }),
      'stops/1/at',
    ],
    [
      'a colour that is none in a gradient',
      (d: PieceDraft) =>
        void (d.parts[partOf(d).id].fill = {
          kind: 'linear',
          from: [0, 0],
          to: [1, 1],
          stops: [{ at: 0, colour: 'blurple' }],
        }),
      'stops/0/colour',
    ],
    [
      'a glyph of no text',
      (d: PieceDraft) => void (d.parts[partOf(d).id].source = { kind: 'glyph', text: 'gone', index: 0 }),
      'source/text',
    ],
  ])('%s is refused, with its place', (_name, spoil, where) => {
    const draft = draftOf(SQUARE);
    spoil(draft);
    let told = '';
    try {
      checkPiece(JSON.parse(JSON.stringify(draft)));
    } catch (error) {
      told = (error as { where: string }).where;
    }
    expect(told).toContain(where);
  });

  test('a file of version 1 comes up to date', () => {
    const now = JSON.parse(JSON.stringify(pieceOf([SQUARE]))) as Record<string, unknown> & Piece;
    const old = JSON.parse(JSON.stringify(now)) as Record<string, never> & {
      version: number;
      figures: Record<string, object>;
      poses: Record<string, { placement: object }>;
      parts: Record<string, { stroke: unknown }>;
    };
    old.version = 1;
    for (const key of ['texts', 'groups', 'references', 'aids']) delete (old as Record<string, unknown>)[key];
    for (const [id, { name, poses, rail }] of Object.entries(now.figures)) old.figures[id] = { id, name, poses, rail };
    for (const pose of Object.values(old.poses))
      pose.placement = { x: 1, y: 2, scale: 3, rule: { centre: 'area', fit: 'longest', to: 'first' } };
    for (const part of Object.values(old.parts))
      part.stroke = { colour: '#ff0000', width: 2, cap: 'round', join: 'round' };
    const piece = checkPiece(old);
    expect(Object.values(piece.poses)[0].placement).toEqual({
      x: 1,
      y: 2,
      scaleX: 3,
      scaleY: 3,
      rotation: 0,
      rule: { centre: 'area', fit: 'longest', to: 'previous' },
    });
    expect(Object.values(piece.parts)[0].stroke).toMatchObject({ paint: '#ff0000', miter: 4, dash: [] });
    expect(piece.figures.f).toMatchObject({ clip: null, opacity: 1, locked: false });
  });
});

describe('aligning and distributing', () => {
  const boxes = [
    { minX: 0, minY: 0, maxX: 10, maxY: 10 },
    { minX: 50, minY: 5, maxX: 80, maxY: 10 },
    { minX: 20, minY: 30, maxX: 26, maxY: 60 },
  ];
  const frame = { minX: 0, minY: 0, maxX: 100, maxY: 100 };
  const moved = (moves: readonly (readonly [number, number])[]) =>
    boxes.map((box, i) => ({
      minX: box.minX + moves[i][0],
      maxX: box.maxX + moves[i][0],
      minY: box.minY + moves[i][1],
      maxY: box.maxY + moves[i][1],
    }));

  test('every edge and middle', () => {
    expect(moved(alignBoxes(boxes, 'right', frame)).map(({ maxX }) => maxX)).toEqual([100, 100, 100]);
    expect(moved(alignBoxes(boxes, 'left', frame)).map(({ minX }) => minX)).toEqual([0, 0, 0]);
    expect(moved(alignBoxes(boxes, 'top', frame)).map(({ minY }) => minY)).toEqual([0, 0, 0]);
    expect(moved(alignBoxes(boxes, 'bottom', frame)).map(({ maxY }) => maxY)).toEqual([100, 100, 100]);
    expect(moved(alignBoxes(boxes, 'centre', frame)).map(({ minX, maxX }) => minX + maxX)).toEqual([100, 100, 100]);
    expect(moved(alignBoxes(boxes, 'middle', frame)).map(({ minY, maxY }) => minY + maxY)).toEqual([100, 100, 100]);
  });

  test('equal gaps leave the outer ones where they are; equal margins count the frame', () => {
    const gaps = (list: typeof boxes, from?: number, to?: number): number[] => {
      const sorted = [...list].sort((p, q) => p.minX - q.minX);
      const edges = [
        ...(from === undefined ? [] : [from]),
        ...sorted.flatMap(({ minX, maxX }) => [minX, maxX]),
        ...(to === undefined ? [] : [to]),
      ];
      const start = from === undefined ? 1 : 0;
      return edges
        .slice(start)
        .flatMap((v, i, all) => (i % 2 === 0 && all[i + 1] !== undefined ? [+(all[i + 1] - v).toFixed(9)] : []));
    };
    const even = moved(distributeBoxes(boxes, 'x'));
    expect([even[0], even[1]]).toEqual([boxes[0], boxes[1]]);
    expect(new Set(gaps(even)).size).toBe(1);
    const margins = moved(distributeBoxes(boxes, 'x', frame));
    expect(new Set(gaps(margins, 0, 100)).size).toBe(1);
    expect(distributeBoxes(boxes.slice(0, 2), 'x')).toEqual([
      [0, 0],
      [0, 0],
    ]);
  });
});

describe('arriving', () => {
  const svg = (body: string): ArrivingFile => ({
    name: 'F',
    reading: readSvg(`<svg xmlns="http://www.w3.org/2000/svg">${body}</svg>`),
  });
  const square = '<path d="M0 0h9v9z"/>';
  test('several files are poses; one file is a pose, its groups or its shapes', () => {
    const file = svg(
      `<g id="eye">${square}<path fill="red" d="M0 0h9v9z"/></g><path id="mouth" fill="blue" d="M0 0h5v5z"/>`,
    );
    const names = (form: 'poses' | 'figures' | 'parts', files = [file]): string[] =>
      posesOfArrival(files, form, null, countedIds()).map(({ pose }) => pose.name);
    expect(names('poses')).toEqual(['eye', 'mouth']);
    expect(names('figures')).toEqual(['eye', 'mouth']);
    expect(names('parts')).toEqual(['F']);
    expect(names('poses', [file, { ...file, name: 'G' }])).toEqual(['F', 'G']);
  });

  test('what is not wanted stays out; of nothing comes nothing', () => {
    const file = { ...svg(`${square}<path fill="red" d="M0 0h9v9z"/>`), left: [0] };
    expect(posesOfArrival([file], 'parts', null, countedIds())[0].parts.map(({ fill }) => fill)).toEqual(['#ff0000']);
    expect(posesOfArrival([{ ...file, left: [0, 1] }], 'parts', null, countedIds())).toEqual([]);
  });
});

describe('exchanging an outline for a new version', () => {
  test('ids stay with the points that are at the same place; timing, rule and paint stay', () => {
    const draft = draftOf(L_SHAPE, SQUARE);
    const [poseId] = draft.figures.f.poses;
    const before = partOf(draft);
    draft.parts[before.id].fill = '#abcdef';
    draft.poses[poseId].hold = 2.5;
    const shifts = structuredClone(draft.shifts);
    // The client's new version: twice as large, moved, started elsewhere, run the other way, with one corner cut.
    const added = poseOfSvg(
      '<svg xmlns="http://www.w3.org/2000/svg"><path fill="red" d="M100 260V100H200L220 120V140H140V260Z"/></svg>',
      newIds,
    );
    const summary = exchangePose(draft, poseId, added, true, newIds);
    const after = partOf(draft);
    expect([after.id, after.fill, draft.poses[poseId].hold]).toEqual([before.id, '#abcdef', 2.5]);
    expect(draft.shifts).toEqual(shifts);
    expect(summary).toMatchObject({ partsKept: 1, partsNew: 0, partsGone: 0, anchorsKept: 6, anchorsNew: 1 });
    // Each kept id is still at the same corner, in the old proportions.
    const where = (part: typeof after, id: string): number[] => {
      const outline = outlineOfPart(part);
      const box = outlineBox(outline);
      const anchor = part.contours[0].anchors.find((a) => a.id === id) as Anchor;
      return [(anchor.at[0] - box.minX) / (box.maxX - box.minX), (anchor.at[1] - box.minY) / (box.maxY - box.minY)];
    };
    const kept = before.contours[0].anchors.filter(({ id }) => after.contours[0].anchors.some((a) => a.id === id));
    expect(kept.length).toBe(6);
    for (const { id } of kept)
      where(after, id).forEach((v, i) => expect(Math.abs(v - where(before, id)[i])).toBeLessThan(0.2));
    expect(() => checkPiece(JSON.parse(JSON.stringify(draft)))).not.toThrow();
  });

  test('a pose moved by hand keeps its middle and its longest side', () => {
    const draft = draftOf(SQUARE);
    const [poseId] = draft.figures.f.poses;
    draft.poses[poseId].placement = { x: 100, y: 50, scaleX: 3, scaleY: 3, rotation: 0, rule: null };
    const before = outlineBox(placed(draft as Piece, poseId));
    exchangePose(
      draft,
      poseId,
      poseOfSvg('<svg xmlns="http://www.w3.org/2000/svg"><circle cx="500" cy="500" r="200"/></svg>', newIds),
      false,
      countedIds(),
    );
    const after = outlineBox(placed(draft as Piece, poseId));
    expect(after.maxX - after.minX).toBeCloseTo(before.maxX - before.minX, 6);
    expect(after.minX + after.maxX).toBeCloseTo(before.minX + before.maxX, 6);
    expect(contourArea(contourOfRecord(partOf(draft).contours[0]))).toBeGreaterThan(0);
  });
});
