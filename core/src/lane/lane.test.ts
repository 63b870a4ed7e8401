import { describe, expect, test } from '@jest/globals';
import { ease } from '../easing';
import { commonPaint, cssText, type LinearGradient, type RadialGradient, type Rgba, readColour } from '../paint';
import { type Blend, blendChoice, blendColours, blendColoursVia, blendNumbers } from './blend';
import { clipLane, cutRamp } from './clip-lane';
import { Lane, levelLane, RampTime, rampLane } from './lane';
import { paintLanes, prepareGradient, sampleGradient } from './paint-lanes';

const HELD = { beyond: 'held', least: -Infinity } as const;
const LINEAR = { kind: 'linear' } as const;
const SWING = { kind: 'cubic-bezier', x1: 0.65, y1: 0, x2: 0.35, y2: 1 } as const;
const read = (css: string): Rgba => readColour(css) as Rgba;
const at = (blend: Blend, progress: number): number[] => {
  const out = new Float64Array(blend.size);
  blend.write(progress, out, 0);
  return [...out];
};
const value = (lane: Lane, seconds: number): number => {
  const out = new Float64Array(1);
  lane.sample(seconds, out);
  return out[0];
};

describe('values over progress', () => {
  test('numbers go straight; outside 0..1 they are held or go on, and never fall below their least', () => {
    expect([-1, 0, 0.25, 1, 2].map((p) => at(blendNumbers([2, 8], [6, 0], HELD), p))).toEqual([
      [2, 8],
      [2, 8],
      [3, 6],
      [6, 0],
      [6, 0],
    ]);
    const width = blendNumbers([4], [1], { beyond: 'on', least: 0 });
    expect([-1, 0.5, 1.2, 2].map((p) => at(width, p)[0])).toEqual([7, 2.5, expect.closeTo(0.4, 9), 0]);
    // Where it comes down to its least it bends: keyed outputs need a key there.
    expect(width.breaks).toEqual([expect.closeTo(4 / 3, 9)]);
    expect(blendNumbers([4], [4], { beyond: 'on', least: 0 }).breaks).toEqual([]);
  });

  test('a choice changes half-way, and says so', () => {
    const choice = blendChoice(0, 2);
    expect([-0.2, 0.4999, 0.5, 1.3].map((p) => at(choice, p)[0])).toEqual([0, 0, 2, 2]);
    expect([choice.breaks, choice.jumps, choice.still]).toEqual([[0.5], true, false]);
    expect([blendChoice(1, 1).still, blendChoice(1, 1).breaks]).toEqual([true, []]);
  });

  test('colours are held outside 0..1; over a middle they pass it half-way', () => {
    const [red, grey, blue] = [read('#ff0000'), read('#808080'), read('#0000ff')];
    const css = (blend: Blend, p: number): string => cssText(...(at(blend, p) as [number, number, number, number]));
    expect([-3, 1.5].map((p) => css(blendColours(red, blue, 'srgb'), p))).toEqual(['#ff0000', '#0000ff']);
    const via = blendColoursVia(red, grey, blue, 'srgb');
    expect([0, 0.25, 0.5, 0.75, 1].map((p) => css(via, p))).toEqual([
      '#ff0000',
      '#c04040',
      '#808080',
      '#4040c0',
      '#0000ff',
    ]);
    expect(via.breaks).toEqual([0.5]);
  });

  test('what is the same at both ends stands still', () => {
    expect(blendNumbers([1, 2], [1, 2], HELD).still).toBe(true);
    expect(blendNumbers([1, 2], [1, 3], HELD).still).toBe(false);
    expect(blendColours(read('#123456'), read('#123456'), 'oklab').still).toBe(true);
    expect(blendColours(read('#123456'), read('#123457'), 'oklab').still).toBe(false);
    expect(blendColoursVia(read('#111'), read('#222'), read('#111'), 'srgb').still).toBe(false);
    for (const other of ['#113456', '#125556', '#123466', 'rgb(18 52 86 / 0.5)'])
      expect(blendColours(read('#123456'), read(other), 'srgb').still).toBe(false);
    for (const running of [blendNumbers([1], [2], HELD), blendColours(read('#111'), read('#222'), 'srgb')])
      expect([running.jumps, running.breaks]).toEqual([false, []]);
    expect(blendNumbers([4], [-4], HELD).breaks).toEqual([]);
  });
});

