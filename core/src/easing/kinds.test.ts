import { describe, expect, test } from '@jest/globals';
import {
  easeBackIn,
  easeBackInOut,
  easeBackOut,
  easeBounceIn,
  easeBounceInOut,
  easeBounceOut,
  easeElasticIn,
  easeElasticInOut,
  easeElasticOut,
} from 'd3-ease';
import { CoreError } from '../errors';
import { readCssEasing, writeCssEasing } from './css-easing';
import { curveFinding } from './curve';
import { type Easing, ease, easeSlope, easingSegments, reverseEasing } from './easing';
import { easingPolyline } from './easing-polyline';
import { EASING_SIDES } from './families';
import { SPRING_REST, springBounce, springOvershoot, springSeconds } from './spring';
import { STEP_JUMPS } from './steps';

const TIMES = Array.from({ length: 50 }, (_, i) => (i + 0.5) / 50);
const KINDS: readonly Easing[] = [
  { kind: 'steps', count: 5, jump: 'end' },
  { kind: 'steps', count: 3, jump: 'both' },
  { kind: 'hold', until: 'end' },
  { kind: 'hold', until: 'start' },
  { kind: 'spring', bounce: 0.5 },
  { kind: 'spring', bounce: 0 },
  { kind: 'spring', bounce: -0.8 },
  { kind: 'spring', bounce: 0.3, backwards: true },
  { kind: 'spring', bounce: 0, physics: { mass: 2, stiffness: 90, damping: 7, speed: 3 } },
  ...EASING_SIDES.flatMap((side): Easing[] => [
    { kind: 'elastic', side, amplitude: 1.4, period: 0.35 },
    { kind: 'bounce', side },
    { kind: 'back', side, overshoot: 1.70158 },
  ]),
  { kind: 'curve', points: [0, 0, 0.1, 0.3, 0.2, 0.6, 0.4, 0.6, 0.5, 0.6, 0.7, 1.2, 1, 1] },
];
const isSmooth = ({ kind }: Easing): boolean => kind !== 'steps' && kind !== 'hold';

describe('steps', () => {
  // The worked figure of CSS Easing 1, section 2.4: steps(3, jump-*) just after each third of the time.
  test.each([
    ['end', [0, 1 / 3, 2 / 3]],
    ['start', [1 / 3, 2 / 3, 1]],
    ['none', [0, 1 / 2, 1]],
    ['both', [1 / 4, 2 / 4, 3 / 4]],
  ] as const)('jump-%s is level where CSS has it', (jump, levels) => {
    levels.forEach((level, i) => {
      for (const inside of [0.001, 0.5, 0.999])
        expect(ease({ kind: 'steps', count: 3, jump }, (i + inside) / 3)).toBeCloseTo(level, 12);
    });
  });
});

describe('the classical families', () => {
  const THEIRS = {
    elastic: { in: easeElasticIn, out: easeElasticOut, both: easeElasticInOut },
    bounce: { in: easeBounceIn, out: easeBounceOut, both: easeBounceInOut },
    back: { in: easeBackIn, out: easeBackOut, both: easeBackInOut },
  };
  test.each(EASING_SIDES)('agree with d3-ease at 50 times: %s', (side) => {
    for (const time of TIMES) {
      const elastic = THEIRS.elastic[side].amplitude(1.4).period(0.35)(time);
      expect(ease({ kind: 'elastic', side, amplitude: 1.4, period: 0.35 }, time)).toBeCloseTo(elastic, 9);
      expect(ease({ kind: 'bounce', side }, time)).toBeCloseTo(THEIRS.bounce[side](time), 12);
      const back = THEIRS.back[side].overshoot(1.70158)(time);
      expect(ease({ kind: 'back', side, overshoot: 1.70158 }, time)).toBeCloseTo(back, 12);
    }
  });
});

