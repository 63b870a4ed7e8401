import { type Match, matchOutlines, type PlacePair, pairOptimally, type Reason } from '../match';
import {
  type Health,
  measureHealth,
  planShift,
  type RankOptions,
  rankAlternatives,
  runEnds,
  type ShiftPlan,
  sharedPlaces,
  VERDICTS,
  withoutEndJoints,
} from '../morph';
import { areaCentre, contourLength, type Outline, outlineBox, outlineSize, transformOutline } from '../outline';
import {
  type BlendSpace,
  coloursOf,
  cssText,
  isGradient,
  type Paint,
  type PaintBlend,
  planPaintBlend,
  type Rgba,
  readColour,
  transformPaint,
} from '../paint';
import { outlineOfPart, type Part, placementMatrix, placementScale } from '../piece';
import { boxSize } from '../vec';
import { lostChoices, type PlacedPart, rankOptions, wipeAngle } from './match-input';
import type { PoseInput, ShiftInput } from './shift-input';

/** How a part is stroked along a shift; widths in canvas px. */
export interface StrokePlan {
  readonly paint: PaintBlend;
  readonly widths: readonly [from: number, to: number];
  readonly miters: readonly [from: number, to: number];
  /** Dashes and gaps of both ends, equally many; none for an unbroken stroke. */
  readonly dashes: readonly [from: readonly number[], to: readonly number[]];
  readonly dashOffsets: readonly [from: number, to: number];
  readonly caps: readonly [from: CanvasLineCap, to: CanvasLineCap];
  readonly joins: readonly [from: CanvasLineJoin, to: CanvasLineJoin];
}
type CanvasLineCap = 'butt' | 'round' | 'square';
type CanvasLineJoin = 'miter' | 'round' | 'bevel';

/** One drawn part of a shift. */
export interface PartPlan {
  /** Ids of the parts that become each other; one of them is absent for a part on its own. */
  readonly a?: string;
  readonly b?: string;
  readonly plan: ShiftPlan;
  readonly fill: PaintBlend | null;
  readonly stroke: StrokePlan | null;
}

/** The change from one pose to another: its parts in painting order, what was decided and how healthy it is. */
export interface PoseShiftPlan {
  readonly parts: readonly PartPlan[];
  readonly reasons: readonly Reason[];
  readonly health: Health;
}

/** How thorough planning is: `quick` takes the cheapest match without looking at in-betweens, for an answer while something is dragged. */
export type Care = 'quick' | 'full';

/**
 * Plans a shift between two poses: pairs their parts, matches their outlines, blends their paint. The heavy call of the program; `onProgress` is
 * told now and then which share (0 to 1) of it is done.
 */
export function planPoseShift(
  input: ShiftInput,
  care: Care = 'full',
  onProgress?: (share: number) => void,
): PoseShiftPlan {
  const from = placedParts(input.from);
  const to = placedParts(input.to);
  const used = new Set<unknown>();
  const paired = pairParts(from, to, input.match).map(([i, j]) => ({ i, j, a: from[i], b: to[j] }));
  const matched = followSharedEdges(input, paired, used, care, onProgress);
  const pairs = paired.map(({ i, j }): [number, number] => [i, j]);
  const drawn: { order: number; plan: PartPlan; health: Health; reasons: readonly Reason[] }[] = [];
  const order = (i: number, n: number): number => (i + 0.5) / n;
  const add = (
    a: PlacedPart | undefined,
    b: PlacedPart | undefined,
    at: number,
    { plan, match }: { plan: ShiftPlan; match: Match } = lonePlan(input, a, b, used),
  ): void => {
    drawn.push({
      order: at,
      plan: paintedPlan(plan, a, b, input.blend),
      health: measureHealth(plan),
      reasons: match.reasons,
    });
  };
  paired.forEach(({ i, j, a, b }, k) => {
    add(a, b, (order(i, from.length) + order(j, to.length)) / 2, matched[k]);
  });
  from.forEach((part, i) => {
    if (!pairs.some(([a]) => a === i)) add(part, undefined, order(i, from.length));
  });
  to.forEach((part, j) => {
    if (!pairs.some(([, b]) => b === j)) add(undefined, part, order(j, to.length));
  });
  drawn.sort((p, q) => p.order - q.order);
  const lost = lostChoices(input.match, used).map((text): Reason => ({ code: 'choice-lost', text }));
  const texts = new Set<string>();
  return {
    parts: drawn.map(({ plan }) => plan),
    reasons: [...lost, ...drawn.flatMap(({ reasons }) => reasons)].filter(
      ({ text }) => !texts.has(text) && texts.add(text),
    ),
    health: worstHealth(drawn.map(({ health }) => health)),
  };
}

