import { isStraight } from '../../curve';
import { CoreError } from '../../errors';
import { TRANSFORM_IDS } from '../../lane';
import { areAlike } from '../../morph';
import { LIMITS } from '../../num';
import { isGradient } from '../../paint';
import {
  AS_DRAWN,
  emptyPiece,
  type Figure,
  type Id,
  type IdSource,
  isShapeNumber,
  type LaneProperty,
  type LaneRecord,
  MOST_RECORDS,
  neutralOf,
  newFigure,
  newShift,
  type Part,
  type Piece,
  type Pose,
  placeOfKey,
  recordOfContour,
  SHORTEST_SECONDS,
  type Shift,
  standsInPlace,
} from '../../piece';
import type { SvgShape } from '../../svg';
import type { AnimatedDocument } from '../document/animated-document';
import { READING_COST, ReadingBudget } from '../document/budget';
import type { DrawnElement } from '../tree/drawn-element';
import { momentTrack, movingOf, numbersSample, opacityAt, type Span, tracksOf } from './chain-values';
import { clipLeaves } from './clip-leaves';
import { fitKeys } from './fit-keys';
import { type Leaf, leavesOf, withoutUses } from './leaves';
import { Motions } from './motion';
import { ownStops } from './places';
import type { Sample } from './sample';
import type { Segment } from './segment';
import { keysOfSegments } from './segment-keys';
import { rgba, type ShapeSample } from './shape-sample';
import { softnessOf } from './softness';
import { steadyPaths } from './steady-paths';
import { type Chain, StillTree } from './still-tree';
import { seconds, standingStops } from './stops';
import { originsApart, stylesApart } from './styles-apart';
import { type Timeline, timelineOf, withoutOddTimes } from './timeline';
import { type DrawingTime, playedSeconds, readUnit, type Unit } from './unit';

/** A file that was read back, as a piece, and one sentence for each thing that could not be taken. */
export interface ReadPiece {
  readonly piece: Piece;
  readonly notes: readonly string[];
}

export interface ReadPieceOptions {
  readonly id: Id;
  readonly name: string;
  readonly newId: IdSource;
  /** Frames per second of the file; left out where it has none. */
  readonly rate?: Piece['canvas']['rate'];
  /** Told now and then how much is done, 0 to 1. */
  readonly onProgress?: (share: number) => void;
}

/** As many characters as a name may have. */
const MOST_NAME = 120;
const OPACITY_ERROR = 4e-3;

/**
 * Makes a piece of a drawing that moves. Shapes that go together are a figure, its outlines over time are poses, ways between them shifts that go point by point. What
 * moves as a whole, fades, or is recoloured by itself are lanes.
 */
export function pieceOfDrawing(
  document: AnimatedDocument,
  options: ReadPieceOptions,
  budget = new ReadingBudget(),
): ReadPiece {
  const { root: read, notes: before, run } = document;
  const notes = new Set(before);
  const note = (text: string): void => void notes.add(text);
  const root = withoutUses(originsApart(steadyPaths(stylesApart(withoutOddTimes(read, note)), budget), note), note);
  const timeline: Timeline = run
    ? { once: run.from, again: run.duration - run.from, duration: run.duration, playback: run.playback }
    : timelineOf(root, note);
  if (!(timeline.duration <= LIMITS.seconds.max))
    throw new CoreError(
      'number-range',
      `Expected a file that plays for at most ${LIMITS.seconds.max.toLocaleString('en')} s; this one plays for ${timeline.duration.toPrecision(3)} s.`,
    );
  const piece = new PieceOfDrawing(root, timeline, { rate: rateOf(document.rate), ...options }, note, budget).piece();
  return { piece, notes: [...notes] };
}

/** A rate as a fraction: those of film and television that are no whole numbers are known (SMPTE ST 12-1). */
function rateOf(rate: number | undefined): Piece['canvas']['rate'] | undefined {
  if (rate === undefined || !(rate > 0)) return undefined;
  const whole = Math.round(rate);
  if (Math.abs(rate - whole) < 1e-3) return { num: Math.min(LIMITS.rate.max, Math.max(1, whole)), den: 1 };
  const slowed = Math.round(rate * 1.001);
  if (Math.abs(rate - slowed / 1.001) < 5e-3) return { num: Math.min(LIMITS.rate.max, slowed) * 1000, den: 1001 };
  return { num: Math.min(LIMITS.rate.max * 1000, Math.round(rate * 1000)), den: 1000 };
}

