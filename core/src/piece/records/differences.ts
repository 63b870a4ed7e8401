import type { Figure, Piece } from './records';

/** As many differences as are told by themselves. */
const MOST = 6;

/**
 * In what a piece differs from another version of it, in short sentences about what the first has or is: name, canvas, figures that only one has, and what
 * changed in the others. Nothing where both are alike; one sentence more where there are too many to tell.
 */
export function differencesOf(piece: Piece, other: Piece): string[] {
  const found: string[] = [];
  if (piece.name !== other.name) found.push(`Its name is “${piece.name}”.`);
  const [a, b] = [piece.canvas, other.canvas];
  if (a.width !== b.width || a.height !== b.height) found.push(`Its canvas is ${a.width} × ${a.height} px.`);
  if (a.background !== b.background) found.push(`Its background is ${a.background ?? 'see-through'}.`);
  const own = piece.figureOrder.filter((id) => !other.figures[id]);
  const missing = other.figureOrder.filter((id) => !piece.figures[id]);
  if (own.length > 0) found.push(`Only it has ${namesOf(own.map((id) => piece.figures[id]))}.`);
  if (missing.length > 0) found.push(`It lacks ${namesOf(missing.map((id) => other.figures[id]))}.`);
  for (const id of piece.figureOrder) {
    const was = other.figures[id];
    if (!was) continue;
    const about = changesOf(piece, piece.figures[id], other, was);
    if (about.length > 0) found.push(`“${piece.figures[id].name}”: ${about.join(', ')}.`);
  }
  const order = piece.figureOrder.filter((id) => other.figures[id]).join();
  if (order !== other.figureOrder.filter((id) => piece.figures[id]).join())
    found.push('Its figures lie in another order.');
  if (found.length === 0 && !alike(piece, other)) found.push('It differs in settings that are not seen.');
  return found.length > MOST
    ? [...found.slice(0, MOST - 1), `There are ${found.length - MOST + 1} more differences.`]
    : found;
}

const alike = (p: unknown, q: unknown): boolean => p === q || JSON.stringify(p) === JSON.stringify(q);

function namesOf(figures: readonly Figure[]): string {
  const names = figures.slice(0, 3).map(({ name }) => `“${name}”`);
  return figures.length > 3 ? `${names.join(', ')} and ${figures.length - 3} more figures` : names.join(' and ');
}

/** What of a figure is otherwise, in a word or two each. */
function changesOf(piece: Piece, figure: Figure, other: Piece, was: Figure): string[] {
  const partsOf = (of: Piece, { poses }: Figure) => poses.map((id) => of.poses[id].parts.map((part) => of.parts[part]));
  const [parts, before] = [partsOf(piece, figure), partsOf(other, was)];
  const of = (pick: (part: Piece['parts'][string]) => unknown): boolean =>
    !alike(
      parts.map((list) => list.map(pick)),
      before.map((list) => list.map(pick)),
    );
  const lanes = (from: Piece) => Object.values(from.lanes).filter(({ figure: id }) => id === figure.id);
  const timing = (from: Piece, { poses, rail }: Figure) => [
    poses.map((id) => from.poses[id].hold),
    rail.map((id) => [from.shifts[id].duration, from.shifts[id].easing]),
  ];
  const places = (from: Piece, { poses }: Figure) => poses.map((id) => from.poses[id].placement);
  const found: string[] = [];
  if (figure.name !== was.name) found.push(`was “${was.name}”`);
  if (figure.poses.length !== was.poses.length) found.push(`${figure.poses.length} poses, not ${was.poses.length}`);
  if (of(({ contours }) => contours)) found.push('other outlines');
  if (of(({ fill, stroke }) => [fill, stroke])) found.push('other colours or strokes');
  if (!alike(places(piece, figure), places(other, was))) found.push('another place or size');
  if (!alike(timing(piece, figure), timing(other, was))) found.push('other times or easing');
  if (!alike(lanes(piece), lanes(other))) found.push('other lanes');
  const matches = (from: Piece, { rail }: Figure) => rail.map((id) => [from.shifts[id].method, from.shifts[id].match]);
  if (found.length === 0 && !alike(matches(piece, figure), matches(other, was))) found.push('another match');
  if (found.length === 0 && !alike(figure, was)) found.push('other settings');
  return found;
}