describe('springs', () => {
  /** m·x″ + c·x′ + k·(x − 1) = 0 by Runge and Kutta's method of order four, in steps of 1/20000 of the time. */
  function integrated(
    { mass, stiffness, damping, speed }: { mass: number; stiffness: number; damping: number; speed: number },
    seconds: number,
  ): number {
    const steps = 20_000;
    const h = seconds / steps;
    let [x, v] = [0, speed];
    const pull = (at: number, fast: number): number => (-damping * fast - stiffness * (at - 1)) / mass;
    for (let i = 0; i < steps; i++) {
      const [k1, l1] = [v, pull(x, v)];
      const [k2, l2] = [v + (h / 2) * l1, pull(x + (h / 2) * k1, v + (h / 2) * l1)];
      const [k3, l3] = [v + (h / 2) * l2, pull(x + (h / 2) * k2, v + (h / 2) * l2)];
      const [k4, l4] = [v + h * l3, pull(x + h * k3, v + h * l3)];
      x += (h / 6) * (k1 + 2 * k2 + 2 * k3 + k4);
      v += (h / 6) * (l1 + 2 * l2 + 2 * l3 + l4);
    }
    return x;
  }

  test.each([
    ['swinging', { mass: 1, stiffness: 200, damping: 12, speed: 0 }],
    ['pushed', { mass: 2, stiffness: 90, damping: 7, speed: 6 }],
    ['critical', { mass: 1, stiffness: 100, damping: 20, speed: 0 }],
    ['creeping', { mass: 1, stiffness: 100, damping: 50, speed: 0 }],
    ['creeping, pushed over its end', { mass: 1, stiffness: 100, damping: 30, speed: 60 }],
  ])('%s: where its equation of motion has it, and at rest when it says so', (_name, physics) => {
    const easing: Easing = { kind: 'spring', bounce: springBounce(physics), physics };
    const seconds = springSeconds(physics);
    for (const share of [0.05, 0.2, 0.45, 0.7, 0.95])
      expect(ease(easing, share)).toBeCloseTo(integrated(physics, share * seconds), 6);
    expect(Math.abs(1 - ease(easing, 1 - 1e-9))).toBeLessThanOrEqual(SPRING_REST * 1.001);
    // Half as long it was not at rest yet.
    const late = TIMES.filter((time) => time < 0.5).map((time) => Math.abs(1 - ease(easing, time)));
    expect(Math.max(...late)).toBeGreaterThan(SPRING_REST);
  });
  test('without a push it goes beyond its end by e^(−πζ/√(1 − ζ²)) of the way (a textbook formula)', () => {
    for (const bounce of [0.2, 0.5, 0.8]) {
      const z = 1 - bounce;
      const expected = Math.exp((-Math.PI * z) / Math.sqrt(1 - z * z));
      expect(springOvershoot({ kind: 'spring', bounce })).toBeCloseTo(expected, 2);
    }
    expect(springOvershoot({ kind: 'spring', bounce: 0 })).toBe(0);
  });
  test('one that would never settle swings on for long, and settles', () => {
    const easing: Easing = {
      kind: 'spring',
      bounce: 0,
      physics: { mass: 1, stiffness: 100, damping: 0.0001, speed: 0 },
    };
    for (const time of TIMES) expect(Math.abs(ease(easing, time))).toBeLessThan(2);
    expect(springSeconds({ mass: 1, stiffness: 100, damping: 0.0001, speed: 0 })).toBeLessThan(60);
  });
});

describe('every kind', () => {
  test('has a slope that is the change of its value, by numeric differentiation', () => {
    for (const easing of KINDS.filter(isSmooth))
      for (const time of [0.07, 0.23, 0.41, 0.62, 0.87]) {
        const change = (ease(easing, time + 1e-6) - ease(easing, time - 1e-6)) / 2e-6;
        expect(easeSlope(easing, time)).toBeCloseTo(change, 4);
      }
  });
  test('is compiled to cubics that end at 0, 0 and 1, 1 and stay within 0.001 of it', () => {
    for (const easing of KINDS) {
      const p = easingSegments(easing);
      expect([p[0], p[1], p[p.length - 2], p[p.length - 1]]).toEqual([0, 0, 1, 1]);
      for (let at = 0; at + 7 < p.length; at += 6)
        for (const t of [0.11, 0.47, 0.83]) {
          const mix = (k: 0 | 1): number =>
            (1 - t) ** 3 * p[at + k] +
            3 * (1 - t) ** 2 * t * p[at + 2 + k] +
            3 * (1 - t) * t * t * p[at + 4 + k] +
            t ** 3 * p[at + 6 + k];
          // A jump has no length: any value on it will do.
          if (p[at + 6] > p[at]) expect(Math.abs(ease(easing, mix(0)) - mix(1))).toBeLessThan(1.01e-3);
        }
    }
  });
  test('goes back the way it came', () => {
    for (const easing of KINDS) {
      const back = reverseEasing(easing);
      for (const time of TIMES) expect(ease(back, time)).toBeCloseTo(1 - ease(easing, 1 - time), 9);
      for (const time of TIMES) expect(ease(reverseEasing(back), time)).toBeCloseTo(ease(easing, time), 12);
    }
  });
  test('becomes straight pieces within the error that was asked for, and few', () => {
    for (const easing of KINDS) {
      const pieces = easingPolyline(easing, 2e-3);
      expect(pieces.length).toBeLessThan(100);
      for (const time of TIMES) {
        const k = pieces.findIndex(([at]) => at > time);
        const [[t0, p0], [t1, p1]] = [pieces[k - 1], pieces[k]];
        expect(Math.abs(p0 + ((p1 - p0) * (time - t0)) / (t1 - t0) - ease(easing, time))).toBeLessThan(4e-3);
      }
    }
  });
});

