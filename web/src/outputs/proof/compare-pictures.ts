/** How far two pictures of one size are from each other. */
export interface PictureOff {
  /** Of the pixels that are inked in either, the share whose worst channel is off by more than 32 of 255. */
  readonly share: number;
  /** Mean difference of the channels of inked pixels, of 255. */
  readonly mean: number;
}

const OFF = 32;
/** A pixel is inked where it differs from the first pixel by more than this, of 255. */
const INK = 8;

/** Compares two pictures, each laid on white where it is transparent. */
export function comparePictures(p: ImageData, q: ImageData): PictureOff {
  if (p.width !== q.width || p.height !== q.height) return { share: 1, mean: 255 };
  const [a, b] = [p.data, q.data];
  const on = (data: Uint8ClampedArray, i: number, k: number): number => 255 + ((data[i + k] - 255) * data[i + 3]) / 255;
  const ground = [0, 1, 2].map((k) => on(a, 0, k));
  let [inked, off, sum] = [0, 0, 0];
  for (let i = 0; i < a.length; i += 4) {
    let [ink, worst] = [0, 0];
    for (let k = 0; k < 3; k++) {
      const [u, v] = [on(a, i, k), on(b, i, k)];
      const different = Math.abs(u - v);
      ink = Math.max(ink, Math.abs(u - ground[k]), Math.abs(v - ground[k]));
      worst = Math.max(worst, different);
      sum += different;
    }
    if (ink > INK) inked++;
    if (worst > OFF) off++;
  }
  return inked === 0
    ? { share: off > 0 ? 1 : 0, mean: sum / Math.max(1, (3 * a.length) / 4) }
    : { share: off / inked, mean: sum / (3 * inked) };
}

/** A picture of half the size, each pixel the mean of four: what is left of colour in video, which has one for four pixels. */
export function halved({ width, height, data }: ImageData): ImageData {
  const [w, h] = [Math.max(1, width >> 1), Math.max(1, height >> 1)];
  const half = new ImageData(w, h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++)
      for (let k = 0; k < 4; k++) {
        const i = 4 * (2 * y * width + 2 * x) + k;
        half.data[4 * (y * w + x) + k] = (data[i] + data[i + 4] + data[i + 4 * width] + data[i + 4 * width + 4]) / 4;
      }
  return half;
}
