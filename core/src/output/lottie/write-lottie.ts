import { CoreError } from '../../errors';
import {
  type CompiledFigure,
  type CompiledPiece,
  type MotionLanes,
  type OverLanes,
  type PartLanes,
  runLength,
  type StrokeLanes,
} from '../../frame';
import {
  blendNumbers,
  drawnShare,
  type GradientLanes,
  type GradientPlace,
  LANE_KINDS,
  type Lane,
  type LaneStep,
  levelLane,
  type PaintLanes,
  PROPERTIES,
  type Property,
  TRANSFORM_IDS,
} from '../../lane';
import { readColour } from '../../paint';
import type { PathRun } from '../compact-path';
import { joinedLane } from '../joined-lane';
import { laneKeys, type WrittenKey } from '../lane-keys';
import { firstValue, isCircle } from '../lane-looks';
import { type SpanChain, spanChains } from '../part-chains';
import { type LayerUse, layersOf, type PartLayer, seenSwitches } from '../part-layers';
import { isInitial } from '../svg-motion';
import { type LottieProperty, propertyOf, rounded, still } from './lottie-property';

export interface LottieOptions {
  /** Decimals of coordinates. Default 2. */
  readonly digits?: number;
  readonly name?: string;
}

type Shape = Readonly<Record<string, unknown>>;
type Layer = Readonly<Record<string, unknown>>;

/** The version of the format that files follow: 1.0.0. */
const SPECIFICATION = 10_000;
/** What players that are older than the specification want to read. */
const PLAYER = '5.7.0';

/**
 * Writes a piece in the Lottie format (Lottie Specification 1.0, Lottie Animation Community). A shape layer for each stretch of a figure that keeps its points,
 * shape keys where the outline bends with the easing's own handles, transforms as transforms, what is seen inside something by a matte. Two numbers of one
 * property cannot ease apart in the file, and need not: they run by one easing here.
 *
 * @returns JSON text
 * @throws CoreError 'output-refused' for what the format has no words for
 */
export function writeLottie(compiled: CompiledPiece, options: LottieOptions = {}): string {
  return JSON.stringify(new LottieWriter(compiled, options.digits ?? 2).file(options.name ?? ''));
}

class LottieWriter {
  private readonly assets: Layer[] = [];
  private readonly rate: number;
  private readonly end: number;

  constructor(
    private readonly piece: CompiledPiece,
    private readonly digits: number,
  ) {
    this.rate = piece.rate;
    const length = runLength(piece);
    // Without a duration it is one picture, one frame long.
    this.end = length > 0 ? rounded(length * this.rate, 4) : 1;
  }

  file(name: string): Record<string, unknown> {
    const { width, height, stretch, playback } = this.piece;
    const layers = [...this.ground(), ...this.piece.figures.flatMap((figure, i) => this.figure(figure, i))].reverse();
    return {
      ver: SPECIFICATION,
      v: PLAYER,
      nm: name,
      fr: this.rate,
      ip: 0,
      op: this.end,
      w: Math.round(width),
      h: Math.round(height),
      assets: this.assets,
      layers: layers.map((layer, i) => ({ ind: i + 1, ...layer })),
      ...(playback === 'stretch' && {
        markers: [
          {
            cm: 'again',
            tm: rounded(stretch[0] * this.rate, 4),
            dr: rounded((stretch[1] - stretch[0]) * this.rate, 4),
          },
        ],
      }),
    };
  }

  /** Layers are gathered from the lowest up; the file wants the topmost first. */
  private ground(): Layer[] {
    const { background, ground, width, height } = this.piece;
    if (!ground && !background) return [];
    const lane = ground ?? colourLane(background as string);
    const rectangle = {
      ty: 'rc',
      d: 1,
      s: still([width, height]),
      p: still([width / 2, height / 2]),
      r: still(0),
    };
    return [this.layer('Background', [group([rectangle, ...this.colour('fl', lane, PROPERTIES.background)])], {})];
  }

