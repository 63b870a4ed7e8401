import type { PoseShiftPlan, ShiftInput } from '@core';
import type { EngineClient } from './engine-client';
import { freshId } from './fresh-id';
import { contoursOf, skeletonOf } from './shift-portions';

/** Contours sent to a worker in one message: copying them takes the page 10 to 20 ms. */
const A_PORTION = 1_000;

/** Plans a shift in a worker. One of thousands of contours is sent in portions, so that sending does not hold the page up. */
export async function planInPortions(
  engine: Pick<EngineClient, 'planShift' | 'takePortion' | 'planPortions'>,
  input: ShiftInput,
  onProgress?: (share: number) => void,
): Promise<PoseShiftPlan> {
  const contours = contoursOf(input);
  if (contours.length <= A_PORTION) return engine.planShift(input, onProgress);
  const token = freshId('shift');
  for (let i = 0; i < contours.length; i += A_PORTION)
    await engine.takePortion(token, contours.slice(i, i + A_PORTION));
  return engine.planPortions(token, skeletonOf(input), onProgress);
}