/** Two parts that become each other, as one of several that are planned together. */
interface PlannedPair extends PartPair {
  readonly options: RankOptions;
  readonly followed: readonly PlacePair[];
  readonly plan: ShiftPlan;
  readonly match: Match;
}
interface PartPair {
  readonly a: PlacedPart;
  readonly b: PlacedPart;
}

/**
 * Plans the paired parts of a shift, with those of shifts beside it in mind: where edges of two parts lie on each other at both ends, one
 * follows the other, and both go straight, so that their edges stay on each other. A method that was chosen goes
 * before this.
 *
 * @returns the plans of the shift's own pairs
 */
function followSharedEdges(
  input: ShiftInput,
  own: readonly PartPair[],
  used: Set<unknown>,
  care: Care,
  onProgress?: (share: number) => void,
): { plan: ShiftPlan; match: Match }[] {
  const beside = input.beside ?? [];
  const from = (below: boolean) =>
    beside
      .filter((other) => other.below === below)
      .flatMap(({ shift }) => pairedParts(shift).map((pair) => ({ pair, of: shift, seen: new Set<unknown>() })));
  const under = from(true);
  const all = [...under, ...own.map((pair) => ({ pair, of: input, seen: used })), ...from(false)];
  const first = under.length;
  const group = all.map(({ pair: { a, b }, of, seen }, k): PlannedPair => {
    const options = rankOptions(of.match, of.method, a, b, seen);
    const planned = matchedPlan(a, b, options, care, (share) => onProgress?.((k + share) / all.length));
    onProgress?.((k + 1) / all.length);
    return { a, b, options, followed: [], ...planned };
  });
  for (let j = 1; j < group.length; j++) {
    for (let i = 0; i < j; i++) {
      if (!goesStraight(group[i].options) || !goesStraight(group[j].options)) continue;
      // The one that has less outline leads: a line goes before the area under it.
      const [lead, next] = outlineLength(group[j]) < outlineLength(group[i]) ? [j, i] : [i, j];
      const { a, b } = group[next];
      const { plan, a: ownA, b: ownB } = group[lead];
      const ends = runEnds(plan, [ownA.outline, ownB.outline], a.outline, b.outline);
      if (ends.length === 0 && sharedPlaces(plan, a.outline, b.outline).length === 0) continue;
      const leading = following(group[lead], ends, care);
      const places = sharedPlaces(leading.plan, a.outline, b.outline);
      if (places.length === 0) continue;
      group[lead] = leading;
      group[next] = following(group[next], places, care);
    }
  }
  for (let j = 1; j < group.length; j++) {
    for (let i = 0; i < j; i++) {
      if (group[i].followed.length + group[j].followed.length === 0) continue;
      const [p, q] = withoutEndJoints(group[i].plan, group[j].plan);
      group[i] = { ...group[i], plan: p };
      group[j] = { ...group[j], plan: q };
    }
  }
  return group.slice(first, first + own.length);
}

/** Length of the outlines of a pair, px. */
const outlineLength = ({ a, b }: PartPair): number =>
  [...a.outline.contours, ...b.outline.contours].reduce((sum, contour) => sum + contourLength(contour), 0);

