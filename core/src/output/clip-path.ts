import { EVEN_THIRDS } from '../easing';
import { CoreError } from '../errors';
import {
  type CompiledFigure,
  type CompiledPiece,
  type MotionLanes,
  motionMatrix,
  type PartLanes,
  prepareMotion,
  sampleMotion,
  stillPiece,
} from '../frame';
import { type Lane, PROPERTIES } from '../lane';
import { numberText } from '../svg';
import { compactPaths, type PathRun } from './compact-path';
import { cssKeyframes } from './css-keyframes';
import { figureNames } from './figure-names';
import { joinedLane } from './joined-lane';
import { laneKeys, type WrittenKey } from './lane-keys';
import { ownName } from './own-names';
import { type SpanChain, spanChains } from './part-chains';

export const CLIP_UNITS = ['px', 'percent'] as const;

export interface ClipPathOptions {
  /** Which figure; left out: the lowest that is seen. */
  readonly figureId?: string;
  /** px: `path()`, which keeps its size; percent of the canvas: `shape()`, which stretches with the element. Default px. */
  readonly unit?: (typeof CLIP_UNITS)[number];
  /** Decimals. Default 2. */
  readonly digits?: number;
  /** The piece's name, which stands before the figure's in the class and the keyframes. */
  readonly title?: string;
}

/** What the outline is from one time of the run to another, s, with the same commands all the way. */
interface Stretch {
  readonly runs: readonly PathRun[];
  readonly evenOdd: boolean;
  readonly keys: readonly WrittenKey[];
}

/**
 * Writes a figure's outline as a clip path over time (CSS Masking 1, CSS Shapes 2): a rule and its keyframes, to be put into a style sheet. A figure that moves has
 * a key for each frame.
 *
 * @throws CoreError 'output-refused' where there is no figure, or its parts have two fill rules
 */
export function writeClipPath(compiled: CompiledPiece, options: ClipPathOptions = {}): string {
  const { unit = 'px', digits = 2 } = options;
  const index = compiled.figures.findIndex(({ id, hidden }) => (options.figureId ? id === options.figureId : !hidden));
  const figure = compiled.figures[index];
  if (!figure || figure.spans.length === 0)
    throw new CoreError('output-refused', 'Expected a figure whose outline can clip; the piece shows none.');
  const { duration, playback, stretch } = compiled;
  const said = stretchesOf(compiled, figure).map((each) => ({ ...each, texts: textsOf(each, compiled, unit, digits) }));
  // Names of two pieces in one page are two: the piece's stands before the figure's.
  const name = `${ownName(options.title ?? '')}-${figureNames(compiled.figures)[index]}`;
  const first = said[0].texts[0];
  if (!(duration > 0)) return `.${name} {\n  clip-path: ${first};\n}\n`;
  const keys = said.flatMap(({ keys: each, texts }) => each.map((key, i) => ({ ...key, text: texts[i] })));
  const keyframes = (label: string, from: number, until: number): string => {
    const inside = keys.filter(({ time }) => time >= from - 1e-7 && time <= until + 1e-7);
    const share = (time: number): number => Math.min(1, Math.max(0, (time - from) / (until - from)));
    const frames = cssKeyframes('clip-path', {
      times: inside.map(({ time }) => share(time)),
      values: inside.map(({ text }) => text),
      splines: inside.map(({ onward }) => (onward === 'hold' ? EVEN_THIRDS : onward)),
      jumps: false,
    });
    return `@keyframes ${label} {\n  ${frames.replace(/\}/g, '}\n  ').trimEnd()}\n}\n`;
  };
  const s = (seconds: number): string => `${numberText(seconds, 6)}s`;
  const again =
    playback === 'stretch' ? `, ${name}-again ${s(stretch[1] - stretch[0])} ${s(stretch[1])} linear infinite` : '';
  const mode = { loop: ' infinite', back: ' infinite alternate', once: ' forwards', stretch: ' forwards' }[playback];
  const end = playback === 'stretch' ? stretch[1] : duration;
  const calm = (): string => {
    const still = stillPiece(compiled, compiled.poster);
    const [each] = stretchesOf(still, still.figures[index]);
    return textsOf(each, still, unit, digits)[0];
  };
  return [
    `.${name} {\n  clip-path: ${first};\n  animation: ${name} ${s(end)} linear${mode}${again};\n}\n`,
    keyframes(name, 0, end),
    playback === 'stretch' ? keyframes(`${name}-again`, stretch[0], stretch[1]) : '',
    `@media (prefers-reduced-motion: reduce) {\n  .${name} {\n    clip-path: ${calm()};\n    animation: none;\n  }\n}\n`,
  ].join('');
}

