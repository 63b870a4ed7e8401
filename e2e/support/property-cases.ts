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
const CROSSED = 'M40 40H200V200H40ZM90 90H150V150H90Z';
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
const others = [
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
    // The browser paints what CSS moves in layers of its own: leaning ones have softer edges, in the same places.
    room: 0.02,
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

/** Moved, turned and scaled all at once. */
function motion(draft: PieceDraft, figure = 'f'): void {
  lane(draft, 'position', [-30, 20], [25, -10], figure);
  lane(draft, 'turn', [20], [110], figure);
  lane(draft, 'scale', [0.6, 0.9], [1.1, 0.7], figure);
}

/** Rows that touch each other, and what besides the rows shapes a picture. */
export const PAIRS: Record<string, Case> = {
  'motion, with an easing that goes beyond': {
    from: [part(SQUARE)],
    to: [part(DROP)],
    options: { shift: { easing: BACK } },
    also: (draft) => motion(draft),
  },
  'motion of several parts, half-opaque': {
    from: [part(SQUARE), part(DIAMOND, { fill: '#2050c0' })],
    to: [part(DROP), part(SQUARE, { fill: '#20c050' })],
    options: { figure: { opacity: 0.5 } },
    also: (draft) => motion(draft),
  },
  'motion of gradients and dashes': {
    from: [part(SQUARE, { fill: linear(50, 50, 190, 190), stroke: pen({ dash: [20, 10] }) })],
    to: [part(DROP, { fill: linear(50, 190, 190, 50), stroke: pen({ dash: [10, 20] }) })],
    also: (draft) => motion(draft),
  },
  'motion of a stroke with an ellipse': {
    from: [drawn(SQUARE, { width: 26, paint: radial(120, 120, 110, 40) })],
    to: [drawn(DROP, { width: 14, paint: radial(120, 120, 40, 110, 40) })],
    also: (draft) => motion(draft),
  },
  'motion inside a clip that stands': {
    from: [part(SQUARE, { stroke: pen({ width: 30 }) })],
    to: [part(DROP, { stroke: pen({ width: 30 }) })],
    options: { figure: { clip: 'mask' } },
    also(draft) {
      standing(draft, 'mask', [part(DIAMOND)], { hidden: true }, true);
      motion(draft);
    },
  },
  'motion of a clip, with what is seen in it moved otherwise': {
    from: [part(DROP)],
    to: [part(SQUARE)],
    also(draft) {
      standing(draft, 'seen', [part('M0 90H240V150H0Z', { fill: '#103060' })], { clip: 'f' });
      motion(draft);
      lane(draft, 'turn', [30], [30], 'seen');
    },
  },
  'motion of a clip of several parts': {
    from: [part('M40 40H150V150H40Z'), part('M90 90V200H200V90Z')],
    to: [part('M40 40H150V150H40Z'), part('M90 90V200H200V90Z')],
    options: { figure: { hidden: true } },
    also(draft) {
      standing(draft, 'seen', [part('M0 20H240V220H0Z', { fill: '#103060' })], { clip: 'f' });
      motion(draft);
    },
  },
  'opacity by a lane, with motion': {
    from: [part(SQUARE), part(DIAMOND, { fill: '#2050c0' })],
    to: [part(SQUARE), part(DIAMOND, { fill: '#2050c0' })],
    options: { figure: { opacity: 0.8 } },
    also(draft) {
      lane(draft, 'opacity', [1], [0.25]);
      lane(draft, 'position', [-30, 0], [30, 0]);
    },
  },
  'a figure that begins late and goes early, and one that waits': {
    from: [part(SQUARE)],
    to: [part(DROP)],
    options: { figure: { start: 0.2, before: 'hidden', after: 'hidden' }, shift: { duration: 0.5 } },
    also(draft) {
      standing(draft, 'waits', [part('M10 10H230V40H10Z', { fill: '#103060' })], { start: 0.4 });
      draft.poses['waits-pose'].hold = 0.6;
    },
  },
  'a clip that comes late': {
    from: [part(DROP)],
    to: [part(SQUARE)],
    options: { figure: { start: 0.25, before: 'hidden' }, shift: { duration: 0.75 } },
    also: (draft) => {
      standing(draft, 'seen', [part('M0 90H240V150H0Z', { fill: '#103060' })], { clip: 'f' });
      standing(draft, 'ground', [part('M0 200H240V240H0Z', { fill: '#208040' })], {}, true);
    },
  },
  'free keys before the beginning, within, and after the end': {
    from: [part(SQUARE)],
    to: [part(DROP)],
    also(draft) {
      lane(draft, 'position', [-40, 10], [30, -25]);
      const [first] = draft.lanes['f-position'].keys;
      [
        [-0.4, -70, 0],
        [0.3, 0, 30],
        [1.6, 60, 60],
      ].forEach(([after, x, y], i) => {
        draft.lanes['f-position'].keys.push({ ...structuredClone(first), id: `free${i}`, after, value: [x, y] });
      });
    },
  },
  'a spring that moves and morphs': {
    from: [part(SQUARE)],
    to: [part(DROP)],
    options: { shift: { easing: { kind: 'spring', bounce: 0.6 } } },
    also: (draft) => lane(draft, 'position', [-40, 10], [30, -25]),
  },
  'steps that move and morph': {
    from: [part(SQUARE)],
    to: [part(DROP)],
    options: { shift: { easing: { kind: 'steps', count: 4, jump: 'both' } } },
    also: (draft) => lane(draft, 'turn', [0], [90]),
  },
  'a bounce that moves and morphs': {
    from: [part(SQUARE)],
    to: [part(DROP, { fill: '#2040a0' })],
    options: { shift: { easing: { kind: 'bounce', side: 'out' } } },
    also: (draft) => lane(draft, 'position', [0, -60], [0, 20]),
  },
  'a change at once, at the end of its time': {
    from: [part(SQUARE)],
    to: [part(DROP, { fill: '#2040a0' })],
    options: { shift: { easing: { kind: 'hold', until: 'end' } } },
    also: (draft) => lane(draft, 'position', [-40, 0], [40, 0]),
  },
  'scale that goes through nothing': {
    from: [part(SQUARE)],
    to: [part(DROP)],
    also: (draft) => lane(draft, 'scale', [1.2, 1], [-0.6, 0.8]),
  },
  'opacity with a gradient': {
    from: [
      part(SQUARE, { fill: linear(50, 50, 190, 190), stroke: pen({ paint: radial(120, 120, 120, 120), width: 20 }) }),
    ],
    to: [part(DROP, { fill: linear(50, 190, 190, 50), stroke: pen({ paint: radial(90, 90, 90, 90), width: 20 }) })],
    options: { figure: { opacity: 0.6 } },
  },
  'opacity of several parts that overlap': {
    from: [part(SQUARE), part(DIAMOND, { fill: '#2050c0' })],
    to: [part(DROP), part(SQUARE, { fill: '#20c050' })],
    options: { figure: { opacity: 0.5 } },
  },
  'opacity inside a clip': {
    from: [part(SQUARE, { stroke: pen({ width: 30 }) })],
    to: [part(DROP, { stroke: pen({ width: 30 }) })],
    options: { figure: { opacity: 0.5, clip: 'mask' } },
    also: (draft) => standing(draft, 'mask', [part(DIAMOND)], { hidden: true }, true),
  },
  'clip in clip': {
    from: [part(SQUARE)],
    to: [part(DROP, { fill: '#20a040' })],
    options: { figure: { clip: 'inner' } },
    also(draft) {
      standing(draft, 'outer', [part('M60 20H180V220H60Z')], { hidden: true }, true);
      standing(draft, 'inner', [part(DIAMOND)], { hidden: true, clip: 'outer' }, true);
    },
  },
  'clip by a hole': {
    from: [part('M0 0H240V240H0Z')],
    to: [part('M0 0H240V240H0Z', { fill: '#20a040' })],
    options: { figure: { clip: 'mask' } },
    also: (draft) => standing(draft, 'mask', [part(CROSSED, { fillRule: 'evenodd' })], { hidden: true }, true),
  },
  'clip by parts that overlap and run against each other': {
    from: [part('M0 0H240V240H0Z')],
    to: [part('M0 0H240V240H0Z', { fill: '#20a040' })],
    options: { figure: { clip: 'mask' } },
    also: (draft) =>
      standing(draft, 'mask', [part('M40 40H150V150H40Z'), part('M90 90V200H200V90Z')], { hidden: true }, true),
  },
  'a moving clip, seen itself': {
    from: [part(DROP)],
    to: [part(SQUARE)],
    also: (draft) => standing(draft, 'seen', [part('M0 100H240V140H0Z', { fill: '#103060' })], { clip: 'f' }),
  },
  'dash with a gradient': {
    from: [drawn(SQUARE, { dash: [30, 12], width: 20, paint: linear(50, 50, 190, 190) })],
    to: [drawn(DROP, { dash: [12, 30], width: 20, paint: linear(190, 50, 50, 190, others) })],
  },
  'dash with caps': {
    from: [drawn(LINE, { dash: [30, 30], cap: 'round' })],
    to: [drawn(LINE_B, { dash: [10, 40], cap: 'square' })],
  },
  'dash with width and offset': {
    from: [drawn(SQUARE, { dash: [20, 10], width: 4 })],
    to: [drawn(SQUARE, { dash: [40, 30], width: 20, dashOffset: 30 })],
    options: { shift: { easing: BACK } },
  },
  'dashes that open from an unbroken line': {
    from: [drawn(DIAMOND)],
    to: [drawn(DIAMOND, { dash: [20, 20, 4, 20] })],
  },
  'join with mitre': {
    from: [drawn(LINE, { width: 24, miter: 1.2 })],
    to: [drawn(LINE_B, { width: 10, join: 'bevel', miter: 8 })],
  },
  'stroke with an ellipse': {
    from: [drawn(SQUARE, { width: 26, paint: radial(120, 120, 110, 40) })],
    to: [drawn(DROP, { width: 14, paint: radial(120, 120, 40, 110, 40) })],
  },
  'stroke with a circle whose focus is turned': {
    from: [drawn(SQUARE, { width: 26, paint: radial(120, 120, 110, 110, 0, [0.5, 0]) })],
    to: [drawn(SQUARE, { width: 26, paint: radial(120, 120, 110, 110, 120, [0.5, 0]) })],
  },
  'stroke over fill, both see-through': {
    from: [part(SQUARE, { fill: 'rgb(200 0 0 / 0.5)', stroke: pen({ paint: 'rgb(0 0 200 / 0.5)', width: 30 }) })],
    to: [part(DROP, { fill: 'rgb(0 120 0 / 0.8)', stroke: pen({ paint: 'rgb(200 200 0 / 0.3)', width: 10 }) })],
  },
  'stop colours with their places': {
    from: [part(SQUARE, { fill: linear(50, 50, 190, 190) })],
    to: [part(SQUARE, { fill: linear(190, 50, 50, 190, others) })],
    options: { shift: { easing: BACK } },
  },
  'a linear gradient that becomes a radial one': {
    from: [part(SQUARE, { fill: linear(50, 50, 190, 190) })],
    to: [part(DROP, { fill: radial(120, 140, 80, 50, 30) })],
  },
  'a colour that becomes a gradient': {
    from: [part(SQUARE, { fill: '#20a040' })],
    to: [part(SQUARE, { fill: radial(120, 120, 90, 60, 30) })],
  },
  'fill and stroke that one side lacks': {
    from: [part(SQUARE, { fill: '#20a040' })],
    to: [part(DROP, { fill: null, stroke: pen({ width: 20 }) })],
  },
  'width beyond its ends': {
    // Curves on both sides: the browser smooths the edges of stroked lines otherwise than those of the same lines as cubics.
    from: [drawn(DROP, { width: 20 })],
    to: [drawn('M120 40A80 80 0 0 1 120 200A80 80 0 0 1 120 40Z', { width: 7 })],
    options: { shift: { easing: BACK } },
  },
  'colours and outlines beyond their ends': {
    from: [part(DROP, { fill: '#208040' })],
    to: [part(SQUARE, { fill: '#f0c020' })],
    options: { shift: { easing: BACK, blend: 'srgb' } },
  },
  'a hole by the even-odd rule': {
    from: [part(CROSSED, { fillRule: 'evenodd' })],
    to: [part('M30 30H210V210H30ZM60 60H100V180H60Z', { fillRule: 'evenodd', fill: '#2040a0' })],
  },
  'a hole that opens through a slit, stroked': {
    from: [part(RING, { stroke: pen({ width: 8 }) })],
    to: [part(SQUARE, { stroke: pen({ width: 8 }) })],
  },
  'an unpaired contour with round joins': {
    from: [part('M40 40H130V130H40Z', { stroke: pen({ join: 'round', cap: 'round', width: 16 }) })],
    to: [part('M40 40H130V130H40ZM170 170H220V220H170Z', { stroke: pen({ join: 'round', cap: 'round', width: 16 }) })],
  },
  'an unpaired part that goes': {
    from: [
      part('M40 40H130V130H40Z'),
      part('M170 170H220V220H170Z', { fill: '#2040a0', stroke: pen({ join: 'round' }) }),
    ],
    to: [part('M60 60H150V150H60Z')],
    options: { figure: { opacity: 0.7 } },
  },
};
