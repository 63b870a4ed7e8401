import { type ReadyTrack, readyTrack, trackValue } from '../runtime/track-value';
import type { DrawnElement, Track } from './animated-document';

const ready = new WeakMap<Track, ReadyTrack>();

function valueAt(track: Track, seconds: number): string | undefined {
  let known = ready.get(track);
  if (!known) {
    known = readyTrack(track);
    // What cannot be mixed number by number jumps (SVG Animations 2, 2.17).
    const [first] = known.numbers;
    if (known.numbers.some(({ length }) => length !== first.length)) known = { ...known, jumps: true };
    ready.set(track, known);
  }
  return trackValue(known, seconds);
}

/** The attributes of an element at a time: those of its animations in place of its own. */
export function attributesAt({ attributes, tracks }: DrawnElement, seconds: number): Record<string, string> {
  const now: Record<string, string> = { ...attributes };
  const steps = new Map<string, string[]>();
  for (const track of tracks) {
    const over = track.passes && seconds >= track.begin + track.duration;
    const value = over ? undefined : valueAt(track, seconds);
    if (value === undefined) continue;
    if (!track.step) now[track.attribute] = value;
    else {
      const before = track.step.sum ? (steps.get(track.attribute) ?? []) : [];
      steps.set(track.attribute, [...before, `${track.step.type}(${value})`]);
    }
  }
  for (const [attribute, each] of steps) now[attribute] = each.join(' ');
  return now;
}
