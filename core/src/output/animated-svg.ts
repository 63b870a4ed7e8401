import {
  type CompiledFigure,
  type CompiledPiece,
  type OverLanes,
  type PartLanes,
  runLength,
  stillPiece,
} from '../frame';
import {
  clipLane,
  type Lane,
  type PaintLanes,
  PROPERTIES,
  STROKE_PROPERTIES,
  type StrokeProperty,
  TRANSFORM_IDS,
  type TransformId,
} from '../lane';
import { numberText } from '../svg';
import { compactPaths } from './compact-path';
import { drawnStates } from './drawn-states';
import { figureNames } from './figure-names';
import { CALM_CLASS, OWN, safeTitle, withOwnNames } from './own-names';
import { type SpanChain, spanChains } from './part-chains';
import { type LayerUse, layersOf, type PartLayer, seenSwitches } from './part-layers';
import type { RampKeys } from './ramp-keys';
import { displayTracks, type FileRun, switchTracks } from './run-tracks';
import type { StillBox } from './still-svg';
import { transformOf } from './svg-motion';
import { gradientElements, LaneWriter } from './svg-paint';
import {
  type Attributes,
  type DrawnElement,
  drawn,
  NOTHING,
  type Track,
  together,
  type Written,
} from './tree/drawn-element';
import { svgText } from './tree/svg-text';

export interface AnimatedSvgOptions {
  /** Decimals of coordinates, 1 to 6. Default 2: an error of at most 0.005 px. */
  readonly digits?: number;
  /** Title for screen readers; the piece's name. */
  readonly title?: string;
  /** What of the canvas is shown, px; left out: all of it. */
  readonly box?: StillBox;
  /** Px of the file's own size for each px of the canvas. Default 1. */
  readonly scale?: number;
  /** Has each figure an id made of its name? */
  readonly named?: boolean;
  /** Does the file say how long it plays, and whether it goes on, for what plays it? */
  readonly timed?: boolean;
  /** Does the picture at a time, s, stand in its place where less motion is asked for? Left out: it plays. */
  readonly calmAt?: number;
}

const DEFAULT_DIGITS = 2;
/** A blur reaches so many times its standard deviation (Filter Effects 1, feGaussianBlur). */
const BLUR_REACH = 3;
/**
 * Says what holds anyway. Programs that make files smaller do not look into animations. Without a style of its own they would bake a clip's transform into its
 * path, or put what clips and what moves inside it into one group.
 */
const KEPT_APART: Attributes = { style: 'transform-box:view-box' };

/**
 * Writes a piece as one SVG file animated by SMIL (SVG Animations 2). A group for each figure, in it a group for each shift, shown while that
 * shift and the hold before it last, and in that a path for each part. Keys stand where the picture bends; the easing between them is an exact
 * key spline.
 *
 * @returns text of the file; plays once or endlessly as the piece does
 */
export function writeAnimatedSvg(compiled: CompiledPiece, options: AnimatedSvgOptions = {}): string {
  return withOwnNames(svgText(drawPiece(compiled, options)), options.title ?? '');
}

/** A piece as a tree of elements with tracks, before its names are put in: `OWN` stands before each of them. */
export function drawPiece(compiled: CompiledPiece, options: AnimatedSvgOptions = {}): DrawnElement {
  const { digits = DEFAULT_DIGITS, title, scale = 1, named = false, timed = false, calmAt } = options;
  const box = options.box ?? { x: 0, y: 0, width: compiled.width, height: compiled.height };
  const [x, y, w, h, width, height] = [box.x, box.y, box.width, box.height, scale * box.width, scale * box.height].map(
    (v) => numberText(v, 3),
  );
  const moving = new PieceDrawer(compiled, { digits, named, prefix: OWN });
  let body = moving.picture(box);
  let { defs } = moving;
  let sheet = '';
  if (calmAt !== undefined && compiled.duration > 0) {
    const still = new PieceDrawer(stillPiece(compiled, calmAt), {
      digits,
      named: false,
      prefix: `${OWN}${CALM_CLASS}-`,
    });
    sheet = CALM_RULES;
    body = [
      drawn('g', { class: `${OWN}moving` }, { children: body }),
      drawn('g', { class: `${OWN}${CALM_CLASS}` }, { children: still.picture(box) }),
    ];
    defs = [...defs, ...still.defs];
  }
  if (moving.hides) sheet += HIDDEN_SHEET;
  return drawn(
    'svg',
    {
      xmlns: 'http://www.w3.org/2000/svg',
      viewBox: `${x} ${y} ${w} ${h}`,
      width,
      height,
      ...(timed && timesOf(compiled)),
    },
    {
      children: [
        ...(title ? [drawn('title', {}, { text: safeTitle(title) })] : []),
        ...(sheet ? [drawn('style', {}, { text: sheet })] : []),
        ...(defs.length > 0 ? [drawn('defs', {}, { children: defs })] : []),
        ...body,
      ],
    },
  );
}

