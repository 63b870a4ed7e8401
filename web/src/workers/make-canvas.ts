import type { Context2D } from '@core';

/** A canvas off the page, for layers; where the browser has none of them, pictures are painted without layers. */
export const makeCanvas = (width: number, height: number): Context2D | undefined =>
  typeof OffscreenCanvas === 'undefined'
    ? undefined
    : (new OffscreenCanvas(width, height).getContext('2d') ?? undefined);
