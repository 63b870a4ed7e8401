import { type Outline, transformOutline } from '../../outline';
import { outlineOfPart, type PartShape, type Placement, placementMatrix, placementScale } from '../../piece';
import type { Matrix } from '../../vec';

/** A part where it stands on the canvas. */
export interface PlacedPart {
  readonly part: PartShape;
  /** Canvas px. */
  readonly outline: Outline;
  readonly matrix: Matrix;
  readonly scale: number;
}

interface Placed {
  readonly placement: Placement;
  readonly fillRule: Outline['fillRule'];
  readonly outline: Outline;
}
const known = new WeakMap<PartShape['contours'], Placed>();

/** A pose's parts where they stand on the canvas. What stands still is mapped once: outlines are kept with their contours. */
export function placedParts({
  placement,
  parts,
}: {
  readonly placement: Placement;
  readonly parts: readonly PartShape[];
}): PlacedPart[] {
  const matrix = placementMatrix(placement);
  const scale = placementScale(placement);
  return parts.map((part) => {
    const { contours, fillRule } = part;
    let placed = known.get(contours);
    if (placed?.placement !== placement || placed.fillRule !== fillRule) {
      placed = { placement, fillRule, outline: transformOutline(outlineOfPart(part), matrix) };
      known.set(contours, placed);
    }
    return { part, outline: placed.outline, matrix, scale };
  });
}