/** Attributes that say how long one run is, s, whether the file goes on after it, and when the picture stands that stands for it. */
const timesOf = (compiled: CompiledPiece): Attributes => ({
  'data-length': numberText(runLength(compiled), 6),
  'data-again': compiled.playback === 'once' ? 'no' : 'yes',
  'data-still': numberText(compiled.poster, 6),
});

/** A rule of a style sheet, not an attribute: programs that make files smaller take what an attribute hides for something that is never seen. */
export const HIDDEN_RULES = { 'not-yet': 'display:none', 'not-seen': 'visibility:hidden' } as const;
const HIDDEN_SHEET = `@media all{${Object.entries(HIDDEN_RULES)
  .map(([name, rule]) => `.${OWN}${name}{${rule}}`)
  .join('')}}`;

/** The state whose points lie furthest apart. */
function widest(states: readonly Float64Array[]): number {
  const extents = states.map((points) => {
    let [least, most] = [Infinity, -Infinity];
    for (const v of points) {
      least = Math.min(least, v);
      most = Math.max(most, v);
    }
    return most - least;
  });
  return extents.indexOf(Math.max(...extents));
}

/** Media Queries 5: prefers-reduced-motion. */
export const CALM_RULES = `.${OWN}${CALM_CLASS}{display:none}@media (prefers-reduced-motion:reduce){.${OWN}moving{display:none}.${OWN}${CALM_CLASS}{display:inline}}`;

/** How a layer is written. */
interface LayerOptions {
  readonly purpose: LayerUse;
  /** What switches and moves it. */
  readonly each: Written;
  /** What stands in place of its paint. */
  readonly over: OverLanes | null;
  /** Is a stretch of it drawn as a whole? */
  readonly whole: boolean;
  /** Is it, or what it is in, hidden at first? */
  readonly hidden: boolean;
}

/** Is a property of strokes given by the figure's lanes? What is drawn in part has no dashes of its own. */
const replaces = (over: OverLanes | null, id: StrokeProperty): boolean =>
  (id === 'strokeWidth' && over?.strokeWidth !== undefined) ||
  ((id === 'dash' || id === 'dashOffset') && over?.drawn !== undefined);

interface FileOptions {
  readonly digits: number;
  /** Before every id that elements refer to. */
  readonly prefix: string;
  readonly named: boolean;
}

class PieceDrawer {
  /** What elements refer to by id. */
  readonly defs: DrawnElement[] = [];
  private readonly ids = new Map<string, string>();

  private readonly digits: number;
  private readonly prefix: string;
  /** The ids of figures that have one. */
  private readonly names: readonly string[];

  constructor(
    private readonly piece: CompiledPiece,
    { digits, prefix, named }: FileOptions,
  ) {
    this.digits = digits;
    this.prefix = prefix;
    this.names = named ? figureNames(piece.figures) : [];
  }

  /** Is anything hidden before it is first shown? */
  hides = false;

  /** Hides an element until its animation begins, and where nothing is animated. */
  private first(name: keyof typeof HIDDEN_RULES): Attributes {
    this.hides = true;
    return { class: `${OWN}${name}` };
  }

