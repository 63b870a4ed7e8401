import type { Figure, Id } from '../records';

type Clipped = Readonly<Record<Id, Pick<Figure, 'clip'>>>;

/**
 * The figures inside which a figure is seen, one inside the other, the nearest first. Ends where a figure is missing, or where the chain comes
 * back to one that it has passed.
 */
export function clipChain(figures: Clipped, id: Id): Id[] {
  const chain: Id[] = [];
  const passed = new Set([id]);
  for (
    let at = figures[id]?.clip ?? null;
    at !== null && Object.hasOwn(figures, at) && !passed.has(at);
    at = figures[at].clip
  ) {
    chain.push(at);
    passed.add(at);
  }
  return chain;
}

/** May a figure be seen inside another? Not inside itself, directly or round about. */
export const canClip = (figures: Clipped, id: Id, by: Id): boolean =>
  id !== by && Object.hasOwn(figures, by) && !clipChain(figures, by).includes(id);
