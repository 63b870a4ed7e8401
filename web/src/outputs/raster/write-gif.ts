import { GIFEncoder, type Palette } from 'gifenc';
import { BlobSink } from './blob-sink';
import type { FramePainter } from './frame-painter';
import { addDither, type Dither, indexed, paletteOf } from './gif-colours';
import type { RasterSettings } from './raster-settings';

export type { Dither } from './gif-colours';

export interface GifSettings {
  readonly colours: number;
  readonly palette: 'one' | 'each';
  readonly dither: Dither;
  /** What half transparent pixels lie on where nothing is behind: #rrggbb. */
  readonly matte: string;
  /** Passes: −1 once, 0 without end, else so many times again. */
  readonly repeat: number;
}

/** How long each frame is shown, in hundredths of a second: their sum never strays from the true time by more than half of one. */
export function hundredths(count: number, { num, den }: { num: number; den: number }): number[] {
  const at = (k: number): number => Math.round((100 * k * den) / num);
  return Array.from({ length: count }, (_, k) => at(k + 1) - at(k));
}

/** A frame that waits to be written until it is known how long it is shown. */
interface Waiting {
  readonly index: Uint8Array;
  readonly palette: Palette;
  delay: number;
}

/** Writes the frames of a piece as a GIF (GIF89a); pictures that are as the one before are not stored again. */
export async function writeGif(
  painter: FramePainter,
  { times, width, height, ground, rate }: RasterSettings,
  { colours, palette, dither, matte, repeat }: GifSettings,
  tell: (share: number) => void,
  signal: AbortSignal,
): Promise<Blob> {
  const transparent = ground === 'none';
  const picture = (seconds: number): Uint8ClampedArray => {
    painter.paint(seconds);
    const { data } = painter.pixels();
    if (transparent) overMatte(data, matte);
    addDither(data, width, dither);
    return data;
  };
  const delays = hundredths(times.length, rate);
  const shared = palette === 'one' ? paletteOf(spread(times).map(picture), colours) : null;
  const encoder = GIFEncoder({ auto: false });
  const sink = new BlobSink();
  const flush = (): void => {
    sink.write(encoder.bytesView());
    encoder.stream.reset();
  };
  encoder.writeHeader();
  let first = true;
  const write = ({ index, palette: own, delay }: Waiting): void => {
    // One entry more than there are colours says: as it was, or nothing.
    const table = [...own, [0, 0, 0]];
    encoder.writeFrame(index, width, height, {
      first,
      ...((first || !shared) && { palette: table }),
      transparent: true,
      transparentIndex: own.length,
      delay: 10 * delay,
      repeat,
      dispose: transparent ? 2 : 1,
    });
    first = false;
    flush();
  };
  let before: Uint8ClampedArray | null = null;
  let waiting: Waiting | null = null;
  for (const [k, seconds] of times.entries()) {
    signal.throwIfAborted();
    const data = picture(seconds);
    if (before && waiting && same(before, data)) waiting.delay += delays[k];
    else {
      if (waiting) write(waiting);
      const own = shared ?? paletteOf([data], colours);
      const index = indexed(data, own);
      leaveOut(index, data, transparent ? null : before, own.length);
      waiting = { index, palette: own, delay: delays[k] };
    }
    before = data;
    tell((k + 1) / times.length);
    // Others in this worker have their turn.
    if (k % 8 === 7) await new Promise((resolve) => setTimeout(resolve));
  }
  if (waiting) write(waiting);
  encoder.finish();
  flush();
  return sink.blob('image/gif');
}

/** Edges become opaque, as they would look on a colour. */
function overMatte(data: Uint8ClampedArray, matte: string): void {
  const under = [1, 3, 5].map((i) => Number.parseInt(matte.slice(i, i + 2), 16));
  for (let i = 0; i < data.length; i += 4) {
    const alpha = data[i + 3] / 255;
    for (let k = 0; k < 3; k++) data[i + k] = data[i + k] * alpha + under[k] * (1 - alpha);
  }
}

const PALETTE_FRAMES = 16;
/** Some of the times, spread evenly. */
const spread = (times: readonly number[]): number[] => {
  const count = Math.min(PALETTE_FRAMES, times.length);
  return Array.from({ length: count }, (_, i) => times[Math.floor((i * times.length) / count)]);
};

const same = (p: Uint8ClampedArray, q: Uint8ClampedArray): boolean => {
  const [a, b] = [new Uint32Array(p.buffer), new Uint32Array(q.buffer)];
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false;
  return true;
};

/** Marks what is not seen, and what is as in the picture before: only what changed is stored. */
function leaveOut(index: Uint8Array, data: Uint8ClampedArray, before: Uint8ClampedArray | null, mark: number): void {
  const now = new Uint32Array(data.buffer);
  const then = before && new Uint32Array(before.buffer);
  for (let p = 0; p < index.length; p++) if (data[4 * p + 3] < 128 || then?.[p] === now[p]) index[p] = mark;
}
