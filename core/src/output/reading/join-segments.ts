import { type Easing, easingSegments } from '../../easing';
import type { BlendSpace } from '../../paint';
import { Mixer, type Sample } from './sample';
import { INSIDE, isContinuous, isFollowed, type Moving, type Segment } from './segment';

/** Segments as few as they can be: what stands, goes on evenly, or goes on along one line, is one. */
export function joinSegments<S extends Sample>(
  moving: Moving<S>,
  segments: readonly Segment<S>[],
  spaces: readonly BlendSpace[],
): Segment<S>[] {
  return alongLines(evenRuns(moving, segments, spaces));
}

/** Neighbours that stand at one value, or go on evenly, become one. */
function evenRuns<S extends Sample>(
  moving: Moving<S>,
  segments: readonly Segment<S>[],
  spaces: readonly BlendSpace[],
): Segment<S>[] {
  const out: Segment<S>[] = [];
  const isEven = ({ still, easing }: Segment<S>): boolean => !still && easing.kind === 'linear';
  let ends: number[] = [];
  for (const segment of segments) {
    const before = out[out.length - 1];
    const goesOn = before !== undefined && isContinuous(before, segment);
    if (goesOn && before.still && segment.still) {
      out[out.length - 1] = { ...before, until: segment.until };
      continue;
    }
    if (goesOn && isEven(before) && isEven(segment)) {
      const inside = [...ends, before.until];
      const whole = { ...before, until: segment.until, last: segment.last };
      const space = spaces.find((each) => isWay(moving, whole, inside, each));
      if (space) {
        out[out.length - 1] = { ...whole, space };
        ends = inside;
        continue;
      }
    }
    out.push(segment);
    ends = [];
  }
  return out;
}

/** Does a value go evenly from one end to the other? */
function isWay<S extends Sample>(
  moving: Moving<S>,
  { from, until, first, last }: Segment<S>,
  inside: readonly number[],
  space: BlendSpace,
): boolean {
  if (first.kind !== last.kind) return false;
  const mixer = new Mixer(first, last, space);
  return inside.every((time) =>
    mixer.isNear(moving.at(moving.isSteady(time) ? time : time - INSIDE), (time - from) / (until - from)),
  );
}

/** As many cubics as an easing that is put together may have. */
const MOST_CUBICS = 100;

/**
 * What goes on along one line, however fast and back and forth, is one way with an easing put together of the others. So a way that overshoots, or one that
 * a file had to divide, is one shift again.
 */
function alongLines<S extends Sample>(segments: readonly Segment<S>[]): Segment<S>[] {
  const out: Segment<S>[] = [];
  for (let i = 0; i < segments.length; ) {
    let most = i;
    let easing: Easing = segments[i].easing;
    let misses = 0;
    if (!segments[i].still)
      for (let j = i + 1; j < segments.length && j - i < MOST_CUBICS && misses < MOST_MISSES; j++) {
        const [before, next] = [segments[j - 1], segments[j]];
        if (next.still || next.space !== segments[i].space || !isContinuous(before, next)) break;
        const found = oneEasing(segments.slice(i, j + 1));
        if (found === 'short') continue;
        misses = found ? 0 : misses + 1;
        if (!found) continue;
        most = j;
        easing = found;
      }
    out.push({ ...segments[i], until: segments[most].until, last: segments[most].last, easing });
    i = most + 1;
  }
  return out;
}

/** What has left its line so often, however far it is followed, does not come back to it. */
const MOST_MISSES = 3;

/** The easing of a way that consists of several; undefined where they do not lie on one line, 'short' where it ends where it began, so that there is none. */
function oneEasing<S extends Sample>(ways: readonly Segment<S>[]): Easing | 'short' | undefined {
  const [{ from, first, space }, last] = [ways[0], ways[ways.length - 1]];
  const whole = new Mixer(first, last.last, space);
  const progresses = [0];
  for (const { last: sample } of ways.slice(0, -1)) {
    const progress = shareAlong(first, last.last, sample);
    if (progress === undefined) return 'short';
    if (!whole.isNear(sample, progress)) return undefined;
    progresses.push(progress);
  }
  progresses.push(1);
  const length = last.until - from;
  const points = [0, 0];
  ways.forEach(({ from: begin, until, easing }, k) => {
    const cubics = easingSegments(easing);
    for (let i = 2; i < cubics.length; i += 2)
      points.push(
        (begin - from + cubics[i] * (until - begin)) / length,
        progresses[k] + cubics[i + 1] * (progresses[k + 1] - progresses[k]),
      );
  });
  points.splice(-2, 2, 1, 1);
  const easing: Easing = { kind: 'curve', points: monotone(points) };
  return points.length / 6 <= MOST_CUBICS && isFollowed(easing) ? easing : undefined;
}

/** Times that never run back, however they were rounded: the inner points of a cubic lie between its ends. */
function monotone(points: number[]): number[] {
  for (let at = 0; at + 7 < points.length; at += 6) {
    points[at + 6] = Math.max(points[at], points[at + 6]);
    for (const i of [at + 2, at + 4]) points[i] = Math.min(points[at + 6], Math.max(points[at], points[i]));
  }
  return points;
}

/** How far along the line from one sample to another a third lies; undefined where the line has no length. */
function shareAlong(from: Sample, to: Sample, at: Sample): number | undefined {
  let [dot, length] = [0, 0];
  const add = (p: number, q: number, v: number, error: number): void => {
    dot += ((v - p) * (q - p)) / error ** 2;
    length += ((q - p) / error) ** 2;
  };
  from.numbers.forEach((v, i) => void add(v, to.numbers[i], at.numbers[i], from.errors[i]));
  // Colours are mixed elsewhere than where their numbers lie: they say it only where nothing else moves.
  if (!(length > 1)) from.colours.forEach((v, i) => void add(v, to.colours[i], at.colours[i], COLOUR_STEP));
  return length > 1 ? dot / length : undefined;
}
const COLOUR_STEP = 1 / 255;
