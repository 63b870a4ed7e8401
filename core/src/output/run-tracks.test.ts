import { describe, expect, test } from '@jest/globals';
import type { KeySpline } from '../easing';
import { playSmil } from '../testing/play-smil';
import { displayTracks, heldTracks, type RampTexts, rampTracks, type SpanTime } from './run-tracks';
import { trackText } from './tree/svg-text';

const EVEN: KeySpline = [1 / 3, 1 / 3, 2 / 3, 2 / 3];
const SOFT: KeySpline = [0.42, 0, 0.58, 1];
const span = (fields: Partial<SpanTime> = {}): SpanTime => ({
  end: 4,
  until: 4,
  duration: 4,
  playback: 'once',
  stretch: [0, 4],
  ...fields,
});
const ramp = (
  start: number,
  end: number,
  texts: readonly string[],
  times = texts.map((_, k) => k / Math.max(1, texts.length - 1)),
  spline: KeySpline | null = EVEN,
): RampTexts => ({ start, end, times, texts, splines: spline ? texts.map(() => spline) : [] });
// Looked at as the elements of SVG that files have.
const animateElement = (...said: Parameters<typeof rampTracks>): string =>
  rampTracks(...said)
    .map(trackText)
    .join('');
const displayElement = (...said: Parameters<typeof displayTracks>): string =>
  displayTracks(...said)
    .map(trackText)
    .join('');
const attribute = (element: string, name: string): string | undefined =>
  new RegExp(` ${name}="([^"]*)"`).exec(element)?.[1];

describe('animation elements', () => {
  test('what never changes has none', () => {
    expect(animateElement('r', [ramp(0, 1, ['5', '5']), ramp(2, 4, ['5'])], span())).toBe('');
    expect(animateElement('r', [ramp(0, 1, ['5', '5']), ramp(2, 4, ['5', '6'])], span())).not.toBe('');
  });

  test('a ramp over the whole run that is even needs no splines', () => {
    expect(animateElement('r', [ramp(0, 4, ['1', '9'])], span())).toBe(
      '<animate attributeName="r" values="1;9" keyTimes="0;1" dur="4s" fill="freeze"/>',
    );
    expect(
      animateElement('r', [ramp(0, 4, ['1', '9'])], span({ playback: 'loop' }), { type: 'scale', sum: true }),
    ).toBe(
      '<animateTransform attributeName="r" values="1;9" keyTimes="0;1" dur="4s" repeatCount="indefinite" type="scale" additive="sum"/>',
    );
  });

  test('a value is level before, between and after its ramps; each stretch has its spline', () => {
    const element = animateElement(
      'r',
      [ramp(1, 2, ['1', '5'], [0, 1], SOFT), ramp(2.5, 3, ['5', '9'])],
      span({ until: 5, playback: 'loop' }),
    );
    expect(element).toBe(
      '<animate attributeName="r" calcMode="spline" values="1;1;5;5;9;9" keyTimes="0;.25;.5;.625;.75;1" keySplines="0 0 1 1;.42 0 .58 1;0 0 1 1;0 0 1 1;0 0 1 1" dur="4s" repeatCount="indefinite"/>',
    );
  });

  test('where nothing is seen after the last ramp, each run ends with it and the last value is written once', () => {
    const element = animateElement('r', [ramp(1, 3, ['1', '5'])], span({ end: 3, until: 3, duration: 4 }));
    expect(attribute(element, 'values')).toBe('1;1;5');
    expect(attribute(element, 'keyTimes')).toBe('0;.5;1');
    expect(attribute(element, 'begin')).toBe('-1s');
    // Seen longer, in a run that begins again, it keeps the run of the piece.
    const longer = animateElement('r', [ramp(1, 3, ['1', '5'])], span({ end: 3, until: 4, playback: 'loop' }));
    expect(attribute(longer, 'values')).toBe('1;1;5;5');
    expect(attribute(longer, 'keyTimes')).toBe('0;.25;.75;1');
    expect(attribute(longer, 'begin')).toBeUndefined();
  });

  test('values that jump stand from key to key, each written once', () => {
    const ramps = [ramp(0, 2, ['butt', 'round'], [0, 0.5], null), ramp(2, 4, ['round', 'square'], [0, 0.5], null)];
    expect(animateElement('stroke-linecap', ramps, span())).toBe(
      '<animate attributeName="stroke-linecap" calcMode="discrete" values="butt;round;square" keyTimes="0;.25;.75" dur="4s" fill="freeze"/>',
    );
  });

  test('keys outside the run are held at its ends', () => {
    const element = animateElement('r', [ramp(-1, 5, ['1', '5'])], span());
    expect(attribute(element, 'keyTimes')).toBe('0;1');
  });

  test('a cut has two values at one time', () => {
    const element = animateElement('r', [ramp(2, 2, ['1', '5'])], span({ until: 5, playback: 'loop' }));
    expect(attribute(element, 'values')).toBe('1;1;5;5');
    expect(attribute(element, 'keyTimes')).toBe('0;.5;.5;1');
  });

  test('the last key ends at the run however times are rounded', () => {
    const element = animateElement('r', [ramp(0, 3.99999999, ['1', '9'])], span());
    expect(attribute(element, 'values')).toBe('1;9');
    expect(attribute(element, 'keyTimes')).toBe('0;1');
  });
});