  /** All that is seen, in a box of the canvas. */
  picture(box: StillBox): DrawnElement[] {
    return [...this.ground(box), ...this.piece.figures.flatMap((figure, index) => this.figure(figure, index))];
  }

  /** What lies behind the figures. */
  private ground({ x, y, width, height }: StillBox): DrawnElement[] {
    const { background, ground } = this.piece;
    const size: Attributes = {
      ...(x !== 0 && { x: numberText(x, 3) }),
      ...(y !== 0 && { y: numberText(y, 3) }),
      width: numberText(width, 3),
      height: numberText(height, 3),
    };
    if (ground) {
      const lane = this.clipped(ground);
      const { attributes, tracks } = this.wholeWriter([lane]).property(PROPERTIES.background, lane);
      return [drawn('rect', { ...size, ...attributes }, { tracks })];
    }
    return background ? [drawn('rect', { ...size, fill: background })] : [];
  }

  private figure(figure: CompiledFigure, index: number): DrawnElement[] {
    const { figures } = this.piece;
    const clip: Attributes = figure.clip >= 0 ? { 'clip-path': `url(#${this.prefix}clip${figure.clip})` } : {};
    if (figures.some((other) => other.clip === index))
      this.defs.push(
        drawn('clipPath', { id: `${this.prefix}clip${index}`, ...clip }, { children: this.spans(figure, 'clip') }),
      );
    if (figure.hidden) return [];
    const faded = this.clipped(figure.opacity);
    const opacity = this.wholeWriter([faded]).property(PROPERTIES.opacity, faded);
    const inner = together(this.motionOf(figure), this.overOf(figure));
    const soft = this.softness(figure, index);
    const children = this.spans(figure, 'picture');
    const name: Attributes = this.names[index] ? { id: this.names[index] } : {};
    const outer: Written = { attributes: { ...name, ...clip, ...opacity.attributes, ...soft }, tracks: opacity.tracks };
    const apart = figure.clip >= 0 || Object.keys(soft).length > 0;
    if (!apart || Object.keys(inner.attributes).length === 0) {
      const { attributes, tracks } = together(outer, inner);
      return [drawn('g', attributes, { tracks, children })];
    }
    // What it is seen inside, and how soft it is, does not move with it: its motion has a group of its own there.
    const group = drawn('g', inner.attributes, { tracks: inner.tracks, children });
    const attributes = figure.clip >= 0 ? { ...outer.attributes, ...KEPT_APART } : outer.attributes;
    return [drawn('g', attributes, { tracks: outer.tracks, children: [group] })];
  }

  /** What stands in place of its parts' paint: attributes that they inherit. */
  private overOf({ over }: CompiledFigure): Written {
    if (!over) return NOTHING;
    return (['fill', 'stroke', 'strokeWidth', 'drawn'] as const).reduce((written: Written, property) => {
      const lane = over[property] && this.clipped(over[property]);
      return lane ? together(written, this.wholeWriter([lane]).property(PROPERTIES[property], lane)) : written;
    }, NOTHING);
  }

  /** The attribute for a figure that is soft at some time. */
  private softness({ over }: CompiledFigure, index: number): Attributes {
    if (!over?.softness) return {};
    const lane = this.clipped(over.softness);
    const writer = this.wholeWriter([lane]);
    const { attributes, tracks } = writer.property(PROPERTIES.softness, lane);
    const values = [writer.first(lane), ...writer.keys(lane, PROPERTIES.softness).flatMap(({ values: each }) => each)];
    const most = Math.max(...values.map(([value]) => value));
    if (!(most > 0)) return {};
    const [room, { width, height }] = [BLUR_REACH * most, this.piece];
    const [x, y, w, h] = [-room, -room, width + 2 * room, height + 2 * room].map((v) => numberText(v, 2));
    const id = `${this.prefix}soft${index}`;
    const blur = drawn('feGaussianBlur', { stdDeviation: '0', ...attributes }, { tracks });
    this.defs.push(
      drawn(
        'filter',
        { id, filterUnits: 'userSpaceOnUse', x, y, width: w, height: h, 'color-interpolation-filters': 'sRGB' },
        { children: [blur] },
      ),
    );
    return { filter: `url(#${id})` };
  }

