import { type Easing, easingSegments, type KeySpline, progressRange } from '../../easing';
import { MOST_OVERSHOOT } from '../../morph';
import type { BlendSpace } from '../../paint';
import { isSame, type Sample } from './sample';

/** A value over time that is looked at from outside. */
export interface Moving<S extends Sample> {
  /** At a time, s. */
  at(seconds: number): S;
  /** Is it the same just before and just after a time, s, as it is then? */
  isSteady(seconds: number): boolean;
  /** Times at which it may bend or jump, s, ascending. */
  readonly breaks: readonly number[];
  /** How it may run between two times that have no break between them, or further apart. */
  curves(from: number, until: number): readonly KeySpline[];
}

/** A stretch of time in which a value stands, or goes from one sample to another. */
export interface Segment<S extends Sample> {
  readonly from: number;
  readonly until: number;
  readonly first: S;
  readonly last: S;
  readonly still: boolean;
  readonly easing: Easing;
  readonly space: BlendSpace;
}

/** Samples are taken so much inside of a stretch, s: at its ends values may jump. */
export const INSIDE = 1e-6;

/** How far a way may go beyond its ends: outlines are followed no further. */
export const isFollowed = (easing: Easing): boolean => {
  const [low, high] = progressRange(easingSegments(easing));
  return low >= -MOST_OVERSHOOT && high <= 1 + MOST_OVERSHOOT;
};

/** Does one segment begin with what another ends with? */
export const isContinuous = <S extends Sample>(before: Segment<S>, after: Segment<S>): boolean =>
  isSame(before.last, after.first);
