import { describe, expect, test } from '@jest/globals';
import { contourArea, outlineBox, transformOutline } from '../../outline';
import { readSvg } from '../../svg';
import { countedIds, pieceOf, poseOfSvg } from '../../testing/pieces';
import { type ArrivingFile, posesOfArrival } from '../arrive/arrive';
import { exchangePose } from '../arrive/exchange';
import { contourOfRecord, outlineOfPart, placementMatrix } from '../records/geometry';
import type { Anchor, Piece } from '../records/records';
import { checkPiece } from '../rules/check-piece';
import { type PieceDraft, removeFigure } from './edit';

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

  const LATER = [
    ['starts', 'ties', 'pairs', 'cuts', 'smoothing', 'points', 'even', 'touchUps'],
    ['wipes', 'opening'],
    ['directions', 'unpairedOrder'],
    [],
    [],
    [],
    ['taken'],
  ];
  test.each([2, 3, 4, 8])(
    'a match of a file of version %i gets, as automatic, what can be decided since',
    (version) => {
      const now = pieceOf([SQUARE, 'M0 0H30V20H0Z']);
      const old = JSON.parse(JSON.stringify({ ...now, version }));
      for (const shift of Object.values<{ match: Record<string, unknown> }>(old.shifts))
        for (const key of LATER.slice(version - 2).flat()) delete shift.match[key];
      expect(checkPiece(old)).toEqual(now);
    },
  );
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