  private motionOf({ motion }: CompiledFigure): Written {
    if (!motion) return NOTHING;
    const lanes = TRANSFORM_IDS.map((id) => this.clipped(motion[id]));
    const clipped = Object.fromEntries(TRANSFORM_IDS.map((id, i) => [id, lanes[i]])) as Record<TransformId, Lane>;
    return transformOf({ pivot: motion.pivot, ...clipped }, this.wholeWriter(lanes));
  }

  /** A lane as far as the piece plays: keys may stand before its beginning or after its end. */
  private clipped(lane: Lane): Lane {
    return clipLane(lane, 0, Math.max(this.piece.duration, 1e-6));
  }

  /** Writes lanes that run through the whole piece. */
  private wholeWriter(lanes: readonly Lane[]): LaneWriter {
    const { duration, rate } = this.piece;
    const ends = lanes.flatMap(({ ramps }) => ramps.filter(({ blend }) => !blend.still).map(({ time }) => time.end));
    const end = Math.min(duration, Math.max(0, ...ends));
    return new LaneWriter(duration > 0 && end > 0 ? { end, until: duration, ...this.run } : null, rate);
  }

  private spans(figure: CompiledFigure, purpose: LayerUse): DrawnElement[] {
    const { duration } = this.piece;
    const chains = spanChains(figure.spans);
    // A group would be no child of a clip path: each path moves by itself there.
    const motion = purpose === 'clip' ? this.motionOf(figure) : NOTHING;
    const moved =
      motion.tracks.length > 0 ? { ...motion, attributes: { ...motion.attributes, ...KEPT_APART } } : motion;
    const inPart = purpose === 'picture' && figure.over?.drawn ? this.clipped(figure.over.drawn) : null;
    return chains.flatMap((chain, i) => {
      const last = i === chains.length - 1;
      const until = last ? Math.min(figure.until, Math.max(duration, chain.end)) : chain.end;
      const shown = duration > 0 ? displayTracks(chain.start, until, this.run) : [];
      const hidden = shown.length > 0 && chain.start > 0;
      const switched: Written = { attributes: hidden ? this.first('not-yet') : {}, tracks: shown };
      const layers = chain.parts.flatMap((part) =>
        layersOf(part, purpose, figure.over).map((layer) => ({ part, layer })),
      );
      // Nor is a group needed where one path can be switched by itself.
      const alone = purpose === 'clip' || (layers.length === 1 && !inPart);
      const each = alone ? together(switched, moved) : NOTHING;
      const writer = this.writerOf(chain, until);
      const keysOf = new Map(chain.parts.map((part) => [part.plan, writer.keys(part.outline, PROPERTIES.outline)]));
      const paths = layers.flatMap(({ part, layer }) => {
        const path = (whole: boolean): DrawnElement =>
          this.layer(part, layer, keysOf.get(part.plan) ?? [], writer, {
            purpose,
            each,
            over: figure.over,
            whole,
            hidden,
          });
        return inPart && layer.stroke ? this.drawnPaths(layer, inPart, path) : [path(false)];
      });
      return alone || shown.length === 0
        ? paths
        : [drawn('g', switched.attributes, { tracks: shown, children: paths })];
    });
  }

  /** A run of edges of which a stretch is drawn, not drawn at all, or, closed, drawn as a whole: as dashes it would have no corner where it begins. */
  private drawnPaths(layer: PartLayer, lane: Lane, path: (whole: boolean) => DrawnElement): DrawnElement[] {
    const states = drawnStates(
      lane,
      layer.runs.every(({ closed }) => closed),
    );
    return (['part', 'whole'] as const).flatMap((state) => {
      const shown = states.map((each) => ({ time: each.time, text: each.state === state ? 'inline' : 'none' }));
      const switches = shown.filter(({ text }, i) => i === 0 || text !== shown[i - 1].text);
      if (switches.every(({ text }) => text === 'none')) return [];
      const tracks = switchTracks('display', switches, this.run);
      const hidden = switches[0].text === 'none' ? this.first('not-yet') : {};
      const inside = path(state === 'whole');
      return tracks.length > 0 ? [drawn('g', hidden, { tracks, children: [inside] })] : [inside];
    });
  }