  private figure(figure: CompiledFigure, index: number): Layer[] {
    if (figure.hidden) return [];
    if (figure.over?.softness) throw refused(`“${figure.name}” is soft, and Lottie 1.0 has no blur`);
    const opacity = this.property(figure.opacity, PROPERTIES.opacity, ([share]) => rounded(100 * share, 3));
    const layers = this.chains(figure, 'picture', figure.clip < 0 ? opacity : undefined);
    if (figure.clip < 0) return layers;
    // What is seen inside something is put together first: a matte belongs to one layer.
    const picture = this.composition(`figure${index}`, layers);
    const matte = this.matte(figure.clip);
    return [
      this.nested(picture, figure.name, { ks: transform({ o: opacity }), tt: 1 }),
      this.nested(matte, `${figure.name}: inside`, { td: 1 }),
    ];
  }

  /** The composition of what a figure covers, itself inside what it is seen inside. */
  private matte(index: number): string {
    const id = `inside${index}`;
    if (this.assets.some((asset) => asset.id === id)) return id;
    const figure = this.piece.figures[index];
    const areas = this.chains(figure, 'clip');
    if (figure.clip < 0) return this.composition(id, areas);
    const whole = this.composition(`area${index}`, areas);
    const inside = this.matte(figure.clip);
    return this.composition(id, [this.nested(whole, figure.name, { tt: 1 }), this.nested(inside, 'Inside', { td: 1 })]);
  }

  private composition(id: string, layers: readonly Layer[]): string {
    this.assets.push({ id, layers: [...layers].reverse().map((layer, i) => ({ ind: i + 1, ...layer })) });
    return id;
  }

  private nested(refId: string, nm: string, fields: Layer): Layer {
    const { width, height } = this.piece;
    return {
      ty: 0,
      nm,
      refId,
      w: Math.round(width),
      h: Math.round(height),
      ks: transform({}),
      ...this.times(),
      ...fields,
    };
  }

  private layer(nm: string, shapes: readonly Shape[], fields: Layer): Layer {
    return { ty: 4, nm, ks: transform({}), ...this.times(), shapes, ...fields };
  }

  /** When a layer is seen, frames. Its own clock starts with the file's: a player adds `st` to every time, also where it is left out. */
  private times(): Layer {
    return { ip: 0, op: this.end, st: 0 };
  }

  /** A layer for each chain of spans, where it is seen. */
  private chains(figure: CompiledFigure, purpose: LayerUse, opacity?: LottieProperty): Layer[] {
    const { duration, playback } = this.piece;
    const chains = spanChains(figure.spans);
    const ks = this.motion(figure.motion, opacity);
    return chains.flatMap((chain, i) => {
      const last = i === chains.length - 1;
      const until = last ? Math.min(figure.until, Math.max(duration, chain.end)) : chain.end;
      const shapes = this.shapes(chain, purpose, figure.over);
      const seen = (from: number, to: number): Layer[] =>
        to > from
          ? [this.layer(figure.name, shapes, { ks, ip: rounded(from * this.rate, 4), op: rounded(to * this.rate, 4) })]
          : [];
      if (!(duration > 0)) return [this.layer(figure.name, shapes, { ks })];
      const length = this.end / this.rate;
      if (playback !== 'back') return seen(chain.start, until >= duration ? length : until);
      const [from, to] = [chain.start, until];
      // On the way back it is seen again, unless that is one time with the way there.
      return to >= duration
        ? seen(from, 2 * duration - from)
        : [...seen(from, to), ...seen(2 * duration - to, 2 * duration - from)];
    });
  }

  /** Of one chain, topmost first. */
  private shapes(chain: SpanChain, purpose: LayerUse, over: OverLanes | null): Shape[] {
    return chain.parts
      .flatMap((part) =>
        layersOf(part, purpose, over)
          .flatMap(splitByChoices(part))
          .map(({ layer, stroke }) => this.group(part, layer, stroke, purpose, over)),
      )
      .reverse();
  }

  private group(
    part: PartLanes,
    layer: PartLayer,
    stroke: StrokeLanes | null,
    purpose: LayerUse,
    over: OverLanes | null,
  ): Shape {
    const rule = part.plan.fillRule === 'evenodd' ? 2 : 1;
    const map =
      purpose === 'picture' && layer.fill && part.fill && !over?.fill ? stillEllipse(part.fill, layer.place) : null;
    const paths = layer.runs.map((run) => this.path(part.outline, run, map));
    const items: Shape[] = [...paths];
    if (over?.drawn && layer.stroke && purpose === 'picture') items.push(this.trim(over.drawn));
    if (purpose === 'clip') items.push({ ty: 'fl', c: still([0, 0, 0, 1]), o: still(100), r: rule });
    else {
      if (layer.stroke && stroke) items.push(...this.stroke(stroke, layer.place, over));
      if (layer.fill && part.fill) {
        const fill = over?.fill
          ? this.colour('fl', over.fill, PROPERTIES.fill)
          : this.paint('fl', part.fill, layer.place, map !== null);
        items.push(...fill.map((each) => ({ ...each, r: rule })));
      }
    }
    const visible = layer.seen && this.seen(part, layer.seen);
    return group(items, {
      ...(map && { p: still([map[0], map[1]]), r: still(map[4]), s: still([100 * map[2], 100 * map[3]]) }),
      ...(visible && { o: visible }),
    });
  }

