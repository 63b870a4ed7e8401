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
export function writeI420(rgba: Uint8ClampedArray, width: number, height: number, out: Uint8Array): Uint8Array {
  const luma = width * height;
  const half = width >> 1;
  const quarter = luma >> 2;
  for (let y = 0; y < height; y += 2) {
    let at = luma + (y >> 1) * half;
    for (let x = 0; x < width; x += 2, at++) {
      const top = y * width + x;
      const low = top + width;
      const i = 4 * top;
      const j = 4 * low;
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
