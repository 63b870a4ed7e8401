/** Pixels of a picture, row by row, four bytes each. */
export interface Pixels {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8ClampedArray<ArrayBuffer>;
}

/** What of a picture is other than in the one before. */
export interface PictureChange {
  readonly x: number;
  readonly y: number;
  /** The part of the picture round all that changed. */
  readonly picture: Pixels;
  /** Is it laid over what is there, so that what did not change is left transparent? Else it takes its place. */
  readonly over: boolean;
}

/** Tells of pictures of one size, one after another, what changes from each to the next: only that need be stored. */
export class ChangedPictures {
  private before: Uint32Array | null = null;

  constructor(
    private readonly width: number,
    private readonly height: number,
  ) {}

  /** The change to the next picture, all of it for the first; null where it is as the one before. The picture is kept: its owner may not write to it again. */
  next(image: Pixels): PictureChange | null {
    const now = new Uint32Array(image.data.buffer);
    const { before, width, height } = this;
    this.before = now;
    if (!before) return { x: 0, y: 0, picture: image, over: false };
    let [left, right, top, bottom] = [width, -1, height, -1];
    // A new picture can be laid over the old one where all that it brings is opaque.
    let over = true;
    for (let y = 0, p = 0; y < height; y++)
      for (let x = 0; x < width; x++, p++) {
        if (now[p] === before[p]) continue;
        if (x < left) left = x;
        if (x > right) right = x;
        if (y < top) top = y;
        bottom = y;
        over &&= image.data[4 * p + 3] === 255;
      }
    if (right < 0) return null;
    const [w, h] = [right - left + 1, bottom - top + 1];
    const picture = blank(w, h);
    const out = new Uint32Array(picture.data.buffer);
    for (let y = 0; y < h; y++)
      for (let x = 0; x < w; x++) {
        const p = (top + y) * width + left + x;
        if (!over || now[p] !== before[p]) out[y * w + x] = now[p];
      }
    return { x: left, y: top, picture, over };
  }

  /** A change that changes nothing, for what needs a picture all the same: one transparent pixel, laid over. */
  nothing(): PictureChange {
    return { x: 0, y: 0, picture: blank(1, 1), over: true };
  }
}

const blank = (width: number, height: number): Pixels => ({
  width,
  height,
  data: new Uint8ClampedArray(4 * width * height),
});