/** Nothing but a straight way was asked for. */
const goesStraight = ({ method, softness }: RankOptions): boolean =>
  (method === undefined || method === 'straight') && !softness;

const SHARED: Reason = {
  code: 'shared-edge',
  text: 'An edge that lies on another outline at both ends stays on it, so points travel straight.',
};

/** The pair planned anew on straight ways, through further places that it is to follow. */
function following(pair: PlannedPair, places: readonly PlacePair[], care: Care): PlannedPair {
  const straight = pair.plan.contours.every(({ method, softness }) => method === 'straight' && !softness);
  if (places.length === 0 && straight) return withReason(pair);
  const followed = [...pair.followed, ...places];
  const said = pair.options.pairs ?? [];
  const pairs = [...said];
  for (const { contourA, contourB } of followed)
    if (!pairs.some(([i, j]) => i === contourA || j === contourB)) pairs.push([contourA, contourB]);
  const options: RankOptions = { ...pair.options, pairs, followed, method: 'straight', softness: 0 };
  const planned = matchedPlan(pair.a, pair.b, options, care);
  // What the program decided for the sake of the edge is not the user's choice.
  const reasons = planned.match.reasons.filter(
    ({ code }) =>
      (code !== 'method-own' || pair.options.method) &&
      (code !== 'softened' || pair.options.softness !== undefined) &&
      (code !== 'pairs-own' || said.length > 0) &&
      code !== 'origins',
  );
  return withReason({ ...pair, followed, plan: planned.plan, match: { ...planned.match, reasons } });
}

const withReason = (pair: PlannedPair): PlannedPair =>
  pair.match.reasons.some(({ code }) => code === SHARED.code)
    ? pair
    : { ...pair, match: { ...pair.match, reasons: [...pair.match.reasons, SHARED] } };

function matchedPlan(
  a: PlacedPart,
  b: PlacedPart,
  options: RankOptions,
  care: Care,
  onProgress?: (share: number) => void,
): { plan: ShiftPlan; match: Match } {
  if (care === 'full') return rankAlternatives(a.outline, b.outline, options, onProgress)[0];
  const match = matchOutlines(a.outline, b.outline, options);
  const softened = { ...match, pairs: match.pairs.map((pair) => ({ ...pair, softness: options.softness })) };
  return { plan: planShift(a.outline, b.outline, softened, options.method), match };
}

function lonePlan(
  { match: choices }: ShiftInput,
  a: PlacedPart | undefined,
  b: PlacedPart | undefined,
  used: Set<unknown>,
): { plan: ShiftPlan; match: Match } {
  const outlineA = a?.outline ?? { contours: [], fillRule: 'nonzero' };
  const outlineB = b?.outline ?? { contours: [], fillRule: 'nonzero' };
  const angles = (part: PlacedPart | undefined) =>
    part?.part.contours.map(({ id }) => wipeAngle(choices, id, used)) ?? [];
  const match = { ...unpaired(outlineA, outlineB), wipes: { births: angles(b), deaths: angles(a) } };
  return { plan: planShift(outlineA, outlineB, match), match };
}

/** The parts of both poses that become each other. */
export function pairedParts(input: ShiftInput): { a: PlacedPart; b: PlacedPart }[] {
  const from = placedParts(input.from);
  const to = placedParts(input.to);
  return pairParts(from, to, input.match).map(([i, j]) => ({ a: from[i], b: to[j] }));
}

/** A pose standing still, as a plan whose both ends are the same. */
export function planStill(pose: PoseInput): PoseShiftPlan {
  const parts = placedParts(pose).map((placed) => {
    const contours = placed.outline.contours;
    const identity: Match = {
      pairs: [],
      births: [],
      deaths: contours.map((_, i) => i),
      reasons: [],
    };
    const still = planShift(placed.outline, { contours: [], fillRule: placed.outline.fillRule }, identity);
    const plan: ShiftPlan = {
      ...still,
      to: still.from,
      contours: still.contours.map((contour) => ({ ...contour, role: 'pair' })),
    };
    return paintedPlan(plan, placed, placed, 'oklab');
  });
  return { parts, reasons: [], health: worstHealth([]) };
}

