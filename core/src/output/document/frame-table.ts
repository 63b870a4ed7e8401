import { CoreError } from '../../errors';
import { readPathData } from '../../svg';
import { isObject, type Json, number, numbers, objects } from './json';

/** Longest table of frames. */
export const FRAMES_BYTE_LIMIT = 60 * 1024 * 1024;
/** As many lines as a table may have. */
export const MOST_ROWS = 400_000;

/** A painted part of a figure in one frame, as tables say it. */
export interface Row {
  readonly frame: number;
  readonly figure: string;
  readonly part: number;
  readonly d: string;
  readonly fillRule: string;
  readonly fill: unknown;
  readonly stroke: unknown;
  readonly strokeWidth: number;
  /** Further attributes of the stroke. */
  readonly pen: Json;
  readonly opacity: number;
  readonly matrix: string;
  readonly inside: string;
  readonly softness: number;
  readonly drawn: readonly number[] | null;
}

/** Path data by frame. */
export interface Table {
  readonly width: number;
  readonly height: number;
  readonly fps: number;
  readonly frames: number;
  readonly background: readonly (string | null)[];
  readonly rows: readonly Row[];
}

/**
 * Reads path data by frame as JSON, as this program writes it: `canvas` with width, height, fps, and `frames` with figures and their parts.
 * @throws CoreError 'json-syntax', 'file-too-large', 'svg-too-complex'
 */
export function readFrameTableJson(text: string): Table {
  if (text.length > FRAMES_BYTE_LIMIT)
    throw new CoreError('file-too-large', `Expected a table of at most ${FRAMES_BYTE_LIMIT / 1024 / 1024} MB.`);
  let file: unknown;
  try {
    file = JSON.parse(text);
  } catch (error) {
    throw new CoreError('json-syntax', `Expected frames in JSON; they cannot be read: ${(error as Error).message}.`);
  }
  if (!isObject(file) || !isObject(file.canvas) || !Array.isArray(file.frames))
    throw new CoreError('json-syntax', 'Expected JSON with “canvas” and “frames”; found something else.');
  const { canvas } = file;
  const frames = objects(file.frames);
  const rows = frames.flatMap((frame, k) =>
    objects(frame.figures).flatMap((figure) =>
      objects(figure.parts).map((part, i): Row => {
        const pen = isObject(part.stroke) ? part.stroke : {};
        return {
          frame: k,
          figure: String(figure.figure ?? 'Figure'),
          part: i,
          d: String(part.d ?? ''),
          fillRule: part.fillRule === 'evenodd' ? 'evenodd' : 'nonzero',
          fill: part.fill ?? null,
          stroke: pen.paint ?? null,
          strokeWidth: number(pen.strokeWidth),
          pen,
          opacity: number(figure.opacity, 1),
          matrix: Array.isArray(figure.matrix) ? numbers(figure.matrix).join(' ') : '',
          inside: typeof figure.inside === 'string' ? figure.inside : '',
          softness: number(figure.softness),
          drawn: Array.isArray(figure.drawn) ? numbers(figure.drawn) : null,
        };
      }),
    ),
  );
  const background = frames.map((frame) => {
    const own = frame.background ?? canvas.background;
    return typeof own === 'string' ? own : null;
  });
  return {
    width: number(canvas.width, 300),
    height: number(canvas.height, 300),
    fps: number(canvas.fps, 60),
    frames: frames.length,
    background,
    rows,
  };
}

const COLUMNS = [
  'frame',
  'time',
  'figure',
  'part',
  'd',
  'fill',
  'stroke',
  'strokeWidth',
  'opacity',
  'matrix',
  'drawn',
] as const;

/**
 * Reads path data by frame as a table (RFC 4180) with a line of names, as this program writes it. It does not say how large the canvas is: that is as large as what is drawn.
 * @throws CoreError 'table-syntax', 'file-too-large', 'svg-too-complex'
 */
