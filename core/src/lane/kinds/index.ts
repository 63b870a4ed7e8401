import { IDENTITY, type Matrix, multiply } from '../../vec';
import { background } from './background';
import { drawn } from './drawn';
import { fill } from './fill';
import type { LaneKind } from './kind';
import { opacity } from './opacity';
import { position } from './position';
import { scale } from './scale';
import { skew } from './skew';
import { softness } from './softness';
import { stroke } from './stroke';
import { strokeWidth } from './stroke-width';
import { turn } from './turn';

export { DRAWN_ROUND, drawnOffset, drawnShare } from './drawn';
export {
  ANY,
  type LaneKind,
  type LaneStep,
  type LaneWords,
  type Limits,
  PAINTLESS,
  type TransformTarget,
} from './kind';

/** All that can have a lane, in the order in which lanes are listed; steps of the transform in the order in which they are applied. */
export const LANE_KINDS = {
  position,
  turn,
  skew,
  scale,
  opacity,
  fill,
  stroke,
  strokeWidth,
  drawn,
  softness,
  background,
} as const satisfies Readonly<Record<string, LaneKind>>;
export type LaneKindId = keyof typeof LANE_KINDS;
export const LANE_KIND_IDS = Object.keys(LANE_KINDS) as readonly LaneKindId[];

/** All that is known of one of them. */
export const laneKind = (id: LaneKindId): LaneKind => LANE_KINDS[id];

type Does = LaneKind['does'];
/** Those that change one thing. */
type IdsThat<D extends Does> = {
  [K in LaneKindId]: (typeof LANE_KINDS)[K]['does'] extends D ? K : never;
}[LaneKindId];
const idsThat = <D extends Does>(...does: readonly D[]): readonly IdsThat<D>[] =>
  LANE_KIND_IDS.filter((id) => (does as readonly Does[]).includes(laneKind(id).does)) as IdsThat<D>[];

/** Steps of a figure's transform about its pivot, the outermost first. */
export const TRANSFORM_IDS = idsThat('transform');
export type TransformId = (typeof TRANSFORM_IDS)[number];
/** Is it a step of a figure's transform? */
export const isTransformLane = (id: string): boolean => (TRANSFORM_IDS as readonly string[]).includes(id);
/** What turns, slants and scales about the pivot: all steps but the position. */
export const isAboutPivot = (id: string): boolean => id !== 'position' && isTransformLane(id);

/** The steps about the pivot as one map: each with the numbers that `numbersOf` gives for it, those that change nothing left out. */
export function linearOf(numbersOf: (id: TransformId) => ArrayLike<number>): Matrix {
  let linear = IDENTITY;
  for (const id of TRANSFORM_IDS) {
    const value = numbersOf(id);
    const step = isAboutPivot(id) && changes(id, value) ? laneKind(id).step : undefined;
    if (step) linear = multiply(linear, step.matrix(value));
  }
  return linear;
}

/** Are these numbers others than those that change nothing? */
export function changes(id: LaneKindId, value: ArrayLike<number>): boolean {
  const { neutral } = laneKind(id);
  for (let i = 0; i < neutral.length; i++) if (value[i] !== neutral[i]) return true;
  return false;
}

/** What stands in place of, or lies over, the paint of a figure's parts. */
export const OVER_IDS = idsThat('paint', 'layer');
export type OverId = (typeof OVER_IDS)[number];
