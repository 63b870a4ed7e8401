import type { Id, Piece, Placement, PlacementRule } from '../records';
import { letterBoxAt } from './letter-boxes';
import { placementsOfFigure } from './placement';

/**
 * The placements of poses that are fitted to a letter, or to a gap, of a text that a change has moved or set anew, and of those that are fitted to them in
 * turn. Keys are pose ids; unchanged ones are left out.
 */
export function keepLetterPlaces(before: Piece, after: Piece): Map<Id, Placement> {
  const out = new Map<Id, Placement>();
  for (const figureId of after.figureOrder) {
    const figure = after.figures[figureId];
    const rules = new Map<Id, PlacementRule>();
    for (const id of figure.poses) {
      const rule = after.poses[id].placement.rule;
      const next = rule && ruleAfter(rule, before, after);
      if (next) rules.set(id, next);
    }
    if (rules.size === 0) continue;
    const poses = { ...after.poses };
    for (const [id, rule] of rules) poses[id] = { ...poses[id], placement: { ...poses[id].placement, rule } };
    for (const id of rules.keys()) out.set(id, poses[id].placement);
    for (const [id, placement] of placementsOfFigure({ ...after, poses }, figure)) out.set(id, placement);
  }
  return out;
}

/** The rule with the box that its letter has now; undefined when it is as it was, or when there is no such letter any more. */
function ruleAfter(rule: PlacementRule, before: Piece, after: Piece): PlacementRule | undefined {
  const { letter, box } = rule;
  if (!letter || !box || !after.texts[letter.text]) return undefined;
  const pose = Object.values(after.poses).find(({ parts }) =>
    parts.some((id) => {
      const { source } = after.parts[id];
      return source?.kind === 'glyph' && source.text === letter.text;
    }),
  );
  if (!pose) return undefined;
  const index = movedIndex(
    before.texts[letter.text]?.content ?? after.texts[letter.text].content,
    after.texts[letter.text].content,
    letter.index,
  );
  const found = index === undefined ? undefined : letterBoxAt(after, pose, letter.text, index);
  if (!found) return undefined;
  const { minX, minY, maxX, maxY } = found.box;
  const next = [minX, minY, maxX - minX, maxY - minY] as const;
  if (found.index === letter.index && next.every((v, i) => v === box[i])) return undefined;
  return { ...rule, box: next, letter: { text: letter.text, index: found.index } };
}

/**
 * Where a character is after a text was changed: counted from the start before the change, from the end behind it; undefined inside of it. Where the same letters
 * stand before and behind it, a change can be read in two ways: the one that keeps the character is taken.
 */
function movedIndex(before: string, after: string, index: number): number | undefined {
  const [old, now] = [[...before], [...after]];
  const shorter = Math.min(old.length, now.length);
  const alike = (most: number, same: (k: number) => boolean): number => {
    let count = 0;
    while (count < most && same(count)) count++;
    return count;
  };
  const fromStart = (most: number): number => alike(most, (k) => old[k] === now[k]);
  const fromEnd = (most: number): number => alike(most, (k) => old[old.length - 1 - k] === now[now.length - 1 - k]);
  const start = fromStart(shorter);
  const end = fromEnd(shorter - start);
  if (index < start) return index;
  if (index >= old.length - end) return index + now.length - old.length;
  // What is alike from the end on may reach into what is alike from the start on.
  if (index >= old.length - fromEnd(shorter)) return index + now.length - old.length;
  // What was changed is of the same length: the place is the same.
  return old.length === now.length ? index : undefined;
}