function stretchesOf(compiled: CompiledPiece, figure: CompiledFigure): Stretch[] {
  const { duration } = compiled;
  const chains = spanChains(figure.spans);
  const nothing = (from: number, until: number): Stretch[] =>
    until > from ? [{ runs: [], evenOdd: false, keys: level(new Float64Array(0), from, until) }] : [];
  const seen = chains.map((chain, i): Stretch => {
    const end = i === chains.length - 1 ? Math.max(chain.end, duration) : chain.end;
    const until = Math.min(end, figure.until);
    const rules = new Set(chain.parts.map(({ plan }) => plan.fillRule));
    if (rules.size > 1)
      throw new CoreError('output-refused', `“${figure.name}” has parts of both fill rules; a clip path has one.`);
    const runs = runsOf(chain.parts);
    const evenOdd = rules.has('evenodd');
    if (chain.parts.length === 0) return { runs, evenOdd, keys: level(new Float64Array(0), chain.start, until) };
    const outline = joinedLane(chain.parts.map((part) => part.outline));
    const keys = figure.motion
      ? frameKeys(outline, figure.motion, chain, until, compiled.rate)
      : keysWithin(outline, compiled, chain, until);
    return { runs, evenOdd, keys };
  });
  return [...nothing(0, chains[0].start), ...seen, ...nothing(figure.until, duration)];
}

/** Contours of several parts, one after another. */
function runsOf(parts: readonly PartLanes[]): PathRun[] {
  let offset = 0;
  return parts.flatMap(({ plan }) => {
    const runs = plan.contours.map(({ at, segments, closed }) => ({ at: at + offset, segments, closed }));
    offset += plan.from.length;
    return runs;
  });
}

const level = (value: Float64Array, from: number, until: number): WrittenKey[] => [
  { time: from, value, onward: EVEN_THIRDS },
  { time: until, value, onward: EVEN_THIRDS },
];

/** Keys from the beginning of a chain to its end: there the next begins with a shape of other commands. */
function keysWithin(outline: Lane, compiled: CompiledPiece, { start }: SpanChain, until: number): WrittenKey[] {
  const run = { ...compiled, playback: compiled.playback === 'stretch' ? compiled.playback : ('once' as const) };
  const keys = laneKeys(outline, PROPERTIES.outline, compiled.rate, run);
  const end = Math.min(until, compiled.playback === 'stretch' ? compiled.stretch[1] : until);
  const [first, last] = [keys[0], keys[keys.length - 1]];
  const inside = keys.filter(({ time }) => time > start && time < end);
  return [{ ...first, time: start }, ...inside, { ...last, time: end, onward: EVEN_THIRDS }];
}

/** A key for each frame of a chain, with the motion in its points. */
function frameKeys(
  outline: Lane,
  motion: MotionLanes,
  { start }: SpanChain,
  until: number,
  rate: number,
): WrittenKey[] {
  const sample = prepareMotion(motion);
  const times = [start];
  for (let k = Math.floor(start * rate + 1e-6) + 1; k < until * rate - 1e-6; k++) times.push(k / rate);
  return [...times, until].map((time): WrittenKey => {
    // The very end belongs to what comes next.
    const value = new Float64Array(outline.size);
    outline.sample(Math.min(time, until - 1e-7), value);
    const [a, b, c, d, e, f] = motionMatrix(sampleMotion(motion, time, sample));
    for (let i = 0; i < value.length; i += 2) {
      const [x, y] = [value[i], value[i + 1]];
      value[i] = a * x + c * y + e;
      value[i + 1] = b * x + d * y + f;
    }
    return { time, value, onward: EVEN_THIRDS };
  });
}

function textsOf(
  { runs, evenOdd, keys }: Stretch,
  { width, height }: CompiledPiece,
  unit: 'px' | 'percent',
  digits: number,
): string[] {
  const states = keys.map(({ value }) => value);
  const rule = evenOdd ? 'evenodd' : '';
  if (unit === 'px')
    return compactPaths(runs, states, digits).map((d) => `path(${rule && `${rule}, `}"${d || 'M0 0'}")`);
  return states.map((p) => `shape(${rule && `${rule} `}${shapeCommands(runs, p, width, height, digits)})`);
}

/** Commands of `shape()`: `from` once, then `move to`, `curve to … with … / …` and `close`. */
function shapeCommands(
  runs: readonly PathRun[],
  p: Float64Array,
  width: number,
  height: number,
  digits: number,
): string {
  const point = (i: number): string =>
    `${numberText((100 * p[i]) / width, digits)}% ${numberText((100 * p[i + 1]) / height, digits)}%`;
  if (runs.length === 0) return 'from 0% 0%, close';
  const commands = runs.flatMap(({ at, segments, closed }, r) => [
    r === 0 ? `from ${point(at)}` : `move to ${point(at)}`,
    ...Array.from({ length: segments }, (_, k) => at + 6 * k).map(
      (i) => `curve to ${point(i + 6)} with ${point(i + 2)} / ${point(i + 4)}`,
    ),
    ...(closed ? ['close'] : []),
  ]);
  return commands.join(', ');
}
