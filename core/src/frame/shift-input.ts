import {
  type ContourRecord,
  type MatchChoices,
  type Part,
  type PartShape,
  type Piece,
  type Placement,
  type Pose,
  railTimeline,
  type Shift,
  type ShiftMethod,
} from '../piece';
import { shiftsInStep } from './in-step';
import { leadingColour, type PartPairs, pairedPartsOf, pairShapes } from './part-pairs';
import { goesByNumbers, hasShapeLanes, partAt, shapeLanesOf } from './shape-lanes';

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
 * What is filled and not stroked is seen as areas, whether its contours are closed or not (SVG 2, 13.4), so it is matched as areas: a line that was given a
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

/** What the plan of a shift depends on. */
export function shiftInput(piece: Piece, shift: Shift): ShiftInput {
  const own = ownInput(piece, shift);
  const inStep = shiftsInStep(piece, shift);
  if (inStep.length === 0) return own;
  return { ...own, inStep: inStep.map(({ below, shift: other }) => ({ below, shift: ownInput(piece, other) })) };
}

/** Where more parts could become each other than this, who becomes which is not found on the spot. */
const MOST_PAIRED_HERE = 40_000;

/** Which part becomes which, by index. */
export const pairsOf = ({ pairs, colours, from, to, match }: Omit<ShiftInput, 'inStep'>): PartPairs =>
  pairs ?? pairShapes({ ...from, colours: colours?.from ?? [] }, { ...to, colours: colours?.to ?? [] }, match.pairs);

/** The input with all pairs found: what the plan depends on alone, so that recolouring asks for no other. */
export function withPairs(input: ShiftInput): ShiftInput {
  const found = <T extends OwnInput>(own: T): T =>
    own.pairs ? own : { ...own, pairs: pairsOf(own), colours: undefined };
  const inStep = input.inStep?.map(({ below, shift }) => ({ below, shift: found(shift) }));
  return inStep ? { ...found(input), inStep } : found(input);
}

type OwnInput = Omit<ShiftInput, 'inStep'>;
interface Known {
  readonly a: Pose;
  readonly b: Pose;
  readonly parts: readonly Part[];
  readonly input: OwnInput;
}
/** The input of a shift, as long as its poses and their parts are the same records. */
const known = new WeakMap<Shift, Known>();
/** Inputs of a piece: shifts in step ask for each other's. */
const ofPieces = new WeakMap<Piece, Map<Shift, OwnInput>>();

function ownInput(piece: Piece, shift: Shift): OwnInput {
  let inputs = ofPieces.get(piece);
  if (!inputs) ofPieces.set(piece, (inputs = new Map()));
  let input = inputs.get(shift);
  if (!input) inputs.set(shift, (input = inputOf(piece, shift)));
  return input;
}

function inputOf(piece: Piece, shift: Shift): OwnInput {
  const { from, to, match } = shift;
  const [a, b] = [piece.poses[from], piece.poses[to]];
  const before = known.get(shift);
  const ends = partsAtEnds(piece, shift);
  const parts = [...ends.from, ...ends.to];
  if (
    before?.a === a &&
    before.b === b &&
    before.input.method === ends.method &&
    parts.every((part, i) => part === before.parts[i])
  )
    return before.input;
  const input = {
    from: poseShape(a.placement, ends.from, ends.method === 'numbers'),
    to: poseShape(b.placement, ends.to, ends.method === 'numbers'),
    ...pairsFor(piece, a, b, shift),
    method: ends.method,
    match,
  };
  known.set(shift, { a, b, parts, input });
  return input;
}

interface ShiftEnds {
  readonly from: readonly Part[];
  readonly to: readonly Part[];
  readonly method: ShiftMethod;
}

/** The parts that a shift leaves and reaches, in the shape that lanes of their figure give them then, and how it goes with them. */
function partsAtEnds(piece: Piece, shift: Shift): ShiftEnds {
  const { id, from, to, method } = shift;
  const [a, b] = [from, to].map((pose) => piece.poses[pose].parts.map((part) => piece.parts[part]));
  const shaped = piece.figureOrder.find((each) => hasShapeLanes(piece, each) && piece.figures[each].rail.includes(id));
  if (shaped === undefined) return { from: a, to: b, method };
  const figure = piece.figures[shaped];
  const { start, end } = railTimeline(piece, figure).spans[figure.rail.indexOf(id)];
  const byNumbers = goesByNumbers(piece, shaped, shift);
  // What is counted steps on the way by numbers: between two counts there is no plan.
  const lanes = shapeLanesOf(piece, shaped).filter(({ number }) => !byNumbers || !number.parameters[0].whole);
  return {
    from: a.map((part) => partAt(part, lanes, start)),
    to: b.map((part) => partAt(part, lanes, end)),
    method: byNumbers ? 'numbers' : method,
  };
}

/** The pairs, or what they depend on. What goes point by point goes part by part. */
function pairsFor(piece: Piece, a: Pose, b: Pose, { method, match }: Shift): Pick<OwnInput, 'pairs' | 'colours'> {
  if (method === 'points' && a.parts.length === b.parts.length) return { pairs: a.parts.map((_, i) => [i, i]) };
  const colours = ({ parts }: Pose): string[] => parts.map((id) => leadingColour(piece.parts[id]));
  return a.parts.length * b.parts.length > MOST_PAIRED_HERE
    ? { colours: { from: colours(a), to: colours(b) } }
    : { pairs: pairedPartsOf(piece, a, b, match) };
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
