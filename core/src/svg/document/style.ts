import { type Ancestry, type ElementSelector, readSelectors } from './selector';
import type { SvgNode } from './tree';

/** Properties that shapes inherit, or that are read on every element. */
const PROPERTIES = [
  'fill',
  'fill-opacity',
  'fill-rule',
  'stroke',
  'stroke-opacity',
  'stroke-width',
  'stroke-linecap',
  'stroke-linejoin',
  'stroke-miterlimit',
  'stroke-dasharray',
  'color',
  'opacity',
  'display',
  'visibility',
  'stop-color',
  'stop-opacity',
  'stroke-dashoffset',
  'clip-rule',
  'clip-path',
  'mask',
  'filter',
  'transform',
  'vector-effect',
  'paint-order',
  'marker-start',
  'marker-mid',
  'marker-end',
  'overflow',
] as const;
type Property = (typeof PROPERTIES)[number];
const NOT_INHERITED = new Set<Property>([
  'opacity',
  'display',
  'stop-color',
  'stop-opacity',
  'clip-path',
  'mask',
  'filter',
  'transform',
  'vector-effect',
  'overflow',
]);
const KNOWN = new Set<string>(PROPERTIES);

export type Style = Readonly<Partial<Record<Property, string>>>;

interface Rule {
  /** Place in the cascade: a later one goes before an earlier one. */
  readonly order: number;
  readonly selector: ElementSelector;
  readonly declarations: Declarations;
}

/** What a rule or a style attribute says, and what of it is marked as important. */
interface Declarations {
  readonly normal: Style;
  readonly important: Style;
}

/** What it costs to look at a rule for an element, in characters of work. */
const RULE_COST = 24;

/** Of so many rules that were not understood it is found out which elements they may be about. */
const MOST_TRACED = 12;

/** A rule, or what stands for one, that was not understood. */
interface NotUnderstood {
  readonly rule: string;
  /** What it is about as far as that was understood. */
  readonly nearly?: ElementSelector;
}

/** The rules of style sheets, taken apart once. */
export class StyleRules {
  /** Rules by what an element must have for them: an id, else a class, else a name; '*' for the others. */
  readonly byMark: ReadonlyMap<string, readonly Rule[]>;
  readonly ignored: readonly NotUnderstood[];

  constructor(text: string) {
    const found: Omit<Rule, 'order'>[] = [];
    const ignored: NotUnderstood[] = [];
    const ignore = (rule: string, nearly?: ElementSelector): void => void ignored.push({ rule, nearly });
    for (const { selectors, body } of styleRules(text, ignore)) {
      const declarations = readDeclarations(body);
      for (const selector of readSelectors(selectors, ignore)) found.push({ selector, declarations });
    }
    // A stable sort: of equal weight the later one goes before.
    found.sort((a, b) => a.selector.specificity - b.selector.specificity);
    const byMark = new Map<string, Rule[]>();
    found.forEach((rule, order) => {
      const marked = byMark.get(rule.selector.mark);
      if (marked) marked.push({ ...rule, order });
      else byMark.set(rule.selector.mark, [{ ...rule, order }]);
    });
    this.byMark = byMark;
    this.ignored = ignored;
  }
}

/** The style rules of a document, held against its elements. */
export class StyleSheet {
  private readonly own = new WeakMap<SvgNode, Style>();
  /** For the first that were not understood: the elements that each may be about, as far as they were looked at. */
  private readonly traced: readonly (NotUnderstood & { readonly concerns: SvgNode[] })[];

  constructor(
    private readonly rules: StyleRules,
    private readonly tree: Ancestry,
  ) {
    this.traced = rules.ignored.slice(0, MOST_TRACED).map((each) => ({ ...each, concerns: [] }));
  }

  /** Selectors and at-rules that were not understood, each with the elements that it may be about, as far as they were looked at. */
  ignored(): { readonly rule: string; readonly concerns: readonly SvgNode[] }[] {
    return this.rules.ignored.map((each, i) => this.traced[i] ?? { ...each, concerns: [] });
  }

  /** The element's own style by the cascade: presentation attributes, then rules by specificity, then the style attribute, then what is important. */
  ownStyle(node: SvgNode): Style {
    let style = this.own.get(node);
    if (!style) {
      style = this.cascade(node);
      this.own.set(node, style);
    }
    return style;
  }

