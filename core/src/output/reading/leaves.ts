import { isCalmPicture } from '../own-names';
import type { DrawnElement } from '../tree/drawn-element';
import type { Chain } from './still-tree';

/** A shape of a drawing with the elements around it. */
export interface Leaf {
  readonly chain: Chain;
}

const CONTAINERS = new Set(['svg', 'g', 'a', 'switch']);
const SHAPES = new Set(['path', 'rect', 'circle', 'ellipse', 'line', 'polyline', 'polygon']);
/** Elements that are no picture themselves. */
const SILENT = new Set(
  'defs style title desc metadata linearGradient radialGradient clipPath filter symbol marker pattern view script'.split(
    ' ',
  ),
);
const MOST_USES = 2_000;

/** The shapes of a drawing in painting order; what is not taken is told. What stands only where less motion is asked for is left out. */
export function leavesOf(root: DrawnElement, note: (text: string) => void): Leaf[] {
  const leaves: Leaf[] = [];
  collect(root, [], leaves, note);
  return leaves;
}

/** The shapes inside an element of a chain, such as a clip path. */
export function leavesInside(around: Chain, note: (text: string) => void): Leaf[] {
  const leaves: Leaf[] = [];
  for (const child of around[around.length - 1].children) collect(child, around, leaves, note);
  return leaves;
}

function collect(element: DrawnElement, around: Chain, leaves: Leaf[], note: (text: string) => void): void {
  const { name, children } = element;
  const chain = [...around, element];
  if (isCalmPicture(element) || SILENT.has(name)) return;
  if (SHAPES.has(name)) leaves.push({ chain });
  else if (CONTAINERS.has(name) || name === 'clipPath')
    for (const child of name === 'switch' ? children.slice(0, 1) : children) collect(child, chain, leaves, note);
  else if (name === 'text') note('Text was left out: turn it into outlines where it was made, or type it here.');
  else note(`<${name.slice(0, 40)}> was left out: it has no outline that can be read.`);
}

/**
 * A drawing in which each `use` is a group with a copy of what it refers to (SVG 2, 5.5). What refers to itself, or to nothing, is left out and told.
 */
export function withoutUses(root: DrawnElement, note: (text: string) => void): DrawnElement {
  const byId = new Map<string, DrawnElement>();
  const index = (element: DrawnElement): void => {
    if (element.attributes.id && !byId.has(element.attributes.id)) byId.set(element.attributes.id, element);
    element.children.forEach(index);
  };
  index(root);
  let uses = 0;
  const expand = (element: DrawnElement, inside: readonly DrawnElement[]): DrawnElement => {
    if (element.name !== 'use') {
      const children = element.children.map((child) => expand(child, inside));
      return children.every((child, i) => child === element.children[i]) ? element : { ...element, children };
    }
    const { href, 'xlink:href': old, x = '0', y = '0', ...attributes } = element.attributes;
    const target = byId.get((href ?? old ?? '').slice(1));
    if (!target || inside.includes(target) || ++uses > MOST_USES) {
      note(`<use> of “${(href ?? old ?? '').slice(0, 40)}” was left out: it refers to nothing that can be drawn.`);
      return { ...element, name: 'g', attributes, children: [] };
    }
    const { width, height } = attributes;
    const content = expand(target, [...inside, target]);
    const drawn =
      target.name === 'symbol'
        ? {
            ...content,
            name: 'svg',
            attributes: {
              width: '100%',
              height: '100%',
              ...content.attributes,
              ...(width && { width }),
              ...(height && { height }),
            },
          }
        : content;
    const moved: DrawnElement = {
      name: 'g',
      attributes: { transform: `translate(${x} ${y})` },
      children: [drawn],
      tracks: [],
      text: '',
    };
    return { ...element, name: 'g', attributes, children: [moved] };
  };
  return expand(root, []);
}
