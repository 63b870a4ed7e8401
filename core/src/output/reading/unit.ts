import { isGradient } from '../../paint';
import type { SvgShape } from '../../svg';
import type { DrawnElement, Track } from '../tree/drawn-element';
import { momentTrack, movingOf, numbersSample, type Span, shownSpans, spansWhere } from './chain-values';
import { drawnOf } from './drawn';
import { fitKeys } from './fit-keys';
import type { Leaf } from './leaves';
import type { ChainMotion, Motions } from './motion';
import type { Sample } from './sample';
import { INSIDE, type Segment } from './segment';
import { type Beside, rgba, type ShapeSample, shapeSample } from './shape-sample';
import type { StillTree } from './still-tree';
import { TAKEN_APART } from './still-tree';

/** What paint is told by lanes: sRGB and alpha, or px. */
export type PaintLane = 'fill' | 'stroke' | 'strokeWidth' | 'drawn';

/** Shapes that go together, over time. */
export interface Unit {
  readonly leaves: readonly Leaf[];
  /** When anything of it is seen, s. */
  readonly spans: readonly Span[];
  readonly segments: readonly Segment<ShapeSample>[];
  /** What is seen at a time, s, but for what lanes tell; and what that is. */
  readonly look: (seconds: number) => ShapeSample;
  readonly beside: Beside;
  readonly lanes: ReadonlyMap<PaintLane, readonly Segment<Sample>[]>;
  readonly motion: ChainMotion['motion'];
  /** How often something had to be halved because the file's curves do not fit. */
  readonly halved: number;
}

/** What the reading of shapes needs to know of a drawing. */
export interface DrawingTime {
  readonly still: StillTree;
  /** How chains move, from 0 to the end. */
  readonly motions: Motions;
  /** s */
  readonly duration: number;
  /** What moves in gradients. */
  readonly gradients: readonly Track[];
}

const GEOMETRY = new Set('d points x y x1 y1 x2 y2 cx cy r rx ry width height'.split(' '));
const PAINT_ERROR = { strokeWidth: 0.02, drawn: 1e-3 } as const;
/** A still drawing is looked at for so long, s. */
const MOMENT = 0.01;

/** How long a drawing is looked at, s. */
export const playedSeconds = ({ duration }: Pick<DrawingTime, 'duration'>): number => Math.max(duration, MOMENT);

/** Reads shapes that go together, over the whole time of a drawing. */
export function readUnit(drawing: DrawingTime, leaves: readonly Leaf[]): Unit {
  const { still, gradients } = drawing;
  const duration = playedSeconds(drawing);
  const shown = leaves.map(({ chain }) => shownSpans(chain, duration));
  const isShown = (i: number, seconds: number): boolean =>
    shown[i].some(([from, until]) => seconds >= from && seconds < until);
  const [{ chain }] = leaves;
  const middle = (): readonly [number, number] => middleOf(leaves.map((leaf) => still.shapeAt(leaf.chain, 0)));
  const { motion, without, inside } = drawing.motions.of(chain, middle);
  const known = new Map<number, (SvgShape | null)[]>();
  const shapesAt = (seconds: number): (SvgShape | null)[] => {
    let shapes = known.get(seconds);
    if (!shapes) {
      shapes = leaves.map((leaf, i) => (isShown(i, seconds) ? still.shapeAt(leaf.chain, seconds, without) : null));
      known.set(seconds, shapes);
    }
    return shapes;
  };
  const tracks = [...new Set(leaves.flatMap((leaf) => shapeTracks(leaf, inside, gradients)))];
  const switches = shown.flat(2).map((time): Track => momentTrack(time));
  const drawn = drawnOf(chain, tracks);
  const shapes = (beside: Beside) =>
    movingOf([...tracks, ...switches], duration, (seconds) => shapeSample(shapesAt(seconds), beside), still.budget);
  const { breaks, isSteady } = shapes({});
  const spans = spansWhere(mergedEnds(breaks, duration), (seconds) =>
    shapesAt(seconds).some((shape) => shape !== null),
  );
  const geometry = movingOf(
    [...tracks.filter(({ attribute }) => GEOMETRY.has(attribute)), ...inside, ...switches],
    duration,
    () => 0 as never,
    still.budget,
  ).breaks;
  const fitted = (beside: Beside): { segments: Segment<ShapeSample>[]; halved: number } => {
    const moving = shapes(beside);
    const fits = spans.map(([from, until]) => fitKeys(moving, from, until, geometry.length > 0 ? geometry : breaks));
    return {
      segments: fits.flatMap(({ segments }) => segments),
      halved: fits.reduce((sum, { halved }) => sum + halved, 0),
    };
  };
  const always: Beside = drawn ? { drawn: true } : {};
  const varying = varyingPaint(
    spans.flatMap(([from, until]) => [from, ...breaks.filter((time) => time > from && time < until), until - INSIDE]),
    shapesAt,
    isSteady,
  );
  const chosen = cheapest(varying, always, fitted);
  const lanes = new Map<PaintLane, readonly Segment<Sample>[]>();
  for (const name of ['fill', 'stroke', 'strokeWidth', 'drawn'] as const) {
    if (!chosen.beside[name]) continue;
    const value = (seconds: number): Sample => {
      if (name === 'drawn' && drawn) return numbersSample(drawn(seconds), PAINT_ERROR.drawn);
      const shape = shapesAt(seconds).find((each) => each !== null);
      if (name === 'strokeWidth') return numbersSample([shape?.stroke?.width ?? 0], PAINT_ERROR.strokeWidth);
      const paint = name === 'fill' ? shape?.fill : shape?.stroke?.paint;
      return numbersSample([], 1, typeof paint === 'string' ? rgba(paint) : [0, 0, 0, 0]);
    };
    const moving = movingOf(tracks, duration, value, still.budget);
    lanes.set(
      name,
      spans.flatMap(([from, until]) => fitKeys(moving, from, until, moving.breaks, ['oklab']).segments),
    );
  }
  const { beside, segments, halved } = chosen;
  return { leaves, spans, segments, look: shapes(beside).at, beside, lanes, motion, halved };
}