  private path(outline: Lane, run: PathRun, map: readonly number[] | null): Shape {
    const ks = this.property(outline, PROPERTIES.outline, (points) => [
      bezierOf(mapped(points, map), run, map ? 6 : this.digits),
    ]);
    // A shape that stands still is one object, keys have arrays of one.
    return { ty: 'sh', ks: ks.a === 0 ? still((ks.k as unknown[])[0]) : ks };
  }

  /** Shares of each contour by itself. */
  private trim(lane: Lane): Shape {
    const part = (say: (value: Float64Array) => number): LottieProperty =>
      this.property(lane, PROPERTIES.drawn, (value) => rounded(say(value), 4));
    return {
      ty: 'tm',
      s: still(0),
      e: part((value) => 100 * drawnShare(value)),
      o: part(([from, , along]) => 360 * (from + along)),
      m: 1,
    };
  }

  private seen({ time }: PartLanes, seen: NonNullable<PartLayer['seen']>): LottieProperty {
    const switches = seenSwitches(time, seen);
    const keys = switches.map(
      ({ share, shown }, i): WrittenKey => ({
        time: i === 0 ? 0 : time.start + (time.end - time.start) * share,
        value: Float64Array.of(shown ? 100 : 0),
        onward: 'hold',
      }),
    );
    const { duration, playback } = this.piece;
    const back =
      playback === 'back' && keys.length > 1
        ? keys
            .slice(0, -1)
            .map((key, i): WrittenKey => ({ ...key, time: 2 * duration - keys[i + 1].time }))
            .reverse()
        : [];
    return propertyOf([...keys, ...back], this.rate, ([v]) => v);
  }

  private stroke(lanes: StrokeLanes, place: 0 | 1, over: OverLanes | null): Shape[] {
    const { properties } = lanes;
    const number = (lane: Lane, property: Property): LottieProperty =>
      this.property(lane, property, ([v]) => rounded(v, 4));
    const paint = over?.stroke
      ? this.colour('st', over.stroke, PROPERTIES.stroke)
      : this.paint('st', lanes.paint, place, false);
    const dash = over?.drawn || properties.dash.size === 0 ? [] : this.dashes(properties.dash, properties.dashOffset);
    const [cap, join] = [firstValue(properties.cap)[0], firstValue(properties.join)[0]];
    return paint.map((each) => ({
      ...each,
      w: number(over?.strokeWidth ?? properties.strokeWidth, PROPERTIES.strokeWidth),
      lc: cap + 1,
      lj: join + 1,
      ...(join === 0 && { ml: rounded(firstValue(properties.miter)[0], 4) }),
      ...(dash.length > 0 && { d: dash }),
    }));
  }

  private dashes(lane: Lane, offset: Lane): Shape[] {
    // An odd number of lengths is gone through twice. A player that knows expressions wants a name of its own for each.
    const count = lane.size % 2 === 0 ? lane.size : 2 * lane.size;
    const lengths = Array.from({ length: count }, (_, i) => ({
      n: i % 2 === 0 ? 'd' : 'g',
      nm: `${i % 2 === 0 ? 'dash' : 'gap'} ${(i >> 1) + 1}`,
      v: this.property(lane, PROPERTIES.dash, (value) => rounded(value[i % lane.size], 3)),
    }));
    return [
      ...lengths,
      { n: 'o', nm: 'offset', v: this.property(offset, PROPERTIES.dashOffset, ([v]) => rounded(v, 3)) },
    ];
  }

  /** A paint; `unit`: in the unit circle of its ellipse. */
  private paint(kind: 'fl' | 'st', lanes: PaintLanes, place: 0 | 1, unit: boolean): Shape[] {
    if (lanes.kind === 'colour') return this.colour(kind, lanes.colour, PROPERTIES[kind === 'fl' ? 'fill' : 'stroke']);
    return [{ ty: kind === 'fl' ? 'gf' : 'gs', o: still(100), ...this.gradient(lanes, place, unit) }];
  }

