import { CoreError } from '../../errors';
import { COORDINATE_LIMIT } from '../../num';
import type { Contour } from '../../outline';
import { isGradient } from '../../paint';
import { cssTransform, readSvgTree, readTransform, StyleRules, type SvgNode, type SvgShape } from '../../svg';
import { invert, type Matrix, multiply } from '../../vec';
import { attributeAt, attributesAt, numbersAt } from '../document/attributes-at';
import { READING_COST, type ReadingBudget } from '../document/budget';
import type { DrawnElement } from '../tree/drawn-element';

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

  private readonly rules: StyleRules;
  /** May style rules say how something is placed, whatever is animated? */
  private readonly placedByRules: boolean;
  private readonly ownPlaces = new WeakMap<DrawnElement, { readonly parent: DrawnElement; readonly matrix: Matrix }>();
  private readonly looks = new WeakMap<Chain, Map<string, SvgShape | null>>();
  private rootPlace: { readonly matrix: Matrix; readonly back: Matrix } | null | undefined;

  constructor(
    private readonly root: DrawnElement,
    /** Counts the work of all that is read of it. */
    readonly budget: ReadingBudget,
  ) {
    const styles: DrawnElement[] = [];
    const visit = (element: DrawnElement): void => {
      if (element.name === 'style') styles.push(element);
      if (element.name.endsWith('Gradient') && element.attributes.id) this.paints.set(element.attributes.id, element);
      element.children.forEach(visit);
    };
    visit(root);
    this.styles = styles;
    const css = styles.map(({ text }) => text).join('\n');
    budget.spend(READING_COST.styleCharacter * css.length);
    this.rules = new StyleRules(css);
    this.placedByRules = /transform[^;}]*!\s*important/i.test(css);
  }

  /**
   * The shape at the end of a chain at a time, s; null where it draws nothing. Transforms of the elements from `from` to `until` (indices of the chain, both
   * included) are left out, and so is what is taken apart.
   */
  shapeAt(chain: Chain, seconds: number, without?: Without): SvgShape | null {
    return this.changedPath(chain, seconds, without) ?? this.readShape(chain, seconds, without);
  }

  private readShape(chain: Chain, seconds: number, without?: Without): SvgShape | null {
    const leaf = this.nodeOf(chain[chain.length - 1], seconds, dropped(chain.length - 1, without), []);
    return this.shapesOf(chain.slice(0, -1), leaf, seconds, without)[0] ?? null;
  }

  /**
   * A path of which only the points have changed since it was looked at: its points anew, all else as it was. Undefined where more may have changed.
   * What paints depend on where the points lie, such as gradients and dashes in shares of the length, is read anew each time.
   */
  private changedPath(chain: Chain, seconds: number, without?: Without): SvgShape | undefined {
    const leaf = chain[chain.length - 1];
    const outlines = leaf.tracks.filter(({ attribute }) => attribute === 'd');
    if (leaf.name !== 'path' || outlines.length !== 1 || leaf.attributes.pathLength !== undefined) return undefined;
    const numbers = numbersAt(outlines[0], seconds);
    const matrix = numbers && this.placeAt(chain, seconds, without);
    if (!numbers || !matrix) return undefined;
    this.budget.spend(READING_COST.path + READING_COST.number * numbers.length);
    const key = [matrix.slice(0, 4).join(), ...this.otherValues(chain, seconds)].join('\n');
    let looks = this.looks.get(chain);
    if (!looks) {
      looks = new Map();
      this.looks.set(chain, looks);
    }
    let look = looks.get(key);
    if (look === undefined) {
      look = this.readShape(chain, seconds, without);
      if (looks.size >= MOST_LOOKS) looks.clear();
      looks.set(key, look);
    }
    if (!look || isGradient(look.fill) || isGradient(look.stroke?.paint)) return undefined;
    const { contours, fillRule } = look.outline;
    if (contours.reduce((sum, { points }) => sum + points.length, 0) !== numbers.length) return undefined;
    const placed = placedContours(contours, numbers, matrix);
    return placed && { ...look, outline: { contours: placed, fillRule } };
  }

  /** What the animations of a chain say at a time, but for outlines and places. */
  private otherValues(chain: Chain, seconds: number): string[] {
    const values: string[] = [];
    for (const element of chain)
      for (const { attribute } of element.tracks)
        if (attribute !== 'd' && attribute !== 'transform' && !isTakenApart(attribute))
          values.push(attributeAt(element, attribute, seconds) ?? '');
    return values;
  }

  /** The map of all transforms of a chain's elements at a time, s, with view boxes; null where it has no extent to be measured by. */
  matrixAt(chain: Chain, seconds: number): Matrix | null {
    return this.placeAt(chain, seconds) ?? this.measuredPlace(chain, seconds);
  }

  /** The map by the transforms themselves; null where there is more to it, such as view boxes inside each other. */
  private placeAt(chain: Chain, seconds: number, without?: Without): Matrix | null {
    if (this.placedByRules || this.root.tracks.length > 0) return null;
    if (this.rootPlace === undefined) {
      const matrix = this.measuredPlace([this.root], 0);
      const back = matrix && invert(matrix);
      this.rootPlace = matrix && back && { matrix, back };
    }
    if (!this.rootPlace) return null;
    let { matrix } = this.rootPlace;
    for (let i = 1; i < chain.length; i++) {
      const element = chain[i];
      if (element.name === 'svg') return null;
      if (dropped(i, without)) continue;
      const own = element.tracks.some(({ attribute }) => attribute === 'transform')
        ? this.movedPlace(element, seconds)
        : this.ownPlace(chain, i);
      if (!own) return null;
      matrix = multiply(matrix, own);
    }
    return matrix;
  }

  private movedPlace(element: DrawnElement, seconds: number): Matrix | null {
    const text = attributeAt(element, 'transform', seconds);
    // Before it begins, style attributes and rules may say something.
    if (text === element.attributes.transform && (this.styles.length > 0 || element.attributes.style)) return null;
    this.budget.spend(READING_COST.place + READING_COST.character * (text?.length ?? 0));
    return readTransform(cssTransform(text));
  }

  /** What an element that does not move adds to the places of those inside it. */
  private ownPlace(chain: Chain, i: number): Matrix | null {
    const element = chain[i];
    if (element.tracks.some(({ attribute }) => attribute === 'class' || attribute === 'style')) return null;
    const known = this.ownPlaces.get(element);
    if (known?.parent === chain[i - 1]) return known.matrix;
    const whole = this.measuredPlace(chain.slice(0, i + 1), 0, { from: 1, until: i - 1 });
    if (!whole || !this.rootPlace) return null;
    const matrix = multiply(this.rootPlace.back, whole);
    this.ownPlaces.set(element, { parent: chain[i - 1], matrix });
    return matrix;
  }

  /** The map by where it puts a triangle. */
  private measuredPlace(chain: Chain, seconds: number, without?: Without): Matrix | null {
    const probe: SvgNode = { name: 'path', attributes: PROBE, children: [], text: '', line: 0, size: 0 };
    const [last] = chain.slice(-1);
    const isShape = last.name !== 'svg' && last.name !== 'g' && last.name !== 'a' && last.name !== 'switch';
    const [around, leaf] = isShape
      ? [
          chain.slice(0, -1),
          { ...probe, attributes: { ...PROBE, transform: attributeAt(last, 'transform', seconds) ?? 'none' } },
        ]
      : [chain, probe];
    const shape = this.shapesOf(around, leaf, seconds, without)[0];
    if (!shape) return null;
    const { points: p } = shape.outline.contours[0];
    return [p[6] - p[0], p[7] - p[1], p[12] - p[0], p[13] - p[1], p[0], p[1]];
  }

  /** Width and height of the whole, px. */
  size(): { readonly width: number; readonly height: number } {
    const probe: SvgNode = { name: 'path', attributes: PROBE, children: [], text: '', line: 0, size: 0 };
    const { width, height } = readSvgTree(this.nodeOf(this.root, 0, false, [probe]), this.rules);
    return { width, height };
  }

  private shapesOf(around: Chain, leaf: SvgNode, seconds: number, without?: Without): readonly SvgShape[] {
    let node = leaf;
    for (let i = around.length - 1; i > 0; i--) node = this.nodeOf(around[i], seconds, dropped(i, without), [node]);
    const used = this.usedPaints(around, leaf, seconds);
    this.budget.spend(
      READING_COST.look +
        // Each stop of a gradient finds its style as an element around does.
        READING_COST.element * (around.length + used.reduce((sum, each) => sum + countOf(each), 0)) +
        READING_COST.character * (sizeOf(node) + used.reduce((sum, each) => sum + sizeOf(each), 0)),
    );
    const root = this.nodeOf(this.root, seconds, false, [...used, node]);
    try {
      return readSvgTree(root, this.rules).shapes;
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

/** Elements of a chain whose transforms are left out: indices, both included. */
interface Without {
  readonly from: number;
  readonly until: number;
}

/** So many looks of a path are kept. */
const MOST_LOOKS = 64;

/** Contours with other points, at their place; undefined where that is beyond all pictures. */
function placedContours(
  contours: readonly Contour[],
  numbers: readonly number[],
  [a, b, c, d, e, f]: Matrix,
): Contour[] | undefined {
  let at = 0;
  let most = 0;
  const placed = contours.map(({ points, closed }): Contour => {
    const moved = new Float64Array(points.length);
    for (let i = 0; i < moved.length; i += 2, at += 2) {
      const [x, y] = [numbers[at], numbers[at + 1]];
      moved[i] = a * x + c * y + e;
      moved[i + 1] = b * x + d * y + f;
      most = Math.max(most, Math.abs(moved[i]), Math.abs(moved[i + 1]));
    }
    return { points: moved, closed };
  });
  return most <= COORDINATE_LIMIT ? placed : undefined;
}

const dropped = (index: number, without: Without | undefined): boolean =>
  without !== undefined && index >= without.from && index <= without.until;

/** So many times as much as others a character of a style costs to be read. */
const STYLE_WEIGHT = 8;

/** Characters of an element and all in it. */
const sizeOf = ({ size, children }: SvgNode): number => children.reduce((sum, child) => sum + sizeOf(child), size);
/** An element and all in it. */
const countOf = ({ children }: SvgNode): number => children.reduce((sum, child) => sum + countOf(child), 1);
