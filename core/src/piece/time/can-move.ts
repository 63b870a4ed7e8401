import type { Piece } from '../records';

/** Is there anything in a piece that changes with time: a shift, a lane with two different keys or without any, a figure that comes or goes? */
export function canMove(piece: Piece): boolean {
  const figures = piece.figureOrder.map((id) => piece.figures[id]);
  return (
    figures.some(({ rail }) => rail.length > 0) ||
    figures.some(({ start, before }) => before === 'hidden' && start > 0) ||
    (figures.length > 1 && figures.some(({ after }) => after === 'hidden')) ||
    Object.values(piece.lanes).some(
      ({ keys, drift, pulse, follow }) =>
        drift !== undefined ||
        pulse !== undefined ||
        follow !== undefined ||
        keys.some(({ value }) => JSON.stringify(value) !== JSON.stringify(keys[0].value)),
    )
  );
}
