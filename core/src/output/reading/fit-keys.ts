import { type Easing, ease } from '../../easing';
import type { BlendSpace } from '../../paint';
import { joinSegments } from './join-segments';
import { isSame, Mixer, type Sample } from './sample';
import { INSIDE, isFollowed, type Moving, type Segment } from './segment';

export interface Fit<S extends Sample> {
  readonly segments: readonly Segment<S>[];
  /** How often a stretch had to be halved because no curve of the file fits all that moves in it. */
  readonly halved: number;
}

/** No stretch is halved that is shorter than this, s. */
const SHORTEST = 1 / 120;
/** Shares of a stretch at which it is looked at. */
const LOOKED_AT = [0.5, 0.25, 0.75, 0.1, 0.9];
/** The same for a stretch that is over in a few frames, s. */
const BRIEF_S = 0.05;
const BRIEFLY_AT = [0.5, 0.2];
const LINEAR: Easing = { kind: 'linear' };

/**
 * Finds stretches by which a value can be told with the means of a piece: it stands, or goes from one sample to another by one easing. First the curves of the file
 * are tried over the largest stretches (`tops`: their ends), then between all breaks, and at last halves that go evenly.
 */
export function fitKeys<S extends Sample>(
  moving: Moving<S>,
  from: number,
  until: number,
  tops: readonly number[],
  spaces: readonly BlendSpace[] = ['oklab', 'srgb'],
): Fit<S> {
  const segments: Segment<S>[] = [];
  let halved = 0;
  const inner = (a: number, b: number, times: readonly number[]): number[] =>
    times.filter((time) => time > a + 2 * INSIDE && time < b - 2 * INSIDE);
  const search = (a: number, b: number): void => {
    if (b - a <= 2 * INSIDE) return;
    const first = endOf(moving, a, INSIDE);
    const last = endOf(moving, b, -INSIDE);
    const found =
      first.kind === last.kind
        ? fitted(moving, { a, b, first, last, inside: inner(a, b, moving.breaks) }, spaces)
        : null;
    if (found) {
      segments.push(found);
      return;
    }
    const cuts = inner(a, b, moving.breaks);
    if (cuts.length > 0) {
      const ends = [a, ...cuts, b];
      for (let i = 0; i + 1 < ends.length; i++) search(ends[i], ends[i + 1]);
      return;
    }
    if (b - a < SHORTEST) {
      const alike = first.kind === last.kind;
      segments.push({
        from: a,
        until: b,
        first,
        last: alike ? last : first,
        still: !alike,
        easing: LINEAR,
        space: spaces[0],
      });
      return;
    }
    halved++;
    search(a, (a + b) / 2);
    search((a + b) / 2, b);
  };
  const ends = [from, ...inner(from, until, tops), until];
  for (let i = 0; i + 1 < ends.length; i++) search(ends[i], ends[i + 1]);
  return { segments: joinSegments(moving, segments, spaces), halved };
}

/** The value at the end of a stretch; where it jumps there, what it was coming to. */
function endOf<S extends Sample>(moving: Moving<S>, at: number, inside: number): S {
  const exact = moving.at(at);
  if (moving.isSteady(at)) return exact;
  const near = moving.at(at + inside);
  if (isSame(exact, near)) return exact;
  const further = moving.at(at + 2 * inside);
  if (near.kind !== further.kind) return near;
  return { ...near, numbers: near.numbers.map((v, i) => 2 * v - further.numbers[i]) };
}

interface Stretch<S extends Sample> {
  readonly a: number;
  readonly b: number;
  readonly first: S;
  readonly last: S;
  readonly inside: readonly number[];
}

function fitted<S extends Sample>(
  moving: Moving<S>,
  { a, b, first, last, inside }: Stretch<S>,
  spaces: readonly BlendSpace[],
): Segment<S> | null {
  const base = { from: a, until: b, first, last };
  const shares = b - a < BRIEF_S ? BRIEFLY_AT : LOOKED_AT;
  const times = [...shares.map((share) => a + share * (b - a)), ...inside];
  const standing = new Mixer(first, first, spaces[0]);
  const isStill = standing.isNear(last, 1) && times.every((time) => standing.isNear(moving.at(time), 0));
  if (isStill) return { ...base, last: first, still: true, easing: LINEAR, space: spaces[0] };
  const easings: Easing[] = moving.curves(a, b).map(([x1, y1, x2, y2]) => ({ kind: 'cubic-bezier', x1, y1, x2, y2 }));
  for (const easing of [LINEAR, ...easings.filter(isFollowed)])
    for (const space of first.colours.length > 0 ? spaces : spaces.slice(0, 1)) {
      const mixer = new Mixer(first, last, space);
      if (times.every((time) => mixer.isNear(moving.at(time), ease(easing, (time - a) / (b - a)))))
        return { ...base, still: false, easing, space };
    }
  return null;
}
