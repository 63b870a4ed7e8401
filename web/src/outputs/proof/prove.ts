import {
  type FormId,
  type OutputFile,
  type OutputOptions,
  type OutputSource,
  type Painted,
  type ProofLine,
  proveText,
  stillMoment,
  TEXT_FORMS,
} from '@core';
import { strFromU8, unzipSync } from 'fflate';
import type { MadeOutput } from '../output-form';
import { canvasOf, FramePainter } from '../raster/frame-painter';
import { paintStill } from '../raster/png-forms';
import { type RasterSettings, rasterSettings } from '../raster/raster-settings';
import { comparePictures, halved, type PictureOff } from './compare-pictures';
import { readPictures } from './read-pictures';

/** What came of decoding a file again and comparing it with the piece's own frames. */
export interface OutputProof {
  readonly holds: boolean;
  readonly lines: readonly ProofLine[];
  /** The moment at which it is furthest off, s, as the piece has it and as the file shows it: PNGs. */
  readonly worst: { readonly seconds: number; readonly wanted: Blob; readonly found: Blob } | null;
}

/** How many frames of a file are compared. */
const MOST_FRAMES = 8;

interface Bar {
  /** See `PictureOff`. */
  readonly share: number;
  readonly mean: number;
}
/** What a form may lose: pictures without loss only round, 256 colours and codecs lose more. */
const EXACT: Bar = { share: 0.005, mean: 1 };
const BARS: Partial<Record<FormId, Bar>> = {
  gif: { share: 0.03, mean: 10 },
  mp4: { share: 0.02, mean: 10 },
  webm: { share: 0.02, mean: 10 },
};

/** Reads what was made back, by readers that know nothing of the piece, and compares. */
export async function proveOutput(
  form: FormId,
  source: OutputSource,
  options: OutputOptions,
  made: MadeOutput,
  signal: AbortSignal,
): Promise<OutputProof> {
  return TEXT_FORMS.some(({ id }) => id === form)
    ? proveTextOutput(form, source, options, made)
    : provePictures(form, source, options, made, signal);
}

async function proveTextOutput(
  form: FormId,
  { compiled }: OutputSource,
  options: OutputOptions,
  { blob, extension }: MadeOutput,
): Promise<OutputProof> {
  const files: OutputFile[] =
    extension === 'zip'
      ? Object.entries(unzipSync(new Uint8Array(await blob.arrayBuffer()))).map(([name, bytes]) => ({
          name,
          text: strFromU8(bytes),
        }))
      : [{ name: '', text: await blob.text() }];
  const { holds, lines, worst, painted } = proveText(form, files, compiled, options);
  const [width, height] = shownSize(compiled.width, compiled.height);
  const shutter = { share: 0, samples: 1 };
  const painter = new FramePainter(compiled, { width, height, rate: { num: 1, den: 1 }, ground: 'piece', shutter });
  painter.paint(form === 'still-svg' ? stillMoment(compiled, options.at) : worst);
  const found = canvasOf(width, height);
  // What is compared is outlines and colours; the background lies under both pictures.
  const behind = new FramePainter(
    { ...compiled, figures: [] },
    { width, height, rate: { num: 1, den: 1 }, ground: 'piece', shutter },
  );
  behind.paint(worst);
  found.drawImage(behind.canvas, 0, 0);
  paintAll(painted, found, width / compiled.width);
  return {
    holds,
    lines,
    worst: { seconds: worst, wanted: await pngOf(painter.canvas), found: await pngOf(found.canvas) },
  };
}

const MOST_SHOWN = 480;
const shownSize = (width: number, height: number): [number, number] => {
  const scale = Math.min(1, MOST_SHOWN / Math.max(width, height));
  return [Math.max(1, Math.round(width * scale)), Math.max(1, Math.round(height * scale))];
};
const pngOf = (canvas: OffscreenCanvas): Promise<Blob> => canvas.convertToBlob({ type: 'image/png' });