describe('as CSS', () => {
  test('keywords mean what CSS Easing 1, section 2, says', () => {
    expect(readCssEasing('ease')).toEqual({ kind: 'cubic-bezier', x1: 0.25, y1: 0.1, x2: 0.25, y2: 1 });
    expect(readCssEasing(' Ease-In-Out; ')).toEqual({ kind: 'cubic-bezier', x1: 0.42, y1: 0, x2: 0.58, y2: 1 });
    expect(readCssEasing('step-start')).toEqual({ kind: 'steps', count: 1, jump: 'start' });
  });
  test('what CSS has by itself is read as it was written', () => {
    for (const easing of [
      { kind: 'linear' },
      { kind: 'cubic-bezier', x1: 0.3, y1: -0.5, x2: 0.25, y2: 1.35 },
      ...STEP_JUMPS.map((jump) => ({ kind: 'steps', count: 4, jump })),
    ] as Easing[])
      expect(readCssEasing(writeCssEasing(easing))).toEqual(easing);
  });
  test('missing times of linear() lie evenly, and none before the one before it (CSS Easing 2, section 2.2.1)', () => {
    // The worked example there: linear(0, 0.25, 1) has its middle stop at 50 %; linear(0, 0.25 25% 75%, 1) is level between.
    const middle = readCssEasing('linear(0, 0.25, 1)');
    expect([ease(middle, 0.25), ease(middle, 0.5), ease(middle, 0.75)].map((v) => +v.toFixed(9))).toEqual([
      0.125, 0.25, 0.625,
    ]);
    const level = readCssEasing('linear(0, 0.25 25% 75%, 1)');
    expect([0.25, 0.5, 0.74].map((time) => +ease(level, time).toFixed(9))).toEqual([0.25, 0.25, 0.25]);
    const back = readCssEasing('linear(0, 0.5 60%, 0.7 20%, 1)');
    expect(ease(back, 0.61)).toBeGreaterThan(0.7);
  });
  test('a spring comes back from its linear() within 0.005', () => {
    const easing: Easing = { kind: 'spring', bounce: 0.5 };
    const again = readCssEasing(writeCssEasing(easing));
    for (const time of TIMES) expect(Math.abs(ease(again, time) - ease(easing, time))).toBeLessThan(5e-3);
  });
  test.each([
    'bouncy',
    'cubic-bezier(0.1, 0.2, 0.3)',
    'cubic-bezier(2, 0, 0, 1)',
    'steps(0)',
    'steps(1, jump-none)',
    'steps(2.5)',
    'linear(1)',
    'linear(0, nine, 1)',
    'linear(0.5, 1)',
    `linear(0${', 0.5'.repeat(200)}, 1)`,
    '',
  ])('%j is refused with what was expected', (text) => {
    expect(() => readCssEasing(text)).toThrow(CoreError);
    expect(() => readCssEasing(text)).toThrow(/^Expected .*; found/);
  });
});

describe('several curves', () => {
  test('points that run back in time, or lead elsewhere, are found', () => {
    expect(curveFinding([0, 0, 0.1, 0, 0.2, 1, 1, 1])).toBeUndefined();
    expect(curveFinding([0, 0, 0.1, 0, 0.2, 1])).toMatch(/3n \+ 1/);
    expect(curveFinding([0, 0, 0.1, 0, 1.2, 1, 1, 1])).toMatch(/run back in time; segment 1/);
    expect(curveFinding([0, 0, 0.1, 0, 0.2, 1, 1, 0.9])).toMatch(/lead from/);
  });
});
