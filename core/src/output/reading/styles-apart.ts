import type { DrawnElement, Track } from '../tree/drawn-element';
import { TAKEN_APART } from './still-tree';

/** A drawing in which what concerns a whole element (opacity, visibility, clip path, filter) is an attribute, where its style attribute said it. */
export function stylesApart(element: DrawnElement): DrawnElement {
  const children = element.children.map(stylesApart);
  const { style, ...rest } = element.attributes;
  const attributes: Record<string, string> = rest;
  const same = children.every((child, i) => child === element.children[i]);
  if (style === undefined) return same ? element : { ...element, children };
  const left: string[] = [];
  for (const declaration of style.split(';')) {
    const [name, ...value] = declaration.split(':');
    if ((TAKEN_APART as readonly string[]).includes(name.trim())) attributes[name.trim()] = value.join(':').trim();
    else left.push(declaration);
  }
  return { ...element, attributes: { ...attributes, style: left.join(';') }, children };
}

/**
 * A drawing in which transforms about an origin of their own (`transform-origin`, CSS Transforms 1, 6) are groups inside each other: moved there, transformed, moved back. Origins
 * that are not said in numbers are told and left out.
 */
export function originsApart(element: DrawnElement, note: (text: string) => void): DrawnElement {
  const children = element.children.map((child) => originsApart(child, note));
  const { 'transform-origin': origin, transform, ...attributes } = element.attributes;
  const same = children.every((child, i) => child === element.children[i]);
  const isTransform = ({ attribute }: Track): boolean => attribute === 'transform';
  const moves = element.tracks.some(isTransform);
  if (origin === undefined || (transform === undefined && !moves)) return same ? element : { ...element, children };
  const [x, y] = origin
    .trim()
    .split(/[\s,]+/)
    .map((part) => (/^[-+\d.e]+(?:px)?$/i.test(part) ? Number.parseFloat(part) : Number.NaN));
  if (!Number.isFinite(x) || !Number.isFinite(y)) {
    note(`A transform about “${origin.slice(0, 32)}” was taken about the corner: only origins in px are.`);
    return { ...element, children };
  }
  const group = (
    own: Readonly<Record<string, string>>,
    inside: DrawnElement,
    tracks: readonly Track[] = [],
  ): DrawnElement => ({
    name: 'g',
    attributes: own,
    children: [inside],
    tracks,
    text: '',
  });
  const back: DrawnElement = {
    ...element,
    attributes: { ...attributes, transform: `translate(${-x} ${-y})` },
    children,
    tracks: element.tracks.filter((track) => !isTransform(track)),
  };
  const moved = group(transform === undefined ? {} : { transform }, back, element.tracks.filter(isTransform));
  return group({ transform: `translate(${x} ${y})` }, moved);
}
