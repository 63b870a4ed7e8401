/** How a press chooses in a row of things: this alone, this as well (or not any more), or all from the chosen one to it. */
export type ChoosingHow = 'alone' | 'more' | 'range';

/** What the keys held down say: Ctrl or Cmd for single ones, ⇧ for a range. */
export const choosingHow = (keys: { ctrlKey: boolean; metaKey: boolean; shiftKey: boolean }): ChoosingHow =>
  keys.shiftKey ? 'range' : keys.ctrlKey || keys.metaKey ? 'more' : 'alone';

/** What of a list is chosen after a press on `id`; a range begins at the first of `chosen`, which stays the first. */
export function chosenAfter(
  list: readonly string[],
  chosen: readonly string[],
  id: string,
  how: ChoosingHow,
): readonly string[] {
  const [first] = chosen;
  if (how === 'alone' || first === undefined) return [id];
  if (how === 'more') return chosen.includes(id) ? chosen.filter((other) => other !== id) : [...chosen, id];
  const [p, q] = [list.indexOf(first), list.indexOf(id)];
  const range = list.slice(Math.min(p, q), Math.max(p, q) + 1);
  return [first, ...range.filter((other) => other !== first)];
}
