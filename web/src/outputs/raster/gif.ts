import { CoreError, type OutputField } from '@core';
import type { OutputForm } from '../output-form';
import { FramePainter } from './frame-painter';
import { defaultRate, frameFields, type RasterSettings, rasterSettings } from './raster-settings';
import type { Dither, GifSettings } from './write-gif';

/** Browsers slow down what is shown for less than two hundredths (common practice). */
const MOST_FPS = 50;

const FIELDS: readonly OutputField[] = [
  ...frameFields({ transparent: true, fps: '', mostFps: MOST_FPS }).map((field) =>
    field.key === 'fps' ? { ...field, empty: `piece, to ${MOST_FPS}` } : field,
  ),
  {
    kind: 'choice',
    key: 'palette',
    label: 'Palette',
    answers: [
      { value: 'one', label: 'One for all', hint: 'Smaller, and what does not move keeps its colours' },
      { value: 'each', label: 'One a frame', hint: 'For pieces whose colours change' },
    ],
    otherwise: 'one',
  },
  {
    kind: 'number',
    key: 'colours',
    label: 'Colours',
    unit: '',
    least: 2,
    most: 255,
    whole: true,
    otherwise: '255',
  },
  {
    kind: 'choice',
    key: 'dither',
    label: 'Dithering',
    answers: [
      { value: 'none', label: 'None', hint: 'For flat colours' },
      { value: 'pattern', label: 'Pattern', hint: 'For gradients; does not flicker' },
      { value: 'grain', label: 'Grain', hint: 'For gradients; seeded, so it does not flicker either' },
    ],
    otherwise: 'none',
  },
  {
    kind: 'number',
    key: 'plays',
    label: 'Plays',
    unit: 'times',
    least: 1,
    most: 1000,
    whole: true,
    empty: 'as in the piece',
    otherwise: '',
  },
  {
    kind: 'number',
    key: 'limit',
    label: 'At most',
    hint: 'Colours, then size, are taken away until the file fits',
    unit: 'KB',
    least: 1,
    most: 1_000_000,
    empty: 'no limit',
    otherwise: '',
  },
];

/** What is tried, the best first, until a file is small enough: colours and a share of the size. */
const LADDER: readonly (readonly [colours: number, size: number])[] = [
  [255, 1],
  [127, 1],
  [63, 1],
  [63, 0.85],
  [31, 0.85],
  [31, 0.7],
  [15, 0.7],
  [15, 0.5],
];

export const gif: OutputForm = {
  id: 'gif',
  label: 'GIF',
  about: 'For mail, chat and old pages: plays everywhere by itself, with 256 colours and no half transparency.',
  extension: 'gif',
  type: 'image/gif',
  fields: FIELDS,
  async make({ piece, compiled }, options, tell, signal) {
    const settings = rasterSettings('gif', piece, compiled, options);
    const plays = options.plays ? Number(options.plays) : piece.playback === 'once' ? 1 : 0;
    const gifSettings: GifSettings = {
      colours: Number(options.colours),
      palette: options.palette as 'one' | 'each',
      dither: options.dither as Dither,
      matte: options.matte,
      repeat: plays === 0 ? 0 : plays === 1 ? -1 : plays - 1,
    };
    // Loaded where somebody asks for it.
    const { writeGif } = await import('./write-gif');
    const limit = options.limit ? 1024 * Number(options.limit) : Number.POSITIVE_INFINITY;
    const steps = LADDER.filter(([colours], i) => i === 0 || colours < gifSettings.colours);
    const own = piece.canvas.rate.num / piece.canvas.rate.den;
    const slowed =
      !options.fps && defaultRate('gif', piece) !== piece.canvas.rate
        ? `It has ${MOST_FPS} frames a second in place of the piece’s ${+own.toFixed(3)}: browsers hold shorter frames longer, so that it would play slowly.`
        : '';
    let smallest = Number.POSITIVE_INFINITY;
    for (const [i, [colours, size]] of steps.entries()) {
      const chosen = { ...gifSettings, colours: Math.min(colours, gifSettings.colours) };
      const scaled = scaledTo(settings, size);
      const part = (share: number): void => tell(limit < Infinity ? (i + share) / steps.length : share);
      const blob = await writeGif(new FramePainter(compiled, scaled), scaled, chosen, part, signal);
      smallest = Math.min(smallest, blob.size);
      if (blob.size > limit) continue;
      tell(1);
      const fitted = `To fit, it has ${chosen.colours} colours and is ${scaled.width} × ${scaled.height} px.`;
      const notes = [slowed, i > 0 ? fitted : ''].filter((text) => text !== '');
      return {
        blob,
        ...(i > 0 && { size: { width: scaled.width, height: scaled.height } }),
        ...(notes.length > 0 && { note: notes.join(' ') }),
      };
    }
    throw new CoreError(
      'output-refused',
      `Expected a GIF of at most ${options.limit} KB; the smallest that was found has ${Math.ceil(smallest / 1024)} KB. Choose fewer frames a second, or a shorter stretch.`,
    );
  },
};

const scaledTo = (settings: RasterSettings, share: number): RasterSettings => ({
  ...settings,
  width: Math.max(1, Math.round(settings.width * share)),
  height: Math.max(1, Math.round(settings.height * share)),
});
