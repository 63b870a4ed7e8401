import { type Part, type Piece, type Pose, railTimeline, type Shift, type ShiftMethod } from '../../piece';
import { leadingColour, pairedPartsOf, poseShape, type ShiftInput } from '../plan';
import { shiftsInStep } from './in-step';
import { goesByNumbers, hasShapeLanes, partAt, shapeLanesOf } from './shape-lanes';

/** What the plan of a shift depends on. */
export function shiftInput(piece: Piece, shift: Shift): ShiftInput {
  const own = ownInput(piece, shift);
  const inStep = shiftsInStep(piece, shift);
  if (inStep.length === 0) return own;
  return { ...own, inStep: inStep.map(({ below, shift: other }) => ({ below, shift: ownInput(piece, other) })) };
}

/** Where more parts could become each other than this, who becomes which is not found on the spot. */
const MOST_PAIRED_HERE = 40_000;

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
