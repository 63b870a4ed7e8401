import type { Piece } from '@core';

/** A length of time in frames, as shown beside seconds. */
export const framesText = (piece: Piece, seconds: number): string =>
  `${+((seconds * piece.canvas.rate.num) / piece.canvas.rate.den).toFixed(1)} fr`;
