import { EVEN_SPLINE, type KeySpline } from '../../easing';
import { assertNever } from '../../errors';
import { type CompiledPiece, prepareFrame, runLength, sampleFrame } from '../../frame';
import { readColour } from '../../paint';
import { readPathData } from '../../svg';
import { IDENTITY, type Matrix } from '../../vec';
import { readAnimatedDocument } from '../document/animated-document';
import type { OutputOptions } from '../forms/form-options';
import { stillOf, withGround } from '../forms/text-forms';
import type { FormId } from '../matrix';
import type { OutputFile } from '../output-file';
import type { PackedElement } from '../runtime/packed';
import { readyTrack, trackValue } from '../runtime/track-value';
import type { DrawnElement } from '../tree/drawn-element';
import { type Comparison, comparePainted } from './compare';
import { linesOf, type Painted, paintedOfFrame, proofTimes } from './painted';
import { readCssDrawing, readKeyframes } from './read-css';
import { paintedOfDrawing } from './read-drawing';
import { paintedOfLottie, readLottieDrawing } from './read-lottie';

/** One thing that was looked at: what was wanted, what was found, and whether that will do. */
export interface ProofLine {
  readonly what: string;
  readonly wanted: string;
  readonly found: string;
  readonly holds: boolean;
}

/** What came of reading a file back and comparing it with the piece. */
export interface Proof {
  readonly holds: boolean;
  readonly lines: readonly ProofLine[];
  /** When it is furthest off, s. */
  readonly worst: number;
  /** What the file paints then. */
  readonly painted: readonly Painted[];
}

/** How a file is seen by its reader: what it paints at a time in s of the run. */
type Seen = (seconds: number) => readonly Painted[];

const NOT_PLAYED: Painted[] = [];

/** Keys stray by this at most, px, and so much more by the decimals of the file. */
const KEYS_PX = 0.11;
const COLOUR_SHARE = 3.5 / 255;

/**
 * Reads files of a form of text back, by readers that know nothing of how they were written, and compares what they paint with the piece's own frames.
 *
 * @param files as the form made them, the main one first
 */
export function proveText(
  form: FormId,
  files: readonly OutputFile[],
  piece: CompiledPiece,
  options: OutputOptions,
): Proof {
  const compiled = withGround(piece, options);
  const still = form === 'still-svg';
  const shown = still ? stillOf(compiled, options).compiled : compiled;
  const length = runLength(shown);
  // A table has its own frames.
  const rate = form === 'path-data' && options.fps ? Number(options.fps) : shown.rate;
  const times = proofTimes({ duration: shown.duration, rate }, length);
  const seen = readerOf(form, files, compiled, options);
  const only = form === 'clip-path';
  const frame = prepareFrame(shown);
  const results = times.map((time): Comparison => {
    const wanted = paintedOfFrame(sampleFrame(shown, time, frame));
    return only ? compareClip(shown, time, seen(time), options) : comparePainted(wanted, seen(time));
  });
  const { lines, worst } = report(results, times, KEYS_PX + 1.5 * 10 ** -Number(options.digits ?? 2));
  return { holds: lines.every(({ holds }) => holds), lines, worst, painted: seen(worst) };
}

/** Of a clip path only the outline counts. */
function compareClip(
  compiled: CompiledPiece,
  time: number,
  found: readonly Painted[],
  options: OutputOptions,
): Comparison {
  const chosen = compiled.figures.find(({ id, hidden }) => (options.figure ? id === options.figure : !hidden));
  const alone: CompiledPiece = { ...compiled, figures: chosen ? [{ ...chosen, clip: -1, hidden: false }] : [] };
  const wanted = paintedOfFrame(sampleFrame(alone, time, prepareFrame(alone)));
  const all: Painted = {
    kind: 'fill',
    lines: wanted
      .filter(
        ({ kind }, i) => kind === 'fill' || !wanted.some((other, j) => j !== i && other.lines === wanted[i].lines),
      )
      .flatMap(({ lines }) => lines),
    colours: [[0, 0, 0, 1]],
    partly: false,
  };
  return comparePainted(all.lines.length > 0 ? [all] : [], found);
}