type Writable<T> = { -readonly [K in keyof T]: T[K] };

class PieceOfDrawing {
  private readonly made: Writable<Piece>;
  private readonly drawing: DrawingTime;
  private readonly byId = new Map<string, DrawnElement>();
  private readonly numbers = new Map<DrawnElement, number>();
  private readonly clips = new Map<string, Id>();
  private readonly names = new Set<string>();
  private readonly lanes: (() => void)[] = [];

  constructor(
    private readonly root: DrawnElement,
    private readonly timeline: Timeline,
    private readonly options: ReadPieceOptions,
    private readonly note: (text: string) => void,
    private readonly budget: ReadingBudget,
  ) {
    const gradients: DrawnElement[] = [];
    const index = (element: DrawnElement, inGradient: boolean): void => {
      this.numbers.set(element, this.numbers.size);
      if (element.attributes.id && !this.byId.has(element.attributes.id)) this.byId.set(element.attributes.id, element);
      const gradient = inGradient || element.name.endsWith('Gradient');
      if (gradient) gradients.push(element);
      for (const child of element.children) index(child, gradient);
    };
    index(root, false);
    const still = new StillTree(root, budget);
    this.drawing = {
      still,
      motions: new Motions(still, playedSeconds(timeline)),
      duration: timeline.duration,
      gradients: gradients.flatMap(({ tracks }) => tracks),
    };
    this.made = { ...emptyPiece(options.id, options.name.slice(0, MOST_NAME) || 'Piece') };
    this.made.figures = {};
    this.made.poses = {};
    this.made.parts = {};
    this.made.shifts = {};
    this.made.lanes = {};
    this.made.figureOrder = [];
  }

  piece(): Piece {
    const { made, timeline, drawing } = this;
    const { width, height } = drawing.still.size();
    for (const [side, px] of Object.entries({ width, height }))
      if (!(px >= LIMITS.canvasSide.min && px <= LIMITS.canvasSide.max))
        throw new CoreError(
          'number-range',
          `Expected a picture of ${LIMITS.canvasSide.min} to ${LIMITS.canvasSide.max.toLocaleString('en')} px a side; the ${side} of this one is ${px} px.`,
        );
    const canvas = { ...made.canvas, width, height, background: null };
    made.canvas = this.options.rate ? { ...canvas, rate: this.options.rate } : canvas;
    made.playback = timeline.playback;
    if (timeline.playback === 'stretch')
      made.stretch = { from: { at: null, after: timeline.once }, until: { at: null, after: timeline.duration } };
    const leaves = leavesOf(this.root, this.note);
    const [first] = leaves;
    const rest = first && this.ground(first) ? leaves.slice(1) : leaves;
    this.budget.spend(READING_COST.leaf * leaves.length);
    const groups = this.groups(rest);
    groups.forEach((group, i) => {
      for (const unit of this.units(group)) this.figure(unit, this.clipOf(unit.leaves[0].chain));
      this.options.onProgress?.((i + 1) / groups.length);
    });
    // Where keys stand is found on rails that are there.
    for (const add of this.lanes) add();
    return made;
  }

  /** Takes a rectangle as large as the canvas that lies under everything as what is behind the figures. @returns was it one? */
  private ground({ chain }: Leaf): boolean {
    const leaf = chain[chain.length - 1];
    const isBare = ({ attributes }: DrawnElement): boolean =>
      ['transform', 'opacity', 'clip-path', 'filter', 'mask'].every((name) => !attributes[name]);
    const whole = new Set(['transform', 'opacity', 'display', 'visibility']);
    const stands = ({ tracks }: DrawnElement): boolean => !tracks.some(({ attribute }) => whole.has(attribute));
    if (
      !chain.every(isBare) ||
      !chain.slice(0, -1).every(stands) ||
      leaf.tracks.some(({ attribute }) => !attribute.startsWith('fill'))
    )
      return false;
    const { still, duration } = this.drawing;
    const { width, height } = this.made.canvas;
    const at = (seconds: number): SvgShape | null => still.shapeAt(chain, seconds);
    const shape = at(0);
    if (!shape || shape.stroke || isGradient(shape.fill) || !isRectangle(shape)) return false;
    const { points } = shape.outline.contours[0];
    const xs = points.filter((_, i) => i % 2 === 0);
    const ys = points.filter((_, i) => i % 2 === 1);
    const covers =
      Math.min(...xs) <= 0.01 &&
      Math.min(...ys) <= 0.01 &&
      Math.max(...xs) >= width - 0.01 &&
      Math.max(...ys) >= height - 0.01;
    if (!covers || opacityAt(chain, 0) < 1) return false;
    const background = typeof shape.fill === 'string' ? shape.fill : null;
    this.made.canvas = { ...this.made.canvas, background };
    if (leaf.tracks.length > 0) {
      const colour = (seconds: number): Sample => {
        const fill = at(seconds)?.fill;
        return numbersSample([], 1, typeof fill === 'string' ? rgba(fill) : [0, 0, 0, 0]);
      };
      const moving = movingOf(leaf.tracks, duration, colour, this.budget);
      const { segments } = fitKeys(moving, 0, duration, moving.breaks, ['oklab']);
      this.lanes.push(() => this.lane(null, 'background', segments));
    }
    return true;
  }

