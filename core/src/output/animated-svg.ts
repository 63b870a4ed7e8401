import { type Easing, ease, staysInside } from '../easing';
import type { CompiledPiece, FigureSpan, PartPlan } from '../frame';
import { edgePathData, evaluate, inBetweenPathData, type ShiftPlan } from '../morph';
import {
  blendColour,
  cssText,
  type GradientBlend,
  hexText,
  isGradientBlend,
  type PaintBlend,
  prepareGradient,
  sampleGradient,
} from '../paint';
import { numberText } from '../svg';
import { escapeText, gradientAttributes, gradientElement, gradientSteps } from './svg-paint';

export interface AnimatedSvgOptions {
  /** Decimals of coordinates, 1 to 6. Default 2: an error of at most 0.005 px. */
  readonly digits?: number;
  /** Title for screen readers; the piece's name. */
  readonly title?: string;
}

/** Largest error of keys against the true curve: px for shapes, channels of 0..1 for colours. */
const SHAPE_ERROR_PX = 0.05;
const COLOUR_ERROR = 0.5 / 255;
const KEY_DEPTH = 9;
/** Progress at which a plan is asked whether all its numbers go straight. */
const STRAIGHT_PROBES = [0.1, 0.25, 0.4, 0.5, 0.6, 0.75, 0.9] as const;

/** Keys of an animated value: times in [0, 1] of a run, and for each stretch between keys its timing. */
interface Track {
  readonly times: number[];
  readonly values: string[];
  readonly splines: string[];
}

const EVEN = '0 0 1 1';

/**
 * Writes a piece as one SVG file animated by SMIL (SVG Animations 2): a group for each figure, and in it one path for each part of each
 * shift, shown while that shift and the hold before it last. Shapes on straight ways need one key at each end, with the easing as the
 * key spline; easings that overshoot, and colours blended in OKLab, get as many linear keys as their error bound asks.
 *
 * @returns text of the file; plays once or endlessly as the piece does
 */
export function writeAnimatedSvg(compiled: CompiledPiece, options: AnimatedSvgOptions = {}): string {
  const digits = options.digits ?? 2;
  const { width, height, background, duration } = compiled;
  const w = numberText(width, 3);
  const h = numberText(height, 3);
  let body = '';
  if (options.title) body += `<title>${escapeText(options.title)}</title>\n`;
  if (background) body += `<rect width="${w}" height="${h}" fill="${escapeText(background)}"/>\n`;
  const scope = new Scope();
  compiled.figures.forEach((figure, index) => {
    const elements = (): string =>
      figure.spans
        .map((span, i) => {
          const last = i === figure.spans.length - 1;
          const until = last ? Math.max(duration, span.end) : span.end;
          return span.parts
            .map((part) =>
              layersOf(part)
                .map((layer) => partElement(part, layer, span, compiled, digits, until, figure.spans.length > 1, scope))
                .join(''),
            )
            .join('');
        })
        .join('');
    if (compiled.figures.some(({ clip }) => clip === index)) {
      const outer = figure.clip >= 0 ? ` clip-path="url(#clip${figure.clip})"` : '';
      // Its elements may add to the definitions themselves.
      const inside = elements();
      scope.defs += `<clipPath id="clip${index}"${outer}>\n${inside}</clipPath>\n`;
    }
    if (figure.hidden) return;
    const clip = figure.clip >= 0 ? ` clip-path="url(#clip${figure.clip})"` : '';
    const opacity = figure.opacity < 1 ? ` opacity="${numberText(figure.opacity, 4)}"` : '';
    body += `<g${clip}${opacity}>\n${elements()}</g>\n`;
  });
  const defs = scope.defs ? `<defs>\n${scope.defs}</defs>\n` : '';
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${w} ${h}" width="${w}" height="${h}">\n${defs}${body}</svg>\n`;
}

/** Collects what elements refer to by id. */
class Scope {
  defs = '';
  private count = 0;
  newId(): string {
    return `paint${++this.count}`;
  }
}

/** What one path element shows of a part. */
interface Layer {
  readonly fill: boolean;
  readonly stroke: boolean;
  /** Which outline's edges: those of a stroke leave out slits, cuts and chords. */
  readonly edges: 'all' | 'first' | 'second';
  /** Is it to be seen only in the half that is nearer to its outline? */
  readonly half: boolean;
}

