import type { Piece } from '@core';

/** Hands text to the browser as a file. */
function downloadText(name: string, text: string): void {
  const url = URL.createObjectURL(new Blob([text], { type: 'application/json' }));
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  URL.revokeObjectURL(url);
}

const fileName = (name: string): string => `${name.replace(/[^\w -]+/g, '').trim() || 'piece'}.arcshift.json`;

/** A piece as a file that can be imported again. */
export function downloadPiece(piece: Piece): void {
  downloadText(fileName(piece.name), JSON.stringify(piece, null, 1));
}

/** What is kept of a piece that cannot be read, as it is. */
export function downloadPieceText(name: string, text: string): void {
  downloadText(fileName(name), text);
}
