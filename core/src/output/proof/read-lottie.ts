import { IDENTITY, type Matrix, multiply } from '../../vec';
import { isObject, type Json, number, numbers, objects, scalar } from '../document/json';
import { outlineOf, readLottieFile, valueAt } from '../document/lottie-value';
import { linesOf, type Painted } from './painted';

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

/**
 * Reads a Lottie file.
 * @throws CoreError 'file-too-large', 'json-syntax'
 */
export function readLottieDrawing(text: string): LottieDrawing {
  const file = readLottieFile(text);
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
  // Its skew is the other way round, along a level axis: so this program writes it.
  const lean = Math.tan((-scalar(valueAt(ks.sk, frame)) * Math.PI) / 180);
  const turned = multiply([cos, sin, -sin, cos, px, py], [sx / 100, 0, lean * (sy / 100), sy / 100, 0, 0]);
  const o = valueAt(ks.o, frame);
  return { map: multiply(turned, [1, 0, 0, 1, -ax, -ay]), opacity: o === undefined ? 1 : scalar(o) / 100 };
}
