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
  readonly specificity: number;
  readonly name?: string;
  readonly id?: string;
  readonly classes: readonly string[];
  readonly declarations: Declarations;
}

/** What a rule or a style attribute says, and what of it is marked as important. */
interface Declarations {
  readonly normal: Style;
  readonly important: Style;
}

/** The style rules of a document with simple selectors: element, .class, #id and their combinations on one element. */
export class StyleSheet {
  private readonly rules: Rule[] = [];
  /** Selectors and at-rules that were not understood. */
  readonly ignored: string[] = [];

  constructor(text: string) {
    const plain = text.replace(/\/\*[\s\S]*?\*\//g, '').replace(/<!--|-->/g, '');
    const withoutAt = plain.replace(/@[^;{]*(?:;|\{(?:[^{}]|\{[^{}]*\})*\})/g, (rule) => {
      this.ignored.push(rule.trim().slice(0, 40));
      return '';
    });
    for (const [, selectors, body] of withoutAt.matchAll(/([^{}]+)\{([^{}]*)\}/g)) {
      const declarations = readDeclarations(body);
      for (const selector of selectors.split(',')) this.add(selector.trim(), declarations);
    }
    this.rules.sort((a, b) => a.specificity - b.specificity);
  }

  private add(selector: string, declarations: Declarations): void {
    const parts = /^([a-zA-Z][\w-]*|\*)?((?:[.#][\w-]+)*)$/.exec(selector);
    if (!parts || selector === '') {
      this.ignored.push(selector.slice(0, 40));
      return;
    }
    const marks = parts[2].match(/[.#][\w-]+/g) ?? [];
    const ids = marks.filter((mark) => mark[0] === '#').map((mark) => mark.slice(1));
    const classes = marks.filter((mark) => mark[0] === '.').map((mark) => mark.slice(1));
    const name = parts[1] && parts[1] !== '*' ? parts[1] : undefined;
    this.rules.push({
      specificity: ids.length * 10_000 + classes.length * 100 + (name ? 1 : 0),
      name,
      id: ids[0],
      classes,
      declarations,
    });
  }

  /** The element's own style by the cascade: presentation attributes, then rules by specificity, then the style attribute, then what is important. */
  ownStyle(node: SvgNode): Style {
    const own: Partial<Record<Property, string>> = {};
    const important: Partial<Record<Property, string>> = {};
    for (const property of PROPERTIES)
      if (node.attributes[property] !== undefined) own[property] = node.attributes[property].trim();
    const classes = (node.attributes.class ?? '').split(/\s+/);
    for (const rule of this.rules) {
      if (rule.name !== undefined && rule.name !== node.name) continue;
      if (rule.id !== undefined && rule.id !== node.attributes.id) continue;
      if (!rule.classes.every((name) => classes.includes(name))) continue;
      Object.assign(own, rule.declarations.normal);
      Object.assign(important, rule.declarations.important);
    }
    const inline = readDeclarations(node.attributes.style ?? '');
    return Object.assign(own, inline.normal, important, inline.important);
  }
}

function readDeclarations(text: string): Declarations {
  const normal: Record<string, string> = {};
  const important: Record<string, string> = {};
  for (const declaration of text.split(';')) {
    const colon = declaration.indexOf(':');
    const property = declaration.slice(0, colon).trim().toLowerCase();
    if (!(colon > 0) || !KNOWN.has(property)) continue;
    const value = declaration.slice(colon + 1);
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
