import { describe, expect, test } from '@jest/globals';
import type { CoreError } from '../../errors';
import { contourArea, outlineBox, transformOutline } from '../../outline';
import { readPathData } from '../../svg';
import { countedIds, drawnPose, pieceOf, poseOfSvg } from '../../testing/pieces';
import { AS_DRAWN } from '../records/defaults';
import { contourOfRecord, outlineOfPart, placementMatrix, recordOfContour } from '../records/geometry';
import type { Piece } from '../records/records';
import { checkPiece, readPieceFile } from '../rules/check-piece';
import {
  frameCount,
  frameOfSeconds,
  isClosedRail,
  pieceDuration,
  railTimeline,
  secondsOfFrame,
  stopsOf,
} from '../time/rail';
import { insertPoses, moveStop, type PieceDraft, removeStop, setClosedRail, setPlacementRule } from './edit';

const SQUARE = 'M0 0H10V10H0Z';
const TRIANGLE = 'M0 0H30L0 30Z';
const DISC = 'M5 0A5 5 0 1 1 5 10A5 5 0 1 1 5 0Z';
const three = (): PieceDraft => structuredClone(pieceOf([SQUARE, TRIANGLE, DISC])) as PieceDraft;
const stops = (draft: PieceDraft): string[] =>
  stopsOf(draft as Piece, (draft as Piece).figures.f).map((id) => draft.poses[id].name);
const refusal = (work: () => unknown): CoreError => {
  try {
    work();
  } catch (error) {
    return error as CoreError;
  }
  throw new Error('was taken');
};

describe('records and outlines', () => {
  test.each([SQUARE, DISC, 'M0 0C1 5 8 8 9 0S20 4 20 9', 'M1 1L4 4', 'M3 3Z'])('%s survives being a record', (d) => {
    const [contour] = readPathData(d).contours;
    const back = contourOfRecord(recordOfContour(contour, countedIds()));
    expect(back.closed).toBe(contour.closed);
    back.points.forEach((v, i) => expect(v).toBeCloseTo(contour.points[i], 9));
  });

  test('straight pieces are written without handles, and anchors have ids of their own', () => {
    const record = recordOfContour(readPathData(SQUARE).contours[0], countedIds());
    expect(record.anchors.every((anchor) => !anchor.in && !anchor.out)).toBe(true);
    expect(new Set(record.anchors.map(({ id }) => id)).size).toBe(4);
  });

  test('an outline is made once for a part', () => {
    const part = Object.values(pieceOf([SQUARE]).parts)[0];
    expect(outlineOfPart(part)).toBe(outlineOfPart(part));
  });
});