  private cascade(node: SvgNode): Style {
    const own: Partial<Record<Property, string>> = {};
    const important: Partial<Record<Property, string>> = {};
    for (const property of PROPERTIES) {
      const value = node.attributes[property];
      if (value !== undefined && fits(property, value)) own[property] = value.trim();
    }
    const classes = new Set((node.attributes.class ?? '').split(/\s+/));
    const marks = ['*', node.name, `#${node.attributes.id ?? ''}`, ...[...classes].map((name) => `.${name}`)];
    const rules: Rule[] = [];
    for (const mark of marks) {
      const marked = this.rules.byMark.get(mark) ?? [];
      this.tree.budget.spend(RULE_COST * marked.length, node.line);
      for (const rule of marked) if (rule.selector.matches(node, this.tree)) rules.push(rule);
    }
    for (const { nearly, concerns } of this.traced) if (nearly?.matches(node, this.tree)) concerns.push(node);
    for (const { declarations } of rules.sort((a, b) => a.order - b.order)) {
      Object.assign(own, declarations.normal);
      Object.assign(important, declarations.important);
    }
    const inline = readDeclarations(node.attributes.style ?? '');
    return Object.assign(own, inline.normal, important, inline.important);
  }
}

/**
 * The rules of a style sheet, comments and at-rules taken out, in one pass from its start to its end (CSS Syntax 3, section 5, as far as simple
 * rules need it). At-rules are told to `onAtRule`, shortened.
 */
function* styleRules(
  text: string,
  onAtRule: (rule: string) => void,
): Generator<{ readonly selectors: string; readonly body: string }> {
  let selectors = '';
  // Kept beside it: looking at a text that grows would take the square of its length.
  let blank = true;
  let at = 0;
  const add = (more: string): void => {
    selectors += more;
    blank &&= more.trim() === '';
  };
  const clear = (): void => {
    selectors = '';
    blank = true;
  };
  const upTo = (mark: string, from: number): number => {
    const found = text.indexOf(mark, from);
    return found < 0 ? text.length : found;
  };
  while (at < text.length) {
    const next = /[/<@{}-]/g;
    next.lastIndex = at;
    const found = next.exec(text)?.index ?? text.length;
    add(text.slice(at, found));
    at = found;
    if (text.startsWith('/*', at)) at = upTo('*/', at + 2) + 2;
    else if (text.startsWith('<!--', at)) at += 4;
    else if (text.startsWith('-->', at)) at += 3;
    else if (text[at] === '@' && blank) {
      onAtRule(
        text
          .slice(at, at + 80)
          .trim()
          .slice(0, 40),
      );
      at = endOfAtRule(text, at);
      clear();
    } else if (text[at] === '{') {
      const end = upTo('}', at);
      yield { selectors, body: text.slice(at + 1, end).replace(/\/\*[^*]*\*\//g, '') };
      clear();
      at = end + 1;
    } else if (text[at] === '}') {
      clear();
      at++;
    } else if (at < text.length) {
      add(text[at]);
      at++;
    }
  }
}

/** Behind the semicolon that ends an at-rule, or behind its outermost block. */
function endOfAtRule(text: string, start: number): number {
  const mark = /[;{}]/g;
  mark.lastIndex = start;
  let depth = 0;
  for (let found = mark.exec(text); found; found = mark.exec(text)) {
    if (found[0] === '{') depth++;
    else if (found[0] === '}') depth--;
    if (depth <= 0) return found.index + 1;
  }
  return text.length;
}

/** A value longer than this is no value; lists of dashes and transforms may be longer. */
const VALUE_LIMIT = 2_000;
const fits = (property: string, value: string): boolean =>
  value.length <= VALUE_LIMIT || property === 'stroke-dasharray' || property === 'transform';

function readDeclarations(text: string): Declarations {
  const normal: Record<string, string> = {};
  const important: Record<string, string> = {};
  for (const declaration of text.split(';')) {
    const colon = declaration.indexOf(':');
    const property = declaration.slice(0, colon).trim().toLowerCase();
    if (!(colon > 0) || !KNOWN.has(property)) continue;
    const value = declaration.slice(colon + 1);
    if (!fits(property, value)) continue;
    const marked = /!\s*important/i.test(value);
    (marked ? important : normal)[property] = value.replace(/!\s*important/i, '').trim();
  }
  return { normal, important };
}

/** What a child starts from: the inherited properties of its parent, overridden by its own. */
export function inheritStyle(parent: Style, own: Style): Style {
  const out: Partial<Record<Property, string>> = {};
  for (const property of PROPERTIES) {
    const value = own[property] === 'inherit' ? parent[property] : own[property];
    const inherited = NOT_INHERITED.has(property) ? undefined : parent[property];
    const result = value ?? inherited;
    if (result !== undefined) out[property] = result;
  }
  return out;
}
