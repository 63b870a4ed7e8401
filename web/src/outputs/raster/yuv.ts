/** Kr, Kg and Kb of luma (Rec. ITU-R BT.709-6, item 3.2). */
const RED = 0.2126;
const GREEN = 0.7152;
const BLUE = 0.0722;
/** By which blue and red less luma are divided to lie in −0.5 to 0.5 (item 3.3). */
const CB = 2 * (1 - BLUE);
const CR = 2 * (1 - RED);
/** The same as factors of bytes, and of the sum of four of them. */
const Y_RED = (219 / 255) * RED;
const Y_GREEN = (219 / 255) * GREEN;
const Y_BLUE = (219 / 255) * BLUE;
const TO_CB = 224 / 255 / 4 / CB;
const TO_CR = 224 / 255 / 4 / CR;

/** How the numbers of a frame are meant, for encoders and the tags of the file. */
export const VIDEO_COLOURS = { primaries: 'bt709', transfer: 'bt709', matrix: 'bt709', fullRange: false } as const;

/** Bytes of a frame of a size, whose sides are even. */
export const i420Size = (width: number, height: number): number => (width * height * 3) / 2;

/**
 * Writes a picture as luma and, for each four pixels, two colour differences, in 8 bits with head and foot room (BT.709-6, items 3.4 and 4): what video players
 * and editing programs take for granted. `out` has `i420Size` bytes and is returned; alpha is not looked at.
 */
export function writeI420<Out extends Uint8Array>(
  rgba: Uint8ClampedArray,
  width: number,
  height: number,
  out: Out,
): Out {
  const luma = width * height;
  const half = width >> 1;
  const quarter = luma >> 2;
  const pixels = new Uint32Array(rgba.buffer, rgba.byteOffset, luma);
  let known = -1;
  let triple = 0;
  for (let y = 0; y < height; y += 2) {
    let at = luma + (y >> 1) * half;
    for (let x = 0; x < width; x += 2, at++) {
      const top = y * width + x;
      const low = top + width;
      const i = 4 * top;
      const j = 4 * low;
      if (pixels[top] === pixels[top + 1] && pixels[top] === pixels[low] && pixels[top] === pixels[low + 1]) {
        if (pixels[top] !== known) {
          known = pixels[top];
          triple = nearestTriple(rgba[i], rgba[i + 1], rgba[i + 2]);
        }
        out[top] = out[top + 1] = out[low] = out[low + 1] = triple >> 16;
        out[at] = (triple >> 8) & 255;
        out[at + quarter] = triple & 255;
        continue;
      }
      out[top] = 16.5 + Y_RED * rgba[i] + Y_GREEN * rgba[i + 1] + Y_BLUE * rgba[i + 2];
      out[top + 1] = 16.5 + Y_RED * rgba[i + 4] + Y_GREEN * rgba[i + 5] + Y_BLUE * rgba[i + 6];
      out[low] = 16.5 + Y_RED * rgba[j] + Y_GREEN * rgba[j + 1] + Y_BLUE * rgba[j + 2];
      out[low + 1] = 16.5 + Y_RED * rgba[j + 4] + Y_GREEN * rgba[j + 5] + Y_BLUE * rgba[j + 6];
      const r = rgba[i] + rgba[i + 4] + rgba[j] + rgba[j + 4];
      const g = rgba[i + 1] + rgba[i + 5] + rgba[j + 1] + rgba[j + 5];
      const b = rgba[i + 2] + rgba[i + 6] + rgba[j + 2] + rgba[j + 6];
      const mean = RED * r + GREEN * g + BLUE * b;
      out[at] = 128.5 + (b - mean) * TO_CB;
      out[at + quarter] = 128.5 + (r - mean) * TO_CR;
    }
  }
  return out;
}

/**
 * Luma and the two colour differences of a flat colour, a byte each: rounded each by itself, a colour can be off by 2 of 255 when it is shown. Where it would be,
 * the numbers next to these that come nearest are taken instead.
 */
function nearestTriple(r: number, g: number, b: number): number {
  const mean = RED * r + GREEN * g + BLUE * b;
  const luma = 16 + (219 / 255) * mean;
  const cb = 128 + 4 * TO_CB * (b - mean);
  const cr = 128 + 4 * TO_CR * (r - mean);
  let best = triple(Math.round(luma), Math.round(cb), Math.round(cr));
  let least = offBy(best, r, g, b);
  if (least < SHOWN_OFF) return best;
  for (const y of [Math.floor(luma), Math.ceil(luma)])
    for (const u of [Math.floor(cb), Math.ceil(cb)])
      for (const v of [Math.floor(cr), Math.ceil(cr)]) {
        const each = triple(y, u, v);
        const off = offBy(each, r, g, b);
        if (off < least) [best, least] = [each, off];
      }
  return best;
}

/** What is off by less than this is shown within one of 255. */
const SHOWN_OFF = 1.5;

const triple = (y: number, cb: number, cr: number): number => (y << 16) | (cb << 8) | cr;

/** By how much of 255 the colour that is shown is off, in its worst channel. */
function offBy(each: number, r: number, g: number, b: number): number {
  const mean = ((each >> 16) - 16) * (255 / 219);
  const blue = mean + (((each >> 8) & 255) - 128) * ((255 / 224) * CB);
  const red = mean + ((each & 255) - 128) * ((255 / 224) * CR);
  const green = (mean - RED * red - BLUE * blue) / GREEN;
  return Math.max(Math.abs(red - r), Math.abs(green - g), Math.abs(blue - b));
}

/** Bytes of a frame of a size with alpha. */
export const i420aSize = (width: number, height: number): number => i420Size(width, height) + width * height;

/**
 * Writes a picture as `writeI420`, followed by its alpha. Colours are those of the picture, not darkened by their alpha; of what is not seen at all they are those
 * beside it, so that no edge shows a colour that nobody chose. `out` has `i420aSize` bytes and is returned; `rgba` is changed.
 */
export function writeI420A<Out extends Uint8Array>(
  rgba: Uint8ClampedArray,
  width: number,
  height: number,
  out: Out,
): Out {
  spreadColours(rgba, width, height);
  writeI420(rgba, width, height, out);
  for (let p = 0, at = i420Size(width, height); p < width * height; p++, at++) out[at] = rgba[4 * p + 3];
  return out;
}

/** Gives each pixel of a block that is not seen the mean colour of those in it that are, weighted by their alpha. */
function spreadColours(rgba: Uint8ClampedArray, width: number, height: number): void {
  for (let y = 0; y < height; y += BLOCK)
    for (let x = 0; x < width; x += BLOCK) {
      const [right, bottom] = [Math.min(width, x + BLOCK), Math.min(height, y + BLOCK)];
      let [red, green, blue, all, hidden] = [0, 0, 0, 0, 0];
      for (let v = y; v < bottom; v++)
        for (let u = x; u < right; u++) {
          const i = 4 * (v * width + u);
          const alpha = rgba[i + 3];
          if (alpha === 0) hidden++;
          red += alpha * rgba[i];
          green += alpha * rgba[i + 1];
          blue += alpha * rgba[i + 2];
          all += alpha;
        }
      if (hidden === 0 || all === 0) continue;
      for (let v = y; v < bottom; v++)
        for (let u = x; u < right; u++) {
          const i = 4 * (v * width + u);
          if (rgba[i + 3] > 0) continue;
          rgba[i] = red / all;
          rgba[i + 1] = green / all;
          rgba[i + 2] = blue / all;
        }
    }
}

/** Px a side: blocks that codecs divide pictures into have a multiple of it. */
const BLOCK = 8;