describe('the rail', () => {
  test('dropped poses become a held and eased chain', () => {
    const piece = pieceOf([SQUARE, TRIANGLE, DISC]);
    const timeline = railTimeline(piece, piece.figures.f);
    expect(timeline.stops.flatMap(({ start, hold }) => [start, hold]).map((v) => +v.toFixed(6))).toEqual([
      0, 0.8, 1.4, 0.8, 2.8, 0.8,
    ]);
    expect(pieceDuration(piece)).toBeCloseTo(3.6, 9);
    expect(frameCount(piece)).toBe(216);
  });

  test('a pose between two others splits their shift and keeps its timing', () => {
    const draft = three();
    const first = draft.figures.f.rail[0];
    const second = draft.figures.f.rail[1];
    draft.shifts[first].duration = 1.5;
    const newId = countedIds();
    insertPoses(
      draft,
      'f',
      [drawnPose(DISC, (prefix) => `new-${newId(prefix)}`, 'New')],
      (prefix) => `new-${newId(prefix)}`,
      1,
    );
    expect(stops(draft)).toEqual(['Pose 1', 'New', 'Pose 2', 'Pose 3']);
    expect(draft.figures.f.rail.map((id) => draft.shifts[id].duration)).toEqual([1.5, 1.5, 0.6]);
    expect(draft.figures.f.rail[2]).toBe(second);
    expect(draft.shifts[first]).toBeUndefined();
    checkPiece(structuredClone(draft));
  });

  test('a closed rail returns, and its return is not held while the piece loops', () => {
    const draft = three();
    setClosedRail(draft, 'f', true, countedIds());
    expect(stops(draft)).toEqual(['Pose 1', 'Pose 2', 'Pose 3', 'Pose 1']);
    expect(isClosedRail(draft as Piece, (draft as Piece).figures.f)).toBe(true);
    expect(pieceDuration(draft as Piece)).toBeCloseTo(3 * 0.8 + 3 * 0.6, 9);
    draft.playback = 'once';
    expect(pieceDuration(draft as Piece)).toBeCloseTo(4 * 0.8 + 3 * 0.6, 9);
    setClosedRail(draft, 'f', false, countedIds());
    expect(stops(draft)).toEqual(['Pose 1', 'Pose 2', 'Pose 3']);
  });

  test('new poses go before the return of a closed rail', () => {
    const draft = three();
    const ids = countedIds();
    setClosedRail(draft, 'f', true, (prefix) => `x${ids(prefix)}`);
    insertPoses(draft, 'f', [drawnPose(SQUARE, (prefix) => `y${ids(prefix)}`, 'New')], (prefix) => `z${ids(prefix)}`);
    expect(stops(draft)).toEqual(['Pose 1', 'Pose 2', 'Pose 3', 'New', 'Pose 1']);
  });

  test('removing and moving keep the chain whole', () => {
    const draft = three();
    const ids = countedIds();
    const newId = (prefix: string): string => `r${ids(prefix)}`;
    moveStop(draft, 'f', 0, 2, newId);
    expect(stops(draft)).toEqual(['Pose 2', 'Pose 3', 'Pose 1']);
    checkPiece(structuredClone(draft));
    removeStop(draft, 'f', 1, newId);
    expect(stops(draft)).toEqual(['Pose 2', 'Pose 1']);
    expect(Object.keys(draft.parts)).toHaveLength(2);
    expect(Object.keys(draft.shifts)).toHaveLength(1);
    checkPiece(structuredClone(draft));
    removeStop(draft, 'f', 0, newId);
    removeStop(draft, 'f', 0, newId);
    expect([stops(draft), Object.keys(draft.poses), Object.keys(draft.shifts)]).toEqual([[], [], []]);
    checkPiece(structuredClone(draft));
  });

  test('removing the first pose of a closed rail closes it on the next', () => {
    const draft = three();
    const ids = countedIds();
    setClosedRail(draft, 'f', true, (prefix) => `x${ids(prefix)}`);
    removeStop(draft, 'f', 0, (prefix) => `x${ids(prefix)}`);
    expect(stops(draft)).toEqual(['Pose 2', 'Pose 3', 'Pose 2']);
    checkPiece(structuredClone(draft));
  });

  test('frames and seconds, also at 24000/1001', () => {
    const piece = { ...pieceOf([SQUARE]), canvas: { ...pieceOf([SQUARE]).canvas, rate: { num: 24000, den: 1001 } } };
    expect(secondsOfFrame(piece, 24)).toBeCloseTo(1.001, 12);
    for (let n = 0; n < 500; n++) expect(frameOfSeconds(piece, secondsOfFrame(piece, n))).toBe(n);
  });
});

describe('placement', () => {
  const placedBox = (piece: Piece, i: number) => {
    const pose = piece.poses[piece.figures.f.poses[i]];
    return outlineBox(transformOutline(outlineOfPart(piece.parts[pose.parts[0]]), placementMatrix(pose.placement)));
  };

  test('the first pose fills 60 % of the canvas, the others have its longest side, centred by area', () => {
    const piece = pieceOf([SQUARE, TRIANGLE]);
    const first = placedBox(piece, 0);
    expect([first.minX, first.maxX, first.minY]).toEqual([128, 512, 128]);
    const second = placedBox(piece, 1);
    expect(second.maxX - second.minX).toBeCloseTo(384, 9);
    // A triangle's centroid lies at a third of its height (handbook): it stands on the canvas's middle.
    expect(second.minX + (second.maxX - second.minX) / 3).toBeCloseTo(320, 6);
  });

  test('the rule stays alive when a shape changes, a pose moved by hand stays', () => {
    const draft = three();
    const [a, b] = draft.figures.f.poses;
    draft.poses[b].placement = { x: 1, y: 2, scaleX: 3, scaleY: 3, rotation: 0, rule: null };
    setPlacementRule(draft, 'f', a, { centre: 'box', fit: 'none', to: 'canvas' });
    expect(draft.poses[b].placement).toEqual({ ...AS_DRAWN, x: 1, y: 2, scaleX: 3, scaleY: 3 });
    expect(draft.poses[a].placement).toMatchObject({ x: 315, y: 315, scaleX: 1 });
    // The third is fitted to the one before it as it stands: 30 px, three times as large.
    expect(placedBox(draft as Piece, 2).maxX - placedBox(draft as Piece, 2).minX).toBeCloseTo(90, 9);
  });

  test('by area: equal areas', () => {
    const draft = three();
    setPlacementRule(draft, 'f', draft.figures.f.poses[1], { centre: 'area', fit: 'area', to: 'previous' });
    const area = (i: number): number => {
      const pose = draft.poses[draft.figures.f.poses[i]];
      return (
        contourArea(outlineOfPart(draft.parts[pose.parts[0]] as Piece['parts'][string]).contours[0]) *
        pose.placement.scaleX ** 2
      );
    };
    expect(area(1)).toBeCloseTo(area(0), 6);
  });
});

