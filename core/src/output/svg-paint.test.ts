import { describe, expect, test } from '@jest/globals';
import { blendNumbers, type GradientLanes, PROPERTIES, paintLanes, RampTime, rampLane } from '../lane';
import type { CommonPaint, RadialGradient } from '../paint';
import { commonPaint } from '../paint';
import { gradientElements, LaneWriter } from './svg-paint';
import { escapeText, svgText, trackText } from './tree/svg-text';

const TIME = new RampTime(0, 2, { kind: 'linear' });
const SPAN = { end: 2, until: 2, duration: 2, playback: 'loop', stretch: [0, 2] } as const;
const STOPS = [
  { at: 0, colour: '#ff0000' },
  { at: 1, colour: '#0000ff80' },
];
const radial = (fields: Partial<RadialGradient> = {}): RadialGradient => ({
  kind: 'radial',
  centre: [50, 40],
  radii: [30, 20],
  rotation: 10,
  focus: [0, 0],
  stops: STOPS,
  ...fields,
});
const written = (from: RadialGradient, to: RadialGradient, still = false): string => {
  const lanes = paintLanes(commonPaint(from, to) as CommonPaint, TIME, 'srgb') as GradientLanes;
  return gradientElements(lanes, new LaneWriter(still ? null : SPAN, 60))
    .map((element) => svgText(element('g1')))
    .join('');
};
const CLOCK = 'dur="2s" repeatCount="indefinite"/>';

describe('paint as SVG', () => {
  test('text is made safe for attributes and content', () => {
    expect(escapeText('<a b="c">&amp;')).toBe('&lt;a b=&quot;c&quot;&gt;&amp;amp;');
  });

  test('where a stretch plays again, a ramp that reaches over its beginning has a key there', () => {
    const writer = new LaneWriter({ ...SPAN, playback: 'stretch', stretch: [0.5, 1.5] }, 60);
    const lane = rampLane(TIME, blendNumbers([1], [5], PROPERTIES.strokeWidth.range));
    const values = writer.property(PROPERTIES.strokeWidth, lane).tracks.map((track) => track.values.join(';'));
    expect(values).toEqual(['1;2;4', '2;4']);
  });

  test('an attribute that is what SVG has when it is left out is left out, unless it moves', () => {
    const writer = new LaneWriter(SPAN, 60);
    const width = (from: number, to: number) =>
      writer.property(PROPERTIES.strokeWidth, rampLane(TIME, blendNumbers([from], [to], PROPERTIES.strokeWidth.range)));
    expect(width(1, 1)).toEqual({ attributes: {}, tracks: [] });
    expect(width(3, 3)).toEqual({ attributes: { 'stroke-width': '3' }, tracks: [] });
    const moving = width(1, 5);
    expect(moving.attributes).toEqual({ 'stroke-width': '1' });
    expect(moving.tracks.map(trackText)).toEqual([
      `<animate attributeName="stroke-width" values="1;5" keyTimes="0;1" ${CLOCK}`,
    ]);
  });

  test('a radial gradient is the unit circle under a map, with its stops', () => {
    expect(written(radial(), radial())).toBe(
      '<radialGradient id="g1" gradientUnits="userSpaceOnUse" cx="0" cy="0" r="1" gradientTransform="translate(50 40) rotate(10) scale(30 20)"><stop offset="0" stop-color="#f00"/><stop offset="1" stop-color="#00f" stop-opacity="0.502"/></radialGradient>\n',
    );
  });

  test('when one step of the map moves all are written, the first replacing the map', () => {
    const text = written(radial(), radial({ radii: [60, 20] }));
    const one = (type: string, additive: string, values: string, times: string): string =>
      `<animateTransform attributeName="gradientTransform" type="${type}" additive="${additive}" values="${values}"${times} ${CLOCK}`;
    expect(text).toContain(one('translate', 'replace', '50 40;50 40', '') + one('rotate', 'sum', '10;10', ''));
    expect(text).toContain('attributeName="gradientTransform"');
    expect(text).toContain('values="30 20;60 20" keyTimes="0;1"');
    expect(text.match(/additive="sum"/g)).toHaveLength(2);
    expect(text.match(/<animateTransform /g)).toHaveLength(3);
  });

  test('a focus off the centre is written and moves; a still picture has no time', () => {
    const text = written(radial({ focus: [0.5, 0] }), radial({ focus: [0.5, 0.25] }));
    expect(text).toContain(' fx="0.5" fy="0">');
    expect(text).toContain('attributeName="fy"');
    expect(text).not.toContain('attributeName="fx"');
    expect(written(radial(), radial({ radii: [60, 20], focus: [0.1, 0] }), true)).not.toContain('<animate');
  });
});