  private get run(): FileRun {
    const { duration, playback, stretch } = this.piece;
    return { duration, playback, stretch };
  }

  private writerOf({ rampEnd, parts }: SpanChain, until: number): LaneWriter {
    const { duration, rate } = this.piece;
    const moves = duration > 0 && parts.some(({ outline }) => outline.ramps.some(({ time }) => time.end > time.start));
    return new LaneWriter(moves ? { end: rampEnd, until, ...this.run } : null, rate);
  }

  /** A path element. */
  private layer(
    part: PartLanes,
    layer: PartLayer,
    keys: readonly RampKeys[],
    writer: LaneWriter,
    { purpose, each, over, whole, hidden }: LayerOptions,
  ): DrawnElement {
    const states = keys.length > 0 ? keys.flatMap(({ values }) => values) : [part.plan.from];
    const paths = compactPaths(layer.runs, states, this.digits);
    let used = 0;
    const texts = keys.map(({ values }) => paths.slice(used, (used += values.length)));
    const tracks: Track[] = writer.tracks('d', keys, texts);
    const evenOdd = part.plan.fillRule === 'evenodd';
    // While it is hidden it may be anything, but a mere point would be taken for nothing by programs that make files smaller.
    const attributes: Record<string, string> = { d: paths[hidden ? widest(states) : 0] };
    const add = (written: Written): void => {
      Object.assign(attributes, written.attributes);
      tracks.push(...written.tracks);
    };
    if (purpose === 'clip') {
      if (evenOdd) attributes['clip-rule'] = 'evenodd';
    } else {
      if (layer.fill && part.fill) {
        if (evenOdd) attributes['fill-rule'] = 'evenodd';
        if (!over?.fill) add(this.paint('fill', part.fill, layer.place, writer));
      } else attributes.fill = 'none';
      if (part.stroke && layer.stroke) {
        if (!over?.stroke) add(this.paint('stroke', part.stroke.paint, layer.place, writer));
        for (const id of STROKE_PROPERTIES)
          if (!replaces(over, id)) add(writer.property(PROPERTIES[id], part.stroke.properties[id]));
        if (over?.drawn) Object.assign(attributes, whole ? { 'stroke-dasharray': 'none' } : { pathLength: '1' });
      } else if (over?.stroke) attributes.stroke = 'none';
      if (layer.seen) add(this.seen(part, layer.seen, writer));
    }
    add(each);
    return drawn('path', attributes, { tracks });
  }

  private paint(name: 'fill' | 'stroke', lanes: PaintLanes, place: 0 | 1, writer: LaneWriter): Written {
    if (lanes.kind === 'colour') return writer.property(PROPERTIES[name], lanes.colour);
    const id = this.define(gradientElements(lanes, writer)[Math.min(place, lanes.places.length - 1)]);
    return { attributes: { [name]: `url(#${id})` }, tracks: [] };
  }

  /** Shows an element only while the shift is between two values of progress. */
  private seen({ time }: PartLanes, seen: NonNullable<PartLayer['seen']>, writer: LaneWriter): Written {
    const switches = seenSwitches(time, seen);
    const texts = switches.map(({ shown }) => (shown ? 'visible' : 'hidden'));
    const times = switches.map((each) => each.share);
    const track = { start: time.start, end: time.end, times, values: [], splines: [] };
    const first = switches[0].shown ? {} : this.first('not-seen');
    return { attributes: first, tracks: writer.tracks('visibility', [track], [texts]) };
  }

  /** The id of a definition; the same definition is written once. */
  private define(element: (id: string) => DrawnElement): string {
    const content = svgText(element(''));
    const known = this.ids.get(content);
    if (known) return known;
    const id = `${this.prefix}p${this.ids.size + 1}`;
    this.ids.set(content, id);
    this.defs.push(element(id));
    return id;
  }
}
