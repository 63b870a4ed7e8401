import {
  type CompiledPiece,
  type Frame,
  type FramePart,
  isVanished,
  motionMatrix,
  type PaintSample,
  prepareFrame,
  runLength,
  sampleFrame,
} from '../frame';
import { PROPERTIES, type Property, STROKE_PROPERTIES } from '../lane';
import { cssText } from '../paint';
import { cubicText, numberText } from '../svg';
import { figureNames } from './figure-names';

export interface FrameDataOptions {
  /** Frames per second; left out: the piece's own. */
  readonly fps?: number;
  /** Decimals of coordinates, 0 to 6. Default 2. */
  readonly digits?: number;
}

/** The most frames that one file may have. */
export const MOST_FRAMES = 36_000;

const countOfFrames = (compiled: CompiledPiece, fps: number): number =>
  Math.max(1, Math.ceil(runLength(compiled) * fps - 1e-6));

/** When the frames of one run are, s: one at 0, then one each 1/fps, all before its end. */
export const frameTimes = (compiled: CompiledPiece, fps = compiled.rate): number[] =>
  Array.from({ length: countOfFrames(compiled, fps) }, (_, k) => k / fps);

/** A painted part of a figure in one frame. */
interface FrameRow {
  readonly figure: string;
  readonly part: number;
  readonly d: string;
  readonly fillRule: string;
  readonly fill: unknown;
  readonly stroke: unknown;
}

/**
 * The path data of each part of each figure, frame by frame, as JSON: absolute cubics in px of the canvas before the figure's motion, which stands beside them as a
 * matrix. Paints are colours of CSS, or gradients with their numbers.
 *
 * @throws RangeError for more frames than a file may have
 */
export function writeFrameJson(compiled: CompiledPiece, options: FrameDataOptions = {}): string {
  const { digits = 2, fps = compiled.rate } = options;
  const names = figureNames(compiled.figures);
  const frames = rowsOf(compiled, fps, (frame, seconds) => ({
    time: round(seconds),
    ...(frame.ground && { background: colourText(frame.ground) }),
    figures: frame.figures.flatMap((figure, f) =>
      figure.hidden
        ? []
        : [
            {
              figure: names[f],
              opacity: round(figure.opacity[0]),
              ...(figure.motion && { matrix: motionMatrix(figure.motion).map(round) }),
              ...(figure.clip >= 0 && { inside: names[figure.clip] }),
              ...(figure.over?.softness && { softness: round(figure.over.softness[0]) }),
              ...(figure.over?.drawn && { drawn: Array.from(figure.over.drawn, round) }),
              parts: partRows(figure.parts, names[f], digits, figure.over).map(
                ({ figure: _figure, part: _part, ...row }) => row,
              ),
            },
          ],
    ),
  }));
  const { width, height, background } = compiled;
  const head = { width, height, fps: round(fps), length: round(runLength(compiled)), background };
  // A frame a line: it can be read by line, and compared.
  const lines = frames.map((frame) => JSON.stringify(frame)).join(',\n');
  return `{"canvas":${JSON.stringify(head)},\n"frames":[\n${lines}\n]}\n`;
}

/** The same as a table, a line for each part of each frame, by RFC 4180: frame, time, figure, part, d, fill, stroke, stroke width, opacity, matrix, drawn part (from, to, along). */
export function writeFrameCsv(compiled: CompiledPiece, options: FrameDataOptions = {}): string {
  const { digits = 2, fps = compiled.rate } = options;
  const names = figureNames(compiled.figures);
  const lines = rowsOf(compiled, fps, (frame, seconds, k) =>
    frame.figures.flatMap((figure, f) =>
      figure.hidden
        ? []
        : partRows(figure.parts, names[f], digits, figure.over).map(({ part, d, fill, stroke }) => {
            const pen = stroke as { paint: unknown; strokeWidth: number } | null;
            const matrix = figure.motion ? motionMatrix(figure.motion).map(round).join(' ') : '';
            return [
              k,
              round(seconds),
              names[f],
              part,
              d,
              said(fill),
              said(pen?.paint),
              pen?.strokeWidth ?? '',
              round(figure.opacity[0]),
              matrix,
              figure.over?.drawn ? Array.from(figure.over.drawn, round).join(' ') : '',
            ];
          }),
    ),
  ).flat();
  const table = [
    ['frame', 'time', 'figure', 'part', 'd', 'fill', 'stroke', 'strokeWidth', 'opacity', 'matrix', 'drawn'],
    ...lines,
  ];
  return table.map((line) => `${line.map(cell).join(',')}\r\n`).join('');
}

function rowsOf<T>(compiled: CompiledPiece, fps: number, each: (frame: Frame, seconds: number, k: number) => T): T[] {
  if (!(fps > 0 && fps <= 1000)) throw new RangeError(`Expected up to 1000 frames per second; found ${fps}.`);
  // Counted before anything is laid out: an hour at a thousand a second would not fit into memory.
  const count = countOfFrames(compiled, fps);
  if (count > MOST_FRAMES) throw new RangeError(`Expected at most ${MOST_FRAMES} frames; found ${count}.`);
  const frame = prepareFrame(compiled);
  return frameTimes(compiled, fps).map((seconds, k) => each(sampleFrame(compiled, seconds, frame), seconds, k));
}

const round = (value: number): number => Number(numberText(value, 6));
const colourText = (c: ArrayLike<number>): string => cssText(c[0], c[1], c[2], c[3]);
const said = (value: unknown): string => (typeof value === 'string' ? value : value ? JSON.stringify(value) : '');
const cell = (value: unknown): string => {
  const text = String(value);
  return /[",\r\n]/.test(text) ? `"${text.replace(/"/g, '""')}"` : text;
};

const partRows = (
  parts: readonly FramePart[],
  figure: string,
  digits: number,
  over: Frame['figures'][number]['over'],
): FrameRow[] =>
  parts.flatMap((part, i) => {
    const d = pathOf(part, digits);
    if (d === '') return [];
    const { stroke } = part;
    return [
      {
        figure,
        part: i,
        d,
        fillRule: part.fillRule,
        fill: part.fill && paintOf(over?.fill ?? part.fill),
        stroke: stroke && {
          paint: paintOf(over?.stroke ?? stroke.paint),
          ...Object.fromEntries(
            STROKE_PROPERTIES.map((id) => {
              const value = id === 'strokeWidth' ? (over?.strokeWidth ?? stroke.values[id]) : stroke.values[id];
              const property: Property = PROPERTIES[id];
              if (property.type === 'choice') return [id, property.texts(value)[0]];
              return [id, id === 'dash' ? Array.from(value, round) : round(value[0])];
            }),
          ),
        },
      },
    ];
  });

function paintOf({ colour, gradient }: PaintSample): unknown {
  if (!gradient) return colourText(colour);
  const { kind, geometry, at, colours } = gradient;
  return {
    kind,
    geometry: Array.from(geometry.subarray(0, kind === 'linear' ? 4 : 7), round),
    stops: Array.from(at, (share, i) => ({ at: round(share), colour: colourText(colours.subarray(4 * i, 4 * i + 4)) })),
  };
}

function pathOf(part: FramePart, digits: number): string {
  const { points: p } = part;
  let d = '';
  for (const contour of part.contours) {
    if (isVanished(contour, part.progress)) continue;
    d += `M${numberText(p[contour.at], digits)} ${numberText(p[contour.at + 1], digits)}`;
    for (let k = 0; k < contour.segments; k++) d += cubicText(p, contour.at + 6 * k, digits);
    if (contour.closed) d += 'Z';
  }
  return d;
}
