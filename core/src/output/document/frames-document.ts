import { CoreError } from '../../errors';
import { DRAWN_ROUND, SVG_STEPS, type SvgStep } from '../../lane';
import { hexText, readColour } from '../../paint';
import { numberText } from '../../svg';
import type { DrawnElement, Track } from '../tree/drawn-element';
import type { AnimatedDocument } from './animated-document';
import { MOST_ROWS, type Row, readFrameTableCsv, readFrameTableJson, type Table } from './frame-table';
import { isObject, type Json, number, numbers, objects } from './json';

const DIGITS = 6;

/** Path data by frame as JSON, as a drawing. @throws CoreError as `readFrameTableJson` */
export const readFrameJson = (text: string): AnimatedDocument => documentOf(readFrameTableJson(text));

/** Path data by frame as a table, as a drawing. @throws CoreError as `readFrameTableCsv` */
export const readFrameCsv = (text: string): AnimatedDocument => documentOf(readFrameTableCsv(text));

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
    ]);
    if (one.some(({ matrix }) => matrix)) this.move(one, begin, attributes, tracks);
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

  /** A figure's maps: steps of a transform where they have no slant, so that between two frames it goes on turning; else as they are. */
  private move(rows: readonly Row[], begin: number, attributes: Record<string, string>, tracks: Track[]): void {
    const maps = rows.map(({ matrix }) => (matrix || '1 0 0 1 0 0').split(' ').map(Number));
    const steps = stepsOfMaps(maps);
    if (!steps) {
      const said = this.said({}, begin, [['transform', maps.map((map) => `matrix(${map.join(' ')})`)]]);
      Object.assign(attributes, said.attributes);
      tracks.push(...said.tracks);
      return;
    }
    steps.forEach(([type, values], i) => {
      const [track] = this.said({}, begin, [['transform', values]]).tracks;
      const still = {
        ...this.whole,
        attribute: 'transform',
        jumps: false,
        times: [0],
        values: [values[0]],
        splines: [],
      };
      tracks.push({ ...(track ?? still), step: { type, sum: i > 0 } });
    });
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
                ? rows.map((row) => `${numberText(share(row), DIGITS)} ${numberText(DRAWN_ROUND - share(row), DIGITS)}`)
                : pen('dash', 'none'),
            ],
            [
              'stroke-dashoffset',
              drawn
                ? rows.map(({ drawn: now }) => numberText(-DRAWN_ROUND * ((now?.[0] ?? 0) + (now?.[2] ?? 0)), DIGITS))
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

/** Less than this is no lean, degrees; more than that is none that can be told. */
const LEAST_SKEW = 0.06;
const STEEPEST = 85;

/** Maps as what moves, turns (as far as it did, round after round), leans and grows; null where one of them is as good as a line. */
function stepsOfMaps(maps: readonly (readonly number[])[]): [SvgStep, string[]][] | null {
  let turn = 0;
  const text = (...values: number[]): string => values.map((v) => numberText(v, 9)).join(' ');
  const found = maps.map(([a, b, c, d, x, y]) => {
    const [sx, sy] = [Math.hypot(a, b), Math.hypot(c, d)];
    const area = a * d - b * c;
    const skew = (Math.atan2(a * c + b * d, Math.abs(area)) * 180) / Math.PI;
    if (Math.abs(skew) > STEEPEST) return null;
    if (sx > 0) {
      const angle = (Math.atan2(b, a) * 180) / Math.PI;
      turn = angle + 360 * Math.round((turn - angle) / 360);
    }
    const mirrored = area < 0 ? -1 : 1;
    // Of what leans the height is what its area has, and it leans the other way where it is mirrored.
    const leans = Math.abs(skew) > LEAST_SKEW;
    const height = leans && sx > 0 ? area / sx : mirrored * sy;
    return [text(x, y), text(turn), text(leans ? mirrored * skew : 0), text(sx, height)];
  });
  if (found.some((each) => each === null)) return null;
  const steps = SVG_STEPS.map((type, i): [SvgStep, string[]] => [type, found.map((each) => (each as string[])[i])]);
  return steps.filter(([type, values]) => type !== 'skewX' || values.some((value) => value !== '0'));
}

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