describe('a lane', () => {
  const lane = new Lane([
    { time: new RampTime(1, 2, LINEAR), blend: blendNumbers([0], [10], HELD) },
    { time: new RampTime(3, 4, SWING), blend: blendNumbers([10], [4], HELD) },
  ]);

  test('is level before, between and after its ramps, and eased in them', () => {
    expect([0, 1, 1.3, 2, 2.7, 3, 9].map((t) => value(lane, t))).toEqual([0, 0, expect.closeTo(3, 9), 10, 10, 10, 4]);
    expect(value(lane, 3.2)).toBeCloseTo(10 - 6 * ease(SWING, 0.2), 9);
  });

  test('is the same at a time whatever was asked before', () => {
    const wanted = [0, 5, 10, 10 - 6 * ease(SWING, 0.5), 4];
    for (const order of [
      [4, 0],
      [3, 1, 3, 0],
      [4, 0, 3, 1, 2],
      [2, 2, 4, 0, 1],
    ])
      for (const k of order) expect(value(lane, k + 0.5)).toBeCloseTo(wanted[k], 9);
  });

  test('a ramp without duration is a cut; a level lane has one value', () => {
    const slow = rampLane(new RampTime(0, 4, LINEAR), blendNumbers([0], [8], HELD));
    expect([1, 2, 3].map((t) => value(slow, t))).toEqual([2, 4, 6]);
    const cut = rampLane(new RampTime(1, 1, LINEAR), blendNumbers([0], [5], HELD));
    expect([0.99, 1, 1.01].map((t) => value(cut, t))).toEqual([0, 0, 5]);
    const level = levelLane(blendNumbers([3], [3], HELD));
    expect([-1, 0, 7].map((t) => value(level, t))).toEqual([3, 3, 3]);
  });
});

describe('gradients over time', () => {
  const stops = [
    { at: 0, colour: '#ff0000' },
    { at: 1, colour: '#0000ff' },
  ];
  const linear: LinearGradient = { kind: 'linear', from: [1, 2], to: [7, 5], stops };
  const radial: RadialGradient = {
    kind: 'radial',
    centre: [4, 3],
    radii: [5, 2],
    rotation: 30,
    focus: [0.3, -0.2],
    stops,
  };
  const sample = (a: LinearGradient | RadialGradient, b: LinearGradient | RadialGradient, p: number) => {
    const common = commonPaint(a, b);
    const lanes = common && paintLanes(common, new RampTime(0, 1, LINEAR), 'srgb');
    if (lanes?.kind !== 'gradient') throw new Error('no gradient');
    const out = sampleGradient(lanes, p, prepareGradient(lanes));
    const colours = [0, 1].map((i) =>
      cssText(...([...out.colours.slice(4 * i, 4 * i + 4)] as [number, number, number, number])),
    );
    return { kind: out.kind, geometry: [...out.geometry], at: [...out.at], colours };
  };

  test('two of one kind: line, ellipse, focus, stops and colours all move', () => {
    const other: LinearGradient = {
      ...linear,
      from: [3, 4],
      to: [9, 9],
      stops: [{ at: 0.4, colour: '#0000ff' }, stops[1]],
    };
    expect(sample(linear, other, 0.5)).toEqual({
      kind: 'linear',
      geometry: [2, 3, 8, 7, 0, 0, 0],
      at: [0.2, 1],
      colours: ['#800080', '#0000ff'],
    });
    const wide: RadialGradient = { ...radial, centre: [6, 7], radii: [9, 4], rotation: 50, focus: [0.5, 0] };
    expect(sample(radial, wide, 0.5).geometry.map((v) => +v.toFixed(9))).toEqual([5, 5, 7, 3, 40, 0.4, -0.1]);
  });

  test('linear to radial: each half has the place of its own kind, and the colours meet', () => {
    const before = sample(linear, radial, 0.499999);
    const after = sample(linear, radial, 0.5);
    expect([before.kind, before.geometry.slice(0, 4)]).toEqual(['linear', [1, 2, 7, 5]]);
    expect([after.kind, after.geometry]).toEqual(['radial', [4, 3, 5, 2, 30, 0.3, -0.2]]);
    expect(after.colours).toEqual(['#800080', '#800080']);
    for (const css of before.colours) expect(['#800080', '#80007f', '#7f0080']).toContain(css);
    expect(sample(linear, radial, 1).colours).toEqual(['#ff0000', '#0000ff']);
  });

  test('a colour is a lane of its own, and one place is always the first', () => {
    const common = commonPaint('#ff0000', '#0000ff');
    const lanes = common && paintLanes(common, new RampTime(0, 1, LINEAR), 'srgb');
    expect(lanes?.kind).toBe('colour');
    const out = new Float64Array(4);
    if (lanes?.kind === 'colour') lanes.colour.sample(0.5, out);
    expect([...out]).toEqual([0.5, 0, 0.5, 1]);
    const two = commonPaint(linear, linear);
    const gradient = two && paintLanes(two, new RampTime(0, 1, LINEAR), 'srgb');
    expect(gradient?.kind === 'gradient' && gradient.place.ramps[0].blend.still).toBe(true);
  });
});

