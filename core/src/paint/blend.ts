import type { Rgba } from './colour';

export const BLEND_SPACES = ['oklab', 'srgb'] as const;
export type BlendSpace = (typeof BLEND_SPACES)[number];

/** Two colours made ready for blending: premultiplied components and alpha of the first, then of the second. */
export interface ColourBlend {
  readonly space: BlendSpace;
  readonly ends: Float64Array;
}

const toLinear = (v: number): number => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4);
const toGamma = (v: number): number => (v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055);

/**
 * Makes a blend of two colours in OKLab (Ottosson: A perceptual color space for image processing, 2020) or sRGB, with premultiplied
 * alpha as CSS Color 4, section 12.3, asks.
 */
export function planColourBlend(from: Rgba, to: Rgba, space: BlendSpace = 'oklab'): ColourBlend {
  const ends = new Float64Array(8);
  writeEnd(from, space, ends, 0);
  writeEnd(to, space, ends, 4);
  return { space, ends };
}

/**
 * A colour changed in OKLab, as people see it: lighter by a third of the way to white, darker by a third of the way to black, or complementary. That is the opposite hue
 * (OKLCH, hue + 180°) at the same lightness. What lies outside sRGB loses chroma until it does not (CSS Color 4, 13.2, without its last local clip). Changes
 * `c[at …]`, red, green, blue of sRGB in [0, 1], in place; allocates nothing.
 */
export function changeColour(
  c: Float64Array,
  at: number,
  change: 'same' | 'lighter' | 'darker' | 'complementary',
): void {
  if (change === 'same') return;
  const lab = SPARE;
  toOklab(c[at], c[at + 1], c[at + 2], lab, 0);
  if (change === 'lighter') lab[0] += (1 - lab[0]) / 3;
  else if (change === 'darker') lab[0] *= 2 / 3;
  const way = change === 'complementary' ? -1 : 1;
  const [l, x, y] = lab;
  let low = 0;
  let high = 1;
  if (fits(l, way * x, way * y)) low = 1;
  else
    for (let k = 0; k < CHROMA_STEPS; k++) {
      const middle = (low + high) / 2;
      if (fits(l, middle * way * x, middle * way * y)) low = middle;
      else high = middle;
    }
  fromOklab(l, low * way * x, low * way * y, c, at);
}

const SPARE = new Float64Array(3);
const TRIED = new Float64Array(3);
/** Halvings until the chroma is exact to a thousandth of a level of 255. */
const CHROMA_STEPS = 18;
/** Noise of computing is not outside. */
const ROOM = 1e-6;

function fits(l: number, x: number, y: number): boolean {
  linearOfOklab(l, x, y, TRIED);
  return TRIED.every(isShare);
}
const isShare = (v: number): boolean => v >= -ROOM && v <= 1 + ROOM;

function toOklab(red: number, green: number, blue: number, out: Float64Array, at: number): void {
  const r = toLinear(red);
  const g = toLinear(green);
  const b = toLinear(blue);
  const l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
  const m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
  const s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
  out[at] = 0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s;
  out[at + 1] = 1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s;
  out[at + 2] = 0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s;
}

function linearOfOklab(x: number, y: number, z: number, out: Float64Array): void {
  const l = (x + 0.3963377774 * y + 0.2158037573 * z) ** 3;
  const m = (x - 0.1055613458 * y - 0.0638541728 * z) ** 3;
  const s = (x - 0.0894841775 * y - 1.291485548 * z) ** 3;
  out[0] = 4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s;
  out[1] = -1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s;
  out[2] = -0.0041960863 * l - 0.7034186147 * m + 1.707614701 * s;
}

/** Writes red, green and blue of sRGB, clipped to it. */
function fromOklab(x: number, y: number, z: number, out: Float64Array, at: number): void {
  linearOfOklab(x, y, z, LINEAR);
  for (let i = 0; i < 3; i++) out[at + i] = clip(toGamma(LINEAR[i]));
}
const LINEAR = new Float64Array(3);

function writeEnd(c: Rgba, space: BlendSpace, out: Float64Array, at: number): void {
  out[at] = c.r;
  out[at + 1] = c.g;
  out[at + 2] = c.b;
  if (space === 'oklab') toOklab(c.r, c.g, c.b, out, at);
  for (let i = 0; i < 3; i++) out[at + i] *= c.alpha;
  out[at + 3] = c.alpha;
}

/**
 * Writes r, g, b, alpha in [0, 1] (sRGB, clipped) at `progress` to `out[outAt…]`; progress outside 0..1 is held at the ends, since a
 * colour beyond a colour means nothing. Allocates nothing.
 */
export function blendColour(blend: ColourBlend, progress: number, out: Float64Array, outAt = 0): Float64Array {
  const p = progress > 0 ? (progress < 1 ? progress : 1) : 0;
  const e = blend.ends;
  const alpha = e[3] + (e[7] - e[3]) * p;
  const k = alpha > 0 ? 1 / alpha : 0;
  const x = (e[0] + (e[4] - e[0]) * p) * k;
  const y = (e[1] + (e[5] - e[1]) * p) * k;
  const z = (e[2] + (e[6] - e[2]) * p) * k;
  out[outAt + 3] = alpha;
  if (blend.space === 'srgb') {
    out[outAt] = x;
    out[outAt + 1] = y;
    out[outAt + 2] = z;
    return out;
  }
  fromOklab(x, y, z, out, outAt);
  return out;
}

const clip = (v: number): number => (v > 0 ? (v < 1 ? v : 1) : 0);
