import {
  type Figure,
  type Gradient,
  type LaneProperty,
  type Part,
  type PieceDraft,
  type PROPERTIES,
  plainStroke,
  type Stroke,
} from '@core';
import { countedIds, drawnPose, pieceBetween } from '../../core/src/testing/pieces';

export const SQUARE = 'M50 50H190V190H50Z';
export const DIAMOND = 'M120 30L210 120L120 210L30 120Z';
export const DROP = 'M120 20C160 80 200 110 200 150A80 70 0 0 1 40 150C40 110 80 80 120 20Z';
export const RING = 'M40 40H200V200H40ZM90 90V150H150V90Z';
export const CROSSED = 'M40 40H200V200H40ZM90 90H150V150H90Z';
export const LINE = 'M40 180L120 60L200 180';
export const LINE_B = 'M30 90L120 200L210 90';

const newId = countedIds();
export const part = (d: string, change: Partial<Part> = {}): Part => ({
  ...drawnPose(d, newId).parts[0],
  fill: '#c02040',
  ...change,
});
export const pen = (change: Partial<Stroke> = {}): Stroke => ({
  ...plainStroke('#1040a0', 12),
  cap: 'butt',
  join: 'miter',
  ...change,
});
export const drawn = (d: string, change: Partial<Stroke> = {}): Part => part(d, { fill: null, stroke: pen(change) });
const stops = [
  { at: 0, colour: '#ff0000' },
  { at: 0.5, colour: '#ffe060' },
  { at: 1, colour: '#0030c0' },
];
export const others = [
  { at: 0.2, colour: '#00a060' },
  { at: 0.6, colour: '#ffffff' },
  { at: 0.9, colour: 'rgb(40 0 80 / 0.4)' },
];
export const linear = (x0: number, y0: number, x1: number, y1: number, s = stops): Gradient => ({
  kind: 'linear',
  from: [x0, y0],
  to: [x1, y1],
  stops: s,
});
export const radial = (
  x: number,
  y: number,
  rx: number,
  ry: number,
  rotation = 0,
  focus: [number, number] = [0, 0],
  s = stops,
): Gradient => ({
  kind: 'radial',
  centre: [x, y],
  radii: [rx, ry],
  rotation,
  focus,
  stops: s,
});

/** Two poses with a shift of one second between them, and what else is in the piece. */
export interface Case {
  readonly from: readonly Part[];
  readonly to: readonly Part[];
  readonly options?: Parameters<typeof pieceBetween>[2];
  /** Whatever else is in the piece. */
  readonly also?: (draft: PieceDraft) => void;
  /** Moments to look at, s; left out: five of the first second. */
  readonly times?: readonly number[];
  /** Which share of the inked px may differ; left out: half a hundredth. */
  readonly room?: number;
}
export const BACK = { kind: 'cubic-bezier', x1: 0.35, y1: -0.5, x2: 0.4, y2: 1.6 } as const;
const GLIDE = { kind: 'cubic-bezier', x1: 0.5, y1: 0, x2: 0.15, y2: 1 } as const;

/** Adds a figure standing still, seen inside or clipping others. */
export function standing(
  draft: PieceDraft,
  id: string,
  parts: readonly Part[],
  change: Partial<Figure> = {},
  bottom = false,
): void {
  const source = pieceBetween(parts, parts).figures.f;
  const pose = `${id}-pose`;
  for (const each of parts) draft.parts[each.id] = each as PieceDraft['parts'][string];
  draft.poses[pose] = { ...structuredClone(draft.poses.A), id: pose, hold: 1, parts: parts.map((each) => each.id) };
  draft.figures[id] = {
    ...structuredClone(source),
    id,
    name: id,
    poses: [pose],
    rail: [],
    ...change,
  } as PieceDraft['figures'][string];
  if (bottom) draft.figureOrder.unshift(id);
  else draft.figureOrder.push(id);
}

/** Gives a figure a lane: a value at the pose that the shift leaves, and one at the pose that it reaches. */
export function lane(
  draft: PieceDraft,
  property: LaneProperty,
  from: readonly number[],
  to: readonly number[],
  figure = 'f',
): void {
  const [shift] = draft.figures.f.rail;
  const { poses } = draft.figures[figure];
  const values = figure === 'f' ? [from, to] : [from];
  draft.figures[figure].middle = [120, 120];
  draft.lanes[`${figure}-${property}`] = {
    id: `${figure}-${property}`,
    figure,
    property,
    keys: values.map((value, i) => ({
      id: `k${i}`,
      stop: { pose: poses[i], shift: i > 0 ? shift : null },
      after: null,
      value: [...value],
      easing: null,
    })),
  };
}

