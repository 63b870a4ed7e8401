import { CoreError } from '../../errors';
import { readSvgTree, type SvgNode, type SvgShape } from '../../svg';
import type { Matrix } from '../../vec';
import type { DrawnElement } from '../document/animated-document';
import { attributesAt } from '../document/attributes-at';
import { READING_COST, type ReadingBudget } from './budget';

/** Elements from the outermost to one that is looked at. */
export type Chain = readonly DrawnElement[];

/** What of the elements around a shape is not its own look, but is taken as movement of the whole: it is left out where a shape is read. */
export const TAKEN_APART = ['opacity', 'display', 'visibility', 'clip-path', 'filter', 'mask'] as const;

const isTakenApart = (name: string): boolean => (TAKEN_APART as readonly string[]).includes(name);

/** Attributes that are no property of CSS: they are not overridden by rules. */
const GEOMETRY = new Set(
  'd points x y x1 y1 x2 y2 cx cy r rx ry fx fy width height offset viewBox gradientTransform pathLength'.split(' '),
);

/** Elements of a drawing as they are at a moment, for the reader of still files. */
export class StillTree {
  private readonly styles: readonly DrawnElement[];
  private readonly paints = new Map<string, DrawnElement>();

  private readonly sheetCost: number;

  constructor(
    private readonly root: DrawnElement,
    private readonly budget: ReadingBudget,
  ) {
    const styles: DrawnElement[] = [];
    const visit = (element: DrawnElement): void => {
      if (element.name === 'style') styles.push(element);
      if (element.name.endsWith('Gradient') && element.attributes.id) this.paints.set(element.attributes.id, element);
      element.children.forEach(visit);
    };
    visit(root);
    this.styles = styles;
    this.sheetCost = READING_COST.styleCharacter * styles.reduce((sum, { text }) => sum + text.length, 0);
  }

  /**
   * The shape at the end of a chain at a time, s; null where it draws nothing. Transforms of the elements from `from` to `until` (indices of the chain, both
   * included) are left out, and so is what is taken apart.
   */
  shapeAt(chain: Chain, seconds: number, without?: { readonly from: number; readonly until: number }): SvgShape | null {
    const leaf = this.nodeOf(chain[chain.length - 1], seconds, dropped(chain.length - 1, without), []);
    const shapes = this.shapesOf(chain.slice(0, -1), leaf, seconds, without);
    return shapes[0] ?? null;
  }

  /** The map of all transforms of a chain's first elements at a time, s, with view boxes; null where it has no extent to be measured by. */
  matrixAt(chain: Chain, seconds: number): Matrix | null {
    const probe: SvgNode = { name: 'path', attributes: PROBE, children: [], text: '', line: 0, size: 0 };
    const [last] = chain.slice(-1);
    const isShape = last.name !== 'svg' && last.name !== 'g' && last.name !== 'a' && last.name !== 'switch';
    const [around, leaf] = isShape
      ? [
          chain.slice(0, -1),
          { ...probe, attributes: { ...PROBE, transform: attributesAt(last, seconds).transform ?? 'none' } },
        ]
      : [chain, probe];
    const shape = this.shapesOf(around, leaf, seconds)[0];
    if (!shape) return null;
    const { points: p } = shape.outline.contours[0];
    return [p[6] - p[0], p[7] - p[1], p[12] - p[0], p[13] - p[1], p[0], p[1]];
  }

  /** Width and height of the whole, px. */
  size(): { readonly width: number; readonly height: number } {
    const probe: SvgNode = { name: 'path', attributes: PROBE, children: [], text: '', line: 0, size: 0 };
    const { width, height } = readSvgTree(this.nodeOf(this.root, 0, false, [probe]));
    return { width, height };
  }

  private shapesOf(
    around: Chain,
    leaf: SvgNode,
    seconds: number,
    without?: { readonly from: number; readonly until: number },
  ): readonly SvgShape[] {
    let node = leaf;
    for (let i = around.length - 1; i > 0; i--) node = this.nodeOf(around[i], seconds, dropped(i, without), [node]);
    const used = this.usedPaints(around, leaf, seconds);
    this.budget.spend(
      READING_COST.look +
        this.sheetCost +
        READING_COST.character * (sizeOf(node) + used.reduce((sum, each) => sum + sizeOf(each), 0)),
    );
    const root = this.nodeOf(this.root, seconds, false, [
      ...this.styles.map((style) => this.nodeOf(style, seconds, false, [])),
      ...used,
      node,
    ]);
    try {
      return readSvgTree(root).shapes;
    } catch (error) {
      if (error instanceof CoreError && error.code === 'svg-no-outline') return [];
      throw error;
    }
  }

  /** Gradients that a chain may refer to, and those that they refer to; all where style rules may name others. */
  private usedPaints(around: Chain, leaf: SvgNode, seconds: number): SvgNode[] {
    if (this.paints.size === 0) return [];
    const wanted = new Set<string>();
    const look = (text: string): void => {
      for (const [, id] of text.matchAll(/#([^'")\s]+)/g)) if (this.paints.has(id)) wanted.add(id);
    };
    if (this.styles.length > 0) for (const id of this.paints.keys()) wanted.add(id);
    for (const { attributes, tracks } of around) {
      Object.values(attributes).forEach(look);
      for (const { values } of tracks) values.forEach(look);
    }
    for (const value of Object.values(leaf.attributes)) if (value.length < 200 || value.includes('url(')) look(value);
    // A set grows while it is gone through.
    for (const id of wanted) Object.values(this.paints.get(id)?.attributes ?? {}).forEach(look);
    return [...wanted].map((id) => this.deep(this.paints.get(id) as DrawnElement, seconds));
  }

  private deep(element: DrawnElement, seconds: number): SvgNode {
    return this.nodeOf(
      element,
      seconds,
      false,
      element.children.map((child) => this.deep(child, seconds)),
    );
  }

  private nodeOf(element: DrawnElement, seconds: number, still: boolean, children: SvgNode[]): SvgNode {
    const now = attributesAt(element, seconds);
    const attributes: Record<string, string> = Object.create(null);
    let style = now.style ?? '';
    let size = 0;
    for (const [name, value] of Object.entries(now)) {
      if (name === 'style' || isTakenApart(name) || name.startsWith('on')) continue;
      attributes[name === 'xlink:href' ? 'href' : name] = value;
      size += value.length;
    }
    // Animations go before the rules of style sheets.
    for (const { attribute } of element.tracks)
      if (now[attribute] !== undefined && !GEOMETRY.has(attribute) && !isTakenApart(attribute))
        style += `;${attribute}:${now[attribute]}`;
    if (still) {
      attributes.transform = 'none';
      style += ';transform:none';
    }
    if (style) {
      attributes.style = style;
      size += STYLE_WEIGHT * style.length;
    }
    return { name: element.name, attributes, children, text: element.text, line: 0, size };
  }
}

const PROBE: Readonly<Record<string, string>> = {
  d: 'M0 0L1 0L0 1Z',
  style: 'fill:#000;stroke:none;fill-opacity:1;visibility:visible;display:inline',
};

const dropped = (index: number, without: { readonly from: number; readonly until: number } | undefined): boolean =>
  without !== undefined && index >= without.from && index <= without.until;

/** So many times as much as others a character of a style costs to be read. */
const STYLE_WEIGHT = 8;

/** Characters of an element and all in it. */
const sizeOf = ({ size, children }: SvgNode): number => children.reduce((sum, child) => sum + sizeOf(child), size);
