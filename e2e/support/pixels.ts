import type { Page } from '@playwright/test';

/**
 * Compares two pictures of one size in the browser (or, without a second one, the left half of a picture with its right half): of the pixels that differ from the background in either, the share whose worst channel
 * differs by more than `level` of 255. `average` first makes one pixel of that many by that many.
 */
export async function shareOfDifferentPixels(
  page: Page,
  a: Buffer,
  b: Buffer | null,
  level = 32,
  average = 1,
): Promise<{ share: number; inked: number }> {
  return page.evaluate(
    async ([first, second, limit, average]) => {
      const read = async (base64: string, half?: 'left' | 'right'): Promise<ImageData> => {
        const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
        const bitmap = await createImageBitmap(new Blob([bytes], { type: 'image/png' }));
        const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
        const context = canvas.getContext('2d') as OffscreenCanvasRenderingContext2D;
        context.drawImage(bitmap, 0, 0);
        const width = half ? bitmap.width / 2 : bitmap.width;
        const full = context.getImageData(half === 'right' ? width : 0, 0, width, bitmap.height);
        const n = average as number;
        if (n === 1) return full;
        const small = new ImageData(Math.floor(full.width / n), Math.floor(full.height / n));
        for (let y = 0; y < small.height; y++)
          for (let x = 0; x < small.width; x++)
            for (let k = 0; k < 4; k++) {
              let sum = 0;
              for (let v = 0; v < n; v++)
                for (let u = 0; u < n; u++) sum += full.data[4 * ((y * n + v) * full.width + x * n + u) + k];
              small.data[4 * (y * small.width + x) + k] = sum / (n * n);
            }
        return small;
      };
      const p = await read(first as string, second === null ? 'left' : undefined);
      const q = await read((second ?? first) as string, second === null ? 'right' : undefined);
      if (p.width !== q.width || p.height !== q.height) throw new Error('The pictures differ in size.');
      let inked = 0;
      let different = 0;
      for (let i = 0; i < p.data.length; i += 4) {
        let worst = 0;
        let ink = 0;
        for (let k = 0; k < 3; k++) {
          worst = Math.max(worst, Math.abs(p.data[i + k] - q.data[i + k]));
          ink = Math.max(ink, Math.abs(p.data[i + k] - p.data[k]), Math.abs(q.data[i + k] - q.data[k]));
        }
        if (ink > 8) inked++;
        if (worst > (limit as number)) different++;
      }
      return { share: inked > 0 ? different / inked : 0, inked };
    },
    [a.toString('base64'), b?.toString('base64') ?? null, level, average] as const,
  );
}