/** A pose's parts where they stand on the canvas. */
export function placedParts(pose: PoseInput): PlacedPart[] {
  const matrix = placementMatrix(pose.placement);
  return pose.parts.map((part) => ({
    part,
    outline: transformOutline(outlineOfPart(part), matrix),
    matrix,
    scale: placementScale(pose.placement),
  }));
}

const unpaired = (a: Outline, b: Outline): Match => ({
  pairs: [],
  deaths: a.contours.map((_, i) => i),
  births: b.contours.map((_, i) => i),
  reasons: [],
});

/**
 * Which part becomes which: optimal assignment on distance, size, colour and origin; parts on their own grow or shrink. Parts with contours
 * that were paired by hand belong together.
 */
function pairParts(
  from: readonly PlacedPart[],
  to: readonly PlacedPart[],
  choices: ShiftInput['match'],
): [number, number][] {
  if (from.length === 1 && to.length === 1) return [[0, 0]];
  const size = Math.max(1e-9, ...[...from, ...to].map(({ outline }) => outlineSize(outline)));
  const measure = ({ outline, part }: PlacedPart) => {
    const centre = areaCentre(outline);
    const longest = boxSize(outlineBox(outline)) / size;
    return {
      x: centre.x / size,
      y: centre.y / size,
      weight: Math.max(1e-3, longest),
      colour: readColour(coloursOf(part.fill ?? part.stroke?.paint ?? null)[0] ?? ''),
    };
  };
  const a = from.map(measure);
  const b = to.map(measure);
  const apart = (p: Rgba | undefined, q: Rgba | undefined): number =>
    p && q ? Math.hypot(p.r - q.r, p.g - q.g, p.b - q.b) : p === q ? 0 : 1;
  const has = (part: PlacedPart, id: string | null): boolean => part.part.contours.some((contour) => contour.id === id);
  const own = (i: number, j: number): number =>
    choices.pairs.some((pair) => has(from[i], pair.a) && has(to[j], pair.b)) ? OWN_PAIR : 0;
  const linked = (i: number, j: number): number => (sharesOrigins(from[i].part, to[j].part) ? LINKED_PARTS : 0);
  return pairOptimally(
    a.length,
    b.length,
    (i, j) =>
      own(i, j) +
      linked(i, j) +
      Math.hypot(a[i].x - b[j].x, a[i].y - b[j].y) / 0.5 +
      0.7 * Math.abs(Math.log(a[i].weight / b[j].weight)) +
      0.6 * apart(a[i].colour, b[j].colour),
    (i) => 1.2 * (0.3 + a[i].weight),
    (j) => 1.2 * (0.3 + b[j].weight),
  );
}

/** What makes parts belong together: chosen by hand, or copies of each other. */
const OWN_PAIR = -100;
const LINKED_PARTS = -4;

/** Are at least half of the anchors of one part copies of the other's, or of the same third? */
function sharesOrigins(a: Part, b: Part): boolean {
  const anchors = (part: Part) => part.contours.flatMap((contour) => contour.anchors);
  const known = new Set(anchors(a).flatMap(({ id, origin }) => (origin ? [id, origin] : [id])));
  const linked = anchors(b).filter(({ id, origin }) => known.has(id) || (origin !== undefined && known.has(origin)));
  return linked.length > 0 && 2 * linked.length >= Math.min(anchors(a).length, anchors(b).length);
}

const MOST_DASHES = 16;
const clear = (colour: string): string => {
  const c = readColour(colour);
  return c ? cssText(c.r, c.g, c.b, 0) : 'rgb(0 0 0 / 0)';
};
/** The same paint, wholly see-through. */
const clearPaint = (paint: Paint): Paint =>
  isGradient(paint)
    ? { ...paint, stops: paint.stops.map(({ at, colour }) => ({ at, colour: clear(colour) })) }
    : clear(paint);

