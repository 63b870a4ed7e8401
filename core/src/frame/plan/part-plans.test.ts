import { describe, expect, test } from '@jest/globals';
import type { UnpairedOrder } from '../../match';
import { seededRandom } from '../../num';
import { cssText } from '../../paint';
import { AS_DRAWN, AUTOMATIC_MATCH, type Part, plainStroke, type Stroke } from '../../piece';
import { type BetweenOptions, countedIds, drawnPose, inputBetween, pieceBetween } from '../../testing/pieces';
import type { PaintSample } from '../lanes/paint-sample';
import { frameAt } from '../picture/frame-at';
import { type FramePart, stillParts } from '../picture/sample';
import { planPoseShift, planSoundShift } from './part-plans';

const newId = countedIds();
const SQUARE = 'M0 0H10V10H0Z';
const stroke = (width: number, more: Partial<Stroke> = {}): Stroke => ({
  ...plainStroke('#ff0000', width),
  cap: 'butt',
  join: 'miter',
  ...more,
});
const part = (d: string, paint: Partial<Part> = {}): Part => ({ ...drawnPose(d, newId).parts[0], ...paint });
const scaled = (scale: number) => ({ ...AS_DRAWN, scaleX: scale, scaleY: scale });
/** The drawn parts of a shift at a progress. */
const at = (progress: number, from: Part[], to: Part[], options: BetweenOptions = {}): readonly FramePart[] =>
  frameAt(pieceBetween(from, to, options), progress).figures[0].parts;
const colour = (paint: PaintSample | null | undefined): string | null =>
  paint ? cssText(paint.colour[0], paint.colour[1], paint.colour[2], paint.colour[3]) : null;

describe('paint along a shift', () => {
  test('a fill that one side lacks fades in its own colour, a stroke thins out', () => {
    const [from, to] = [part(SQUARE, { fill: null, stroke: stroke(2) }), part(SQUARE, { fill: '#00ff00' })];
    const [half] = at(0.5, [from], [to]);
    expect(colour(half.fill)).toBe('rgb(0 255 0 / 0.5)');
    expect(half.stroke?.values.strokeWidth[0]).toBe(1);
    const [late] = at(0.9, [from], [to]);
    expect(colour(late.stroke?.paint)).toBe('rgb(255 0 0 / 0.1)');
  });

  test('stroke widths are those of the canvas: the pose’s scale counts; ends and joins change half-way', () => {
    const from = part(SQUARE, { fill: null, stroke: stroke(2) });
    const to = part(SQUARE, { fill: null, stroke: stroke(4, { cap: 'round', join: 'bevel' }) });
    const values = (progress: number) => {
      const [only] = at(progress, [from], [to], { from: scaled(3), to: scaled(0.5) });
      expect(only.fill).toBeNull();
      return only.stroke && [only.stroke.values.strokeWidth[0], only.stroke.values.cap[0], only.stroke.values.join[0]];
    };
    expect([0, 0.25, 0.49, 0.5, 1].map(values)).toEqual([
      [6, 0, 0],
      [5, 0, 0],
      [expect.closeTo(4.04, 9), 0, 0],
      [4, 1, 2],
      [2, 1, 2],
    ]);
  });

  test('dash offset and mitre go straight from one end to the other', () => {
    const pen = (more: Partial<Stroke>) => part(SQUARE, { stroke: stroke(2, { dash: [4, 2], ...more }) });
    const [from, to] = [pen({ miter: 2, dashOffset: 1 }), pen({ miter: 10, dashOffset: 5, dash: [8, 6] })];
    const values = (progress: number) => {
      const [only] = at(progress, [from], [to], { from: scaled(1), to: scaled(2) });
      const { miter, dashOffset, dash } = only.stroke?.values ?? {};
      return [miter?.[0], dashOffset?.[0], ...(dash ?? [])];
    };
    expect(values(0)).toEqual([2, 1, 4, 2]);
    expect(values(0.25)).toEqual([4, 3.25, 7, 4.5]);
    expect(values(1)).toEqual([10, 10, 16, 12]);
  });

  test('stops and geometry of gradients move all the way', () => {
    const gradient = (x: number, at: number) =>
      ({
        kind: 'linear',
        from: [0, 0],
        to: [x, 0],
        stops: [
          { at, colour: '#000000' },
          { at: 1, colour: '#ffffff' },
        ],
      }) as const;
    const [from, to] = [part(SQUARE, { fill: gradient(10, 0) }), part(SQUARE, { fill: gradient(30, 0.8) })];
    const [half] = at(0.25, [from], [to]);
    expect([half.fill?.gradient?.geometry[2], half.fill?.gradient?.at[0]]).toEqual([
      expect.closeTo(15, 9),
      expect.closeTo(0.2, 9),
    ]);
  });

  test('an unpaired part keeps its paint and its stroke width', () => {
    const dot = part('M100 100H140V140H100Z', { fill: '#0000ff', stroke: stroke(5) });
    for (const progress of [0, 0.6, 1]) {
      const parts = at(progress, [part(SQUARE, { fill: '#ff0000' }), dot], [part(SQUARE, { fill: '#ff0000' })]);
      const unpaired = parts.find(({ contours }) => contours[0].role === 'vanishes');
      expect([colour(unpaired?.fill), unpaired?.stroke?.values.strokeWidth[0]]).toEqual(['#0000ff', 5]);
    }
  });

  test('an unpaired part goes when it is said to', () => {
    const dot = part('M100 100H140V140H100Z', { fill: '#0000ff' });
    const [from, to] = [
      { placement: AS_DRAWN, parts: [part(SQUARE), dot] },
      { placement: AS_DRAWN, parts: [part(SQUARE)] },
    ];
    const spanOf = (unpairedOrder: UnpairedOrder): readonly number[] => {
      const { parts } = planPoseShift(inputBetween(from, to, { match: { ...AUTOMATIC_MATCH, unpairedOrder } }));
      const unpaired = parts.flatMap(({ plan: { contours } }) => contours).find(({ role }) => role === 'vanishes');
      return unpaired ? [unpaired.begin, unpaired.end] : [];
    };
    expect(spanOf('auto')).toEqual([0, 1]);
    expect(spanOf('overlap')).toEqual([0, 0.65]);
    expect(spanOf('after')).toEqual([0, 0.5]);
  });

  test('parts that come or go alone are told, counted, and by which way', () => {
    const dot = (x: number) => part(`M${x} 100H${x + 40}V140H${x}Z`, { fill: '#0000ff' });
    const [one, two, three] = [dot(100), dot(200), dot(300)];
    const told = (from: Part[], to: Part[], match = AUTOMATIC_MATCH): string[] =>
      planPoseShift(inputBetween({ placement: AS_DRAWN, parts: from }, { placement: AS_DRAWN, parts: to }, { match }))
        .reasons.filter(({ code }) => code === 'part-alone')
        .map(({ text }) => text);
    const square = () => part(SQUARE, { fill: '#ff0000' });
    expect(told([square()], [square()])).toEqual([]);
    expect(told([square(), one], [square()])).toEqual([
      'One part of the first pose has no partner in the second and shrinks away to a point.',
    ]);
    const wipes = [{ contour: two.contours[0].id, angle: 0 }];
    expect(told([square()], [square(), one, two, three], { ...AUTOMATIC_MATCH, wipes })).toEqual([
      '2 parts of the second pose have no partner in the first and grow from points.',
      'One part of the second pose has no partner in the first and is wiped in.',
    ]);
  });

  test('colour tips the scale where place and size are alike', () => {
    const square = (x: number, fill: string) => part(`M${x} 0H${x + 10}V10H${x}Z`, { fill });
    const pairs = (...fills: [string, string]) =>
      inputBetween(
        { placement: AS_DRAWN, parts: [square(0, '#ff0000'), square(4, '#0000ff')] },
        { placement: AS_DRAWN, parts: [square(0, fills[0]), square(4, fills[1])] },
      ).pairs;
    expect(pairs('#ff0000', '#0000ff')).toEqual([
      [0, 0],
      [1, 1],
    ]);
    expect(pairs('#0000ff', '#ff0000')).toEqual([
      [0, 1],
      [1, 0],
    ]);
  });
});

