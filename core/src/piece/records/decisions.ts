import type { DirectionChoice, Opening, TouchUp, UnpairedOrder } from '../../match';
import type { RankOptions } from '../../morph';
import type { Place } from '../../outline';
import type { Matrix } from '../../vec';
import type { Id, MatchChoices, TouchUpPoint } from './records';

/** One of the answers to a question, as it is offered. */
export interface Answer<T> {
  readonly value: T;
  readonly label: string;
  readonly hint: string;
}

/** A place as contour index and share of that contour's length. */
interface FoundPlace {
  readonly contour: number;
  readonly share: number;
}

/** Two outlines, the first left and the second reached, as a decision looks for what it is about. */
export interface DecisionContext {
  place(side: 'a' | 'b', place: Place): FoundPlace | undefined;
  /** −1 for null: no contour; undefined: it is not there. */
  contour(side: 'a' | 'b', id: Id | null): number | undefined;
  /** From the pose's own coordinates to the canvas. */
  readonly matrix: { readonly a: Matrix; readonly b: Matrix };
  /** What was found is noted, so that the rest can be named. */
  use(item: unknown): void;
}

/** Outlines that were changed, as places and contours are carried over to them. */
export interface Carrier {
  /** The same place on the new outline; undefined where it is gone. */
  carry(place: Place): Place | undefined;
  hasContour(id: Id): boolean;
}

/** What the program knows of one decision about a match. */
interface DecisionRow<V> {
  /** Nothing is decided. */
  readonly automatic: V;
  /** How it is named when it cannot be used or kept. */
  readonly one: string;
  readonly many: string;
  /**
   * What becomes of it when another pose comes to stand between the two: it goes on through that pose. It is about the in-between itself and is
   * named; or it is one of the settings, which are named together.
   */
  readonly through: 'goes on' | 'named' | 'setting';
  /** For a list: the entry on outlines that were changed; undefined where it cannot be kept. */
  carry?(item: V extends readonly (infer T)[] ? T : never, a: Carrier, b: Carrier): unknown;
  /** For a list: what of it is counted when it cannot be used; the entries themselves, or none. */
  counted?(value: V): readonly unknown[];
  readonly countedAs?: { readonly one: string; readonly many: string };
  /** The same when the shift runs the other way; left out for a list that is about the outline that the shift leaves, and for what is the same both ways. */
  reversed?(value: V): V;
  /** For a choice: the answers and the question. */
  readonly question?: string;
  readonly answers?: readonly Answer<V>[];
  /** What the engine is told. */
  options(value: V, context: DecisionContext): Partial<RankOptions>;
}

type Rows = { readonly [K in keyof MatchChoices]: DecisionRow<MatchChoices[K]> };
type Tied = { readonly a: Place; readonly b: Place };

/** A pair of places on outlines that were changed. */
function carryTie<T extends Tied>(tie: T, from: Carrier, to: Carrier): T | undefined {
  const a = from.carry(tie.a);
  const b = to.carry(tie.b);
  if (!a || !b) return undefined;
  return a === tie.a && b === tie.b ? tie : { ...tie, a, b };
}

/** A pair of places or contours seen from the other side. */
const swapped = <T extends { readonly a: unknown; readonly b: unknown }>(list: readonly T[]): T[] =>
  list.map((tie) => ({ ...tie, a: tie.b, b: tie.a }));

const placePairs = (ties: readonly Tied[], { place, use }: DecisionContext) =>
  ties.flatMap((tie) => {
    const a = place('a', tie.a);
    const b = place('b', tie.b);
    if (!a || !b) return [];
    use(tie);
    return [{ contourA: a.contour, shareA: a.share, contourB: b.contour, shareB: b.share }];
  });

const some = <T>(list: readonly T[]): readonly T[] | undefined => (list.length > 0 ? list : undefined);

