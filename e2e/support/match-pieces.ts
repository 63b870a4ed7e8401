import { outlineOfPart, type Piece, placementMatrix, stopsOf, transformOutline } from '../../core/src/index';
import type { MatchPage } from '../pages/match-page';
import type { PiecePage } from '../pages/piece-page';
import type { ShelfPage } from '../pages/shelf-page';
import { expect } from './fixtures';

/** A drawing of filled path data; one that is a line is given as an element. */
export const svg = (d: string): string =>
  d.startsWith('<')
    ? `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100">${d}</svg>`
    : `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100"><path d="${d}"/></svg>`;

/** A new piece with these drawings as poses, in the Match room. */
export async function matchOf(
  shelf: ShelfPage,
  piece: PiecePage,
  match: MatchPage,
  ...drawings: string[]
): Promise<void> {
  await shelf.open();
  await shelf.newPiece();
  await piece.drop(drawings.map((d, i) => ({ name: `Look ${i + 1}.svg`, text: svg(d) })));
  await expect(piece.cards).toHaveCount(drawings.length);
  await piece.matched();
  await match.open();
}

/** Anchors of a pose of the first figure, canvas px, contour after contour. */
export function anchorsOf(stored: Piece, stop: number): { x: number; y: number }[] {
  const figure = stored.figures[stored.figureOrder[0]];
  const pose = stored.poses[stopsOf(stored, figure)[stop]];
  return pose.parts.flatMap((id) =>
    transformOutline(outlineOfPart(stored.parts[id]), placementMatrix(pose.placement)).contours.flatMap(({ points }) =>
      Array.from({ length: (points.length / 2 - 1) / 3 }, (_, i) => ({ x: points[6 * i], y: points[6 * i + 1] })),
    ),
  );
}
/** The one shift of the piece as it was saved. */
export const onlyShift = async (piece: PiecePage) => Object.values((await piece.stored()).shifts)[0];