describe('a lane cut to a stretch of time', () => {
  const ramps = (...spans: readonly (readonly [number, number, number, number])[]): Lane =>
    new Lane(
      spans.map(([start, end, from, to]) => ({
        time: new RampTime(start, end, SWING),
        blend: blendNumbers([from], [to], HELD),
      })),
    );
  test('is the same inside, whatever reaches over its ends', () => {
    const lane = ramps([-1, 0.5, 4, 8], [1, 2, 8, 2], [2.5, 4, 2, 9], [5, 6, 9, 1]);
    const cut = clipLane(lane, 0, 3);
    for (const seconds of [0, 0.2, 0.5, 0.8, 1.4, 2.2, 2.7, 2.99]) {
      expect(value(cut, seconds)).toBeCloseTo(value(lane, seconds), 9);
    }
    expect(cut.ramps.map(({ time }) => [time.start, time.end])).toEqual([
      [0, 0.5],
      [1, 2],
      [2.5, 3],
    ]);
  });
  test('stays the very lane where nothing reaches over, and is level where nothing happens inside', () => {
    const lane = ramps([0, 1, 0, 5]);
    expect(clipLane(lane, 0, 2)).toBe(lane);
    expect(value(clipLane(lane, 3, 4), 3.5)).toBe(5);
    expect(value(clipLane(ramps([5, 6, 7, 9]), 0, 4), 2)).toBe(7);
  });
});

describe('a ramp cut at times', () => {
  const bounce = { kind: 'bounce', side: 'out' } as const;
  test('goes on from piece to piece as it went as a whole, with its bends where they were', () => {
    const ramp = { time: new RampTime(1, 3, bounce), blend: blendNumbers([4], [-8], { beyond: 'on', least: 0 }) };
    const pieces = cutRamp(ramp, [0.5, 1.5, 2.2, 7]);
    expect(pieces.map(({ time }) => [time.start, time.end])).toEqual([
      [1, 1.5],
      [1.5, 2.2],
      [2.2, 3],
    ]);
    const [whole, cut] = [new Lane([ramp]), new Lane(pieces)];
    for (let t = 0.9; t < 3.2; t += 0.03) expect(value(cut, t)).toBeCloseTo(value(whole, t), 9);
    expect(pieces[0].blend.breaks.length).toBeGreaterThan(0);
  });
  test('a choice jumps in the piece where it did', () => {
    const ramp = { time: new RampTime(0, 1, LINEAR), blend: blendChoice(0, 2) };
    const [first, second] = cutRamp(ramp, [0.4]);
    expect([first.blend.jumps, first.blend.breaks, second.blend.breaks.map((at) => +at.toFixed(6))]).toEqual([
      true,
      [],
      [+((0.5 - 0.4) / 0.6).toFixed(6)],
    ]);
    expect(cutRamp(ramp, [])).toEqual([ramp]);
  });
});
