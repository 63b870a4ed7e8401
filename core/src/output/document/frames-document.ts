import { CoreError } from '../../errors';
import { hexText, readColour } from '../../paint';
import { numberText, readPathData } from '../../svg';
import type { AnimatedDocument, DrawnElement, Track } from './animated-document';
import { isObject, type Json, number, numbers, objects } from './lottie-value';

const FRAMES_BYTE_LIMIT = 60 * 1024 * 1024;
const MOST_ROWS = 400_000;
const DIGITS = 6;

/** A painted part of a figure in one frame, as tables say it. */
interface Row {
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

interface Table {
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
export function readFrameJson(text: string): AnimatedDocument {
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
  return documentOf({
    width: number(canvas.width, 300),
    height: number(canvas.height, 300),
    fps: number(canvas.fps, 60),
    frames: frames.length,
    background,
    rows,
  });
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
export function readFrameCsv(text: string): AnimatedDocument {
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
  return documentOf({ width, height, fps, frames, background: [], rows });
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

/** A part of a figure as long as its outline is built alike: frame by frame. */
interface Run {
  readonly part: number;
  readonly kind: string;
  readonly rows: Row[];
}

/** A table as a drawing: a group for each figure, a path for each part as long as it is built alike. */
function documentOf(table: Table): AnimatedDocument {
  const { width, height, fps, rows } = table;
  if (rows.length > MOST_ROWS)
    throw new CoreError('svg-too-complex', `Expected at most ${MOST_ROWS} parts of frames; found more.`);
  const notes = new Set<string>();
  const frames = Math.max(1, table.frames);
  const duration = frames / fps;
  const figures = new Map<string, Row[]>();
  for (const row of rows) {
    const known = figures.get(row.figure);
    if (known) known.push(row);
    else figures.set(row.figure, [row]);
  }
  const builder = new FrameBuilder(frames, duration, notes);
  const groups = [...figures].map(([name, own]) => builder.figure(name, own, figures));
  const ground = builder.ground(table);
  const root = element('svg', { width: String(width), height: String(height), viewBox: `0 0 ${width} ${height}` }, [
    element('defs', {}, builder.defs),
    ...ground,
    ...groups,
  ]);
  return { root, notes: [...notes], rate: fps, run: { duration, playback: 'loop', from: 0 } };
}

class FrameBuilder {
  readonly defs: DrawnElement[] = [];
  private readonly clips = new Map<string, string>();
  private ids = 0;

  constructor(
    private readonly frames: number,
    private readonly duration: number,
    private readonly notes: Set<string>,
  ) {}

  ground({ width, height, background }: Table): DrawnElement[] {
    const [first] = background;
    if (!first) return [];
    const { attributes, tracks } = this.said({ width: String(width), height: String(height) }, 0, [
      ['fill', background.map((colour) => colour ?? first)],
    ]);
    return [element('rect', attributes, [], tracks)];
  }

  figure(name: string, rows: readonly Row[], all: ReadonlyMap<string, readonly Row[]>): DrawnElement {
    const runs = runsOf(rows);
    const paths = runs.map((run) => this.path(run));
    const [{ frame: begin }] = rows;
    const one = [...new Map(rows.map((row) => [row.frame, row])).values()];
    const { attributes, tracks } = this.said({ id: name }, begin, [
      ['opacity', one.map(({ opacity }) => numberText(opacity, DIGITS))],
      ...(one.some(({ matrix }) => matrix)
        ? [['transform', one.map(({ matrix }) => `matrix(${matrix || '1 0 0 1 0 0'})`)] as const]
        : []),
    ]);
    let group = element('g', attributes, paths, tracks);
    if (one.some(({ softness }) => softness > 0)) {
      const id = `soft-${++this.ids}`;
      const blur = this.said({}, begin, [['stdDeviation', one.map(({ softness }) => numberText(softness, DIGITS))]]);
      this.defs.push(element('filter', { id }, [element('feGaussianBlur', blur.attributes, [], blur.tracks)]));
      group = element('g', { id: name, filter: `url(#${id})` }, [group]);
    }
    const [{ inside }] = rows;
    if (!inside) return group;
    const clip = this.clip(inside, all);
    return clip ? element('g', { id: name, 'clip-path': clip }, [group]) : group;
  }

  private clip(name: string, all: ReadonlyMap<string, readonly Row[]>): string | null {
    const known = this.clips.get(name);
    if (known) return known;
    const rows = all.get(name);
    if (!rows) {
      this.notes.add(`“${name.slice(0, 60)}”, inside which others are seen, is not in the table: they are seen whole.`);
      return null;
    }
    const id = `inside-${++this.ids}`;
    this.clips.set(name, `url(#${id})`);
    const group = this.figure(
      name,
      rows.map((row) => ({ ...row, inside: '', softness: 0 })),
      all,
    );
    this.defs.push(element('clipPath', { id }, [group]));
    return `url(#${id})`;
  }

  private path({ rows }: Run): DrawnElement {
    const [first] = rows;
    const last = rows[rows.length - 1];
    const paints: (readonly [string, readonly string[]])[] = [];
    const attributes: Record<string, string> = { 'fill-rule': first.fillRule };
    for (const name of ['fill', 'stroke'] as const) {
      const values = rows.map((row) => row[name]);
      if (isObject(values[0]))
        attributes[name] = this.gradient(
          values.map((value) => (isObject(value) ? value : {})),
          first.frame,
        );
      else paints.push(...colourTexts(name, values));
    }
    const pen = (name: string, otherwise: string): readonly string[] =>
      rows.map(
        (row) =>
          (Array.isArray(row.pen[name]) ? numbers(row.pen[name]).join(' ') : String(row.pen[name] ?? otherwise)) ||
          'none',
      );
    const drawn = rows.some((row) => row.drawn);
    if (drawn) attributes.pathLength = '1';
    const share = (row: Row): number => Math.min(1, Math.max(0, (row.drawn?.[1] ?? 1) - (row.drawn?.[0] ?? 0)));
    const { attributes: said, tracks } = this.said(attributes, first.frame, [
      ['d', rows.map(({ d }) => d)],
      ...paints,
      ...(first.stroke === null
        ? []
        : ([
            ['stroke-width', rows.map(({ strokeWidth }) => numberText(strokeWidth, DIGITS))],
            ['stroke-linecap', pen('cap', 'round')],
            ['stroke-linejoin', pen('join', 'round')],
            ['stroke-miterlimit', pen('miter', '4')],
            [
              'stroke-dasharray',
              drawn
                ? rows.map((row) => `${numberText(share(row), DIGITS)} ${numberText(ROUND - share(row), DIGITS)}`)
                : pen('dash', 'none'),
            ],
            [
              'stroke-dashoffset',
              drawn
                ? rows.map(({ drawn: now }) => numberText(-ROUND * ((now?.[0] ?? 0) + (now?.[2] ?? 0)), DIGITS))
                : pen('dashOffset', '0'),
            ],
          ] as const)),
    ]);
    const [from, until] = [first.frame / this.frames, (last.frame + 1) / this.frames];
    if (from > 0 || until < 1)
      tracks.push({
        ...this.whole,
        attribute: 'display',
        jumps: true,
        times: [0, from, until],
        values: [from > 0 ? 'none' : 'inline', 'inline', 'none'],
        splines: [],
      });
    return element('path', said, [], tracks);
  }

  private gradient(values: readonly Json[], begin: number): string {
    const id = `paint-${++this.ids}`;
    const [first] = values;
    const geometry = (i: number): string[] =>
      values.map(({ geometry: own }) => numberText(numbers(own)[i] ?? 0, DIGITS));
    const stops = objects(first.stops).map((_, i) => {
      const own = values.map(({ stops: list }) => objects(list)[i] ?? {});
      const { attributes, tracks } = this.said({}, begin, [
        ['offset', own.map(({ at }) => numberText(number(at), DIGITS))],
        ...colourTexts(
          'stop',
          own.map(({ colour }) => colour ?? '#000000'),
        ),
      ]);
      return element('stop', attributes, [], tracks);
    });
    const linear = first.kind === 'linear';
    const { attributes, tracks } = this.said(
      linear
        ? { id, gradientUnits: 'userSpaceOnUse' }
        : { id, gradientUnits: 'userSpaceOnUse', cx: '0', cy: '0', r: '1' },
      begin,
      linear
        ? [
            ['x1', geometry(0)],
            ['y1', geometry(1)],
            ['x2', geometry(2)],
            ['y2', geometry(3)],
          ]
        : [
            [
              'gradientTransform',
              values.map(({ geometry: own }) => {
                const [cx = 0, cy = 0, rx = 1, ry = 1, turn = 0] = numbers(own);
                return `translate(${cx} ${cy}) rotate(${turn}) scale(${rx} ${ry})`;
              }),
            ],
            ['fx', geometry(5)],
            ['fy', geometry(6)],
          ],
    );
    this.defs.push(element(linear ? 'linearGradient' : 'radialGradient', attributes, stops, tracks));
    return `url(#${id})`;
  }

  /** Attributes by their values from a frame on: what changes is a track with a key at each frame. */
  private said(
    still: Readonly<Record<string, string>>,
    begin: number,
    moving: readonly (readonly [string, readonly string[]])[],
  ): { attributes: Record<string, string>; tracks: Track[] } {
    const attributes: Record<string, string> = { ...still };
    const tracks: Track[] = [];
    for (const [attribute, values] of moving) {
      attributes[attribute] = values[0];
      if (values.every((value) => value === values[0])) continue;
      // Between two frames it goes on evenly; after the last it stands.
      const times = values.map((_, k) => (begin + k) / this.frames);
      tracks.push({
        ...this.whole,
        attribute,
        jumps: false,
        times: times[0] > 0 ? [0, ...times] : times,
        values: times[0] > 0 ? [values[0], ...values] : values,
        splines: [],
      });
    }
    return { attributes, tracks };
  }

  private get whole(): Pick<Track, 'begin' | 'duration' | 'repeats'> {
    return { begin: 0, duration: this.duration, repeats: true };
  }
}

/** A drawn stretch comes again after a little more than the whole length. */
const ROUND = 1.001;

/** Rows of a figure by part, as long as the outline is built alike and frames follow each other; in painting order of the first frame in which they are. */
function runsOf(rows: readonly Row[]): Run[] {
  const runs: Run[] = [];
  const open = new Map<number, Run>();
  for (const row of rows) {
    const kind = kindOf(row);
    const before = open.get(row.part);
    const last = before?.rows[before.rows.length - 1];
    if (before && last && before.kind === kind && row.frame === last.frame + 1) {
      before.rows.push(row);
      continue;
    }
    const run: Run = { part: row.part, kind, rows: [row] };
    open.set(row.part, run);
    runs.push(run);
  }
  return runs.sort((p, q) => p.part - q.part || p.rows[0].frame - q.rows[0].frame);
}

/** What is equal in all frames that can be mixed: the commands of the path, and the kinds of paint. */
function kindOf({ d, fill, stroke, fillRule }: Row): string {
  const paint = (value: unknown): string =>
    isObject(value) ? `${value.kind}${objects(value.stops).length}` : value === null ? 'none' : 'colour';
  return `${d.replace(/[^a-z]+/gi, '')} ${fillRule} ${paint(fill)} ${paint(stroke)}`;
}

/** Colours as #rrggbb, which can be mixed, and their alphas apart. */
function colourTexts(
  name: 'fill' | 'stroke' | 'stop',
  values: readonly unknown[],
): (readonly [string, readonly string[]])[] {
  const colours = values.map((value) => (typeof value === 'string' ? readColour(value) : undefined));
  const said = colours.map((colour) => (colour ? hexText(colour) : 'none'));
  const alphas = colours.map((colour) => numberText(colour?.alpha ?? 1, DIGITS));
  return [
    [name === 'stop' ? 'stop-color' : name, said],
    [`${name}-opacity`, alphas],
  ];
}

const element = (
  name: string,
  attributes: Readonly<Record<string, string>>,
  children: readonly DrawnElement[],
  tracks: readonly Track[] = [],
): DrawnElement => ({ name, attributes, children, tracks, text: '' });
