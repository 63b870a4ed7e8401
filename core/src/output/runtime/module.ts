// Goes into code modules that are taken out, made small: all that a module says besides its data. It imports nothing but types.
import type { FrameElement, PackedElement, PackedTrack, PoseTime } from './packed';

// What the module says before this code.
declare const duration: number;
declare const poses: readonly PoseTime[];
declare const positions: readonly number[];
declare const picture: PackedElement;
/** The number of the pose over time. */
declare const steps: PackedTrack;
// What is known when it is made: code that is not needed is left out.
declare const EXTRAPOLATED: boolean;
declare const BY_POSES: boolean;

const NUMBERS = /-?\d*\.?\d+/g;
/** Numbers are rounded to one part of so many; on the way to other numbers they are not. */
const SHOWN = 1e4;
const ALONG = 1e12;

/** The text between two whose numbers differ alone. In path data numbers touch where the second has a sign: where that goes they are set apart. */
function mixed(from: string, to: string, way: number, unit = SHOWN): string {
  const ends = to.match(NUMBERS) ?? [];
  let i = 0;
  return from.replace(NUMBERS, (text, at) => {
    const value = Math.round((+text + (+ends[i++] - +text) * way) * unit) / unit;
    return (value >= 0 && /[\d.]/.test(from[at - 1]) ? ' ' : '') + value;
  });
}

/** Progress on a curve from 0, 0 to 1, 1 at a time within 0 and 1: bisection. */
function eased([x1, y1, x2, y2]: readonly number[], x: number): number {
  let [low, high, t] = [0, 1, x];
  const on = (a: number, b: number): number => t * (3 * (1 - t) * (a * (1 - t) + b * t) + t * t);
  for (let step = 0; step < 40; step++) {
    if (on(x1, x2) > x) high = t;
    else low = t;
    t = (low + high) / 2;
  }
  return on(y1, y2);
}

/** The value of a track at a time in s, as SVG Animations 2 defines it; undefined before it begins. */
function valueAt(
  [, , begin, length, flags, times, splines, values]: PackedTrack,
  seconds: number,
  unit?: number,
): string | undefined {
  let share = (seconds - begin) / length;
  if (share < 0) return;
  share = flags % 2 ? share % 1 : Math.min(1, share);
  let k = 0;
  while (times[k + 1] <= share) k++;
  const curve = splines[k];
  const way = (share - times[k]) / (times[k + 1] - times[k]);
  // Where it jumps, stands at a key, or is at its end.
  return flags > 1 || !(way > 0) ? values[k] : mixed(values[k], values[k + 1], curve ? eased(curve, way) : way, unit);
}

/** An instant in s; beyond the ends also another one, and how far beyond on the way to it: the pace between the two goes on. */
type Instant = readonly [seconds: number, next?: number, way?: number];

const trackAt = (track: PackedTrack, [seconds, next, way]: Instant): string | undefined => {
  if (!EXTRAPOLATED || next === undefined) return valueAt(track, seconds);
  const [first, second] = [valueAt(track, seconds, ALONG), valueAt(track, next, ALONG)];
  return track[4] > 1 || !first || !second ? first : mixed(first, second, way as number);
};

function elementAt([name, attributes, children, tracks]: PackedElement, moment: Instant): FrameElement {
  const now: Record<string, string> = { ...attributes };
  const sums: Record<string, string> = {};
  for (const track of tracks) {
    const [attribute, step] = track;
    const value = trackAt(track, moment);
    if (value === undefined) continue;
    now[attribute] = step ? (sums[attribute] = `${sums[attribute] ?? ''}${step}(${value})`) : value;
  }
  return { name, attributes: now, children: children.map((child) => elementAt(child, moment)) };
}

/** A little after, or before, an end of a change: its pace there. Share of the change. */
const PACE = 0.01;

/** On the way from one pose to the next time runs from when that is left until the next is reached. The very end of a run belongs to its next one. */
function momentOf(progress: number): Instant {
  let k = 0;
  if (BY_POSES) while (k + 2 < poses.length && progress >= positions[k + 1]) k++;
  const from = BY_POSES ? poses[k].left : 0;
  const until = BY_POSES ? poses[k + 1]?.reached : duration * (1 - 1e-9);
  if (!(until >= from)) return [from];
  const way = BY_POSES ? (progress - positions[k]) / (positions[k + 1] - positions[k]) : progress;
  const inside = Math.max(0, Math.min(1, way));
  const at = from + (until - from) * inside;
  return EXTRAPOLATED && way !== inside
    ? [at, from + (until - from) * (inside ? 1 - PACE : PACE), (inside ? 1 - way : way) / PACE]
    : [at];
}

export const at = (seconds: number): FrameElement => elementAt(picture, [seconds]);
export const frame = (progress: number): FrameElement => elementAt(picture, momentOf(progress));

export const inStep = <T extends number | readonly number[]>(values: readonly T[], progress: number): T => {
  const [first] = values;
  if (
    values.length !== poses.length ||
    values.some((value) => [value].flat().length !== [first].flat().length) ||
    ![values, progress].flat(2).every(Number.isFinite)
  )
    throw new TypeError(
      `inStep: expected ${poses.length} numbers, or lists alike, and a progress; found ${JSON.stringify([values, progress])}.`,
    );
  const pose = +(trackAt(steps, momentOf(progress)) as string);
  const k = Math.max(0, Math.min(poses.length - 2, Math.floor(pose)));
  const mix = (p: unknown, q = p): unknown =>
    Array.isArray(p)
      ? p.map((v, i) => mix(v, (q as readonly number[])[i]))
      : (p as number) + ((q as number) - (p as number)) * (pose - k);
  return mix(values[k], values[k + 1]) as T;
};

/** Puts an element as it is into a node, with all that is in it; the nodes of these are made the first time. */
function put({ attributes, children }: FrameElement, node: Element): void {
  for (const key in attributes)
    if (key !== 'xmlns' && node.getAttribute(key) !== attributes[key]) node.setAttribute(key, attributes[key]);
  children.forEach((child, i) => {
    if (!node.children[i]) node.append(document.createElementNS('http://www.w3.org/2000/svg', child.name));
    put(child, node.children[i]);
  });
}

export const mount = (svg: SVGSVGElement): ((progress: number) => void) => {
  const show = (progress: number): void => put(frame(progress), svg);
  show(positions[0]);
  return show;
};
