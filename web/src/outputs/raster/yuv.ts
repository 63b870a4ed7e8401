/** Kr, Kg and Kb of luma (Rec. ITU-R BT.709-6, item 3.2). */
const [RED, GREEN, BLUE] = [0.2126, 0.7152, 0.0722];
/** By which blue and red less luma are divided to lie in −0.5 to 0.5 (item 3.3). */
const [CB, CR] = [2 * (1 - BLUE), 2 * (1 - RED)];

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
  for (let y = 0; y < height; y += 2)
    for (let x = 0; x < width; x += 2) {
      let [r, g, b] = [0, 0, 0];
      for (let k = 0; k < 4; k++) {
        const pixel = (y + (k >> 1)) * width + x + (k & 1);
        const i = 4 * pixel;
        const [red, green, blue] = [rgba[i], rgba[i + 1], rgba[i + 2]];
        out[pixel] = 16.5 + (219 / 255) * (RED * red + GREEN * green + BLUE * blue);
        r += red;
        g += green;
        b += blue;
      }
      const mean = RED * r + GREEN * g + BLUE * b;
      const at = luma + (y >> 1) * half + (x >> 1);
      out[at] = 128.5 + (224 / 255 / 4) * ((b - mean) / CB);
      out[at + luma / 4] = 128.5 + (224 / 255 / 4) * ((r - mean) / CR);
    }
  return out;
}
