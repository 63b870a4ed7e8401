import type { Part, Piece } from '@core';

const pieces = new WeakMap<Piece, string>();
const parts = new WeakMap<Part, string>();

/**
 * A piece as JSON, character for character what `JSON.stringify` gives. Records are immutable, so each part is put into words once: saving a piece of some MB
 * again after a small change takes no longer than the change.
 */
export function pieceText(piece: Piece): string {
  let text = pieces.get(piece);
  if (text === undefined) {
    // The table is put in where its key stands: the fields keep their order, on which comparing with what the server has relies.
    const fields = Object.entries(piece)
      .filter(([, value]) => value !== undefined)
      .map(
        ([key, value]) => `${JSON.stringify(key)}:${key === 'parts' ? tableText(piece.parts) : JSON.stringify(value)}`,
      );
    text = `{${fields.join(',')}}`;
    pieces.set(piece, text);
  }
  return text;
}

const tableText = (table: Piece['parts']): string =>
  `{${Object.entries(table)
    .map(([id, part]) => `${JSON.stringify(id)}:${partText(part)}`)
    .join(',')}}`;

function partText(part: Part): string {
  let text = parts.get(part);
  if (text === undefined) {
    text = JSON.stringify(part);
    parts.set(part, text);
  }
  return text;
}