describe('showing an element for a time', () => {
  test('none is written where it is always there', () => {
    expect(displayElement(0, 4, span({ playback: 'loop' }))).toBe('');
    expect(displayElement(0, 5, span({ playback: 'loop' }))).toBe('');
  });

  test('it comes at its time and goes at its time', () => {
    expect(displayElement(1, 3, span({ playback: 'loop' }))).toBe(
      '<animate attributeName="display" calcMode="discrete" values="none;inline;none" keyTimes="0;.25;.75" dur="4s" repeatCount="indefinite"/>',
    );
    expect(displayElement(0, 3, span())).toBe(
      '<animate attributeName="display" calcMode="discrete" values="inline;none" keyTimes="0;.75" dur="4s" fill="freeze"/>',
    );
    expect(displayElement(2, 4, span({ playback: 'loop' }))).toContain('values="none;inline" keyTimes="0;.5"');
  });
});

describe('ways of playing', () => {
  const value = (elements: string, seconds: number): number => {
    // Of elements that are all at work the one that began last counts (SVG Animations 2, the sandwich model).
    const shown = elements
      .split('/>')
      .filter(Boolean)
      .flatMap((tag) => playSmil(tag, seconds) ?? []);
    return Number(shown.at(-1));
  };
  test('there and back plays each ramp the other way round on its way back, with the same timing', () => {
    const swift: KeySpline = [0.9, 0.1, 0.8, 0.3];
    const element = animateElement('r', [ramp(1, 3, ['0', '8'], [0, 1], swift)], span({ playback: 'back' }));
    expect(element).toContain('dur="8s" repeatCount="indefinite"');
    for (const at of [0.3, 1.2, 1.9, 2.7, 3.5]) {
      expect(value(element, 8 - at)).toBeCloseTo(value(element, at), 3);
      expect(value(element, 8 + at)).toBeCloseTo(value(element, at), 3);
    }
    // Half of its time is not half of its way.
    expect(Math.abs(value(element, 2) - 4)).toBeGreaterThan(1);
  });
  test('a stretch: once from the start, then from its beginning again and again', () => {
    const run = span({ playback: 'stretch', stretch: [1, 3] });
    const even = animateElement(
      'r',
      [ramp(0, 1, ['0', '10']), ramp(1, 3, ['10', '30']), ramp(3, 4, ['30', '40'])],
      run,
    );
    expect([0.5, 1, 2.5, 3.5, 4.9, 5.5].map((at) => +value(even, at).toFixed(3))).toEqual([5, 10, 25, 15, 29, 15]);
    const shown = displayElement(1.5, 2, run);
    const visible = (at: number): string | undefined =>
      shown
        .split('/>')
        .filter(Boolean)
        .flatMap((tag) => playSmil(tag, at) ?? [])
        .at(-1);
    expect([1, 1.7, 2.5, 3.2, 3.7, 4.2, 5.7].map(visible)).toEqual([
      'none',
      'inline',
      'none',
      'none',
      'inline',
      'none',
      'inline',
    ]);
  });
  test('a step that stands still takes its place each time that the others begin', () => {
    const still = (playback: SpanTime['playback']): string =>
      heldTracks('transform', { type: 'translate', sum: true }, '1 2', span({ playback, stretch: [1, 3] }))
        .map(trackText)
        .join('');
    expect(still('loop').match(/<animateTransform/g)).toHaveLength(1);
    expect(still('stretch').match(/<animateTransform/g)).toHaveLength(2);
    expect(still('stretch')).toContain('begin="3s" dur="2s" repeatCount="indefinite"');
  });
});
