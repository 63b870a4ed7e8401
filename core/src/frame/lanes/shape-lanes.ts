import type { Lane } from '../../lane';
import { type Id, isShapeNumber, lanesOf, type Part, type Piece, recordsLike, type Shift } from '../../piece';
import { adjustableContours, type ShapeNumber, type ShapeSource, shapeNumber, withShapeNumber } from '../../shapes';
import { canGoByNumbers, shapeOf } from '../plan';
import { LaneBook } from './lane-book';

/** A number of a figure's adjustable shapes over time, in place of their own. */
export interface ShapeLane {
  readonly number: ShapeNumber;
  readonly lane: Lane;
}

const NONE: readonly ShapeLane[] = [];

/** Has a figure lanes for numbers of its shapes? */
export const hasShapeLanes = (piece: Pick<Piece, 'lanes'>, figureId: Id): boolean =>
  lanesOf(piece, figureId).some(({ property }) => isShapeNumber(property));

/** The numbers of a figure's shapes that have lanes; none for nearly all figures. */
export function shapeLanes(piece: Piece, figureId: Id, book: LaneBook): readonly ShapeLane[] {
  if (!hasShapeLanes(piece, figureId)) return NONE;
  return lanesOf(piece, figureId).flatMap(({ property }) => {
    const number = isShapeNumber(property) ? shapeNumber(property) : undefined;
    const lane = number && book.lane(figureId, property);
    return lane ? [{ number, lane }] : [];
  });
}

/**
 * Does a shift go by the numbers of its shapes? Where that was chosen; and of itself where lanes of its figure change numbers of shapes that can, so that nothing of
 * the lanes is lost on the way.
 */
export function goesByNumbers(piece: Piece, figureId: Id, shift: Shift): boolean {
  if (shift.method !== 'auto') return shift.method === 'numbers';
  if (!hasShapeLanes(piece, figureId)) return false;
  const kinds = new Set(lanesOf(piece, figureId).flatMap(({ property }) => shapeNumber(property)?.kind ?? []));
  const changed = piece.poses[shift.from].parts.some((id) => {
    const source = shapeOf(piece.parts[id]);
    return source !== undefined && kinds.has(source.kind);
  });
  return changed && canGoByNumbers(piece, shift);
}

/** Do some of these lanes change this shape? */
export const changesShape = (lanes: readonly ShapeLane[], source: ShapeSource | undefined): boolean =>
  source !== undefined && lanes.some(({ number }) => number.kind === source.kind);

/** The most numbers that go together. */
const MOST_NUMBERS = 4;

/** A shape with the numbers that its figure's lanes give it at a time in s. */
export function shapeAt(source: ShapeSource, lanes: readonly ShapeLane[], seconds: number): ShapeSource {
  let shape = source;
  const values = new Float64Array(MOST_NUMBERS);
  for (const { number, lane } of lanes) {
    if (number.kind !== source.kind) continue;
    lane.sample(seconds, values);
    shape = withShapeNumber(shape, number, values);
  }
  return shape;
}

/** A part by the numbers that it was given, as long as its record is the same. */
const shaped = new WeakMap<Part, Map<string, Part>>();
/** A part is remembered with so many sets of numbers: it may stand at several stops. */
const MOST_SHAPED = 16;

/**
 * A part as its figure's lanes shape it at a time in s: the same record where they do not. Its contours and points keep their ids as long as it has as many of
 * them, and the same numbers give the same record.
 */
export function partAt(part: Part, lanes: readonly ShapeLane[], seconds: number): Part {
  const source = shapeOf(part);
  if (!source || !changesShape(lanes, source)) return part;
  const shape = shapeAt(source, lanes, seconds);
  const key = JSON.stringify(shape);
  if (key === JSON.stringify(source)) return part;
  let known = shaped.get(part);
  if (!known) shaped.set(part, (known = new Map()));
  let made = known.get(key);
  if (!made) {
    let next = 0;
    const contours = recordsLike(part.contours, adjustableContours(shape), (kind) => `${kind}-${part.id}-${next++}`);
    made = { ...part, source: shape, contours };
    if (known.size >= MOST_SHAPED) known.clear();
    known.set(key, made);
  }
  return made;
}

interface KnownFigures {
  readonly book: LaneBook;
  readonly lanes: Map<Id, readonly ShapeLane[]>;
}
const known = new WeakMap<Piece, KnownFigures>();

function knownOf(piece: Piece): KnownFigures {
  let kept = known.get(piece);
  if (!kept || !Object.isFrozen(piece)) known.set(piece, (kept = { book: new LaneBook(piece), lanes: new Map() }));
  return kept;
}

/** A book of a piece's lanes for who looks now and then, kept as long as the piece is the same. */
export const keptBook = (piece: Piece): LaneBook => knownOf(piece).book;

/** The same for who has no book of lanes: kept as long as the piece is the same. */
export function shapeLanesOf(piece: Piece, figureId: Id): readonly ShapeLane[] {
  if (!hasShapeLanes(piece, figureId)) return NONE;
  const kept = knownOf(piece);
  let lanes = kept.lanes.get(figureId);
  if (!lanes) kept.lanes.set(figureId, (lanes = shapeLanes(piece, figureId, kept.book)));
  return lanes;
}
