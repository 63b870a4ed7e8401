import type { DrawnElement } from '../document/animated-document';
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
