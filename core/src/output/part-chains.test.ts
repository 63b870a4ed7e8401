import { describe, expect, test } from '@jest/globals';
import { planAndCompile } from '../frame';
import type { Lane } from '../lane';
import type { Paint, RadialGradient } from '../paint';
import { type Part, type Piece, type PieceDraft, plainStroke, type Stroke } from '../piece';
import { pieceOf } from '../testing/pieces';
import { type SpanChain, spanChains } from './part-chains';

const SQUARE = 'M0 0H10V10H0Z';
type Dress = (part: Part, pose: number) => Partial<Part>;

/** The chains of a figure that shows a square three times, each dressed by its number. */
function chains(dress: Dress = () => ({}), ds: readonly string[] = [SQUARE, SQUARE, SQUARE]): SpanChain[] {
  const draft = structuredClone(pieceOf(ds)) as PieceDraft;
  const { poses } = draft.figures.f;
  poses.forEach((pose, i) => {
    for (const id of draft.poses[pose].parts)
      Object.assign(draft.parts[id], structuredClone(dress(draft.parts[id] as Part, i)));
  });
  for (const shift of Object.values(draft.shifts))
    Object.assign(shift, { method: 'straight', easing: { kind: 'linear' } });
  return spanChains(planAndCompile({ ...draft, playback: 'once' } as Piece).figures[0].spans);
}
const valueAt = (lane: Lane, seconds: number): number[] => {
  const out = new Float64Array(lane.size);
  lane.sample(seconds, out);
  return [...out];
};
const stops = (blue: string) => [
  { at: 0, colour: '#ff0000' },
  { at: 1, colour: blue },
];
const radial = (pose: number, colours = stops('#0000ff')): RadialGradient => ({
  kind: 'radial',
  centre: [5, 5],
  radii: [3 + pose, 2],
  rotation: 10 * pose,
  focus: [0.1 * pose, 0],
  stops: colours,
});
const linear = (pose: number): Paint => ({ kind: 'linear', from: [pose, 0], to: [10, 0], stops: stops('#0000ff') });

describe('spans that one element can show', () => {
  test('copies of one pose are one chain, from the first start to the last end', () => {
    const found = chains();
    expect(found).toHaveLength(1);
    const spans = planAndCompile({ ...pieceOf([SQUARE, SQUARE, SQUARE]), playback: 'once' }).figures[0].spans;
    expect([found[0].start, found[0].end, found[0].rampEnd]).toEqual([
      spans[0].start,
      spans[spans.length - 1].end,
      spans[spans.length - 1].time.end,
    ]);
  });

  test('a single span is its own parts', () => {
    const { spans } = planAndCompile({ ...pieceOf([SQUARE, SQUARE]), playback: 'once' }).figures[0];
    const found = spanChains(spans.slice(0, 1));
    expect(found.map(({ parts }) => parts[0])).toEqual([spans[0].parts[0]]);
    expect(found[0].parts[0]).toBe(spans[0].parts[0]);
  });

  test.each<[string, Dress]>([
    ['a radial gradient', (_part, pose) => ({ fill: radial(pose) })],
    ['a linear gradient', (_part, pose) => ({ fill: linear(pose) })],
    ['a colour', (_part, pose) => ({ fill: ['#100000', '#200000', '#400000'][pose] })],
    ['a stroke', (_part, pose) => ({ stroke: { ...plainStroke('#000000', 1 + pose), miter: 4 + pose } as Stroke })],
  ])('%s goes on through the chain, as its own shifts have it', (_name, dress) => {
    const found = chains(dress);
    expect(found).toHaveLength(1);
    const [part] = found[0].parts;
    const lanes = (of: typeof part): Lane[] => {
      const paint = of.stroke?.paint ?? of.fill;
      if (paint?.kind === 'colour') return [paint.colour, ...(of.stroke ? Object.values(of.stroke.properties) : [])];
      return (paint?.places ?? [])
        .flatMap((place): Lane[] => (place.kind === 'linear' ? [place.line] : [place.ellipse, place.focus]))
        .concat(paint?.offsets ?? [], paint?.colours ?? [], paint ? [paint.place] : []);
    };
    const draft = structuredClone(pieceOf([SQUARE, SQUARE, SQUARE])) as PieceDraft;
    draft.figures.f.poses.forEach((pose, i) => {
      const only = draft.parts[draft.poses[pose].parts[0]];
      Object.assign(only, structuredClone(dress(only as Part, i)));
    });
    for (const shift of Object.values(draft.shifts))
      Object.assign(shift, { method: 'straight', easing: { kind: 'linear' } });
    const { spans } = planAndCompile({ ...draft, playback: 'once' } as Piece).figures[0];
    for (const span of spans) {
      const seconds = (span.start + span.end) / 2;
      const own = lanes(span.parts[0]);
      const joined = lanes(part);
      expect(joined.map((lane) => valueAt(lane, seconds))).toEqual(own.map((lane) => valueAt(lane, seconds)));
      expect(valueAt(part.outline, seconds)).toEqual(valueAt(span.parts[0].outline, seconds));
    }
  });

  test.each<[string, Dress]>([
    ['a gradient of another kind', (_part, pose) => ({ fill: pose < 2 ? radial(pose) : linear(pose) })],
    ['a gradient in place of a colour', (_part, pose) => ({ fill: pose < 2 ? '#ff0000' : linear(pose) })],
    [
      'more stops',
      (_part, pose) => ({
        fill: radial(pose, pose < 2 ? stops('#0000ff') : [...stops('#0000ff'), { at: 0.5, colour: '#00ff00' }]),
      }),
    ],
    ['a stroke that comes later', (_part, pose) => ({ stroke: pose < 2 ? null : plainStroke('#000000', 2) })],
    [
      'more dashes',
      (_part, pose) => ({
        stroke: { ...plainStroke('#000000', 2), dash: pose < 2 ? [4, 2] : [4, 2, 1, 2] } as Stroke,
      }),
    ],
    ['another fill rule', (_part, pose) => ({ fillRule: pose < 1 ? 'nonzero' : 'evenodd' })],
  ])('%s begins a new one', (_name, dress) => {
    expect(chains(dress).length).toBeGreaterThan(1);
  });

  test('so do other points, and another number of contours', () => {
    expect(chains(undefined, [SQUARE, 'M5 0A5 5 0 1 1 4.9 0Z', 'M0 0L10 2L3 9Z']).length).toBeGreaterThan(1);
    expect(chains(undefined, [SQUARE, SQUARE, `${SQUARE}M20 0H30V10H20Z`]).length).toBeGreaterThan(1);
  });
});