/** What a reader of a text sees: areas filled, lines as thin lines, each in its first colour. */
function paintAll(painted: readonly Painted[], context: OffscreenCanvasRenderingContext2D, scale: number): void {
  context.scale(scale, scale);
  for (const { kind, lines, colours } of painted) {
    const [r, g, b, alpha] = colours[0] ?? [0, 0, 0, 1];
    const css = `rgb(${255 * r} ${255 * g} ${255 * b} / ${alpha})`;
    context.beginPath();
    for (const line of lines)
      for (let i = 0; i < line.length; i += 2) context[i === 0 ? 'moveTo' : 'lineTo'](line[i], line[i + 1]);
    context.fillStyle = css;
    context.strokeStyle = css;
    context.lineWidth = 2 / scale;
    if (kind === 'fill') context.fill();
    else context.stroke();
  }
}

async function provePictures(
  form: FormId,
  { piece, compiled }: OutputSource,
  options: OutputOptions,
  { blob, size }: MadeOutput,
  signal: AbortSignal,
): Promise<OutputProof> {
  const still = form === 'still-png';
  const video = form === 'mp4' || form === 'webm';
  const made = await readPictures(form, blob);
  try {
    const full: RasterSettings | null = still ? null : rasterSettings(form, piece, compiled, options);
    // A file that had to fit may be smaller than was asked for, and says so.
    const settings = full && size ? { ...full, ...size } : full;
    const painter = settings && new FramePainter(compiled, settings);
    const stillCanvas = still ? paintStill(compiled, options) : null;
    const stillPixels = stillCanvas?.getContext('2d')?.getImageData(0, 0, stillCanvas.width, stillCanvas.height);
    const times = settings?.times ?? [stillMoment(compiled, options.at)];
    const frames = [
      ...new Set(Array.from({ length: MOST_FRAMES }, (_, i) => Math.floor(((i + 0.5) * times.length) / MOST_FRAMES))),
    ];
    const wantedOf = (frame: number): ImageData => {
      if (!painter) return stillPixels as ImageData;
      painter.paint(times[frame]);
      const pixels = painter.pixels();
      return form === 'gif' && settings?.ground === 'none' ? withHardEdges(pixels, options.matte) : pixels;
    };
    let worst: { frame: number; off: PictureOff; wanted: ImageData; found: ImageData } | null = null;
    let [mean, share] = [0, 0];
    for (const frame of frames) {
      signal.throwIfAborted();
      const at = settings ? (frame * settings.rate.den) / settings.rate.num : 0;
      const index = holdsPictures(form) && made.starts ? shownAt(made.starts, at) : frame;
      const [wanted, found] = [wantedOf(frame), await made.picture(Math.min(index, made.count - 1))];
      const off = video ? comparePictures(halved(wanted), halved(found)) : comparePictures(wanted, found);
      mean += off.mean / frames.length;
      share = Math.max(share, off.share);
      if (!worst || off.share + off.mean / 255 > worst.off.share + worst.off.mean / 255)
        worst = { frame, off, wanted, found };
    }
    const [width, height] = stillCanvas
      ? [stillCanvas.width, stillCanvas.height]
      : [settings?.width ?? 0, settings?.height ?? 0];
    const bar = barOf(form, options);
    const lines: ProofLine[] = [
      line('Size', `${width} × ${height} px`, `${made.width} × ${made.height} px`),
      ...(settings ? frameLines(form, options, settings, piece.playback === 'once', made) : []),
      {
        what: 'Pixels that differ',
        wanted: `at most ${percent(bar.share)}`,
        found: percent(share),
        holds: share <= bar.share,
      },
      {
        what: 'Mean error',
        wanted: `at most ${bar.mean} of 255`,
        found: `${mean.toFixed(2)} of 255`,
        holds: mean <= bar.mean,
      },
      { what: 'Frames compared', wanted: String(frames.length), found: String(frames.length), holds: true },
    ];
    return {
      holds: lines.every(({ holds }) => holds),
      lines,
      worst: worst && {
        seconds: times[worst.frame],
        wanted: await pngOf(canvasWith(worst.wanted)),
        found: await pngOf(canvasWith(worst.found)),
      },
    };
  } finally {
    made.close();
  }
}

