import { parse, type Selector as Token } from 'css-what';
import type { WorkBudget } from './budget';
import type { SvgNode } from './tree';

/** A rule's list of selectors longer than this is not read. */
const LIST_LIMIT = 20_000;
/** More steps from element to element than this, or `:not` in `:not` deeper, are not read. */
const STEP_LIMIT = 12;
const NESTING_LIMIT = 3;
/** What it costs to hold one condition against one element, in characters of work. */
const TEST_COST = 10;

type Test = (node: SvgNode, tree: Ancestry) => boolean;
type Combinator = 'descendant' | 'child' | 'adjacent' | 'sibling';

/** One selector, ready to be held against elements. */
export interface ElementSelector {
  /** Ids by 10,000, classes, attributes and pseudo-classes by 100, names by 1. */
  readonly specificity: number;
  /** What an element must have: `#id`, else `.class`, else its name; `*` where it is none of these. */
  readonly mark: string;
  matches(node: SvgNode, tree: Ancestry): boolean;
}

/** Where elements stand in their tree, and what looking costs. */
export interface Ancestry {
  readonly parents: ReadonlyMap<SvgNode, SvgNode>;
  readonly budget: WorkBudget;
}

/**
 * Reads a list of selectors (Selectors 4: names, classes, ids, attributes, `:not`, `:is`, `:where`, `:root`, `:first-child`, `:last-child`, and elements inside, under, after others).
 * What is not understood is told to `ignored`, shortened, with a selector of all that it may be about where that much is understood; the others of the list hold.
 */
export function readSelectors(
  list: string,
  ignored: (selector: string, nearly?: ElementSelector) => void,
): ElementSelector[] {
  if (list.length > LIST_LIMIT) {
    ignored(list.trim().slice(0, 40));
    return [];
  }
  return separately(list).flatMap((text) => {
    try {
      return parse(text).map((tokens) => compile(tokens, 0));
    } catch {
      ignored(text.trim().slice(0, 40), withoutStates(text));
      return [];
    }
  });
}

/** The selectors of a list one by one: of one that cannot be read the others hold. */
const separately = (list: string): string[] => (/[([]/.test(list) ? [list] : list.split(','));

/** The selector without the pseudo-classes and pseudo-elements on its elements; undefined where that does not help. */
function withoutStates(text: string): ElementSelector | undefined {
  try {
    const [tokens] = parse(text);
    return compile(
      tokens.filter(({ type }) => type !== 'pseudo' && type !== 'pseudo-element'),
      0,
    );
  } catch {
    return undefined;
  }
}

class NotUnderstood extends Error {}

function compile(tokens: readonly Token[], depth: number): ElementSelector {
  if (tokens.length === 0 || depth > NESTING_LIMIT) throw new NotUnderstood();
  const compounds: Test[][] = [[]];
  const combinators: Combinator[] = [];
  let specificity = 0;
  let [id, className, name] = [undefined, undefined, undefined] as (string | undefined)[];
  for (const token of tokens) {
    if (
      token.type === 'descendant' ||
      token.type === 'child' ||
      token.type === 'adjacent' ||
      token.type === 'sibling'
    ) {
      combinators.push(token.type as Combinator);
      compounds.push([]);
      [id, className, name] = [undefined, undefined, undefined];
      continue;
    }
    const { test, weight } = simpleTest(token, depth);
    specificity += weight;
    if (token.type === 'attribute' && token.name === 'id' && token.action === 'equals') id ??= token.value;
    if (token.type === 'attribute' && token.name === 'class' && token.action === 'element') className ??= token.value;
    if (token.type === 'tag') name = token.name;
    compounds[compounds.length - 1].push(test);
  }
  if (combinators.length > STEP_LIMIT || compounds.some((tests) => tests.length === 0)) throw new NotUnderstood();
  const fits = (k: number, node: SvgNode, tree: Ancestry): boolean => {
    tree.budget.spend(TEST_COST * compounds[k].length, node.line);
    if (!compounds[k].every((test) => test(node, tree))) return false;
    if (k === 0) return true;
    for (const other of related(combinators[k - 1], node, tree.parents)) if (fits(k - 1, other, tree)) return true;
    return false;
  };
  return {
    specificity,
    mark: id !== undefined ? `#${id}` : className !== undefined ? `.${className}` : (name ?? '*'),
    matches: (node, tree) => fits(compounds.length - 1, node, tree),
  };
}

/** The elements that may stand on the other side of a combinator. */
function* related(combinator: Combinator, node: SvgNode, parents: Ancestry['parents']): Generator<SvgNode> {
  const parent = parents.get(node);
  if (!parent) return;
  if (combinator === 'child') yield parent;
  else if (combinator === 'descendant') for (let at: SvgNode | undefined = parent; at; at = parents.get(at)) yield at;
  else {
    const before = parent.children.slice(0, parent.children.indexOf(node)).reverse();
    yield* combinator === 'adjacent' ? before.slice(0, 1) : before;
  }
}

const CLASS_WEIGHT = 100;
const ID_WEIGHT = 10_000;

function simpleTest(token: Token, depth: number): { test: Test; weight: number } {
  if (token.type === 'universal') return { test: () => true, weight: 0 };
  if (token.type === 'tag') return { test: (node) => node.name === token.name, weight: 1 };
  if (token.type === 'attribute') {
    const { name, value, action } = token;
    const weight = name === 'id' && action === 'equals' ? ID_WEIGHT : CLASS_WEIGHT;
    const holds = ATTRIBUTE_TESTS[action];
    if (!holds) throw new NotUnderstood();
    return {
      test: ({ attributes }) => attributes[name] !== undefined && holds(attributes[name], value),
      weight,
    };
  }
  if (token.type !== 'pseudo') throw new NotUnderstood();
  const { name, data } = token;
  if ((name === 'not' || name === 'is' || name === 'where') && Array.isArray(data)) {
    const inner = data.map((tokens) => compile(tokens, depth + 1));
    const any: Test = (node, tree) => inner.some((selector) => selector.matches(node, tree));
    const weight = name === 'where' ? 0 : Math.max(0, ...inner.map(({ specificity }) => specificity));
    return { test: name === 'not' ? (node, tree) => !any(node, tree) : any, weight };
  }
  const place = PLACES[name];
  if (!place || data !== null) throw new NotUnderstood();
  return { test: (node, { parents }) => place(node, parents.get(node)), weight: CLASS_WEIGHT };
}

const PLACES: Readonly<Record<string, (node: SvgNode, parent: SvgNode | undefined) => boolean>> = {
  root: (_node, parent) => parent === undefined,
  'first-child': (node, parent) => parent?.children[0] === node,
  'last-child': (node, parent) => parent?.children[parent.children.length - 1] === node,
};

const ATTRIBUTE_TESTS: Readonly<Record<string, (own: string, value: string) => boolean>> = {
  exists: () => true,
  equals: (own, value) => own === value,
  element: (own, value) => value !== '' && own.split(/\s+/).includes(value),
  start: (own, value) => value !== '' && own.startsWith(value),
  end: (own, value) => value !== '' && own.endsWith(value),
  any: (own, value) => value !== '' && own.includes(value),
  hyphen: (own, value) => own === value || own.startsWith(`${value}-`),
};
