import { type LaneRecord, type Part, type PieceDraft, type ShapeSource, shapePart } from '@core';
import { countedIds } from '../../core/src/testing/pieces';
import {
  BACK,
  type Case,
  DIAMOND,
  DROP,
  drawn,
  LINE,
  lane,
  linear,
  part,
  pen,
  RING,
  radial,
  SQUARE,
  standing,
} from './property-cases';

/** Gives a figure, or the canvas, a lane without keys. */
function drive(
  draft: PieceDraft,
  figure: string | null,
  property: LaneRecord['property'],
  drives: Pick<LaneRecord, 'follow' | 'drift' | 'pulse'>,
): void {
  const id = `${figure}-${property}`;
  const known = draft.lanes[id] ?? { id, figure, property, keys: [] };
  draft.lanes[id] = structuredClone({ ...known, ...drives }) as PieceDraft['lanes'][string];
}

const AT = { x: 120, y: 120, rotation: 0 } as const;
const BOX: ShapeSource = { kind: 'rectangle', ...AT, x: 70, y: 60, width: 80, height: 70, radii: [0, 0, 0, 0] };
const ARC: ShapeSource = { kind: 'arc', ...AT, x: 170, y: 70, radius: 40, from: 0, to: 90 };
const STAR: ShapeSource = { kind: 'star', ...AT, x: 90, y: 180, radius: 45, points: 5, inner: 0.5, rounding: 0 };
const newId = countedIds();
/** A part that is an adjustable shape still. */
const shaped = (source: ShapeSource, change: Partial<Part> = {}): Part => ({
  ...shapePart(source, 'Shape', { fill: '#c02040', stroke: null }, newId),
  ...change,
});

const FOLLOW = { axis: null, factor: 1, offset: 0, delay: 0, colour: 'same' } as const;
const BAR = 'M10 10H60V60H10Z';
const PULSE = { period: 0.25, from: 0.1, until: null } as const;