/** Every decision that can be made about a match by hand, a row each. */
export const DECISIONS: Rows = {
  direction: {
    automatic: 'auto',
    one: 'The direction',
    many: 'directions',
    through: 'setting',
    question: 'Second outline',
    answers: [
      { value: 'auto', label: 'Automatic', hint: 'Solids are run the same way round' },
      { value: 'same', label: 'As drawn', hint: 'Both outlines are run as they are written' },
      { value: 'reversed', label: 'Reversed', hint: 'The second outline is run backwards' },
    ] satisfies Answer<DirectionChoice>[],
    options: (direction) => ({ direction }),
  },
  directions: {
    automatic: [],
    one: 'The direction of a contour',
    many: 'directions of contours',
    through: 'setting',
    carry: (own, a) => (a.hasContour(own.contour) ? own : undefined),
    options: (list, { contour, use }) => ({
      directions: some(
        list.flatMap((own) => {
          const contourA = contour('a', own.contour);
          if (contourA === undefined) return [];
          use(own);
          return [{ contourA, direction: own.direction }];
        }),
      ),
    }),
  },
  starts: {
    automatic: [],
    one: 'A start point',
    many: 'start points',
    through: 'goes on',
    carry: carryTie,
    reversed: swapped,
    options: (starts, context) => ({ starts: placePairs(starts, context) }),
  },
  ties: {
    automatic: [],
    one: 'A tie',
    many: 'ties',
    through: 'goes on',
    carry: carryTie,
    reversed: swapped,
    options: (ties, context) => ({ ties: placePairs(ties, context) }),
  },
  pairs: {
    automatic: [],
    one: 'A pair of contours',
    many: 'pairs of contours',
    through: 'named',
    carry: (pair, a, b) =>
      (pair.a === null || a.hasContour(pair.a)) && (pair.b === null || b.hasContour(pair.b)) ? pair : undefined,
    reversed: swapped,
    options: (pairs, { contour, use }) => ({
      pairs: pairs.flatMap((pair): (readonly [number, number])[] => {
        const i = contour('a', pair.a);
        const j = contour('b', pair.b);
        if (i === undefined || j === undefined || (i < 0 && j < 0)) return [];
        use(pair);
        return [[i, j]];
      }),
    }),
  },
  wipes: {
    automatic: [],
    one: 'A wiped contour',
    many: 'wiped contours',
    through: 'named',
    carry: (wipe, a, b) => (a.hasContour(wipe.contour) || b.hasContour(wipe.contour) ? wipe : undefined),
    // What was covered in one direction is uncovered in the other.
    reversed: (wipes) => wipes.map((wipe) => ({ ...wipe, angle: (wipe.angle + 180) % 360 })),
    options: (wipes, { contour, use }) => ({
      wipes: some(
        wipes.flatMap((wipe) =>
          (['a', 'b'] as const).flatMap((side) => {
            const index = contour(side, wipe.contour);
            if (index === undefined) return [];
            use(wipe);
            return [{ side, contour: index, angle: (wipe.angle * Math.PI) / 180 }];
          }),
        ),
      ),
    }),
  },
  cuts: {
    automatic: [],
    one: 'A cut',
    many: 'cuts',
    through: 'named',
    // A line has no place on an outline: it stays where it is drawn, and cuts whatever lies there.
    counted: () => [],
    reversed: (cuts) => cuts.map((cut) => ({ ...cut, side: cut.side === 'from' ? 'to' : 'from' })),
    options(cuts, { matrix }) {
      if (cuts.length === 0) return {};
      const on = (side: 'from' | 'to', m: Matrix) =>
        cuts.filter((cut) => cut.side === side).map((cut) => mappedLine(m, cut.line));
      return { cuts: { a: on('from', matrix.a), b: on('to', matrix.b) } };
    },
  },
  opening: {
    automatic: 'auto',
    one: 'How a line opens or closes',
    many: 'openings',
    through: 'setting',
    question: 'A line and a closed outline',
    answers: [
      { value: 'auto', label: 'Automatic', hint: 'The closed outline is cut open at its start point' },
      { value: 'cut', label: 'Cut open', hint: 'The closed outline is cut open at its start point' },
      { value: 'chord', label: 'By chord', hint: 'The line is closed from its end to its start: for filled shapes' },
    ] satisfies Answer<Opening>[],
    options: (opening) => ({ opening }),
  },
  unpairedOrder: {
    automatic: 'auto',
    one: 'When contours come and go',
    many: 'orders of what comes and goes',
    through: 'setting',
    question: 'Unpaired contours',
    answers: [
      { value: 'auto', label: 'Automatic', hint: 'All the way, unless they would touch' },
      { value: 'together', label: 'At once', hint: 'All the way, what goes and what comes' },
      { value: 'overlap', label: 'Overlap', hint: 'What goes is half gone before something comes' },
      { value: 'after', label: 'One after the other', hint: 'What goes is gone before something comes' },
    ] satisfies Answer<UnpairedOrder>[],
    options: (unpairedOrder) => ({ unpairedOrder }),
  },
  smoothing: {
    automatic: null,
    one: 'The smoothing',
    many: 'smoothings',
    through: 'setting',
    options: (smoothing) => ({ smoothing: smoothing ?? undefined }),
  },
  points: {
    automatic: [],
    one: 'An added point',
    many: 'added points',
    through: 'named',
    carry: (place, a) => a.carry(place),
    options: (points, { place, use }) => ({
      points: points.flatMap((point) => {
        const at = place('a', point);
        if (!at) return [];
        use(point);
        return [{ contourA: at.contour, shareA: at.share }];
      }),
    }),
  },
  even: {
    automatic: null,
    one: 'The number of even points',
    many: 'numbers of even points',
    through: 'setting',
    options: (even) => ({ even: even ?? undefined }),
  },
  touchUps: {
    automatic: [],
    one: 'A touch-up',
    many: 'touch-ups',
    through: 'named',
    carry(touchUp, a) {
      const points = touchUp.points.map((point): TouchUpPoint | undefined => {
        const place = a.carry(point.place);
        return place && (place === point.place ? point : { ...point, place });
      });
      const kept = points.filter((point) => point !== undefined);
      if (kept.length === 0) return undefined;
      return points.every((point, i) => point === touchUp.points[i]) ? touchUp : { ...touchUp, points: kept };
    },
    counted: (touchUps) => touchUps.flatMap(({ points }) => points),
    countedAs: { one: 'A point of a touch-up', many: 'points of touch-ups' },
    options: (touchUps, { place, use, matrix }) => ({
      touchUps: some(
        touchUps.flatMap(({ progress, points }): TouchUp[] => {
          const moves = points.flatMap((point) => {
            const at = place('a', point.place);
            if (!at) return [];
            use(point);
            const [by, before, after] = [point.by, point.before, point.after].map((way) => turned(matrix.a, way));
            return [{ contourA: at.contour, shareA: at.share, by, before, after }];
          });
          return moves.length > 0 ? [{ progress, moves }] : [];
        }),
      ),
    }),
  },
  taken: {
    automatic: null,
    one: 'The alternative that was taken',
    many: 'alternatives',
    through: 'setting',
    reversed: (taken) => taken && { ...taken, pairs: swapped(taken.pairs) },
    // It is looked for among all ways, which takes longer than to tell the engine something.
    options: () => ({}),
  },
};