  /** Shapes that follow each other and move, fade and are clipped as one. */
  private groups(leaves: readonly Leaf[]): Leaf[][] {
    const groups: { key: string; leaves: Leaf[] }[] = [];
    // Groups around everything divide nothing; those inside them are figures of their own.
    const trunk = commonLength(leaves.map(({ chain }) => chain));
    for (const leaf of leaves) {
      const key = this.keyOf(leaf.chain, trunk);
      const last = groups[groups.length - 1];
      if (last?.key === key) last.leaves.push(leaf);
      else groups.push({ key, leaves: [leaf] });
    }
    return groups.map(({ leaves: each }) => each);
  }

  /** What of the elements around a shape, and of itself, concerns the whole. */
  private keyOf(chain: Chain, trunk: number): string {
    const moves = chain.some(({ tracks }) => tracks.some(({ attribute }) => attribute === 'transform'));
    const isDrawn = ['pathLength', 'stroke-dasharray']
      .map((name) => chain[chain.length - 1].attributes[name])
      .join(' ');
    return [
      ...chain.map((element, i) => {
        const { attributes, tracks } = element;
        const whole = ['opacity', 'clip-path', 'filter', 'mask', ...(moves ? ['transform'] : [])];
        const concerns =
          whole.some((name) => attributes[name] !== undefined) ||
          tracks.some(({ attribute }) => whole.includes(attribute));
        // What is shown for a while only is a part of something's way.
        const lasts = !tracks.some(({ attribute }) => attribute === 'display' || attribute === 'visibility');
        const outermost = element.name === 'g' && i === trunk && lasts;
        if (i === 0 || (!concerns && !outermost)) return '';
        // Shapes that each say the same go together too.
        return i + 1 === chain.length
          ? JSON.stringify([
              whole.map((name) => attributes[name]),
              tracks.filter(({ attribute }) => whole.includes(attribute)),
            ])
          : String(this.numbers.get(element) ?? JSON.stringify(attributes));
      }),
      isDrawn,
    ]
      .filter(Boolean)
      .join('|');
  }

  /** A figure where all goes together, else one for each shape. */
  private units(leaves: readonly Leaf[]): Unit[] {
    const joint = readUnit(this.drawing, leaves);
    if (leaves.length === 1 || (joint.halved === 0 && joint.segments.length < FEW_SEGMENTS)) return [joint];
    const apart = leaves.map((leaf) => readUnit(this.drawing, [leaf]));
    const sum = (of: (unit: Unit) => number): number => apart.reduce((all, unit) => all + of(unit), 0);
    // What goes in step needs as much together as apart; what does not needs a pose of all for each change of one.
    const together = joint.segments.reduce((all, { first }) => all + first.shapes.length, 0);
    const scattered = SCATTERED * sum(({ segments }) => segments.length) < together;
    return sum(({ halved }) => halved) < joint.halved || scattered ? apart : [joint];
  }

