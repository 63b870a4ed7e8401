import { type FormId, type OutputOptions, type OutputSource, TEXT_FORMS } from '@core';
import type { OutputForm } from './output-form';
import { FramePainter } from './raster/frame-painter';
import { rasterSettings } from './raster/raster-settings';

/** How many frames an estimate looks at. */
const LOOKED_AT = 3;
/** Of what the frames would have as PNGs, measured on the example pieces: the forms leave out what does not change. */
const OF_PNGS: Partial<Record<FormId, number>> = { 'sprite-sheet': 0.75, gif: 0.13, mp4: 0.05, webm: 0.1 };

/** About how many bytes a file will have: text is written to tell, of pictures a few frames are painted. */
export async function estimateSize(form: OutputForm, source: OutputSource, options: OutputOptions): Promise<number> {
  const { signal } = new AbortController();
  if (form.id === 'still-png' || TEXT_FORMS.some(({ id }) => id === form.id))
    return (await form.make(source, options, () => {}, signal)).blob.size;
  await form.check?.(source, options);
  const settings = rasterSettings(form.id, source.piece, source.compiled, options);
  const painter = new FramePainter(source.compiled, settings);
  const frames = Array.from({ length: LOOKED_AT }, (_, i) =>
    Math.floor(((i + 0.5) * settings.times.length) / LOOKED_AT),
  );
  let sum = 0;
  for (const frame of frames) {
    painter.paint(settings.times[frame]);
    sum += (await painter.canvas.convertToBlob({ type: 'image/png' })).size;
  }
  return (sum / frames.length) * settings.times.length * (OF_PNGS[form.id] ?? 1);
}