/** A stroke that must not follow the bridges of a part's contours has elements of its own, one for each half where they differ. */
function layersOf({ plan, fill, stroke }: PartPlan): Layer[] {
  const bridged = plan.contours.some(({ bridgesA, bridgesB }) => bridgesA.length + bridgesB.length > 0);
  if (!stroke || !bridged) return [{ fill: true, stroke: true, edges: 'all', half: false }];
  const same = plan.contours.every(({ bridgesA, bridgesB }) => String(bridgesA) === String(bridgesB));
  const strokes = same ? (['first'] as const) : (['first', 'second'] as const);
  return [
    ...(fill ? [{ fill: true, stroke: false, edges: 'all', half: false } as const] : []),
    ...strokes.map((edges) => ({ fill: false, stroke: true, edges, half: !same })),
  ];
}

const pathData = (plan: ShiftPlan, frame: Float64Array, digits: number, edges: Layer['edges']): string =>
  edges === 'all' ? inBetweenPathData(plan, frame, digits) : edgePathData(plan, frame, digits, edges);

function partElement(
  part: PartPlan,
  layer: Layer,
  span: FigureSpan,
  compiled: CompiledPiece,
  digits: number,
  shownUntil: number,
  switched: boolean,
  scope: Scope,
): string {
  const { duration, loop } = compiled;
  const repeat = loop ? 'repeatCount="indefinite"' : 'fill="freeze"';
  const clock = `dur="${numberText(duration, 6)}s" ${repeat}`;
  const frame = new Float64Array(part.plan.from.length);
  const d = (progress: number): string =>
    pathData(part.plan, evaluate(part.plan, progress, frame), digits, layer.edges);
  const animated = duration > 0 && span.end > span.holdEnd;
  let attributes = ` d="${d(0)}"${part.plan.fillRule === 'evenodd' ? ' fill-rule="evenodd"' : ''}`;
  let animations = '';
  const animate = (name: string, track: Track): void => {
    if (animated && new Set(track.values).size > 1) animations += animation(name, track, clock);
  };
  animate('d', shapeTrack(span, duration, d, part));
  const inner = (name: string, track: Track): string =>
    animated && new Set(track.values).size > 1 ? animation(name, track, clock) : '';
  const paint = (name: 'fill' | 'stroke', blend: PaintBlend | null): void => {
    if (!blend) {
      if (name === 'fill') attributes += ' fill="none"';
      return;
    }
    if (isGradientBlend(blend)) {
      const ids = gradientElements(blend, span, duration, scope, inner, clock);
      attributes += ` ${name}="url(#${ids[0]})"`;
      if (ids.length > 1) animate(name, halfWayTrack(span, duration, [`url(#${ids[0]})`, `url(#${ids[1]})`]));
      return;
    }
    const start = blendColour(blend, 0, new Float64Array(4));
    attributes += ` ${name}="${hexText({ r: start[0], g: start[1], b: start[2] })}"`;
    if (start[3] < 1) attributes += ` ${name}-opacity="${numberText(start[3], 4)}"`;
    const at = (progress: number): Float64Array => blendColour(blend, progress, new Float64Array(4));
    animate(name, colourTrack(span, duration, at, opaqueText));
    animate(`${name}-opacity`, colourTrack(span, duration, at, alphaText));
  };
  paint('fill', layer.fill ? part.fill : null);
  if (layer.half) {
    const shown = layer.edges === 'first' ? (['visible', 'hidden'] as const) : (['hidden', 'visible'] as const);
    attributes += ` visibility="${shown[0]}"`;
    animate('visibility', halfWayTrack(span, duration, shown));
  }
  if (part.stroke && layer.stroke) {
    paint('stroke', part.stroke.paint);
    const { widths, caps, joins, miters, dashes, dashOffsets } = part.stroke;
    attributes += ` stroke-width="${numberText(widths[0], 4)}" stroke-linecap="${caps[0]}" stroke-linejoin="${joins[0]}"`;
    const between =
      ([a, b]: readonly [number, number], least = 0) =>
      (p: number): string =>
        numberText(Math.max(least, a + (b - a) * p), 4);
    const change = ([a, b]: readonly [number, number]): number => Math.abs(b - a);
    animate('stroke-width', numberTrack(span, duration, between(widths), change(widths)));
    animate('stroke-linecap', halfWayTrack(span, duration, caps));
    animate('stroke-linejoin', halfWayTrack(span, duration, joins));
    if (miters[0] !== 4 || miters[1] !== 4) {
      attributes += ` stroke-miterlimit="${numberText(miters[0], 4)}"`;
      animate('stroke-miterlimit', numberTrack(span, duration, between(miters, 1), change(miters)));
    }
    if (dashes[0].length > 0) {
      const lengths = (p: number): string =>
        dashes[0].map((v, i) => numberText(v + (dashes[1][i] - v) * Math.min(1, Math.max(0, p)), 4)).join(' ');
      const reach = Math.max(...dashes[0].map((v, i) => Math.abs(dashes[1][i] - v)));
      attributes += ` stroke-dasharray="${lengths(0)}"`;
      animate('stroke-dasharray', numberTrack(span, duration, lengths, reach));
      if (dashOffsets[0] !== 0 || dashOffsets[1] !== 0) {
        attributes += ` stroke-dashoffset="${numberText(dashOffsets[0], 4)}"`;
        animate('stroke-dashoffset', numberTrack(span, duration, between(dashOffsets, -Infinity), change(dashOffsets)));
      }
    }
  }
  if (duration > 0 && switched) {
    const shown = visibility(span.start / duration, Math.min(1, shownUntil / duration));
    if (span.start > 0) attributes += ' display="none"';
    animations += `<animate attributeName="display" calcMode="discrete" values="${shown.values}" keyTimes="${shown.times}" ${clock}/>\n`;
  }
  return animations ? `<path${attributes}>\n${animations}</path>\n` : `<path${attributes}/>\n`;
}