describe('painting order', () => {
  test('follows the order of both poses', () => {
    const big = () => part('M0 0H100V100H0Z', { fill: '#111111' });
    const small = (x: number) => part(`M${x} 40H${x + 20}V60H${x}Z`, { fill: '#eeeeee' });
    const order = (from: Part[], to: Part[]) => at(0, from, to).map(({ fill }) => colour(fill));
    expect(order([big(), small(40)], [big(), small(45)])).toEqual(['#111111', '#eeeeee']);
    expect(order([small(40), big()], [small(45), big()])).toEqual(['#eeeeee', '#111111']);
  });
});

describe('a pose standing still', () => {
  test('is its own outline in its own order and its own paint, and nothing vanishes', () => {
    const [only] = stillParts(scaled(2), [part('M0 0V10H10V0Z', { fill: '#123456', stroke: stroke(1) })]);
    expect([...only.points.slice(0, 2), ...only.points.slice(6, 8)]).toEqual([0, 0, 0, 20]);
    expect(only.contours.map(({ role }) => role)).toEqual(['pair']);
    expect(colour(only.fill)).toBe('#123456');
    expect(only.stroke?.values.strokeWidth[0]).toBe(2);
  });

  test('keeps its fill rule and the directions of its contours', () => {
    const ring = 'M0 0H100V100H0ZM30 30H70V70H30Z';
    expect(stillParts(AS_DRAWN, [part(ring, { fillRule: 'evenodd' })])[0].fillRule).toBe('evenodd');
    const [filled] = stillParts(AS_DRAWN, [part(ring)]);
    expect([filled.fillRule, ...filled.points.slice(26, 28), ...filled.points.slice(32, 34)]).toEqual([
      'nonzero',
      30,
      30,
      70,
      30,
    ]);
  });

  test('without parts there is nothing to draw', () => {
    expect(stillParts(AS_DRAWN, [])).toEqual([]);
    expect(at(0.5, [], [])).toEqual([]);
  });
});

test('a sound plan that is found at first is the very plan; where nothing sound is, there is none', () => {
  const between = (a: string, b: string) =>
    inputBetween({ placement: AS_DRAWN, parts: [part(a)] }, { placement: AS_DRAWN, parts: [part(b)] });
  const star = between('M10 40L60 40L60 15L95 50L60 85L60 60L10 60Z', 'M0 0H100V100H0Z');
  expect(planSoundShift(star)?.parts[0].plan.contours).toEqual(planPoseShift(star).parts[0].plan.contours);
  const random = seededRandom(3);
  const scribble = (): string => `M${Array.from({ length: 24 }, () => `${random() * 90} ${random() * 90}`).join('L')}Z`;
  const tangled = between(scribble(), scribble());
  expect(planPoseShift(tangled).health.sound).toBe(false);
  expect(planSoundShift(tangled)).toBeNull();
});
