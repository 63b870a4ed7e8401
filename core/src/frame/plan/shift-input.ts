import type { ContourRecord, MatchChoices, Part, PartShape, Placement, ShiftMethod } from '../../piece';
import { type PartPairs, pairShapes } from './part-pairs';

/** A pose's outlines and where they stand. */
export interface PoseShape {
  readonly placement: Placement;
  readonly parts: readonly PartShape[];
}

/** Everything that the way of a shift's outlines depends on, and nothing else: no paint, no time. Plain data that can be sent to a worker. */
export interface ShiftInput {
  readonly from: PoseShape;
  readonly to: PoseShape;
  /**
   * Which part becomes which, by index; the others come or go alone. Left out where so many parts meet that it takes its time to find: then `colours` holds what
   * else it depends on, and whoever plans the shift finds it (`pairsOf`).
   */
  readonly pairs?: PartPairs;
  readonly colours?: { readonly from: readonly string[]; readonly to: readonly string[] };
  readonly method: ShiftMethod;
  readonly match: MatchChoices;
  /** Shifts of other figures that run in step with this one and touch it at both ends, in painting order; left out where there are none. */
  readonly inStep?: readonly InStepInput[];
}

export interface InStepInput {
  /** Does its figure lie under this one's? */
  readonly below: boolean;
  readonly shift: Omit<ShiftInput, 'inStep'>;
}

/** The outlines of a pose; with what they are built of where a shift goes by that. */
export const poseShape = (placement: Placement, parts: readonly Part[], sources = false): PoseShape => ({
  placement,
  parts: parts.map((part) => {
    const { id, fillRule, source } = part;
    const shape = { id, contours: contoursAsSeen(part), fillRule };
    return sources && source ? { ...shape, source } : shape;
  }),
});

/** Closed contours by the open ones that they stand for. */
const areas = new WeakMap<Part['contours'], Part['contours']>();

/**
 * What is filled and not stroked is seen as areas, whether its contours are closed or not (SVG 2, 13.4), so it is matched as areas. A line that was given a
 * fill and lost its stroke does not open and close on its way.
 */
function contoursAsSeen({ contours, fill, stroke }: Part): Part['contours'] {
  if (fill === null || stroke !== null || contours.every(({ closed }) => closed)) return contours;
  let closed = areas.get(contours);
  if (!closed) {
    // Two points enclose nothing, unless the way between them bends.
    const isArea = ({ anchors }: ContourRecord): boolean =>
      anchors.length > 2 || anchors.some((anchor) => anchor.in !== undefined || anchor.out !== undefined);
    closed = contours.map((contour) => (isArea(contour) ? { ...contour, closed: true } : contour));
    areas.set(contours, closed);
  }
  return closed;
}

/** Which part becomes which, by index. */
export const pairsOf = ({ pairs, colours, from, to, match }: Omit<ShiftInput, 'inStep'>): PartPairs =>
  pairs ?? pairShapes({ ...from, colours: colours?.from ?? [] }, { ...to, colours: colours?.to ?? [] }, match.pairs);

/** The input with all pairs found: what the plan depends on alone, so that recolouring asks for no other. */
export function withPairs(input: ShiftInput): ShiftInput {
  const found = <T extends Omit<ShiftInput, 'inStep'>>(own: T): T =>
    own.pairs ? own : { ...own, pairs: pairsOf(own), colours: undefined };
  const inStep = input.inStep?.map(({ below, shift }) => ({ below, shift: found(shift) }));
  return inStep ? { ...found(input), inStep } : found(input);
}

/** Do both describe the same shift? Compares records by identity, so an edit elsewhere in the piece changes nothing. */
export function sameShiftInput(p: ShiftInput, q: ShiftInput): boolean {
  if (p === q) return true;
  const [inStepP, inStepQ] = [p.inStep ?? [], q.inStep ?? []];
  return (
    p.method === q.method &&
    samePairs(p.pairs, q.pairs) &&
    sameColours(p.colours, q.colours) &&
    sameMatch(p.match, q.match) &&
    samePose(p.from, q.from) &&
    samePose(p.to, q.to) &&
    inStepP.length === inStepQ.length &&
    inStepP.every(({ below, shift }, i) => below === inStepQ[i].below && sameShiftInput(shift, inStepQ[i].shift))
  );
}

const samePairs = (p: ShiftInput['pairs'], q: ShiftInput['pairs']): boolean =>
  p === q || (p?.length === q?.length && (p ?? []).every(([i, j], k) => i === q?.[k][0] && j === q[k][1]));

function sameColours(p: ShiftInput['colours'], q: ShiftInput['colours']): boolean {
  const same = (a: readonly string[], b: readonly string[]): boolean =>
    a === b || (a.length === b.length && a.every((colour, i) => colour === b[i]));
  return p === q || (p !== undefined && q !== undefined && same(p.from, q.from) && same(p.to, q.to));
}

function samePose(p: PoseShape, q: PoseShape): boolean {
  const a = p.placement;
  const b = q.placement;
  if (a.x !== b.x || a.y !== b.y || a.scaleX !== b.scaleX || a.scaleY !== b.scaleY) return false;
  if (a.rotation !== b.rotation || p.parts.length !== q.parts.length) return false;
  return p.parts.every(
    ({ id, contours, fillRule }, i) =>
      contours === q.parts[i].contours && fillRule === q.parts[i].fillRule && id === q.parts[i].id,
  );
}

/** Compares the choices list by list: immer keeps lists that did not change. */
function sameMatch(p: MatchChoices, q: MatchChoices): boolean {
  return p === q || (Object.keys(p) as (keyof MatchChoices)[]).every((key) => p[key] === q[key]);
}