function visibility(from: number, to: number): { values: string; times: string } {
  const values: string[] = [];
  const times: string[] = [];
  const add = (value: string, time: number): void => {
    values.push(value);
    times.push(timeText(time));
  };
  if (from > 0) add('none', 0);
  add('inline', from);
  if (to < 1) add('none', to);
  return { values: values.join(';'), times: times.join(';') };
}

const timeText = (time: number): string => numberText(Math.min(1, Math.max(0, time)), 7);

function animation(name: string, track: Track, clock: string): string {
  const discrete = track.splines.length === 0;
  const mode = discrete ? 'discrete' : track.splines.every((spline) => spline === EVEN) ? 'linear' : 'spline';
  const splines = mode === 'spline' ? ` keySplines="${track.splines.join(';')}"` : '';
  return `<animate attributeName="${name}" calcMode="${mode}" values="${track.values.join(';')}" keyTimes="${track.times.map(timeText).join(';')}"${splines} ${clock}/>\n`;
}

/** A track that stands still before and after the shift, with the given keys (time in [0, 1] of the shift, value) in between. */
function trackOf(
  span: FigureSpan,
  duration: number,
  keys: readonly { time: number; value: string }[],
  spline: string,
): Track {
  const track: Track = { times: [], values: [], splines: [] };
  const add = (time: number, value: string, arriving: string): void => {
    if (track.times.length > 0) track.splines.push(arriving);
    track.times.push(time);
    track.values.push(value);
  };
  if (span.holdEnd > 0) add(0, keys[0].value, EVEN);
  for (const [i, key] of keys.entries()) {
    add((span.holdEnd + (span.end - span.holdEnd) * key.time) / duration, key.value, i === 0 ? EVEN : spline);
  }
  if (span.end < duration) add(1, keys[keys.length - 1].value, EVEN);
  track.times[track.times.length - 1] = 1;
  return track;
}

function splineText(easing: Easing): string {
  if (easing.kind === 'linear') return EVEN;
  return [easing.x1, easing.y1, easing.x2, easing.y2].map((v) => numberText(v, 6)).join(' ');
}

function shapeTrack(span: FigureSpan, duration: number, d: (progress: number) => string, { plan }: PartPlan): Track {
  const frame = new Float64Array(plan.from.length);
  const { from, to } = plan;
  const straight = STRAIGHT_PROBES.every((progress) =>
    evaluate(plan, progress, frame).every(
      (v, i) => Math.abs(v - from[i] - (to[i] - from[i]) * progress) <= SHAPE_ERROR_PX,
    ),
  );
  if (straight && staysInside(span.easing)) {
    return trackOf(
      span,
      duration,
      [
        { time: 0, value: d(0) },
        { time: 1, value: d(1) },
      ],
      splineText(span.easing),
    );
  }
  const times = keyTimes(
    (time) => evaluate(plan, ease(span.easing, time), new Float64Array(from.length)),
    SHAPE_ERROR_PX,
  );
  return trackOf(
    span,
    duration,
    times.map((time) => ({ time, value: d(ease(span.easing, time)) })),
    EVEN,
  );
}

function numberTrack(span: FigureSpan, duration: number, value: (progress: number) => string, reach: number): Track {
  if (staysInside(span.easing))
    return trackOf(
      span,
      duration,
      [
        { time: 0, value: value(0) },
        { time: 1, value: value(1) },
      ],
      splineText(span.easing),
    );
  const times = keyTimes((time) => [ease(span.easing, time) * reach], SHAPE_ERROR_PX);
  return trackOf(
    span,
    duration,
    times.map((time) => ({ time, value: value(ease(span.easing, time)) })),
    EVEN,
  );
}