  private colour(ty: 'fl' | 'st', lane: Lane, property: Property): Shape[] {
    return [
      {
        ty,
        c: this.property(lane, property, (c) => [0, 1, 2].map((i) => rounded(within(c[i]), 4))),
        o: this.property(lane, property, (c) => rounded(100 * c[3], 2)),
      },
    ];
  }

  private gradient(lanes: GradientLanes, place: 0 | 1, unit: boolean): Shape {
    const at = lanes.places[Math.min(place, lanes.places.length - 1)] as GradientPlace;
    const stops = this.stops(lanes);
    if (at.kind === 'linear') {
      const end = (i: number): LottieProperty =>
        this.property(at.line, PROPERTIES.line, (line) => [rounded(line[i], 3), rounded(line[i + 1], 3)]);
      return { t: 1, s: end(0), e: end(2), g: stops };
    }
    if (unit) return { t: 2, s: still([0, 0]), e: still([1, 0]), g: stops };
    if (!isCircle(at.ellipse))
      throw refused('A gradient with two different radii that moves, or on a line, has no words in Lottie 1.0');
    const point = (say: (e: Float64Array) => [number, number]): LottieProperty =>
      this.property(at.ellipse, PROPERTIES.ellipse, (e) => say(e).map((v) => rounded(v, 3)));
    return {
      t: 2,
      s: point((e) => [e[0], e[1]]),
      e: point((e) => [e[0] + e[2] * Math.cos((e[4] * Math.PI) / 180), e[1] + e[2] * Math.sin((e[4] * Math.PI) / 180)]),

      g: stops,
    };
  }

  /** Offset and colour of each stop, then offset and alpha of each. */
  private stops({ offsets, colours }: GradientLanes): Shape {
    const lanes = [...offsets, ...colours];
    const joined = joinedLane(lanes);
    const k = this.property(joined, STOPS, (value) => {
      const n = offsets.length;
      const at = (i: number): number => rounded(within(value[i]), 4);
      const colour = (i: number, c: number): number => rounded(within(value[n + 4 * i + c]), 4);
      const all = Array.from({ length: n }, (_, i) => i);
      return [
        ...all.flatMap((i) => [at(i), colour(i, 0), colour(i, 1), colour(i, 2)]),
        ...all.flatMap((i) => [at(i), colour(i, 3)]),
      ];
    });
    return { p: offsets.length, k };
  }

  private motion(motion: MotionLanes | null, opacity?: LottieProperty): Shape {
    if (!motion) return transform(opacity ? { o: opacity } : {});
    const [px, py] = motion.pivot;
    const steps = TRANSFORM_IDS.flatMap((id) => {
      const { field, say, beside }: LaneStep['lottie'] = LANE_KINDS[id].step.lottie;
      // What not all transforms of the format have is said where it changes something.
      if (beside && isInitial(motion[id], PROPERTIES[id])) return [];
      const said = (value: Float64Array): number | number[] => {
        const number = say(id === 'position' ? [value[0] + px, value[1] + py] : value);
        return typeof number === 'number' ? rounded(number, 4) : number.map((v) => rounded(v, 4));
      };
      const others = Object.entries(beside ?? {}).map(([name, value]) => [name, still(value)] as const);
      return [[field, this.property(motion[id], PROPERTIES[id], said)] as const, ...others];
    });
    return transform({
      a: still([rounded(px, 4), rounded(py, 4)]),
      ...Object.fromEntries(steps),
      ...(opacity && { o: opacity }),
    });
  }

  private property(lane: Lane, property: Property, say: (value: Float64Array) => unknown): LottieProperty {
    return propertyOf(laneKeys(lane, property, this.rate, this.piece), this.rate, say);
  }
}

/** A share: colours may lie beyond what a screen has, the format has no such colours. */
const within = (share: number): number => Math.min(1, Math.max(0, share));

const refused = (reason: string): CoreError => new CoreError('output-refused', `${reason}.`);

const STOPS: Property = { ...PROPERTIES.stopOffset, error: PROPERTIES.stopColour.error };