interface Chosen {
  readonly beside: Beside;
  readonly segments: readonly Segment<ShapeSample>[];
  readonly halved: number;
}

/** Paint goes with the outlines where it does so by itself; what has times of its own goes into lanes. */
function cheapest(
  varying: readonly ('fill' | 'stroke' | 'strokeWidth')[],
  always: Beside,
  fitted: (beside: Beside) => Pick<Chosen, 'segments' | 'halved'>,
): Chosen {
  const tried = (names: readonly string[]): Chosen => {
    const beside: Beside = { ...always, ...Object.fromEntries(names.map((name) => [name, true])) };
    return { beside, ...fitted(beside) };
  };
  if (varying.length === 0) return tried([]);
  const apart = tried(varying);
  if (apart.segments.every(({ still }) => still)) return apart;
  const together = tried([]);
  if (together.halved === 0) return together;
  let best = apart.halved < together.halved ? apart : together;
  if (varying.length > 1)
    for (const name of varying) {
      const one = tried([name]);
      if (one.halved <= apart.halved && Object.keys(one.beside).length < Object.keys(best.beside).length) best = one;
    }
  return best;
}

/** Which paint changes, is one colour all the time, and the same in all shapes. */
function varyingPaint(
  times: readonly number[],
  shapesAt: (seconds: number) => readonly (SvgShape | null)[],
  isSteady: (seconds: number) => boolean,
): ('fill' | 'stroke' | 'strokeWidth')[] {
  const looked = times.flatMap((time, i) =>
    i === 0
      ? [time + INSIDE]
      : [(times[i - 1] + time) / 2, ...(isSteady(time) ? [time] : [time - INSIDE, time + INSIDE])],
  );
  const values = { fill: new Set<string>(), stroke: new Set<string>(), strokeWidth: new Set<string>() };
  const mixed = new Set<string>();
  for (const time of looked) {
    const now = { fill: new Set<string>(), stroke: new Set<string>(), strokeWidth: new Set<string>() };
    for (const shape of shapesAt(time)) {
      if (!shape) continue;
      const { fill, stroke } = shape;
      if (isGradient(fill)) mixed.add('fill');
      else now.fill.add(fill ?? 'none');
      if (isGradient(stroke?.paint)) mixed.add('stroke');
      else now.stroke.add(stroke?.paint ?? 'none');
      now.strokeWidth.add(String(stroke?.width ?? 0));
    }
    for (const name of ['fill', 'stroke', 'strokeWidth'] as const) {
      if (now[name].size > 1) mixed.add(name);
      for (const value of now[name]) values[name].add(value);
    }
  }
  return (['fill', 'stroke', 'strokeWidth'] as const).filter((name) => values[name].size > 1 && !mixed.has(name));
}

/** The tracks that the look of a shape depends on. */
function shapeTracks({ chain }: Leaf, inside: readonly Track[], gradients: readonly Track[]): Track[] {
  const refers = chain.some(
    ({ attributes, tracks }) =>
      /url\(/.test(`${attributes.fill}${attributes.stroke}${attributes.style}`) ||
      tracks.some(({ values }) => values.some((value) => value.includes('url('))),
  );
  const apart = new Set<string>(TAKEN_APART);
  const own = chain.flatMap(({ tracks }) =>
    tracks.filter(({ attribute }) => attribute !== 'transform' && !apart.has(attribute)),
  );
  return [...own, ...inside, ...(refers || chain.some(hasClass) ? gradients : [])];
}

const hasClass = ({ attributes }: DrawnElement): boolean => attributes.class !== undefined;

const mergedEnds = (breaks: readonly number[], duration: number): number[] => [
  0,
  ...breaks.filter((time) => time > 1e-6 && time < duration - 1e-6),
  duration,
];

/** The middle of the box of shapes. */
function middleOf(shapes: readonly (SvgShape | null)[]): readonly [number, number] {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const shape of shapes)
    for (const { points } of shape?.outline.contours ?? [])
      for (let i = 0; i < points.length; i += 2) {
        left = Math.min(left, points[i]);
        right = Math.max(right, points[i]);
        top = Math.min(top, points[i + 1]);
        bottom = Math.max(bottom, points[i + 1]);
      }
  return left <= right ? [(left + right) / 2, (top + bottom) / 2] : [0, 0];
}