const opaqueText = (c: Float64Array): string => cssText(c[0], c[1], c[2], 1);
const alphaText = (c: Float64Array): string => numberText(c[3], 4);

/** Keys of a colour; `colour` gives it at a progress. */
function colourTrack(
  span: FigureSpan,
  duration: number,
  colour: (progress: number) => Float64Array,
  text: (c: Float64Array) => string,
): Track {
  const at = (time: number): Float64Array => colour(ease(span.easing, time));
  const times = keyTimes((time) => [...at(time)], COLOUR_ERROR);
  return trackOf(
    span,
    duration,
    times.map((time) => ({ time, value: text(at(time)) })),
    EVEN,
  );
}

/** Writes a gradient with its animations; two of them where its kind changes half-way. Returns their ids. */
function gradientElements(
  blend: GradientBlend,
  span: FigureSpan,
  duration: number,
  scope: Scope,
  inner: (name: string, track: Track) => string,
  clock: string,
): string[] {
  const sample = (progress: number) => sampleGradient(blend, progress, prepareGradient(blend));
  const start = sample(0);
  const end = sample(1);
  const within = (p: number): number => Math.min(1, Math.max(0, p));
  const stopColour = (i: number) => (progress: number) => sample(progress).colours.slice(4 * i, 4 * i + 4);
  const insideStop = (i: number): string => {
    const at = (p: number): string => numberText(blend.at[0][i] + (blend.at[1][i] - blend.at[0][i]) * within(p), 4);
    return (
      (blend.second
        ? ''
        : inner('offset', numberTrack(span, duration, at, Math.abs(blend.at[1][i] - blend.at[0][i])))) +
      inner('stop-color', colourTrack(span, duration, stopColour(i), opaqueText)) +
      inner('stop-opacity', colourTrack(span, duration, stopColour(i), alphaText))
    );
  };
  const ids = [scope.newId()];
  if (blend.second) {
    // Each kind keeps its own geometry; the paint changes over where both show the one common colour.
    ids.push(scope.newId());
    scope.defs += gradientElement(ids[0], start, '', insideStop) + gradientElement(ids[1], end, '', insideStop);
    return ids;
  }
  const reach = Math.max(...start.geometry.map((v, i) => Math.abs(end.geometry[i] - v)));
  const geometry = (p: number) => sample(p);
  let inside = '';
  for (const name of Object.keys(gradientAttributes(start)))
    inside += inner(
      name,
      numberTrack(span, duration, (p) => gradientAttributes(geometry(p))[name], reach),
    );
  if (start.kind === 'radial') {
    gradientSteps(start.geometry).forEach(([type], k) => {
      const track = numberTrack(span, duration, (p) => gradientSteps(geometry(p).geometry)[k][1], reach);
      // All three steps are written when one of them moves: the first replaces the whole transform.
      if (reach > 0) inside += transformAnimation(type, k === 0, track, clock);
    });
  }
  scope.defs += gradientElement(ids[0], start, inside, insideStop);
  return ids;
}

function transformAnimation(type: string, first: boolean, track: Track, clock: string): string {
  return animation(
    'gradientTransform',
    track,
    `type="${type}" additive="${first ? 'replace' : 'sum'}" ${clock}`,
  ).replace('<animate ', '<animateTransform ');
}

/** A value that jumps where progress passes the middle: caps and joins cannot be blended. */
function halfWayTrack(span: FigureSpan, duration: number, values: readonly [string, string]): Track {
  let low = 0;
  let high = 1;
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2;
    if (ease(span.easing, middle) < 0.5) low = middle;
    else high = middle;
  }
  const time = (span.holdEnd + (span.end - span.holdEnd) * high) / duration;
  return { times: [0, time], values: [...values], splines: [] };
}

/** The fewest times, by halving, between which straight lines stay within `error` of the value. */
function keyTimes(value: (time: number) => ArrayLike<number>, error: number): number[] {
  const out = [0];
  const halve = (a: number, b: number, depth: number): void => {
    const va = value(a);
    const vb = value(b);
    const strays = [0.25, 0.5, 0.75].some((share) => {
      const v = value(a + (b - a) * share);
      for (let i = 0; i < v.length; i++) if (Math.abs(v[i] - va[i] - (vb[i] - va[i]) * share) > error) return true;
      return false;
    });
    // The first cut is always made: a curve may cross its chord at all three probes.
    if (depth < KEY_DEPTH && (strays || depth < 2)) {
      halve(a, (a + b) / 2, depth + 1);
      halve((a + b) / 2, b, depth + 1);
    } else out.push(b);
  };
  halve(0, 1, 0);
  return out;
}