const transform = (fields: Readonly<Record<string, LottieProperty>>): Shape => ({
  a: still([0, 0]),
  p: still([0, 0]),
  s: still([100, 100]),
  r: still(0),
  o: still(100),
  ...fields,
});

const group = (items: readonly Shape[], fields: Readonly<Record<string, LottieProperty>> = {}): Shape => ({
  ty: 'gr',
  it: [...items, { ty: 'tr', ...transform(fields) }],
});

function colourLane(css: string): Lane {
  const c = readColour(css) ?? { r: 1, g: 1, b: 1, alpha: 1 };
  const value = [c.r, c.g, c.b, c.alpha];
  return levelLane(blendNumbers(value, value, PROPERTIES.fill.range));
}

/** Caps and joins are no properties over time in the format: a stroke that changes them is two, one for each half. */
function splitByChoices(part: PartLanes): (layer: PartLayer) => { layer: PartLayer; stroke: StrokeLanes | null }[] {
  return (layer) => {
    const { stroke } = part;
    if (!stroke || !layer.stroke) return [{ layer, stroke }];
    const changing = (['cap', 'join'] as const).filter((id) =>
      stroke.properties[id].ramps.some(({ blend }) => !blend.still),
    );
    if (changing.length === 0) return [{ layer, stroke }];
    const { from = -Infinity, until = Infinity } = layer.seen ?? {};
    return [0, 1].flatMap((half) => {
      const seen = half === 0 ? { from, until: Math.min(until, 0.5) } : { from: Math.max(from, 0.5), until };
      if (!(seen.from < seen.until)) return [];
      const chosen = Object.fromEntries(changing.map((id) => [id, choiceAt(stroke.properties[id], half)]));
      const fills = half === 0 && layer.fill && part.fill ? [{ layer: { ...layer, stroke: false }, stroke: null }] : [];
      return [
        ...fills,
        {
          layer: { ...layer, fill: false, seen },
          stroke: { ...stroke, properties: { ...stroke.properties, ...chosen } },
        },
      ];
    });
  };
}

function choiceAt(lane: Lane, progress: number): Lane {
  const out = new Float64Array(1);
  lane.ramps[0].blend.write(progress, out, 0);
  return levelLane(blendNumbers([out[0]], [out[0]], PROPERTIES.cap.range));
}

/** The ellipse of a radial gradient with two radii that stands still: its paths are written in the unit circle. */
function stillEllipse(paint: PaintLanes, place: 0 | 1): readonly number[] | null {
  if (paint.kind !== 'gradient') return null;
  const at = paint.places[Math.min(place, paint.places.length - 1)] as GradientPlace;
  if (at.kind !== 'radial' || isCircle(at.ellipse) || at.ellipse.ramps.some(({ blend }) => !blend.still)) return null;
  const e = firstValue(at.ellipse);
  return e[2] > 0 && e[3] > 0 ? Array.from(e) : null;
}

/** Points of the canvas in an ellipse's own coordinates. */
function mapped(points: Float64Array, map: readonly number[] | null): Float64Array {
  if (!map) return points;
  const [cx, cy, rx, ry, degrees] = map;
  const [cos, sin] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  const out = new Float64Array(points.length);
  for (let i = 0; i < points.length; i += 2) {
    const [x, y] = [points[i] - cx, points[i + 1] - cy];
    out[i] = (cos * x + sin * y) / rx;
    out[i + 1] = (cos * y - sin * x) / ry;
  }
  return out;
}

/** A run as a shape of the format: vertices, and handles as differences from them. */
function bezierOf(p: Float64Array, { at, segments, closed }: PathRun, digits: number): Shape {
  const count = closed ? segments : segments + 1;
  const point = (i: number): [number, number] => [rounded(p[i], digits), rounded(p[i + 1], digits)];
  const away = (from: number, handle: number): [number, number] => [
    rounded(p[handle] - p[from], digits),
    rounded(p[handle + 1] - p[from + 1], digits),
  ];
  const v: [number, number][] = [];
  const inward: [number, number][] = [];
  const outward: [number, number][] = [];
  for (let k = 0; k < count; k++) {
    const i = at + 6 * k;
    v.push(point(i));
    const before = k > 0 ? i : closed ? at + 6 * segments : -1;
    inward.push(before < 0 ? [0, 0] : away(before, before - 2));
    outward.push(k < segments ? away(i, i + 2) : [0, 0]);
  }
  return { c: closed, v, i: inward, o: outward };
}
