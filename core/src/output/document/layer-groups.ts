import type { DrawnElement } from '../tree/drawn-element';

/** An element with a layer's name as its id. */
export const named = (element: DrawnElement, name: unknown): DrawnElement =>
  typeof name === 'string' && name.trim() !== ''
    ? { ...element, attributes: { ...element.attributes, id: name.trim().slice(0, 100) } }
    : element;

/** Puts another group beside the one inside a placed layer. */
export function withinInner(element: DrawnElement, added: DrawnElement): DrawnElement {
  const [child] = element.children;
  const isOuter =
    element.children.length === 1 &&
    child.name === 'g' &&
    (child.attributes.transform !== undefined || child.tracks.some(({ attribute }) => attribute === 'transform'));
  return isOuter
    ? { ...element, children: [withinInner(child, added)] }
    : { ...element, children: [...element.children, added] };
}
