import type { Playback } from '../../piece';
import { isCalmPicture } from '../own-names';
import type { DrawnElement, Track } from '../tree/drawn-element';

/** How a drawing plays: to `once`, s, and from there on again and again for `again` s; 0 where nothing repeats. */
export interface Timeline {
  readonly once: number;
  readonly again: number;
  /** Of all that is looked at, s. */
  readonly duration: number;
  readonly playback: Playback;
}

/** What comes back together only after longer than this, s, is not waited for. */
const LONGEST = 120;
/** Periods are told apart to this, s. */
const STEP = 1e-3;

/** When everything of a drawing has happened. Things that repeat with different periods come back together after their least common multiple. */
export function timelineOf(root: DrawnElement, note: (text: string) => void): Timeline {
  const tracks: Track[] = [];
  const visit = (element: DrawnElement): void => {
    if (isCalmPicture(element)) return;
    tracks.push(...element.tracks.filter(moves));
    element.children.forEach(visit);
  };
  visit(root);
  const repeating = tracks.filter(({ repeats }) => repeats);
  let once = 0;
  for (const { begin, duration, repeats } of tracks) once = Math.max(once, repeats ? begin : begin + duration);
  const again = commonPeriod(
    repeating.map(({ duration }) => duration),
    note,
  );
  // What had begun before 0 has no first time.
  if (once < STEP) once = 0;
  const playback = repeating.length === 0 ? 'once' : once === 0 ? 'loop' : 'stretch';
  return { once, again, duration: once + again, playback };
}

const moves = ({ values, begin }: Track): boolean => begin !== 0 || values.some((value) => value !== values[0]);

function commonPeriod(periods: readonly number[], note: (text: string) => void): number {
  if (periods.length === 0) return 0;
  const longest = Math.max(...periods);
  if (periods.every((period) => Math.abs(period - longest) < STEP / 2)) return longest;
  const steps = [...new Set(periods.map((period) => Math.max(1, Math.round(period / STEP))))];
  const divisor = (a: number, b: number): number => (b === 0 ? a : divisor(b, a % b));
  const common = steps.reduce((a, b) => (a > LONGEST / STEP ? a : (a / divisor(a, b)) * b));
  if (common <= LONGEST / STEP) return common * STEP;
  note(
    `Parts that repeat after different times meet again only after more than ${LONGEST} s: the longest of them, ${longest} s, was taken for all.`,
  );
  return longest;
}

/** No run is shorter than this, s, and none longer. */
const SHORTEST_RUN = 1e-4;
const LONGEST_RUN = 86_400;

/** A drawing without animations whose times nobody could watch; they are told. */
export function withoutOddTimes(element: DrawnElement, note: (text: string) => void): DrawnElement {
  const children = element.children.map((child) => withoutOddTimes(child, note));
  const tracks = element.tracks.filter(({ attribute, begin, duration, times }) => {
    const fits =
      Math.abs(begin) <= LONGEST_RUN &&
      duration >= SHORTEST_RUN &&
      duration <= LONGEST_RUN &&
      times.every(Number.isFinite);
    if (!fits) note(`An animation of ${attribute.slice(0, 40)} that takes ${duration} s is not taken.`);
    return fits;
  });
  const same = tracks.length === element.tracks.length && children.every((child, i) => child === element.children[i]);
  return same ? element : { ...element, children, tracks };
}