  private figure(unit: Unit, clip: Id | null, hidden = false): Id | null {
    const { newId } = this.options;
    const { leaves, segments, spans, motion } = unit;
    if (segments.length === 0) return null;
    if (this.made.figureOrder.length >= MOST_RECORDS.figures)
      throw new CoreError(
        'svg-too-complex',
        `Expected a file that moves of at most ${MOST_RECORDS.figures.toLocaleString('en')} shapes with ways of their own; this one has more.`,
      );
    const id = newId('f');
    const { chain } = leaves[0];
    const base = newFigure(id, this.nameOf(chain));
    const loops = this.timeline.playback === 'loop';
    const stops = ownStops(standingStops(segments, spans), unit, { loops, budget: this.budget, newId });
    const last = stops[stops.length - 1];
    const closes = loops && stops.length > 2 && last.hold < SHORTEST_SECONDS && last.sample === stops[0].sample;
    const poses = (closes ? stops.slice(0, -1) : stops).map(({ sample, hold }, i) => this.pose(sample, hold, i, unit));
    const rail = stops.slice(1).map(({ way }, i): Shift => {
      const [from, to] = [stops[i].sample, stops[i + 1].sample];
      const alike =
        from.shapes.length === to.shapes.length &&
        from.shapes.every(({ outline }, k) => areAlike(outline.contours, to.shapes[k].outline.contours));
      return {
        ...newShift(newId('s'), poses[i].id, poses[(i + 1) % poses.length].id),
        duration: seconds(way?.seconds ?? 0),
        easing: way?.easing ?? { kind: 'linear' },
        blend: way?.space ?? 'srgb',
        ...(way?.choices ?? { method: alike ? 'points' : 'straight' }),
      };
    });
    const { duration } = this.drawing;
    const [begin, end] = [spans[0][0], spans[spans.length - 1][1]];
    const figure: Figure = {
      ...base,
      poses: poses.map((pose) => pose.id),
      rail: rail.map((shift) => shift.id),
      clip,
      hidden,
      pivot: motion ? motion.pivot : null,
      start: seconds(begin),
      before: begin > SHORTEST_SECONDS ? 'hidden' : 'held',
      after: end < duration - SHORTEST_SECONDS && duration > 0 ? 'hidden' : 'held',
    };
    this.made.figures = { ...this.made.figures, [id]: figure };
    this.made.figureOrder = hidden ? [id, ...this.made.figureOrder] : [...this.made.figureOrder, id];
    for (const pose of poses) Object.assign(this.made.poses, { [pose.id]: pose });
    for (const shift of rail) Object.assign(this.made.shifts, { [shift.id]: shift });
    this.lanes.push(() => this.lanesOf(id, unit, hidden));
    return id;
  }

  private pose(sample: ShapeSample, hold: number, i: number, unit: Unit): Pose {
    const { newId } = this.options;
    const parts = sample.shapes.map((shape, k): Part => {
      const part: Part = {
        id: newId('p'),
        name: shape.name.slice(0, MOST_NAME) || `Part ${k + 1}`,
        contours: shape.outline.contours.map((contour) => recordOfContour(contour, newId)),
        fillRule: shape.outline.fillRule,
        fill: unit.lanes.has('fill') ? (shape.fill ?? CLEAR) : shape.fill,
        stroke: shape.stroke && (unit.lanes.has('drawn') ? { ...shape.stroke, dash: [], dashOffset: 0 } : shape.stroke),
      };
      Object.assign(this.made.parts, { [part.id]: part });
      return part;
    });
    return {
      id: newId('q'),
      name: `Pose ${i + 1}`,
      hold: seconds(hold),
      placement: { ...AS_DRAWN, ...unit.motion?.base },
      parts: parts.map(({ id }) => id),
    };
  }

  /** The name of the nearest element that has one. */
  private nameOf(chain: Chain): string {
    const named = [...chain].reverse().find(({ attributes }, i) => attributes.id && i < chain.length - 1);
    const base = (named?.attributes.id ?? 'Figure').slice(0, MOST_NAME - 8);
    for (let k = 1; ; k++) {
      const name = named && k === 1 ? base : `${base} ${k}`;
      if (this.names.has(name)) continue;
      this.names.add(name);
      return name;
    }
  }

  private lanesOf(id: Id, { motion, lanes, spans, leaves: [{ chain }] }: Unit, hidden: boolean): void {
    const { duration, still } = this.drawing;
    if (motion) for (const property of TRANSFORM_IDS) this.lane(id, property, motion[property]);
    for (const [property, segments] of lanes) this.lane(id, property, segments);
    if (hidden) return;
    const length = Math.max(duration, 0.01);
    const faded = tracksOf(chain, (attribute) => attribute === 'opacity');
    if (faded.length === 0 && spans.length === 1) {
      const figure = this.made.figures[id];
      this.made.figures = { ...this.made.figures, [id]: { ...figure, opacity: opacityAt(chain, 0) } };
    } else {
      // Between the times in which it is seen it is there, but see-through.
      const gaps = spans.slice(1).map(([next], i): Span => [spans[i][1], next]);
      const opacity = movingOf(
        [...faded, ...gaps.flat().map(momentTrack)],
        length,
        (time) =>
          numbersSample(
            [gaps.some(([from, until]) => time >= from && time < until) ? 0 : opacityAt(chain, time)],
            OPACITY_ERROR,
          ),
        this.budget,
      );
      this.lane(id, 'opacity', fitKeys(opacity, 0, length, opacity.breaks, ['srgb']).segments);
    }
    const soft = softnessOf(chain, this.byId, still, this.note);
    if (soft) {
      const moving = movingOf(soft.tracks, length, (time) => numbersSample([soft.at(time)], 0.02), this.budget);
      this.lane(id, 'softness', fitKeys(moving, 0, length, moving.breaks, ['srgb']).segments);
    }
  }

