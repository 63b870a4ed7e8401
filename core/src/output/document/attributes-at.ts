import { type ReadyTrack, readyTrack, trackNumbers, trackValue } from '../runtime/track-value';
import type { DrawnElement, Track } from '../tree/drawn-element';

const ready = new WeakMap<Track, ReadyTrack>();

/** What is read is not rounded before it is used. */
const EXACT = 1e9;

function readied(track: Track): ReadyTrack {
  let known = ready.get(track);
  if (!known) {
    known = { ...readyTrack(track), unit: EXACT };
    // What cannot be mixed number by number jumps (SVG Animations 2, 2.17).
    const [first] = known.numbers;
    if (known.numbers.some(({ length }) => length !== first.length)) known = { ...known, jumps: true };
    ready.set(track, known);
  }
  return known;
}

/** Does a track go from value to value by steps: by its own word, or because its values cannot be mixed? */
export const goesBySteps = (track: Track): boolean => readied(track).jumps;

const valueAt = (track: Track, seconds: number): string | undefined => trackValue(readied(track), seconds);

/** The numbers in the text of a track at a time, s, in their order; undefined where it says nothing then. */
export const numbersAt = (track: Track, seconds: number): readonly number[] | undefined =>
  isOver(track, seconds) ? undefined : trackNumbers(readied(track), seconds);

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

/** The attributes of an element at a time, s: those of its animations in place of its own. */
export function attributesAt(element: DrawnElement, seconds: number): Record<string, string> {
  const now: Record<string, string> = { ...element.attributes };
  addAnimated(element, seconds, now);
  return now;
}

/** One attribute of an element at a time, s; undefined where neither the element nor an animation says it. */
export function attributeAt(element: DrawnElement, name: string, seconds: number): string | undefined {
  if (!element.tracks.some(({ attribute }) => attribute === name)) return element.attributes[name];
  const now: Record<string, string> = {};
  addAnimated(element, seconds, now, name);
  return now[name] ?? element.attributes[name];
}

function addAnimated(element: DrawnElement, seconds: number, now: Record<string, string>, only?: string): void {
  if (element.tracks.length === 0) return;
  let steps: Map<string, string[]> | undefined;
  for (const track of inOrder(element, seconds)) {
    const { attribute, step } = track;
    if (only !== undefined && attribute !== only) continue;
    const value = isOver(track, seconds) ? undefined : valueAt(track, seconds);
    if (value === undefined) continue;
    if (!step) now[attribute] = value;
    else {
      steps ??= new Map();
      // Added to nothing else it is added to what the element has itself.
      const own = element.attributes[attribute];
      const before = step.sum ? (steps.get(attribute) ?? (own ? [own] : [])) : [];
      steps.set(attribute, [...before, `${step.type}(${value})`]);
    }
  }
  for (const [attribute, each] of steps ?? []) now[attribute] = each.join(' ');
}