function paintedPlan(
  plan: ShiftPlan,
  a: PlacedPart | undefined,
  b: PlacedPart | undefined,
  space: BlendSpace,
): PartPlan {
  const paints = (pick: (part: Part) => Paint | null | undefined): PaintBlend | null => {
    const placed = (side: PlacedPart | undefined): Paint | null => {
      const paint = side && pick(side.part);
      return side && paint ? transformPaint(paint, side.matrix) : null;
    };
    const first = placed(a);
    const second = placed(b);
    // A paint that one side lacks fades in its own colours; a part on its own keeps its paint.
    const from = first ?? (second && (a ? clearPaint(second) : second));
    const to = second ?? (first && (b ? clearPaint(first) : first));
    if (from === null || to === null) return null;
    return planPaintBlend(from, to, space) ?? null;
  };
  const fill = paints((part) => part.fill);
  const stroke = paints((part) => part.stroke?.paint);
  const strokeA = a?.part.stroke ?? b?.part.stroke;
  const strokeB = b?.part.stroke ?? a?.part.stroke;
  const ids = { ...(a && { a: a.part.id }), ...(b && { b: b.part.id }) };
  if (!stroke || !strokeA || !strokeB) return { ...ids, plan, fill, stroke: null };
  const scaleA = a?.scale ?? b?.scale ?? 1;
  const scaleB = b?.scale ?? a?.scale ?? 1;
  // A stroke that one side lacks grows from nothing.
  const widthA = a && !a.part.stroke ? 0 : strokeA.width * scaleA;
  const widthB = b && !b.part.stroke ? 0 : strokeB.width * scaleB;
  return {
    ...ids,
    plan,
    fill,
    stroke: {
      paint: stroke,
      widths: [widthA, widthB],
      caps: [strokeA.cap, strokeB.cap],
      joins: [strokeA.join, strokeB.join],
      miters: [strokeA.miter, strokeB.miter],
      dashes: commonDashes(
        strokeA.dash.map((v) => v * scaleA),
        strokeB.dash.map((v) => v * scaleB),
      ),
      dashOffsets: [strokeA.dashOffset * scaleA, strokeB.dashOffset * scaleB],
    },
  };
}

/** Both dash patterns with equally many lengths: repeated, or with gaps of nothing where one side is unbroken. */
function commonDashes(a: readonly number[], b: readonly number[]): [readonly number[], readonly number[]] {
  const unbroken = (like: readonly number[]): number[] => {
    // The dashes of the other side grow together: each takes the place of its gap.
    return like.map((v, i) => (i % 2 === 0 ? v + (like[i + 1] ?? 0) : 0));
  };
  if (a.length === b.length) return [a, b];
  if (a.length === 0) return [unbroken(b), b];
  if (b.length === 0) return [a, unbroken(a)];
  let count = Math.max(a.length, b.length);
  while (count < MOST_DASHES && (count % a.length !== 0 || count % b.length !== 0)) count += 2;
  const repeat = (list: readonly number[]): number[] => Array.from({ length: count }, (_, i) => list[i % list.length]);
  return [repeat(a), repeat(b)];
}

const HEALTHY: Health = {
  verdict: 'good',
  sentence: 'Nothing changes shape.',
  folds: 0,
  crossings: 0,
  areaDip: 1,
  swell: 1,
  perimeter: 1,
  out: 0,
  restlessness: 1,
  largestStep: 0,
  inverted: 0,
  kink: 0,
  endError: 0,
  moments: [],
};

function worstHealth(all: readonly Health[]): Health {
  return all.reduce<Health>(
    (worst, health, i) =>
      i === 0 || VERDICTS.indexOf(health.verdict) > VERDICTS.indexOf(worst.verdict) ? health : worst,
    HEALTHY,
  );
}
