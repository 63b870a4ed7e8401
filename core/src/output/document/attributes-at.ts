import { type ReadyTrack, readyTrack, trackValue } from '../runtime/track-value';
import type { DrawnElement, Track } from './animated-document';

const ready = new WeakMap<Track, ReadyTrack>();

/** What is read is not rounded before it is used. */
const EXACT = 1e9;

function valueAt(track: Track, seconds: number): string | undefined {
  let known = ready.get(track);
  if (!known) {
    known = { ...readyTrack(track), unit: EXACT };
    // What cannot be mixed number by number jumps (SVG Animations 2, 2.17).
    const [first] = known.numbers;
    if (known.numbers.some(({ length }) => length !== first.length)) known = { ...known, jumps: true };
    ready.set(track, known);
  }
  return trackValue(known, seconds);
}

/** Elements of which several tracks are about one attribute. */
const crowded = new WeakMap<DrawnElement, boolean>();

/** The tracks of an element, what goes before the others last: what began later does (SVG Animations 2, 2.8: the animation sandwich). */
function inOrder(element: DrawnElement, seconds: number): readonly Track[] {
  const { tracks } = element;
  let known = crowded.get(element);
  if (known === undefined) {
    known = new Set(tracks.map(({ attribute }) => attribute)).size < tracks.length;
    crowded.set(element, known);
  }
  if (!known) return tracks;
  const began = ({ begin, duration, restarts }: Track): number =>
    restarts && seconds > begin ? begin + Math.floor((seconds - begin) / duration) * duration : begin;
  return [...tracks].sort((p, q) => began(p) - began(q));
}

/** Has a run of a track ended, so that the element is as it is itself? */
function isOver({ active, begin, duration, repeats }: Track, seconds: number): boolean {
  if (active === undefined || seconds < begin) return false;
  const since = seconds - begin;
  return (repeats ? since - Math.floor(since / duration) * duration : since) >= active;
}

/** The attributes of an element at a time: those of its animations in place of its own. */
export function attributesAt(element: DrawnElement, seconds: number): Record<string, string> {
  const { attributes } = element;
  const now: Record<string, string> = { ...attributes };
  const steps = new Map<string, string[]>();
  for (const track of inOrder(element, seconds)) {
    const value = isOver(track, seconds) ? undefined : valueAt(track, seconds);
    if (value === undefined) continue;
    if (!track.step) now[track.attribute] = value;
    else {
      // Added to nothing else it is added to what the element has itself.
      const own = attributes[track.attribute];
      const before = track.step.sum ? (steps.get(track.attribute) ?? (own ? [own] : [])) : [];
      steps.set(track.attribute, [...before, `${track.step.type}(${value})`]);
    }
  }
  for (const [attribute, each] of steps) now[attribute] = each.join(' ');
  return now;
}
