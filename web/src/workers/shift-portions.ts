import type { ContourRecord, PartShape, PoseShape, ShiftInput } from '@core';

/** An input without its contours, and how many of them each part had, in the order in which `contoursOf` lists them. */
export interface ShiftSkeleton {
  readonly input: ShiftInput;
  readonly counts: readonly number[];
}

/** An input with another shape in place of each of its shapes, always in the same order. */
function mapShapes(input: ShiftInput, map: (shape: PoseShape) => PoseShape): ShiftInput {
  const own = <T extends Omit<ShiftInput, 'inStep'>>(each: T): T => ({
    ...each,
    from: map(each.from),
    to: map(each.to),
  });
  const { inStep } = input;
  const mapped = own(input);
  return inStep ? { ...mapped, inStep: inStep.map((other) => ({ ...other, shift: own(other.shift) })) } : mapped;
}

/** All contours of an input, those of a part together. */
export function contoursOf(input: ShiftInput): readonly ContourRecord[] {
  const all: ContourRecord[] = [];
  mapShapes(input, (shape) => {
    for (const { contours } of shape.parts) for (const contour of contours) all.push(contour);
    return shape;
  });
  return all;
}

/** What is left of an input without its contours. */
export function skeletonOf(input: ShiftInput): ShiftSkeleton {
  const counts: number[] = [];
  const bare = ({ id, fillRule, contours }: PartShape): PartShape => {
    counts.push(contours.length);
    return { id, fillRule, contours: [] };
  };
  return { input: mapShapes(input, (shape) => ({ ...shape, parts: shape.parts.map(bare) })), counts };
}

/** The input again, of its skeleton and its contours. */
export function wholeInput({ input, counts }: ShiftSkeleton, contours: readonly ContourRecord[]): ShiftInput {
  let part = 0;
  let at = 0;
  const filled = (bare: PartShape): PartShape => {
    const from = at;
    at += counts[part++];
    return { ...bare, contours: contours.slice(from, at) };
  };
  return mapShapes(input, (shape) => ({ ...shape, parts: shape.parts.map(filled) }));
}