function report(results: readonly Comparison[], times: readonly number[], bar: number): Pick<Proof, 'lines' | 'worst'> {
  const most = (of: (each: Comparison) => number): number => Math.max(0, ...results.map(of));
  const largest = most((each) => each.largest);
  const mean = results.reduce((sum, each) => sum + each.mean, 0) / Math.max(1, results.length);
  const colour = most((each) => each.colour);
  const [missing, extra] = [most((each) => each.missing), most((each) => each.extra)];
  const px = (value: number): string => `${value.toFixed(3)} px`;
  const lines: ProofLine[] = [
    { what: 'Largest deviation', wanted: `at most ${px(bar)}`, found: px(largest), holds: largest <= bar },
    { what: 'Mean deviation', wanted: `at most ${px(bar / 2)}`, found: px(mean), holds: mean <= bar / 2 },
    {
      what: 'Colours',
      wanted: 'within 3 of 255',
      found: `${(255 * colour).toFixed(1)} of 255`,
      holds: colour <= COLOUR_SHARE,
    },
    {
      what: 'Shapes',
      wanted: 'none missing, none too many',
      found: missing + extra === 0 ? 'all there' : `${missing} missing, ${extra} too many`,
      holds: missing + extra === 0,
    },
    { what: 'Moments compared', wanted: String(times.length), found: String(results.length), holds: true },
  ];
  const badness = ({ largest: off, missing: gone, extra: more, colour: tint }: Comparison): number =>
    100 * (gone + more) + off + 10 * tint;
  const worst = results.reduce((best, each, i) => (badness(each) > badness(results[best]) ? i : best), 0);
  return { lines, worst: times[worst] ?? 0 };
}

function readerOf(form: FormId, files: readonly OutputFile[], compiled: CompiledPiece, options: OutputOptions): Seen {
  const [main] = files;
  switch (form) {
    case 'animated-svg':
    case 'still-svg':
      return drawing(readAnimatedDocument(main.text).root);
    case 'element':
      return drawing(readAnimatedDocument((files.find(({ name }) => name.endsWith('.svg')) ?? main).text).root);
    case 'css':
      return drawing(readCssDrawing(main.text));
    case 'module':
      return drawing(packedDrawing(main.text));
    case 'lottie': {
      const lottie = readLottieDrawing(main.text);
      // Times of layers are rounded: a frame is looked at a moment after it began.
      return (seconds) => paintedOfLottie(lottie, seconds * lottie.rate + 2e-4);
    }
    case 'path-data':
      return options.format === 'csv' ? csvFrames(main.text) : jsonFrames(main.text);
    case 'clip-path':
      return clipFrames(main.text, compiled);
    case 'still-png':
    case 'png-sequence':
    case 'sprite-sheet':
    case 'apng':
    case 'gif':
    case 'mp4':
    case 'webm':
      throw new Error(`Invariant broken: ${form} is no form of text.`);
    default:
      return assertNever(form);
  }
}

const drawing =
  (root: DrawnElement): Seen =>
  (seconds) =>
    paintedOfDrawing(root, seconds);

/** The elements in a code module. */
function packedDrawing(text: string): DrawnElement {
  const data = /const picture = (.*);\n/.exec(text)?.[1] ?? 'null';
  const unpack = ([name, attributes, children, tracks]: PackedElement): DrawnElement => ({
    name,
    attributes,
    text: '',
    children: children.map(unpack),
    tracks: tracks.map(([attribute, step, begin, duration, flags, times, splines, values], i) => ({
      attribute,
      ...(step !== '' && {
        step: { type: step as 'scale', sum: i > 0 && tracks.slice(0, i).some((before) => before[0] === attribute) },
      }),
      begin,
      duration,
      repeats: flags % 2 === 1,
      jumps: flags > 1,
      times,
      splines: splines.map((spline): KeySpline => (spline === 0 ? EVEN_SPLINE : (spline as unknown as KeySpline))),
      values,
    })),
  });
  return unpack(JSON.parse(data));
}

interface JsonFrame {
  readonly time: number;
  readonly figures: readonly {
    readonly opacity: number;
    readonly matrix?: Matrix;
    readonly drawn?: readonly number[];
    readonly parts: readonly { readonly d: string; readonly fill: unknown; readonly stroke: JsonStroke | null }[];
  }[];
}
interface JsonStroke {
  readonly paint: unknown;
  readonly strokeWidth: number;
}

function jsonFrames(text: string): Seen {
  const { frames } = JSON.parse(text) as { frames: readonly JsonFrame[] };
  return (seconds) => {
    const frame = frames.find(({ time }) => Math.abs(time - seconds) < 1e-4);
    if (!frame) return NOT_PLAYED;
    return frame.figures.flatMap(({ opacity, matrix = IDENTITY, drawn, parts }) =>
      opacity > 0
        ? parts.flatMap(({ d, fill, stroke }) => {
            const shown = drawn ? Math.min(1, Math.max(0, drawn[1] - drawn[0])) : 1;
            return rowPainted(d, matrix, fill, shown > 0 ? stroke : null, opacity);
          })
        : [],
    );
  };
}

function rowPainted(d: string, matrix: Matrix, fill: unknown, stroke: JsonStroke | null, opacity: number): Painted[] {
  const lines = linesOf(readPathData(d), matrix);
  const colours = (paint: unknown): number[][] => {
    if (typeof paint === 'string') return [cssNumbers(paint, opacity)];
    const { stops } = paint as { stops: readonly { colour: string }[] };
    return stops.map(({ colour }) => cssNumbers(colour, opacity));
  };
  return [
    ...(fill ? [{ kind: 'fill' as const, lines, colours: colours(fill), partly: false }] : []),
    ...(stroke && stroke.strokeWidth > 0
      ? [{ kind: 'stroke' as const, lines, colours: colours(stroke.paint), partly: true }]
      : []),
  ];
}

