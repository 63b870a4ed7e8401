import { CoreError } from '../../errors';
import type { Outline } from '../../outline';
import { IDENTITY, type Matrix, multiply } from '../../vec';
import { splineValue } from '../runtime/track-value';
import { linesOf, type Painted } from './painted';

/** JSON of unknown kind: every field is looked at before it is used. */
type Json = Readonly<Record<string, unknown>>;

const isObject = (value: unknown): value is Json =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const objects = (value: unknown): Json[] => (Array.isArray(value) ? value.filter(isObject) : []);
const number = (value: unknown, otherwise = 0): number =>
  typeof value === 'number' && Number.isFinite(value) ? value : otherwise;
const MOST_DEPTH = 32;

/** A stretch shorter than this share of its line is not drawn. */
const LEAST_PERCENT = 1e-3;

/** A Lottie file, as far as outlines, paints and transforms go. */
export interface LottieDrawing {
  readonly width: number;
  readonly height: number;
  readonly rate: number;
  /** Frames. */
  readonly length: number;
  readonly file: Json;
}

export const LOTTIE_BYTE_LIMIT = 40 * 1024 * 1024;

/**
 * Reads a Lottie file.
 * @throws CoreError 'file-too-large', 'json-syntax', 'svg-too-complex'
 */
export function readLottieDrawing(text: string): LottieDrawing {
  if (text.length > LOTTIE_BYTE_LIMIT)
    throw new CoreError('file-too-large', `Expected a Lottie file of at most ${LOTTIE_BYTE_LIMIT / 1024 / 1024} MB.`);
  let file: unknown;
  try {
    file = JSON.parse(text);
  } catch (error) {
    throw new CoreError(
      'json-syntax',
      `Expected a Lottie file in JSON; it cannot be read: ${(error as Error).message}.`,
    );
  }
  if (!isObject(file) || !Array.isArray(file.layers) || !(number(file.fr) > 0))
    throw new CoreError('json-syntax', 'Expected a Lottie file with layers and a frame rate; found something else.');
  return {
    width: number(file.w),
    height: number(file.h),
    rate: number(file.fr),
    length: number(file.op) - number(file.ip),
    file,
  };
}

/** What a Lottie file paints at a frame, in painting order; what is only a matte for others is left out. */
export function paintedOfLottie({ file }: LottieDrawing, frame: number): Painted[] {
  const assets = new Map(objects(file.assets).map((asset) => [String(asset.id), asset]));
  return paintLayers(objects(file.layers), frame, IDENTITY, 1, assets, 0);
}

function paintLayers(
  layers: readonly Json[],
  frame: number,
  matrix: Matrix,
  opacity: number,
  assets: ReadonlyMap<string, Json>,
  depth: number,
): Painted[] {
  if (depth > MOST_DEPTH) return [];
  return [...layers].reverse().flatMap((layer): Painted[] => {
    const seen = frame >= number(layer.ip) && frame < number(layer.op);
    if (!seen || layer.hd === true || layer.td === 1) return [];
    const { map, opacity: own } = transformAt(isObject(layer.ks) ? layer.ks : {}, frame);
    const [inner, thin] = [multiply(matrix, map), opacity * own];
    if (layer.ty === 0) {
      const asset = assets.get(String(layer.refId));
      return asset ? paintLayers(objects(asset.layers), frame, inner, thin, assets, depth + 1) : [];
    }
    return layer.ty === 4 ? paintShapes(objects(layer.shapes), frame, inner, thin, depth) : [];
  });
}

/** Items of a group, the topmost first: paths are painted by the styles that come after them. */
function paintShapes(items: readonly Json[], frame: number, above: Matrix, thin: number, depth: number): Painted[] {
  if (depth > MOST_DEPTH) return [];
  const transform = items.find(({ ty }) => ty === 'tr');
  const { map, opacity } = transform ? transformAt(transform, frame) : { map: IDENTITY, opacity: 1 };
  const matrix = multiply(above, map);
  const painted: Painted[][] = [];
  const lines: Float64Array[] = [];
  let partly = false;
  for (const item of items) {
    if (item.hd === true) continue;
    if (item.ty === 'gr') painted.push(paintShapes(objects(item.it), frame, matrix, thin * opacity, depth + 1));
    else if (item.ty === 'sh') lines.push(...linesOf(outlineOf(valueAt(item.ks, frame)), matrix));
    else if (item.ty === 'tm') {
      partly = true;
      if (Math.abs(scalar(valueAt(item.e, frame)) - scalar(valueAt(item.s, frame))) < LEAST_PERCENT) lines.length = 0;
    } else if (['fl', 'gf', 'st', 'gs'].includes(String(item.ty))) {
      const alpha = (number(scalar(valueAt(item.o, frame)), 100) / 100) * thin * opacity;
      const colours = coloursOf(item, frame).map(([r, g, b, a]) => [r, g, b, a * alpha]);
      const isLine = item.ty === 'st' || item.ty === 'gs';
      const shown = !isLine || scalar(valueAt(item.w, frame)) > 0;
      if (shown && alpha > 0 && lines.length > 0)
        painted.push([{ kind: isLine ? 'stroke' : 'fill', lines: [...lines], colours, partly: isLine || partly }]);
    }
  }
  // The last is painted first.
  return painted.reverse().flat();
}