  /** Puts a lane together of segments; nothing where it says nothing. */
  private lane(figure: Id | null, property: LaneProperty, segments: readonly Segment<Sample>[]): void {
    const { newId } = this.options;
    const keys = keysOfSegments(segments);
    const [first] = keys;
    if (!first) return;
    const neutral = isShapeNumber(property) || standsInPlace(property) ? null : neutralOf(property);
    if (neutral && keys.every(({ value }) => value.every((v, i) => Math.abs(v - neutral[i]) < 1e-4))) return;
    const id = newId('l');
    const record: LaneRecord = {
      id,
      figure,
      property,
      keys: keys.map(({ time, value, easing }) => ({
        id: newId('k'),
        ...placeOfKey(this.made, figure, time),
        value,
        easing,
      })),
    };
    Object.assign(this.made.lanes, { [id]: record });
  }

  /** The figure inside which a chain is seen; null: all of it is seen. */
  private clipOf(chain: Chain): Id | null {
    let outer: Id | null = null;
    for (const [i, element] of chain.entries()) {
      if (element.attributes.mask && element.attributes.mask !== 'none')
        this.note('A mask was left out: only clip paths are taken.');
      outer = this.clipAt(chain.slice(0, i + 1), element.attributes['clip-path'], outer, 0);
    }
    return outer;
  }

  private clipAt(chain: Chain, value: string | undefined, outer: Id | null, depth: number): Id | null {
    if (!value || value === 'none') return outer;
    const id = /^url\(\s*['"]?#([^'")]+)['"]?\s*\)/.exec(value)?.[1];
    const element = id === undefined ? undefined : this.byId.get(id);
    if (element?.name !== 'clipPath' || depth > MOST_CLIPS) {
      this.note(`A clip-path “${value.slice(0, 32)}” was left out: it is no clipPath of this file.`);
      return outer;
    }
    if (element.attributes.clipPathUnits === 'objectBoundingBox') {
      this.note('A clip-path in units of the box of what it clips was left out.');
      return outer;
    }
    const within = this.clipAt(chain, element.attributes['clip-path'], outer, depth + 1);
    const key = [
      id,
      ...chain
        .slice(1)
        .filter(({ attributes, tracks }) => attributes.transform || tracks.length > 0)
        .map((each) => this.numbers.get(each)),
      within,
    ].join(' ');
    const known = this.clips.get(key);
    if (known) return known;
    const leaves = clipLeaves(chain, element, this.note);
    const figure = leaves.length > 0 ? this.figure(readUnit(this.drawing, leaves), within, true) : null;
    if (!figure) {
      this.note('A clip-path without a shape was left out.');
      return within;
    }
    this.clips.set(key, figure);
    return figure;
  }
}

const MOST_CLIPS = 8;
/** Shapes with fewer ways than this stay together in any case. */
const FEW_SEGMENTS = 8;
/** Together they may need so many times what they need apart. */
const SCATTERED = 3;
const CLEAR = 'rgb(0 0 0 / 0)';

/** How many elements chains have in common from the outermost on. */
function commonLength(chains: readonly Chain[]): number {
  const [first = []] = chains;
  const differs = first.findIndex((element, i) => chains.some((chain) => chain[i] !== element));
  return differs < 0 ? first.length - 1 : differs;
}

/** Is it four straight edges, level and upright? */
function isRectangle({ outline: { contours } }: SvgShape): boolean {
  const [{ points, closed }] = contours;
  if (contours.length !== 1 || !closed || points.length !== 26) return false;
  return [0, 6, 12, 18].every((i) => {
    const [dx, dy] = [points[i + 6] - points[i], points[i + 7] - points[i + 1]];
    return (dx === 0) !== (dy === 0) && isStraight(points, i, SAME_PLACE);
  });
}
const SAME_PLACE = 1e-3;