export const DECISION_NAMES = Object.keys(DECISIONS) as readonly (keyof MatchChoices)[];

/** A match about which nothing is decided by hand. */
export const AUTOMATIC_MATCH = Object.fromEntries(
  DECISION_NAMES.map((name) => [name, DECISIONS[name].automatic]),
) as unknown as MatchChoices;

/** Is something decided by hand? Lists are decisions by what is in them. */
export function isDecided(match: MatchChoices, name: keyof MatchChoices): boolean {
  const value = match[name];
  return Array.isArray(value) ? value.length > 0 : value !== DECISIONS[name].automatic;
}

/** The match with what an alternative that was taken pairs as a decision like others; the same where none was taken. */
export function settledMatch(match: MatchChoices): MatchChoices {
  const { taken, pairs } = match;
  if (!taken) return match;
  const said = (side: 'a' | 'b', id: Id | null): boolean => id !== null && pairs.some((pair) => pair[side] === id);
  const found = taken.pairs.filter(({ a, b }) => !said('a', a) && !said('b', b));
  return { ...match, taken: null, pairs: [...pairs, ...found] };
}

/** The decisions of a match that is run the other way, and in words what cannot be. */
export function reversedMatch(match: MatchChoices): { readonly match: MatchChoices; readonly lost: readonly string[] } {
  const lost: string[] = [];
  const turn = (name: keyof MatchChoices): unknown => {
    const row = DECISIONS[name] as DecisionRow<unknown>;
    const value = match[name];
    if (Array.isArray(value) && value.length === 0) return value;
    if (row.reversed) return row.reversed(value);
    if (!Array.isArray(value)) return value;
    lost.push(...inWords(value.length, row));
    return row.automatic;
  };
  const turned = Object.fromEntries(DECISION_NAMES.map((name) => [name, turn(name)])) as unknown as MatchChoices;
  return { match: turned, lost };
}

/** What the engine is told of all that was decided. */
export const decidedOptions = (match: MatchChoices, context: DecisionContext): Partial<RankOptions> =>
  Object.assign(
    {},
    ...DECISION_NAMES.map((name) => (DECISIONS[name] as DecisionRow<unknown>).options(match[name], context)),
  );

/** The entries of lists that were not used, counted in words. */
export function unusedDecisions(match: MatchChoices, used: ReadonlySet<unknown>): string[] {
  return DECISION_NAMES.flatMap((name) => {
    const row = DECISIONS[name] as DecisionRow<unknown>;
    const value = match[name];
    if (!Array.isArray(value)) return [];
    const unused = (row.counted?.(value) ?? value).filter((item) => !used.has(item));
    return inWords(unused.length, row.countedAs ?? row);
  });
}

/** So many of something, in words; none for 0. */
export const inWords = (count: number, { one, many }: { readonly one: string; readonly many: string }): string[] =>
  count === 0 ? [] : [count === 1 ? one : `${count} ${many}`];

function turned([a, b, c, d]: Matrix, [x, y]: readonly [number, number]): [number, number] {
  return [a * x + c * y, b * x + d * y];
}

function mappedLine(m: Matrix, [x0, y0, x1, y1]: readonly [number, number, number, number]) {
  const at = (x: number, y: number): [number, number] => {
    const [dx, dy] = turned(m, [x, y]);
    return [dx + m[4], dy + m[5]];
  };
  return [...at(x0, y0), ...at(x1, y1)] as const;
}
