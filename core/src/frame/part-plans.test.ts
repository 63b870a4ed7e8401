import { describe, expect, test } from '@jest/globals';
import type { Turns } from '../match';
import { contourArea } from '../outline';
import { blendColour, cssText, isGradientBlend, type PaintBlend } from '../paint';
import { AS_DRAWN, AUTOMATIC_MATCH, type Part, plainStroke, type Stroke } from '../piece';
import { countedIds, drawnPose } from '../testing/pieces';
import { planPoseShift, planStill } from './part-plans';
import type { PoseInput, ShiftInput } from './shift-input';

const newId = countedIds();
const SQUARE = 'M0 0H10V10H0Z';
const stroke = (width: number, more: Partial<Stroke> = {}): Stroke => ({
  ...plainStroke('#ff0000', width),
  cap: 'butt',
  join: 'miter',
  ...more,
});
const part = (d: string, paint: Partial<Part> = {}): Part => ({ ...drawnPose(d, newId).parts[0], ...paint });
const pose = (scale: number, ...parts: Part[]): PoseInput => ({
  placement: { ...AS_DRAWN, scaleX: scale, scaleY: scale },
  parts,
});
const plan = (from: PoseInput, to: PoseInput) => {
  const input: ShiftInput = { from, to, method: 'straight', blend: 'oklab', match: AUTOMATIC_MATCH };
  return planPoseShift(input);
};
const colourAt = (blend: PaintBlend, progress: number): string => {
  if (isGradientBlend(blend)) throw new Error('a gradient');
  const c = blendColour(blend, progress, new Float64Array(4));
  return cssText(c[0], c[1], c[2], c[3]);
};

describe('paint along a shift', () => {
  test('a fill that one side lacks fades in its own colour', () => {
    const [only] = plan(
      pose(1, part(SQUARE, { fill: null, stroke: stroke(2) })),
      pose(1, part(SQUARE, { fill: '#00ff00' })),
    ).parts;
    expect(only.fill && colourAt(only.fill, 0.5)).toBe('rgb(0 255 0 / 0.5)');
    expect(only.stroke?.widths).toEqual([2, 0]);
    expect(only.stroke && colourAt(only.stroke.paint, 0.9)).toBe('rgb(255 0 0 / 0.1)');
  });

  test('stroke widths are those of the canvas: the pose’s scale counts', () => {
    const [only] = plan(
      pose(3, part(SQUARE, { fill: null, stroke: stroke(2) })),
      pose(0.5, part(SQUARE, { fill: null, stroke: stroke(4, { cap: 'round', join: 'bevel' }) })),
    ).parts;
    expect(only.stroke?.widths).toEqual([6, 2]);
    expect(only.stroke?.caps).toEqual(['butt', 'round']);
    expect(only.stroke?.joins).toEqual(['miter', 'bevel']);
    expect(only.fill).toBeNull();
  });

  test('a part that comes or goes alone keeps its paint and its stroke width', () => {
    const shift = plan(
      pose(1, part(SQUARE, { fill: '#ff0000' }), part('M100 100H140V140H100Z', { fill: '#0000ff', stroke: stroke(5) })),
      pose(1, part(SQUARE, { fill: '#ff0000' })),
    );
    const alone = shift.parts.find(({ plan: { contours } }) => contours[0].role === 'vanishes');
    expect(alone?.fill && [colourAt(alone.fill, 0), colourAt(alone.fill, 1)]).toEqual(['#0000ff', '#0000ff']);
    expect(alone?.stroke?.widths).toEqual([5, 5]);
  });

  test('a part that goes alone does so when it is said to', () => {
    const dot = part('M100 100H140V140H100Z', { fill: '#0000ff' });
    const spanOf = (turns: Turns): readonly number[] => {
      const input = { from: pose(1, part(SQUARE), dot), to: pose(1, part(SQUARE)) };
      const { parts } = planPoseShift({
        ...input,
        method: 'auto',
        blend: 'oklab',
        match: { ...AUTOMATIC_MATCH, turns },
      });
      const alone = parts.flatMap(({ plan: { contours } }) => contours).find(({ role }) => role === 'vanishes');
      return alone ? [alone.begin, alone.end] : [];
    };
    expect(spanOf('auto')).toEqual([0, 1]);
    expect(spanOf('overlap')).toEqual([0, 0.65]);
    expect(spanOf('after')).toEqual([0, 0.5]);
  });

  test('colour tips the scale where place and size are alike', () => {
    const red = part('M0 0H10V10H0Z', { fill: '#ff0000' });
    const blue = part('M12 0H22V10H12Z', { fill: '#0000ff' });
    const swapped = [part('M0 0H10V10H0Z', { fill: '#0000ff' }), part('M12 0H22V10H12Z', { fill: '#ff0000' })];
    const { parts } = plan(pose(1, red, blue), pose(1, ...swapped));
    expect(parts).toHaveLength(2);
    for (const { plan: shape } of parts) expect(shape.contours[0].role).toBe('pair');
  });
});

describe('painting order', () => {
  test('follows the order of both poses', () => {
    const { parts } = plan(
      pose(1, part('M0 0H100V100H0Z', { fill: '#111111' }), part('M40 40H60V60H40Z', { fill: '#eeeeee' })),
      pose(1, part('M0 0H100V100H0Z', { fill: '#111111' }), part('M45 45H65V65H45Z', { fill: '#eeeeee' })),
    );
    expect(parts.map(({ fill }) => fill && colourAt(fill, 0))).toEqual(['#111111', '#eeeeee']);
  });
});

describe('a pose standing still', () => {
  test('is its own outline at every progress, in its own paint', () => {
    const still = planStill(pose(2, part(SQUARE, { fill: '#123456', stroke: stroke(1) })));
    const [only] = still.parts;
    expect(only.plan.from).toBe(only.plan.to);
    expect([...only.plan.from.slice(0, 2), ...only.plan.from.slice(6, 8)]).toEqual([0, 0, 20, 0]);
    expect(only.fill && colourAt(only.fill, 0.3)).toBe('#123456');
    expect(only.stroke?.widths).toEqual([2, 2]);
    expect(still.health.verdict).toBe('good');
  });

  test('a hole stays a hole, whichever way it and its solid are written', () => {
    const rings = [
      'M0 0H100V100H0ZM30 30V70H70V30Z',
      'M0 0V100H100V0ZM30 30H70V70H30Z',
      'M0 0H100V100H0ZM30 30H70V70H30Z',
    ];
    for (const d of rings) {
      const { plan } = planStill(pose(1, part(d, { fillRule: 'evenodd' }))).parts[0];
      const areas = plan.contours.map(({ at, segments }) =>
        contourArea({ points: plan.from.slice(at, at + 6 * segments + 2), closed: true }),
      );
      expect(areas.map(Math.sign)).toEqual([1, -1]);
    }
  });

  test('without parts there is nothing to draw', () => {
    expect(planStill(pose(1)).parts).toEqual([]);
    expect(plan(pose(1), pose(1)).parts).toEqual([]);
  });
});
