import { numberText } from '../svg';
import type { Track } from './tree/drawn-element';

/** Two keys of one time would be one in CSS: the first of them stands this share before. */
const MOMENT = 1e-7;

/** What runs between keys; see `Track`. */
export type Keyed = Pick<Track, 'times' | 'values' | 'splines' | 'jumps'>;

/** The keyframes of a property of CSS (Animations 1), by shares of its run; the easing to the next key stands in the one before. */
export function cssKeyframes(name: string, { times, values, splines, jumps }: Keyed): string {
  const same = (k: number): boolean => k >= 0 && k + 1 < times.length && times[k + 1] - times[k] < MOMENT / 2;
  const frames = times.flatMap((time, k) => {
    const cut = same(k);
    // Of several at one time only the first and the last say anything, and at the beginning the last.
    if (cut && (time <= 0 || same(k - 1))) return [];
    const spline = splines[k];
    const even = !spline || (spline[0] === spline[1] && spline[2] === spline[3]);
    const timing = jumps
      ? ';animation-timing-function:step-end'
      : even || k + 1 === times.length
        ? ''
        : `;animation-timing-function:cubic-bezier(${spline.map((v) => numberText(v, 4)).join(',')})`;
    return `${percent(cut ? time - MOMENT : time)}{${name}:${values[k]}${timing}}`;
  });
  const last = times[times.length - 1];
  if (last < 1) frames.push(`100%{${name}:${values[values.length - 1]}}`);
  return frames.join('');
}

const percent = (share: number): string => `${numberText(100 * Math.max(0, share), 6)}%`;
