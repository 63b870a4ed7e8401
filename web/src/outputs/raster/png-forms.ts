import { CoreError, LIMITS, type OutputField, type OutputOptions, stillOf, TEXT_FORMS } from '@core';
import type { OutputForm } from '../output-form';
import { ZipWriter } from '../zip';
import { ApngWriter } from './apng';
import { BlobSink } from './blob-sink';
import { ChangedPictures, type PictureChange, type Pixels } from './changed-pictures';
import { canvasOf, FramePainter } from './frame-painter';
import { frameFields, groundOf, rasterSettings, SIZE_FIELDS, STILL_GROUND, sizeOf } from './raster-settings';

const PNG = { type: 'image/png' };
const bytesOf = async (canvas: OffscreenCanvas): Promise<Uint8Array> =>
  new Uint8Array(await (await canvas.convertToBlob(PNG)).arrayBuffer());

const NO_BLUR = { share: 0, samples: 1 };

/** The moment, figure and trimming of a still SVG, and a size in px. */
const stillFields = (): OutputField[] => {
  const still = TEXT_FORMS.find(({ id }) => id === 'still-svg');
  return (still?.fields ?? []).filter(({ key }) => key === 'at' || key === 'figure' || key === 'trimmed');
};

export const stillPng: OutputForm = {
  id: 'still-png',
  label: 'Still PNG',
  about: 'One moment of the piece in px, with transparency: a poster, a picture for mail, an icon.',
  extension: 'png',
  type: 'image/png',
  fields: [...stillFields(), ...SIZE_FIELDS, ...STILL_GROUND],
  async make({ compiled }, options, tell, signal) {
    signal.throwIfAborted();
    const painted = paintStill(compiled, options);
    const blob = await painted.convertToBlob(PNG);
    tell(1);
    return { blob };
  },
};

/** A moment of a piece by the options of a still, painted. */
export function paintStill(compiled: Parameters<typeof stillOf>[0], options: OutputOptions): OffscreenCanvas {
  const still = stillOf(compiled, { ...options, ground: 'yes' });
  const painter = new FramePainter(
    still.compiled,
    { ...sizeOf(still.box, options), rate: { num: 1, den: 1 }, ground: groundOf(compiled, options), shutter: NO_BLUR },
    still.box,
  );
  painter.paint(0);
  return painter.canvas;
}

export const pngSequence: OutputForm = {
  id: 'png-sequence',
  label: 'PNG sequence',
  about: 'Every frame as a picture with transparency, numbered, in one ZIP: for film, games and compositing.',
  extension: 'zip',
  type: 'application/zip',
  fields: frameFields({ transparent: true, fps: '', mostFps: LIMITS.rate.max }),
  async make({ piece, compiled }, options, tell, signal) {
    const settings = rasterSettings('png-sequence', piece, compiled, options);
    const painter = new FramePainter(compiled, settings);
    const zip = new ZipWriter();
    const digits = Math.max(4, String(settings.times.length - 1).length);
    for (const [k, seconds] of settings.times.entries()) {
      signal.throwIfAborted();
      painter.paint(seconds);
      zip.add(`frame-${String(k).padStart(digits, '0')}.png`, await bytesOf(painter.canvas), true);
      tell((k + 1) / settings.times.length);
    }
    return { blob: zip.end() };
  },
};

/** The largest side of a sheet, px: what most graphics processors take. */
const MOST_SHEET = 8192;