export function readFrameTableCsv(text: string): Table {
  if (text.length > FRAMES_BYTE_LIMIT)
    throw new CoreError('file-too-large', `Expected a table of at most ${FRAMES_BYTE_LIMIT / 1024 / 1024} MB.`);
  const [head = [], ...lines] = cellsOf(text);
  const at = Object.fromEntries(COLUMNS.map((name) => [name, head.indexOf(name)])) as Record<
    (typeof COLUMNS)[number],
    number
  >;
  const missing = (['frame', 'time', 'd'] as const).filter((name) => at[name] < 0);
  if (missing.length > 0)
    throw new CoreError(
      'table-syntax',
      `Expected a table with columns frame, time and d; ${missing.join(', ')} is missing.`,
    );
  const cell = (line: readonly string[], name: (typeof COLUMNS)[number]): string => line[at[name]] ?? '';
  const paint = (value: string): unknown => {
    if (!value.startsWith('{')) return value || null;
    try {
      return JSON.parse(value);
    } catch {
      return null;
    }
  };
  const rows = lines.map((line, i): Row => {
    const frame = Number(cell(line, 'frame'));
    if (!Number.isInteger(frame) || frame < 0)
      throw new CoreError(
        'table-syntax',
        `Expected the number of a frame in line ${i + 2}; found “${cell(line, 'frame').slice(0, 24)}”.`,
      );
    const drawn = cell(line, 'drawn');
    return {
      frame,
      figure: cell(line, 'figure') || 'Figure',
      part: Number(cell(line, 'part')) || 0,
      d: cell(line, 'd'),
      fillRule: 'nonzero',
      fill: paint(cell(line, 'fill')),
      stroke: paint(cell(line, 'stroke')),
      strokeWidth: Number(cell(line, 'strokeWidth')) || 0,
      pen: {},
      opacity: cell(line, 'opacity') === '' ? 1 : Number(cell(line, 'opacity')) || 0,
      matrix: cell(line, 'matrix'),
      inside: '',
      softness: 0,
      drawn: drawn ? drawn.split(' ').map(Number) : null,
    };
  });
  const times = lines.map((line) => Number(cell(line, 'time')));
  const frames = rows.reduce((most, { frame }) => Math.max(most, frame + 1), 0);
  const second = rows.findIndex(({ frame }, i) => frame > 0 && times[i] > 0);
  const fps = second < 0 ? 60 : rows[second].frame / times[second];
  const [width, height] = extentOf(rows);
  return { width, height, fps, frames, background: [], rows };
}

/** Cells of a table, line by line; quotes double inside quotes. */
function cellsOf(text: string): string[][] {
  const lines: string[][] = [];
  let line: string[] = [];
  let at = 0;
  while (at < text.length) {
    let value = '';
    if (text[at] === '"') {
      at++;
      for (;;) {
        const end = text.indexOf('"', at);
        if (end < 0) throw new CoreError('table-syntax', 'Expected every quote to be closed; one is not.');
        value += text.slice(at, end);
        at = end + 1;
        if (text[at] !== '"') break;
        value += '"';
        at++;
      }
    } else {
      const end = /[,\r\n]/g;
      end.lastIndex = at;
      const stop = end.exec(text)?.index ?? text.length;
      value = text.slice(at, stop);
      at = stop;
    }
    line.push(value);
    if (text[at] === ',') {
      at++;
      if (at === text.length) line.push('');
      continue;
    }
    while (text[at] === '\r' || text[at] === '\n') at++;
    lines.push(line);
    if (lines.length > MOST_ROWS)
      throw new CoreError('svg-too-complex', `Expected at most ${MOST_ROWS} lines; found more.`);
    line = [];
  }
  return lines;
}

function extentOf(rows: readonly Row[]): [number, number] {
  let [right, bottom] = [1, 1];
  for (const { d, matrix } of rows) {
    const [a, b, c, e, x, y] = matrix ? matrix.split(' ').map(Number) : [1, 0, 0, 1, 0, 0];
    for (const { points } of readPathData(d).contours)
      for (let i = 0; i < points.length; i += 6) {
        right = Math.max(right, a * points[i] + c * points[i + 1] + x);
        bottom = Math.max(bottom, b * points[i] + e * points[i + 1] + y);
      }
  }
  return [Math.ceil(right), Math.ceil(bottom)];
}