/** Dithering and few colours are what was asked for: then the mean tells. */
function barOf(form: FormId, { dither, colours }: OutputOptions): Bar {
  const bar = BARS[form] ?? EXACT;
  if (form !== 'gif' || (dither === 'none' && Number(colours) > 128)) return bar;
  return { share: dither === 'none' ? 0.2 : 0.1, mean: 16 };
}

function frameLines(
  form: FormId,
  { plays, loops }: OutputOptions,
  { times, rate }: RasterSettings,
  once: boolean,
  made: Awaited<ReturnType<typeof readPictures>>,
): ProofLine[] {
  const length = (times.length * rate.den) / rate.num;
  const seconds = (value: number): string => `${value.toFixed(3)} s`;
  // A GIF counts in hundredths.
  const room = form === 'gif' ? 0.0051 : 0.0015;
  const lines: ProofLine[] = [];
  if (form === 'gif' && made.starts && made.duration !== null) {
    const ends = [...made.starts.slice(1), made.duration];
    const shortest = Math.min(...ends.map((end, i) => end - (made.starts?.[i] ?? 0)));
    lines.push({
      what: 'Shortest picture',
      wanted: `at least ${seconds(SHORTEST_IN_GIF)}`,
      found: seconds(shortest),
      holds: shortest >= SHORTEST_IN_GIF - 1e-6,
    });
  }
  if (holdsPictures(form))
    lines.push({
      what: 'Pictures',
      wanted: `at most ${times.length}`,
      found: String(made.count),
      holds: made.count <= times.length,
    });
  else lines.push(line('Frames', String(times.length), String(made.count)));
  if (made.duration !== null)
    lines.push({
      what: 'Duration',
      wanted: seconds(length),
      found: seconds(made.duration),
      holds: Math.abs(made.duration - length) <= room,
    });
  if (made.duration !== null && !holdsPictures(form)) {
    const [wanted, found] = [rate.num / rate.den, made.count / made.duration];
    lines.push({
      what: 'Rate',
      wanted: `${+wanted.toFixed(3)} fps`,
      found: `${+found.toFixed(3)} fps`,
      holds: Math.abs(wanted - found) <= 0.01 * wanted,
    });
  }
  if (made.plays !== null) {
    const often = (count: number): string => (count === 0 ? 'without end' : `${count} times`);
    // A single picture has nothing to play.
    const asked = plays ? Number(plays) : once ? 1 : 0;
    lines.push({
      what: 'Plays',
      wanted: often(asked),
      found: often(made.plays),
      holds: made.count < 2 || asked === made.plays,
    });
  } else if (loops) lines.push(line('Codec', made.codec ?? 'none', made.codec ?? 'none'));
  return lines;
}

const line = (what: string, wanted: string, found: string): ProofLine => ({
  what,
  wanted,
  found,
  holds: wanted === found,
});
const percent = (share: number): string => `${(100 * share).toFixed(2)} %`;

/** Forms that show what does not change as one picture. */
const holdsPictures = (form: FormId): boolean => form === 'gif' || form === 'apng';

/** Browsers hold what a GIF shows for less than this, s, far longer, so that it plays slowly (common practice). */
const SHORTEST_IN_GIF = 0.02;

/** A picture as one bit of transparency can show it: each pixel is there, as it looks on the matte colour, or not. */
function withHardEdges(image: ImageData, matte: string): ImageData {
  const under = [1, 3, 5].map((i) => Number.parseInt(matte.slice(i, i + 2), 16));
  const { data } = image;
  for (let i = 0; i < data.length; i += 4) {
    const alpha = data[i + 3] / 255;
    for (let k = 0; k < 3; k++) data[i + k] = alpha < 0.5 ? 0 : data[i + k] * alpha + under[k] * (1 - alpha);
    data[i + 3] = alpha < 0.5 ? 0 : 255;
  }
  return image;
}

/** The last picture that began by then. */
function shownAt(starts: readonly number[], seconds: number): number {
  let index = 0;
  while (index + 1 < starts.length && starts[index + 1] <= seconds + 0.0051) index++;
  return index;
}

function canvasWith(image: ImageData): OffscreenCanvas {
  const context = canvasOf(image.width, image.height);
  context.putImageData(image, 0, 0);
  return context.canvas;
}
