import { type Contour, segmentCount } from '../../outline';
import { readPathData, writePathData } from '../../svg';
import { READING_COST, type ReadingBudget } from '../document/budget';
import type { DrawnElement, Track } from '../tree/drawn-element';

/** Decimals of paths that are written anew. */
const DIGITS = 6;

/**
 * A drawing in which the outlines of all keys of a path have one structure, written as absolute cubics. Mixed number by number they keep it, whatever is
 * rounded or becomes as short as nothing on the way. Outlines that are built differently jump from one to the other.
 */
export function steadyPaths(element: DrawnElement, budget: ReadingBudget): DrawnElement {
  const children = element.children.map((child) => steadyPaths(child, budget));
  const tracks = element.tracks.map((track) => (track.attribute === 'd' ? steadyTrack(track, budget) : track));
  const same = children.every((child, i) => child === element.children[i]);
  return same && tracks.every((track, i) => track === element.tracks[i]) ? element : { ...element, children, tracks };
}

function steadyTrack(track: Track, budget: ReadingBudget): Track {
  const known = new Map<string, readonly Contour[]>();
  const keys = track.values.map((value) => {
    let contours = known.get(value);
    if (!contours) {
      budget.spend(READING_COST.made * value.length);
      contours = readPathData(value).contours;
      known.set(value, contours);
    }
    return contours;
  });
  const [first] = keys;
  const alike = keys.every(
    (contours) =>
      contours.length === first.length &&
      contours.every(
        ({ closed }, c) =>
          closed === first[c].closed &&
          Math.abs(segmentCount(contours[c]) - segmentCount(first[c])) <= (closed ? 1 : 0),
      ),
  );
  if (!alike) return { ...track, jumps: true };
  const most = first.map((_, c) => Math.max(...keys.map((contours) => segmentCount(contours[c]))));
  const texts = new Map<readonly Contour[], string>();
  const values = keys.map((contours) => {
    let text = texts.get(contours);
    if (text === undefined) {
      text = contours.map((contour, c) => contourText(contour, most[c])).join('');
      texts.set(contours, text);
    }
    return text;
  });
  return { ...track, values };
}

/** A contour as absolute cubics; one that another key closes by a segment of its own gets a segment without length. */
function contourText({ points, closed }: Contour, segments: number): string {
  const all = new Float64Array(6 * segments + 2);
  for (let i = 0; i < all.length; i += 2) all.set([points[0], points[1]], i);
  all.set(points);
  return writePathData({ contours: [{ points: all, closed }], fillRule: 'nonzero' }, { digits: DIGITS, lines: false });
}