function cssNumbers(text: string, opacity: number): number[] {
  const c = readColour(text) ?? { r: 0, g: 0, b: 0, alpha: 0 };
  return [c.r, c.g, c.b, c.alpha * opacity];
}

/** Lines of RFC 4180. */
export function csvLines(text: string): string[][] {
  const lines: string[][] = [[]];
  for (const [, quoted, plain, end] of text.matchAll(/(?:"((?:[^"]|"")*)"|([^",\r\n]*))(,|\r\n|$)/g)) {
    lines[lines.length - 1].push(quoted === undefined ? plain : quoted.replace(/""/g, '"'));
    if (end === '\r\n') lines.push([]);
    else if (end === '') break;
  }
  return lines.filter((line) => line.length > 1);
}

function csvFrames(text: string): Seen {
  const [, ...rows] = csvLines(text);
  return (seconds) =>
    rows
      .filter(([, time]) => Math.abs(Number(time) - seconds) < 1e-4)
      .flatMap(([, , , , d, fill, stroke, width, opacity, matrix, drawn]) => {
        const paint = (said: string): unknown => (said[0] === '{' ? JSON.parse(said) : said);
        const map = matrix ? (matrix.split(' ').map(Number) as unknown as Matrix) : IDENTITY;
        const [from = 0, to = 1] = drawn ? drawn.split(' ').map(Number) : [];
        const pen = stroke && to > from ? { paint: paint(stroke), strokeWidth: Number(width) } : null;
        return Number(opacity) > 0 ? rowPainted(d, map, fill && paint(fill), pen, Number(opacity)) : [];
      });
}

/** A clip path over time, as what it leaves to be seen. */
function clipFrames(text: string, compiled: CompiledPiece): Seen {
  const shape = (value: string): Painted[] => {
    const d = /^[Mm]/.test(value)
      ? value
      : (/path\((?:evenodd, )?"([^"]*)"\)/.exec(value)?.[1] ?? shapePath(value, compiled));
    const lines = linesOf(readPathData(d), IDENTITY).filter((line) => line.length > 2);
    return lines.length > 0 ? [{ kind: 'fill', lines, colours: [[0, 0, 0, 1]], partly: false }] : [];
  };
  const still = /clip-path:\s*([^;]*);/.exec(text)?.[1] ?? '';
  const body = /@keyframes [\w-]+ \{((?:[^{}]*\{[^{}]*\})*)/.exec(text)?.[1];
  if (body === undefined) return () => shape(still);
  const { duration, playback, stretch } = compiled;
  const { property: _property, ...frames } = readKeyframes(body);
  const track = piecewise({
    ...frames,
    begin: 0,
    duration: playback === 'stretch' ? stretch[1] : duration,
    repeats: false,
  });
  return (seconds) => shape(track(seconds <= duration ? seconds : 2 * duration - seconds));
}

/** Texts of several structures in a row: each two keys are a track of their own. */
function piecewise(track: Parameters<typeof readyTrack>[0]): (seconds: number) => string {
  const { times, values, splines, duration } = track;
  return (seconds) => {
    const share = Math.min(1, seconds / duration);
    let k = 0;
    while (k + 2 < times.length && times[k + 1] <= share) k++;
    const pair = {
      ...track,
      times: [0, 1],
      values: [values[k], values[k + 1] ?? values[k]],
      splines: splines[k] ? [splines[k]] : [],
    };
    const inside = times[k + 1] > times[k] ? (share - times[k]) / (times[k + 1] - times[k]) : 0;
    return trackValue(readyTrack({ ...pair, begin: 0, duration: 1 }), Math.min(1, Math.max(0, inside))) ?? values[k];
  };
}

/** A shape() in percent as path data in px of the canvas. */
function shapePath(value: string, { width, height }: CompiledPiece): string {
  const inside = /shape\((.*)\)$/.exec(value)?.[1] ?? '';
  const point = (text: string): string => {
    const [x, y] = text.trim().split(' ').map(Number.parseFloat);
    return `${(x * width) / 100} ${(y * height) / 100}`;
  };
  return inside
    .replace(/^evenodd /, '')
    .split(',')
    .map((command) => {
      const text = command.trim();
      if (text === 'close') return 'Z';
      const curve = /^curve to (.*) with (.*) \/ (.*)$/.exec(text);
      if (curve) return `C${point(curve[2])} ${point(curve[3])} ${point(curve[1])}`;
      return `M${point(text.replace(/^(?:from|move to) /, ''))}`;
    })
    .join('');
}
