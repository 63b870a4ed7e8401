import {
  type Anchor,
  AS_DRAWN,
  addFigure,
  emptyPiece,
  insertPoses,
  newPose,
  type Part,
  type Piece,
  type PieceDraft,
  plainStroke,
  setClosedRail,
} from '@core';
import { countingIds } from './drawn-piece';

const ID = 'demo-tide-gauge';
const LEFT = 60;
const STEP = 92.5;
const FLOOR = 330;
/** Water over the gauge at each hour, px: at ebb, at half tide, at flood. */
const TIDES = [
  { name: 'Ebb', water: [60, 48, 40, 52, 66, 58, 44, 50, 62] },
  { name: 'Half tide', water: [96, 130, 142, 120, 104, 128, 150, 138, 110] },
  { name: 'Flood', water: [150, 196, 226, 234, 214, 190, 204, 230, 218] },
] as const;

type Point = readonly [number, number];
const point = (water: readonly number[], i: number): Point => [LEFT + i * STEP, FLOOR - water[i]];

/** The gauge's curve: smooth through every hour, level at its ends (Catmull–Rom tangents). Anchors are named by hour. */
function curve(water: readonly number[], stem: string, origin?: string): Anchor[] {
  return water.map((_, i): Anchor => {
    const at = point(water, i);
    const before = point(water, Math.max(0, i - 1));
    const after = point(water, Math.min(water.length - 1, i + 1));
    const slope = (after[1] - before[1]) / (after[0] - before[0]);
    const reach = STEP / 3;
    return {
      id: `${stem}-${i}`,
      at,
      ...(i > 0 && { in: [at[0] - reach, at[1] - slope * reach] as const }),
      ...(i < water.length - 1 && { out: [at[0] + reach, at[1] + slope * reach] as const }),
      ...(origin !== undefined && { origin: `${origin}-${i}` }),
    };
  });
}

/** A line and the filled area under it: copies whose points were moved up and down, so that they stay together on the way. */
export function tideGauge(): Piece {
  const newId = countingIds(ID);
  const empty = emptyPiece(ID, 'Tide Gauge');
  const draft = structuredClone({
    ...empty,
    canvas: { ...empty.canvas, width: 860, height: 400, background: '#eef3f2' },
  }) as PieceDraft;
  const right = LEFT + STEP * (TIDES[0].water.length - 1);
  const area = (water: readonly number[], stem: string, origin?: string): Part => ({
    id: newId('p'),
    name: 'Water',
    contours: [
      {
        id: newId('c'),
        closed: true,
        anchors: [
          ...curve(water, stem, origin),
          { id: `${stem}-right`, at: [right, FLOOR], ...(origin && { origin: `${origin}-right` }) },
          { id: `${stem}-left`, at: [LEFT, FLOOR], ...(origin && { origin: `${origin}-left` }) },
        ],
      },
    ],
    fillRule: 'nonzero',
    fill: {
      kind: 'linear',
      from: [0, FLOOR - Math.max(...water)],
      to: [0, FLOOR],
      stops: [
        { at: 0, colour: '#3aa0ad' },
        { at: 1, colour: 'rgb(23 50 77 / 0.25)' },
      ],
    },
    stroke: null,
  });
  const line = (water: readonly number[], stem: string, origin?: string): Part => ({
    id: newId('p'),
    name: 'Level',
    contours: [{ id: newId('c'), closed: false, anchors: curve(water, stem, origin) }],
    fillRule: 'nonzero',
    fill: null,
    stroke: plainStroke('#17324d', 7),
  });
  for (const [name, make] of [
    ['Water', area],
    ['Level', line],
  ] as const) {
    const figureId = newId('f');
    addFigure(draft, figureId, name);
    const stem = (tide: number): string => `${ID}-${name.toLowerCase()}${tide}`;
    const poses = TIDES.map(({ name: tide, water }, i) => {
      const part = make(water, stem(i), i > 0 ? stem(0) : undefined);
      return { pose: { ...newPose(newId('q'), tide, [part.id]), placement: AS_DRAWN, hold: 0.5 }, parts: [part] };
    });
    insertPoses(draft, figureId, poses, newId);
    setClosedRail(draft, figureId, true, newId);
    for (const id of draft.figures[figureId].rail) draft.shifts[id].duration = 1.1;
  }
  return draft as Piece;
}
