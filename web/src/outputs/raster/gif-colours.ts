import { applyPalette, type Palette, quantize } from 'gifenc';

export type Dither = 'none' | 'pattern' | 'grain';

/** The ordered pattern of 8 × 8 thresholds (Bayer: An optimum method for two-level rendition of continuous-tone pictures, 1973), 0 to 63. */
const PATTERN = bayer(8);

function bayer(size: number): Float64Array {
  let matrix = [[0]];
  for (let n = 1; n < size; n *= 2) {
    const next = Array.from({ length: 2 * n }, () => new Array<number>(2 * n).fill(0));
    for (let y = 0; y < n; y++)
      for (let x = 0; x < n; x++) {
        const v = 4 * matrix[y][x];
        next[y][x] = v;
        next[y][x + n] = v + 2;
        next[y + n][x] = v + 3;
        next[y + n][x + n] = v + 1;
      }
    matrix = next;
  }
  return Float64Array.from(matrix.flat(), (v) => (v + 0.5) / (size * size) - 0.5);
}

/** Seeded noise of a place of the picture, −0.5 to 0.5: the same in every frame (a hash of 32 bits: Steele, Lea, Flood: Fast splittable generators, 2014). */
function grainAt(x: number, y: number): number {
  let h = Math.imul(x + 1, 0x9e3779b1) ^ Math.imul(y + 1, 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 16), 0x7feb352d);
  h = Math.imul(h ^ (h >>> 15), 0x846ca68b);
  return ((h ^ (h >>> 16)) >>> 0) / 2 ** 32 - 0.5;
}

/** A picture's colours are spread by this much of 255 where it is dithered: about the step of a palette of 256 colours. */
const SPREAD = 20;

/**
 * Adds what each place of the picture adds in every frame: what stands still stands still, and a gradient does not show bands. `rgba` is changed.
 */
export function addDither(rgba: Uint8ClampedArray, width: number, dither: Dither): void {
  if (dither === 'none') return;
  for (let i = 0, p = 0; i < rgba.length; i += 4, p++) {
    const [x, y] = [p % width, Math.floor(p / width)];
    const add = SPREAD * (dither === 'pattern' ? PATTERN[(y % 8) * 8 + (x % 8)] : grainAt(x, y));
    rgba[i] += add;
    rgba[i + 1] += add;
    rgba[i + 2] += add;
  }
}

/** Pixels of several pictures in one row, no more than a palette needs. */
const MOST_SAMPLES = 400_000;

/** A palette for several pictures: of every so many pixels that are seen. */
export function paletteOf(pictures: readonly Uint8ClampedArray[], colours: number): Palette {
  const all = pictures.reduce((sum, { length }) => sum + length / 4, 0);
  const step = Math.max(1, Math.floor(all / MOST_SAMPLES));
  const row = new Uint8ClampedArray(4 * Math.ceil(all / step) + 4 * pictures.length);
  let n = 0;
  for (const data of pictures)
    for (let i = 0; i < data.length; i += 4 * step) {
      if (data[i + 3] < 128) continue;
      row[n] = data[i];
      row[n + 1] = data[i + 1];
      row[n + 2] = data[i + 2];
      row[n + 3] = 255;
      n += 4;
    }
  // The package reads the whole buffer: a part of one would not do. Nothing is seen: one colour that nobody sees.
  return n === 0 ? [[0, 0, 0]] : quantize(row.slice(0, n), colours, { format: 'rgb565' });
}

/** The palette's index of each pixel. */
export const indexed = (rgba: Uint8ClampedArray, palette: Palette): Uint8Array => applyPalette(rgba, palette, 'rgb565');