/** A case for each row of the table. */
export const ROWS: Record<keyof typeof PROPERTIES, Case> = {
  position: {
    from: [part(SQUARE)],
    to: [part(DROP)],
    options: { shift: { easing: BACK } },
    also: (draft) => lane(draft, 'position', [-40, 10], [30, -25]),
  },
  turn: {
    from: [part(SQUARE)],
    to: [part(SQUARE)],
    also: (draft) => lane(draft, 'turn', [0], [-300]),
  },
  skew: {
    from: [part(SQUARE)],
    to: [part(DROP)],
    options: { shift: { easing: BACK } },
    also(draft) {
      lane(draft, 'skew', [-15], [35]);
      lane(draft, 'turn', [20], [-40]);
      lane(draft, 'scale', [0.6, 1], [0.9, 0.5]);
      lane(draft, 'position', [-20, 10], [20, -10]);
    },
  },
  scale: {
    from: [part(DROP, { stroke: pen({ width: 10 }) })],
    to: [part(SQUARE, { stroke: pen({ width: 10 }) })],
    also: (draft) => lane(draft, 'scale', [0.5, 1], [1.2, 0.4]),
  },
  opacity: {
    from: [part(SQUARE, { fill: '#ff0000', stroke: pen({ paint: '#0000ff', width: 30 }) })],
    to: [part(SQUARE, { fill: '#ff0000', stroke: pen({ paint: '#0000ff', width: 30 }) })],
    options: { figure: { opacity: 0.5 } },
  },
  softness: {
    from: [part(SQUARE), part(DIAMOND, { fill: '#2050c0' })],
    to: [part(DROP), part(DIAMOND, { fill: '#20c050' })],
    also: (draft) => lane(draft, 'softness', [0], [9]),
  },
  drawn: {
    from: [drawn(DROP, { width: 14 })],
    to: [drawn(SQUARE, { width: 20 })],
    // The browser measures paths in its own way: ends of what is drawn lie half a px off.
    room: 0.01,
    also: (draft) => lane(draft, 'drawn', [0.1, 0.8, 0], [0.2, 0.9, 0.5]),
  },
  background: {
    from: [part(DROP)],
    to: [part(SQUARE)],
    also: (draft) => {
      draft.lanes.ground = {
        id: 'ground',
        figure: null,
        property: 'background',
        keys: [
          { id: 'a', stop: null, after: 0.1, value: [1, 0.9, 0.6, 1], easing: null },
          { id: 'b', stop: null, after: 0.8, value: [0.1, 0.3, 0.8, 1], easing: { kind: 'linear' } },
        ],
      };
    },
  },
  outline: { from: [part(SQUARE)], to: [part(DROP)], options: { shift: { easing: GLIDE, method: 'turning' } } },
  fill: { from: [part(SQUARE)], to: [part(SQUARE, { fill: 'rgb(0 80 200 / 0.4)' })] },
  stroke: { from: [drawn(SQUARE)], to: [drawn(SQUARE, { paint: 'rgb(240 120 0 / 0.5)' })] },
  strokeWidth: { from: [drawn(DROP, { width: 2 })], to: [drawn(DROP, { width: 30 })] },
  cap: { from: [drawn(LINE, { width: 30 })], to: [drawn(LINE, { width: 30, cap: 'round' })] },
  join: { from: [drawn(LINE, { width: 30 })], to: [drawn(LINE, { width: 30, join: 'round' })] },
  miter: { from: [drawn(LINE, { width: 24, miter: 1 })], to: [drawn(LINE, { width: 24, miter: 6 })] },
  dash: { from: [drawn(SQUARE, { dash: [30, 10] })], to: [drawn(SQUARE, { dash: [6, 20] })] },
  dashOffset: { from: [drawn(SQUARE, { dash: [30, 20] })], to: [drawn(SQUARE, { dash: [30, 20], dashOffset: 45 })] },
  line: {
    from: [part(SQUARE, { fill: linear(50, 50, 190, 50) })],
    to: [part(SQUARE, { fill: linear(120, 190, 90, 60) })],
  },
  ellipse: {
    from: [part(SQUARE, { fill: radial(120, 120, 80, 30) })],
    to: [part(SQUARE, { fill: radial(90, 140, 40, 90, 60) })],
  },
  focus: {
    from: [part(SQUARE, { fill: radial(120, 120, 80, 60, 20, [0.6, 0]) })],
    to: [part(SQUARE, { fill: radial(120, 120, 80, 60, 20, [-0.3, 0.5]) })],
  },
  stopOffset: {
    from: [part(SQUARE, { fill: linear(50, 50, 190, 190) })],
    to: [
      part(SQUARE, {
        fill: linear(
          50,
          50,
          190,
          190,
          stops.map((stop, i) => ({ ...stop, at: [0.4, 0.8, 0.9][i] })),
        ),
      }),
    ],
  },
  stopColour: {
    from: [part(SQUARE, { fill: linear(50, 50, 190, 190) })],
    to: [
      part(SQUARE, {
        fill: linear(
          50,
          50,
          190,
          190,
          stops.map((stop, i) => ({ ...stop, colour: others[i].colour })),
        ),
      }),
    ],
  },
};
