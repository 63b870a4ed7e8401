import type { DrawnElement } from '../tree/drawn-element';
import { type Leaf, leavesInside } from './leaves';
import type { Chain } from './still-tree';

/** The shapes inside which something is seen: those of a clip path, at the end of the chain of what it clips. */
export function clipLeaves(chain: Chain, clipPath: DrawnElement, note: (text: string) => void): Leaf[] {
  const around: Chain = [...chain.slice(0, -1), plain(chain[chain.length - 1]), { ...clipPath, name: 'g' }];
  return leavesInside(around, note).map(
    ({ chain: inside }): Leaf => ({ chain: [...inside.slice(0, -1), asArea(inside[inside.length - 1])] }),
  );
}

/** An element without what concerns its own picture as a whole. */
const plain = (element: DrawnElement): DrawnElement => {
  const { opacity: _opacity, 'clip-path': _clip, filter: _filter, ...attributes } = element.attributes;
  return { ...element, attributes, tracks: element.tracks.filter(({ attribute }) => attribute !== 'opacity') };
};

/** Of a shape that others are seen inside only the area counts (CSS Masking 1, 3.5). */
const asArea = (element: DrawnElement): DrawnElement => {
  const { style: _style, fill: _fill, stroke: _stroke, 'clip-rule': rule, ...attributes } = element.attributes;
  return {
    ...element,
    attributes: { ...attributes, style: `fill:#000;stroke:none;fill-opacity:1;fill-rule:${rule ?? 'nonzero'}` },
    tracks: element.tracks.filter(({ attribute }) => !/^(fill|stroke|opacity)/.test(attribute)),
  };
};