describe('poses from SVG', () => {
  const svg = (body: string): string => `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100">${body}</svg>`;

  test('neighbours in the same paint become one part; another paint makes another', () => {
    const { parts, pose } = poseOfSvg(
      svg('<path d="M0 0h9v9z"/><path d="M20 0h9v9z"/><path fill="red" d="M50 0h9v9z"/><path d="M70 0h9v9z"/>'),
    );
    expect(parts.map(({ contours, fill }) => [contours.length, fill])).toEqual([
      [2, '#000000'],
      [1, '#ff0000'],
      [1, '#000000'],
    ]);
    expect(pose.parts).toEqual(parts.map(({ id }) => id));
  });

  test('overlapping shapes run opposite ways do not cut each other when joined', () => {
    const { parts } = poseOfSvg(svg('<path d="M0 0H20V20H0Z"/><path d="M10 10V30H30V10Z"/>'));
    expect(parts).toHaveLength(1);
    expect(parts[0].contours.map((contour) => Math.sign(contourArea(contourOfRecord(contour))))).toEqual([1, 1]);
  });

  test('see-through shapes that overlap stay apart', () => {
    expect(
      poseOfSvg(svg('<g fill="red" fill-opacity=".5"><path d="M0 0H20V20H0Z"/><path d="M10 10H30V30H10Z"/></g>')).parts,
    ).toHaveLength(2);
  });
});

describe('piece files', () => {
  const good = pieceOf([SQUARE, DISC]);
  /** A copy with one value changed: '*' in the path is the first key, '+' adds to a list, undefined takes the field away. */
  const broken = (path: string, value: unknown): unknown => {
    const copy: unknown = structuredClone(good);
    const steps = path.split('.');
    const last = steps.pop() as string;
    let at = copy as Record<string, unknown>;
    for (const step of steps) at = at[step === '*' ? Object.keys(at)[0] : step] as Record<string, unknown>;
    if (last === '+') (at as unknown as unknown[]).push(value);
    else if (value === undefined) delete at[last];
    else at[last] = value;
    return copy;
  };

  test('what is written is read again', () => {
    expect(readPieceFile(JSON.stringify(good))).toEqual(good);
  });

  test.each([
    ['an unknown version', 'version', 99, 'piece-version', '/version'],
    ['a version that is no number', 'version', 'new', 'piece-version', '/version'],
    ['no format', 'format', undefined, 'piece-invalid', '/format'],
    ['an unknown field', 'extra', 1, 'piece-invalid', '/'],
    ['a negative hold', 'poses.*.hold', -1, 'piece-invalid', '/poses/'],
    ['a width of text', 'canvas.width', 'wide', 'piece-invalid', '/canvas/width'],
    ['a coordinate beyond all bounds', 'parts.*.contours.0.anchors.0.at', [1e300, 0], 'piece-invalid', '/parts/'],
    ['a null coordinate (as NaN is written)', 'parts.*.contours.0.anchors.0.at', [null, 0], 'piece-invalid', '/parts/'],
    ['a colour that is none', 'canvas.background', 'blurple', 'piece-invalid', '/canvas/background'],
    ['a rail to nowhere', 'figures.f.rail.+', 'ghost', 'piece-invalid', '/figures/f/rail/1'],
    ['a pose without its part', 'poses.*.parts.+', 'ghost', 'piece-invalid', '/poses/'],
    [
      'an alternative that is no picture',
      'shifts.*.match.taken',
      { look: [NaN], pairs: [] },
      'piece-invalid',
      '/match/taken',
    ],
    ['a key that is not the id', 'figures.g', good.figures.f, 'piece-invalid', '/figures/g/id'],
    ['a broken chain', 'figures.f.rail.+', good.figures.f.rail[0], 'piece-invalid', '/figures/f/rail/1'],
    ['a figure that is not stacked', 'figureOrder', [], 'piece-invalid', '/figureOrder'],
    ['an id with a path in it', 'id', '../../etc', 'piece-invalid', '/id'],
  ])('%s is refused with its place', (_name, path, value, code, where) => {
    const error = refusal(() => checkPiece(broken(path, value)));
    expect(error.code).toBe(code);
    expect(error.where).toContain(where);
    expect(error.message).toMatch(/[Ee]xpected|cannot be used/);
  });

  test.each([
    ['{', 'json-syntax'],
    ['null', 'piece-invalid'],
    ['[]', 'piece-invalid'],
    ['"x"', 'piece-invalid'],
    [' '.repeat(21 * 1024 * 1024), 'file-too-large'],
  ])('%.10s', (text, code) => {
    expect(refusal(() => readPieceFile(text)).code).toBe(code);
  });

  test('a prototype key is only a key', () => {
    expect(
      refusal(() => readPieceFile(JSON.stringify(good).replace('"figureOrder":["f"]', '"figureOrder":["__proto__"]')))
        .code,
    ).toBe('piece-invalid');
  });
});