function coloursOf(item: Json, frame: number): number[][] {
  if (isObject(item.g)) {
    const count = number(item.g.p);
    const all = numbers(valueAt(item.g.k, frame));
    return Array.from({ length: count }, (_, i) => [
      ...all.slice(4 * i + 1, 4 * i + 4),
      all[4 * count + 2 * i + 1] ?? 1,
    ]);
  }
  const [r = 0, g = 0, b = 0] = numbers(valueAt(item.c, frame));
  return [[r, g, b, 1]];
}

function transformAt(ks: Json, frame: number): { map: Matrix; opacity: number } {
  const pair = (value: unknown, otherwise: number): [number, number] => {
    const [x = otherwise, y = otherwise] = numbers(valueAt(value, frame));
    return [x, y];
  };
  const [ax, ay] = pair(ks.a, 0);
  const [px, py] = pair(ks.p, 0);
  const [sx, sy] = pair(ks.s, 100);
  const angle = (scalar(valueAt(ks.r, frame)) * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const turned: Matrix = [cos * (sx / 100), sin * (sx / 100), -sin * (sy / 100), cos * (sy / 100), px, py];
  const o = valueAt(ks.o, frame);
  return { map: multiply(turned, [1, 0, 0, 1, -ax, -ay]), opacity: o === undefined ? 1 : scalar(o) / 100 };
}

const scalar = (value: unknown): number => (Array.isArray(value) ? number(value[0]) : number(value));
const numbers = (value: unknown): number[] =>
  Array.isArray(value) ? value.map((each) => number(each)) : [number(value)];

/** The value of a property at a frame; undefined where there is none. */
export function valueAt(property: unknown, frame: number): unknown {
  if (!isObject(property)) return undefined;
  if (property.a !== 1) return property.k;
  const keys = objects(property.k);
  if (keys.length === 0) return undefined;
  let k = 0;
  while (k + 1 < keys.length && number(keys[k + 1].t) <= frame) k++;
  const [key, next] = [keys[k], keys[k + 1]];
  const at = number(key.t);
  if (!next || key.h === 1 || frame <= at) return key.s;
  const x = (frame - at) / (number(next.t) - at);
  const handle = (side: unknown): [number, number] =>
    isObject(side) ? [scalar(side.x), scalar(side.y)] : [Number.NaN, Number.NaN];
  const spline = [...handle(key.o), ...handle(key.i)];
  const way = spline.every(Number.isFinite) ? splineValue(spline, x) : x;
  return mixed(key.s, next.s, way);
}

function mixed(p: unknown, q: unknown, way: number): unknown {
  if (typeof p === 'number' && typeof q === 'number') return p + (q - p) * way;
  if (Array.isArray(p) && Array.isArray(q)) return p.map((each, i) => mixed(each, q[i], way));
  if (isObject(p) && isObject(q))
    return Object.fromEntries(Object.keys(p).map((key) => [key, mixed(p[key], q[key], way)]));
  return p;
}

/** A shape of the format as an outline. */
export function outlineOf(value: unknown): Outline {
  const shape = Array.isArray(value) ? value[0] : value;
  if (!isObject(shape)) return { fillRule: 'nonzero', contours: [] };
  const list = (key: string): number[][] => (Array.isArray(shape[key]) ? (shape[key] as unknown[]).map(numbers) : []);
  const [v, inward, outward] = [list('v'), list('i'), list('o')];
  const closed = shape.c === true;
  if (v.length === 0) return { fillRule: 'nonzero', contours: [] };
  const count = closed ? v.length : v.length - 1;
  const points = [v[0][0], v[0][1]];
  for (let k = 0; k < count; k++) {
    const [from, to] = [k, (k + 1) % v.length];
    const [ox = 0, oy = 0] = outward[from] ?? [];
    const [ix = 0, iy = 0] = inward[to] ?? [];
    points.push(v[from][0] + ox, v[from][1] + oy, v[to][0] + ix, v[to][1] + iy, v[to][0], v[to][1]);
  }
  return { fillRule: 'nonzero', contours: [{ points: Float64Array.from(points), closed }] };
}
