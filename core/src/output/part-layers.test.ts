import { describe, expect, test } from '@jest/globals';
import type { PartLanes } from '../frame';
import { blendNumbers, type PaintLanes, RampTime, rampLane } from '../lane';
import type { PlanContour } from '../morph';
import { type PartLayer, partLayers } from './part-layers';

const TIME = new RampTime(0, 1, { kind: 'linear' });
const lane = rampLane(TIME, blendNumbers([0], [1], { beyond: 'held', least: 0 }));
const COLOUR: PaintLanes = { kind: 'colour', colour: lane };
const CHANGING = { kind: 'gradient', places: [{}, {}] } as unknown as PaintLanes;
const STILL_KIND = { kind: 'gradient', places: [{}] } as unknown as PaintLanes;

const contour = (fields: Partial<PlanContour> = {}): PlanContour => ({
  method: 'straight',
  smoothing: 0,
  at: 0,
  segments: 6,
  closed: true,
  role: 'pair',
  begin: 0,
  end: 1,
  joints: new Int32Array(0),
  turns: new Float64Array(0),
  bridgesA: [],
  bridgesB: [],
  ...fields,
});
const layers = (contours: readonly PlanContour[], fill: PaintLanes | null, stroke: PaintLanes | null): PartLayer[] =>
  partLayers({ plan: { contours }, fill, stroke: stroke && { paint: stroke, properties: {} } } as unknown as PartLanes);
/** What of the paint a layer shows, its runs as [at, segments, closed], its place, and when it is seen. */
const told = (all: readonly PartLayer[]) =>
  all.map(({ fill, stroke, runs, place, seen }) => [
    `${fill ? 'f' : ''}${stroke ? 's' : ''}${place}`,
    runs.map((run) => [run.at, run.segments, run.closed]),
    seen && [seen.from, seen.until],
  ]);
const WHOLE = [[0, 6, true]];

describe('the elements of a part', () => {
  test('one is enough for what stays itself', () => {
    expect(told(layers([contour()], COLOUR, COLOUR))).toEqual([['fs0', WHOLE, undefined]]);
    expect(told(layers([contour()], STILL_KIND, COLOUR))).toEqual([['fs0', WHOLE, undefined]]);
    // Without a stroke no pen leaves a dot or follows a slit.
    const opening = contour({ bridgesA: [2], role: 'appears', begin: 0.2 });
    expect(told(layers([opening], COLOUR, null))).toEqual([['fs0', WHOLE, undefined]]);
  });

  test('a gradient that changes its kind has an element for each half, the fill below the stroke', () => {
    expect(told(layers([contour()], CHANGING, COLOUR))).toEqual([
      ['f0', WHOLE, [-Infinity, 0.5]],
      ['f1', WHOLE, [0.5, Infinity]],
      ['s0', WHOLE, undefined],
    ]);
    expect(told(layers([contour()], COLOUR, CHANGING))).toEqual([
      ['f0', WHOLE, undefined],
      ['s0', WHOLE, [-Infinity, 0.5]],
      ['s1', WHOLE, [0.5, Infinity]],
    ]);
    expect(told(layers([contour()], null, CHANGING))).toEqual([
      ['s0', WHOLE, [-Infinity, 0.5]],
      ['s1', WHOLE, [0.5, Infinity]],
    ]);
  });

  test('a stroke leaves the bridges of the nearer end out, and runs on between them', () => {
    const both = contour({ at: 10, bridgesA: [2, 5], bridgesB: [2, 5] });
    expect(told(layers([both], null, COLOUR))).toEqual([
      [
        's0',
        [
          [10, 2, false],
          [28, 2, false],
        ],
        undefined,
      ],
    ]);
    const opening = contour({ bridgesA: [0], bridgesB: [] });
    expect(told(layers([opening], COLOUR, COLOUR))).toEqual([
      ['f0', WHOLE, undefined],
      ['s0', [[6, 5, false]], [-Infinity, 0.5]],
      ['s0', WHOLE, [0.5, Infinity]],
    ]);
  });

  test('contours are stroked while they are more than a point', () => {
    const appears = contour({ at: 40, role: 'appears', begin: 0.2 });
    const vanishes = contour({ at: 80, role: 'vanishes', end: 0.7 });
    expect(told(layers([contour(), appears, vanishes], COLOUR, COLOUR))).toEqual([
      ['f0', [...WHOLE, [40, 6, true], [80, 6, true]], undefined],
      ['s0', WHOLE, undefined],
      ['s0', [[40, 6, true]], [0.2, Infinity]],
      ['s0', [[80, 6, true]], [-Infinity, 0.7]],
    ]);
  });

  test('the halves of what appears late and opens do not reach outside its life', () => {
    const late = contour({ role: 'appears', begin: 0.6, bridgesA: [1], bridgesB: [3] });
    expect(told(layers([late], null, COLOUR))).toEqual([
      [
        's0',
        [
          [0, 3, false],
          [24, 2, false],
        ],
        [0.6, Infinity],
      ],
    ]);
    const early = contour({ role: 'vanishes', end: 0.4, bridgesA: [0, 1, 2, 3, 4, 5], bridgesB: [] });
    expect(told(layers([early], null, COLOUR))).toEqual([]);
  });

  test('a stroke whose gradient changes its kind is cut by its life as well', () => {
    const appears = contour({ role: 'appears', begin: 0.2 });
    expect(told(layers([appears], null, CHANGING))).toEqual([
      ['s0', WHOLE, [0.2, 0.5]],
      ['s1', WHOLE, [0.5, Infinity]],
    ]);
  });
});
