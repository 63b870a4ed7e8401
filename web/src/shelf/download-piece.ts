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

/** The name of a piece's file: of the piece's own name what every file system takes. */
export const pieceFileName = (name: string): string =>
  `${name.replace(/[^\w -]+/g, '').trim() || 'piece'}.arcshift.json`;

/** A piece as a file that can be imported again. */
export function downloadPiece(piece: Piece): void {
  downloadText(pieceFileName(piece.name), JSON.stringify(piece, null, 1));
}

/** What is kept of a piece that cannot be read, as it is. */
export function downloadPieceText(name: string, text: string): void {
  downloadText(pieceFileName(name), text);
}