export const spriteSheet: OutputForm = {
  id: 'sprite-sheet',
  label: 'Sprite sheet',
  about: 'All frames on one PNG, and a JSON that says where each is and how long it is shown: for games and canvases.',
  extension: 'zip',
  type: 'application/zip',
  fields: [
    ...frameFields({ transparent: true, fps: '12', mostFps: LIMITS.rate.max }),
    {
      kind: 'number',
      key: 'columns',
      label: 'Columns',
      unit: '',
      least: 1,
      most: 1000,
      whole: true,
      empty: 'as square as can be',
      otherwise: '',
    },
  ],
  async make({ piece, compiled }, options, tell, signal) {
    const settings = rasterSettings('sprite-sheet', piece, compiled, options);
    const { width, height, times, rate } = settings;
    const columns = Math.min(
      times.length,
      options.columns ? Number(options.columns) : Math.max(1, Math.round(Math.sqrt((times.length * height) / width))),
    );
    const rows = Math.ceil(times.length / columns);
    if (columns * width > MOST_SHEET || rows * height > MOST_SHEET)
      throw new CoreError(
        'output-refused',
        `Expected a sheet of at most ${MOST_SHEET} px a side; ${times.length} frames of ${width} × ${height} px make ${columns * width} × ${rows * height}. Choose smaller or fewer frames.`,
      );
    const painter = new FramePainter(compiled, settings);
    const sheet = canvasOf(columns * width, rows * height);
    const frames = [];
    for (const [k, seconds] of times.entries()) {
      signal.throwIfAborted();
      painter.paint(seconds);
      const [x, y] = [(k % columns) * width, Math.floor(k / columns) * height];
      sheet.drawImage(painter.canvas, x, y);
      frames.push({ x, y, width, height, time: seconds, duration: rate.den / rate.num });
      tell((k + 1) / times.length);
      if (k % 8 === 7) await new Promise((resolve) => setTimeout(resolve));
    }
    const zip = new ZipWriter();
    zip.add('sheet.png', await bytesOf(sheet.canvas), true);
    const about = {
      image: 'sheet.png',
      width: columns * width,
      height: rows * height,
      columns,
      rows,
      fps: rate.num / rate.den,
      loops: piece.playback !== 'once',
      frames,
    };
    zip.add('sheet.json', new TextEncoder().encode(`${JSON.stringify(about, null, 1)}\n`), false);
    return { blob: zip.end() };
  },
};

export const apng: OutputForm = {
  id: 'apng',
  label: 'APNG',
  about: 'An animated PNG: all colours, half transparency, exact times. Larger than a GIF.',
  extension: 'png',
  type: 'image/apng',
  fields: frameFields({ transparent: true, fps: '', mostFps: LIMITS.rate.max }),
  async make({ piece, compiled }, options, tell, signal) {
    const settings = rasterSettings('apng', piece, compiled, options);
    const painter = new FramePainter(compiled, settings);
    const sink = new BlobSink();
    const writer = new ApngWriter(piece.playback === 'once' ? 1 : 0, (bytes, position) => sink.write(bytes, position));
    const changes = new ChangedPictures(settings.width, settings.height);
    let waiting: { png: Uint8Array; change: PictureChange; frames: number } | null = null;
    const write = (): void => {
      if (waiting) writer.add(waiting.png, waiting.change, delayOf(settings.rate, waiting.frames));
    };
    for (const [k, seconds] of settings.times.entries()) {
      signal.throwIfAborted();
      painter.paint(seconds);
      const change = changes.next(painter.pixels() as Pixels);
      // What is as it was is shown longer, as long as the file can say.
      if (waiting && !change && waiting.frames < MOST_HELD) waiting.frames++;
      else {
        write();
        const shown = change ?? changes.nothing();
        waiting = { png: await bytesOf(canvasWith(shown.picture)), change: shown, frames: 1 };
      }
      tell((k + 1) / settings.times.length);
    }
    write();
    writer.end();
    return { blob: sink.blob('image/apng') };
  },
};

/** A picture is held for so many frames at most before it is stored again: with the frames of common rates a time of 16 bits can be. */
const MOST_HELD = 60;

function canvasWith({ data, width, height }: Pixels): OffscreenCanvas {
  const context = canvasOf(width, height);
  context.putImageData(new ImageData(data, width, height), 0, 0);
  return context.canvas;
}

/** How long so many frames are shown, as a fraction of numbers that APNG can hold (16 bits). */
function delayOf(rate: { readonly num: number; readonly den: number }, frames: number): { num: number; den: number } {
  const [num, den] = [rate.num, rate.den * frames];
  let [a, b] = [num, den];
  while (b > 0) [a, b] = [b, a % b];
  const [n, d] = [num / a, den / a];
  return n <= 65_535 && d <= 65_535 ? { num: d, den: n } : { num: Math.round((10_000 * den) / num), den: 10_000 };
}
