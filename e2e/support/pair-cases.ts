import type { PieceDraft } from '@core';
import {
  BACK,
  type Case,
  CROSSED,
  DIAMOND,
  DROP,
  drawn,
  LINE,
  LINE_B,
  lane,
  linear,
  others,
  part,
  pen,
  RING,
  radial,
  SQUARE,
  standing,
} from './property-cases';

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