/** Lanes of all kinds, alone and together, and the ways of playing. */
export const LANE_CASES: Readonly<Record<string, Case>> = {
  'a colour in place of gradients and of strokes': {
    from: [part(SQUARE, { fill: linear(50, 50, 190, 190), stroke: pen({ width: 14 }) })],
    to: [part(DROP, { fill: radial(120, 120, 80, 30), stroke: pen({ width: 6 }) })],
    also(draft) {
      lane(draft, 'fill', [1, 0.2, 0.1, 1], [0.1, 0.2, 0.9, 0.6]);
      lane(draft, 'stroke', [0, 0, 0, 1], [0, 0.7, 0.3, 1]);
      lane(draft, 'strokeWidth', [2], [30]);
    },
  },
  'a colour of many parts, of which some have no area': {
    from: [part(SQUARE), drawn(LINE, { width: 10 })],
    to: [part(DIAMOND, { fill: '#00a060' }), drawn(LINE, { width: 20 })],
    also: (draft) => lane(draft, 'fill', [1, 0.6, 0, 1], [0.3, 0, 0.5, 1]),
  },
  'a stroke that is drawn from nothing with round ends, and closes': {
    from: [part(SQUARE, { stroke: pen({ width: 16, cap: 'round', dash: [10, 4] }) })],
    to: [part(SQUARE, { stroke: pen({ width: 16, cap: 'round', dash: [10, 4] }) })],
    options: { shift: { duration: 0.6 } },
    also(draft) {
      draft.poses.A.hold = 0.1;
      draft.poses.B.hold = 0.3;
      lane(draft, 'drawn', [0, 0, 0], [0, 1, 0]);
    },
  },
  'several contours and gradients drawn in part, moved': {
    from: [part(RING, { fill: null, stroke: pen({ width: 10, paint: linear(50, 50, 190, 190) }) }), drawn(LINE)],
    to: [part(RING, { fill: null, stroke: pen({ width: 18, paint: linear(190, 50, 50, 190) }) }), drawn(LINE)],
    room: 0.01,
    also(draft) {
      lane(draft, 'drawn', [0, 0.2, 0], [0.3, 0.7, 1.2]);
      lane(draft, 'turn', [0], [40]);
    },
  },
  'an ellipse drawn in part': {
    from: [drawn(SQUARE, { width: 26, paint: radial(120, 120, 110, 40) })],
    to: [drawn(DROP, { width: 14, paint: radial(120, 120, 40, 110, 40) })],
    room: 0.01,
    also: (draft) => lane(draft, 'drawn', [0, 0.4, 0], [0.1, 0.8, 0.2]),
  },
  'soft inside a clip of several parts, half-opaque': {
    from: [part(SQUARE)],
    to: [part(DROP)],
    options: { figure: { opacity: 0.7, clip: 'mask' } },
    also(draft) {
      standing(draft, 'mask', [part('M40 40H150V150H40Z'), part('M90 90V200H200V90Z')], { hidden: true }, true);
      lane(draft, 'softness', [8], [1]);
      lane(draft, 'position', [-10, 0], [20, 10]);
    },
  },
  'a background in the complementary colour of a figure that changes': {
    from: [part(SQUARE, { fill: '#d02040' })],
    to: [part(DROP, { fill: '#2040d0' })],
    options: { shift: { easing: BACK } },
    also: (draft) =>
      drive(draft, null, 'background', {
        follow: { ...FOLLOW, figure: 'f', property: 'fill', colour: 'complementary' },
      }),
  },
  'a companion that follows later, lighter, and turns as the other moves': {
    from: [part(DIAMOND, { fill: '#703090' })],
    to: [part(DROP, { fill: '#c07010' })],
    also(draft) {
      standing(draft, 'mate', [part(BAR, { fill: '#103060' })], { middle: [35, 35] });
      lane(draft, 'position', [-20, 0], [40, 10]);
      drive(draft, 'mate', 'position', {
        follow: { ...FOLLOW, figure: 'f', property: 'position', factor: 2, delay: 0.2 },
      });
      drive(draft, 'mate', 'turn', { follow: { ...FOLLOW, figure: 'f', property: 'position', axis: 0, factor: 1.5 } });
      drive(draft, 'mate', 'fill', {
        follow: { ...FOLLOW, figure: 'f', property: 'fill', colour: 'lighter', delay: 0.1 },
      });
    },
  },
  'drift of place and turn': {
    from: [part(SQUARE)],
    to: [part(DROP)],
    also(draft) {
      draft.figures.f.middle = [120, 120];
      drive(draft, 'f', 'position', { drift: { amount: [25, 10], speed: 3, seed: 7 } });
      drive(draft, 'f', 'turn', { drift: { amount: [30], speed: 2, seed: 1 } });
    },
  },
  'pulses of all shapes': {
    from: [part(DIAMOND)],
    to: [part(DIAMOND, { fill: '#2040a0' })],
    also(draft) {
      draft.figures.f.middle = [120, 120];
      drive(draft, 'f', 'scale', { pulse: { ...PULSE, shape: 'beat', amount: [0.3, 0.3] } });
      drive(draft, 'f', 'position', { pulse: { ...PULSE, shape: 'saw', amount: [30, 0] } });
      drive(draft, 'f', 'turn', { pulse: { ...PULSE, shape: 'sine', until: 0.5, amount: [-40] } });
      lane(draft, 'opacity', [1], [0.6]);
      drive(draft, 'f', 'opacity', { pulse: { ...PULSE, shape: 'square', amount: [-0.4] } });
    },
  },
  'a glance along a curved path, turning along it': {
    from: [part(BAR)],
    to: [part('M10 10H60L35 60Z')],
    options: { shift: { easing: BACK } },
    // On frames: what turns as fast as this has a key at each frame, and goes straight between them.
    times: [2, 18, 28, 43, 58].map((frame) => frame / 60),
    also(draft) {
      lane(draft, 'position', [0, 0], [150, 60]);
      Object.assign(draft.figures.f, { middle: [35, 35] });
      const made = draft.lanes['f-position'];
      made.along = true;
      made.keys[0].path = { out: [20, 140] };
      made.keys[1].path = { in: [-120, 40] };
    },
  },
  'numbers of shapes: corners, an arc of more and more quarters, points of a star': {
    from: [shaped(BOX, { fill: linear(20, 20, 120, 90) }), shaped(ARC, { fill: null, stroke: pen({ width: 14 }) })],
    to: [
      shaped({ ...BOX, width: 110 }, { fill: linear(120, 20, 20, 90) }),
      shaped({ ...ARC, radius: 44 }, { fill: null, stroke: pen({ width: 6 }) }),
    ],
    options: { shift: { method: 'numbers', easing: BACK } },
    // On frames, none where the star jumps: what pulses as fast as this has a key at each frame.
    times: [7, 19, 33, 51, 73].map((frame) => frame / 60),
    also(draft) {
      draft.poses.B.hold = 0.4;
      lane(draft, 'rectangle.radii', [0, 0, 0, 0], [36, 10, 36, 0]);
      drive(draft, 'f', 'rectangle.height', { pulse: { ...PULSE, shape: 'sine', amount: [-30] } });
      lane(draft, 'arc.to', [40], [300]);
      standing(draft, 'star', [shaped(STAR)]);
      draft.poses['star-pose'].hold = 1.4;
      draft.lanes.points = {
        id: 'points',
        figure: 'star',
        property: 'star.points',
        keys: [4, 7].map((value, i) => ({
          id: `k${i}`,
          stop: { pose: 'star-pose', shift: null },
          after: i,
          value: [value],
          easing: { kind: 'linear' },
        })),
      };
    },
  },
  'a shape that its lane changed goes over into points, and plays there and back': {
    from: [shaped({ ...BOX, x: 120, y: 120 })],
    to: [part(DROP)],
    times: [0.2, 0.45, 0.9, 1.5, 2.1, 2.6],
    also(draft) {
      draft.playback = 'back';
      draft.poses.A.hold = 0.6;
      lane(draft, 'rectangle.width', [60], [200]);
      const [first, second] = draft.lanes['f-rectangle.width'].keys;
      Object.assign(first, { after: 0 });
      Object.assign(second, { stop: { pose: 'A', shift: null }, after: 0.5 });
    },
  },
  'there and back': {
    from: [part(SQUARE)],
    to: [part(DROP, { fill: '#2040a0' })],
    options: { shift: { easing: { kind: 'cubic-bezier', x1: 0.8, y1: 0, x2: 0.7, y2: 1 }, duration: 0.7 } },
    times: [0.2, 0.8, 1.1, 1.45, 1.9, 2.3],
    also(draft) {
      draft.playback = 'back';
      draft.poses.A.hold = 0.1;
      draft.poses.B.hold = 0.2;
      lane(draft, 'turn', [0], [120]);
      standing(draft, 'late', [part(BAR)], { start: 0.6, before: 'hidden' });
      draft.poses['late-pose'].hold = 0.4;
    },
  },
  'from the start once, then a stretch again and again': {
    from: [part(SQUARE)],
    to: [part(DROP, { fill: '#2040a0' })],
    options: { shift: { easing: BACK } },
    times: [0.1, 0.5, 0.85, 1.05, 1.25, 1.62],
    also(draft) {
      draft.playback = 'stretch';
      draft.stretch = { from: { at: null, after: 0.4 }, until: { at: null, after: 0.9 } };
      lane(draft, 'turn', [0], [120]);
      drive(draft, 'f', 'position', { pulse: { ...PULSE, shape: 'saw', amount: [30, 0] } });
      standing(draft, 'late', [part(BAR)], { start: 0.6, before: 'hidden', after: 'hidden' });
      draft.poses['late-pose'].hold = 0.2;
    },
  },
  'an unpaired contour with a choice of caps, in a stretch': {
    from: [part('M40 40H130V130H40Z', { stroke: pen({ join: 'round', cap: 'butt', width: 16 }) })],
    to: [part('M40 40H130V130H40ZM170 170H220V220H170Z', { stroke: pen({ join: 'bevel', cap: 'round', width: 16 }) })],
    times: [0.3, 0.6, 0.85, 1.15, 1.37],
    also(draft) {
      draft.playback = 'stretch';
      draft.stretch = { from: { at: null, after: 0.2 }, until: { at: null, after: 0.8 } };
    },
  },
};
