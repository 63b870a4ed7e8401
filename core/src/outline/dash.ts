import { cubicPoint } from '../curve';
import { CoreError } from '../errors';
import { measureArcLength, placeAtShare, totalLength } from './arc-length';
import { type Contour, segmentAt, segmentCount } from './contour';
import { appendStretch } from './split';

/** More dashes than this on one contour are not made: they would be finer than anybody sees. */
const MOST_DASHES = 5000;

/**
 * The dashes of a contour as open contours, by exact splitting (SVG 2, 13.5.6). The pattern has lengths of dash and gap in turn, px, a list of odd length
 * taken twice, `offset` px into the pattern at the contour's start. A dash over the start of a closed contour stays one. Dashes shorter
 * than `least` px are drawn that long, so that a dot keeps its direction; without `least` they are left out. A list without any length
 * gives the contour as it is.
 * @throws CoreError 'option' when there would be more than 5000 dashes
 */
export function dashContour(contour: Contour, lengths: readonly number[], offset: number, least = 0): Contour[] {
  const pattern = lengths.length % 2 ? [...lengths, ...lengths] : lengths;
  const period = pattern.reduce((sum, length) => sum + length, 0);
  if (!(period > 0)) return [contour];
  const table = measureArcLength(contour);
  const total = totalLength(table);
  if (!(total > 0)) return [];
  if ((total / period) * (pattern.length / 2) > MOST_DASHES)
    throw new CoreError(
      'option',
      `The dashes are too fine to become outlines: expected at most ${MOST_DASHES} on a contour. Make them longer.`,
    );
  const stretches: [from: number, to: number][] = [];
  let from = -(((offset % period) + period) % period);
  for (let k = 0; from < total; k = (k + 2) % pattern.length) {
    const to = from + pattern[k];
    const start = Math.max(0, from);
    const end = from < 0 ? to : Math.max(to, from + least);
    if (end > start) stretches.push([start, Math.min(total, end)]);
    from = to + pattern[k + 1];
  }
  const first = stretches[0];
  const last = stretches[stretches.length - 1];
  const whole = stretches.length === 1 && first[0] === 0 && first[1] === total;
  if (whole) return [contour];
  if (contour.closed && stretches.length > 1 && first[0] === 0 && last[1] === total)
    stretches.splice(0, stretches.length, ...stretches.slice(1, -1), [last[0], total + first[1]]);
  return stretches.map(([start, end]) => {
    const begin = placeAtShare(table, start / total);
    const over = end > total;
    const stop = placeAtShare(table, (over ? end - total : end) / total);
    const points = [...cubicPoint(contour.points, segmentAt(begin.segment), begin.t, new Float64Array(2))];
    appendStretch(contour, begin, over ? { ...stop, segment: stop.segment + segmentCount(contour) } : stop, points);
    return { points: Float64Array.from(points), closed: false };
  });
}
