import type { Page } from '@playwright/test';

/**
 * Compares two pictures of one size in the browser: of the pixels that differ from the background in either, the share whose worst channel
 * differs by more than `level` of 255.
 */
export async function shareOfDifferentPixels(
  page: Page,
  a: Buffer,
  b: Buffer,
  level = 32,
): Promise<{ share: number; inked: number }> {
  return page.evaluate(
    async ([first, second, limit]) => {
      const read = async (base64: string): Promise<ImageData> => {
        const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
        const bitmap = await createImageBitmap(new Blob([bytes], { type: 'image/png' }));
        const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
        const context = canvas.getContext('2d') as OffscreenCanvasRenderingContext2D;
        context.drawImage(bitmap, 0, 0);
        return context.getImageData(0, 0, bitmap.width, bitmap.height);
      };
      const p = await read(first as string);
      const q = await read(second as string);
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
    [a.toString('base64'), b.toString('base64'), level] as const,
  );
}
