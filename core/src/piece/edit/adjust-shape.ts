import { numbersOfShape, type ShapeSource, shapeNumber, withShapeNumber } from '../../shapes';
import type { Id, IdSource, Piece } from '../records';
import { lanesOf } from '../records';
import type { PieceDraft } from './edit';
import { setLaneAtStop } from './edit-lanes';
import { setShape } from './edit-outline';

/** A part at a stop of its figure. */
export interface PartAtStop {
  readonly figure: Id;
  readonly stop: number;
  readonly part: Id;
}

/**
 * Changes an adjustable part where it is seen: from the shape that it has at a stop to another. A number that has a lane is set there, at that stop; what else is
 * changed is the part's own.
 */
export function adjustShape(
  draft: PieceDraft,
  { figure, stop, part }: PartAtStop,
  shown: ShapeSource,
  next: ShapeSource,
  newId: IdSource,
): void {
  const { source } = draft.parts[part];
  let own = next;
  if (source && source.kind === next.kind)
    for (const { property } of lanesOf(draft as Piece, figure)) {
      const number = shapeNumber(property);
      if (number?.kind !== next.kind) continue;
      const value = numbersOfShape(next, number);
      if (numbersOfShape(shown, number).some((v, i) => v !== value[i]))
        setLaneAtStop(draft, figure, property, stop, value, newId);
      own = withShapeNumber(own, number, numbersOfShape(source as ShapeSource, number));
    }
  setShape(draft, part, own, newId);
}
