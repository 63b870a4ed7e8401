// Goes into code modules that are taken out, as it is: it may import nothing but its neighbours in this folder.
import { type ReadyTrack, readyTrack, type TimedTexts, trackBeyond, trackValue } from './track-value';

/** An element with what moves in it, as compact as JSON allows. */
export type PackedElement = readonly [
  name: string,
  attributes: Readonly<Record<string, string>>,
  children: readonly PackedElement[],
  tracks: readonly PackedTrack[],
];
export type PackedTrack = readonly [
  attribute: string,
  /** The function of a transform, or '' for any other attribute. */
  step: string,
  begin: number,
  duration: number,
  /** 1: repeats; 2: jumps; 3: both. */
  flags: number,
  times: readonly number[],
  splines: readonly (readonly number[])[],
  values: readonly string[],
];

/** An element at a moment: its attributes are those of SVG. */
export interface FrameElement {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly FrameElement[];
}

/** When a pose stands, s: from when it is reached until it is left. */
export interface PoseTime {
  readonly name: string;
  readonly reached: number;
  readonly left: number;
}

interface ReadyElement {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly ReadyElement[];
  readonly tracks: readonly { readonly attribute: string; readonly step: string; readonly track: ReadyTrack }[];
}

/** Makes elements ready to be asked for any moment. */
export const readyElement = ([name, attributes, children, tracks]: PackedElement): ReadyElement => ({
  name,
  attributes,
  children: children.map(readyElement),
  tracks: tracks.map(([attribute, step, begin, duration, flags, times, splines, values]) => ({
    attribute,
    step,
    track: readyTrack({ begin, duration, repeats: flags % 2 === 1, jumps: flags > 1, times, splines, values }),
  })),
});

/** Where a number leads: a moment, or past the ends of what there is, the pace of the last moment there. */
export interface Moment {
  readonly seconds: number;
  readonly beyond?: { readonly next: number; readonly way: number };
}

/** An element as it is at a moment. */
export function elementAt(element: ReadyElement, moment: Moment): FrameElement {
  const { name, children, tracks } = element;
  const inside = children.map((child) => elementAt(child, moment));
  if (tracks.length === 0) return { name, attributes: element.attributes, children: inside };
  const attributes: Record<string, string> = { ...element.attributes };
  const steps: Record<string, string[]> = {};
  for (const { attribute, step, track } of tracks) {
    const { seconds, beyond } = moment;
    const value = beyond ? trackBeyond(track, seconds, beyond.next, beyond.way) : trackValue(track, seconds);
    if (value === undefined) continue;
    if (step === '') attributes[attribute] = value;
    else {
      steps[attribute] ??= [];
      steps[attribute].push(`${step}(${value})`);
    }
  }
  for (const [attribute, each] of Object.entries(steps)) attributes[attribute] = each.join(' ');
  return { name, attributes, children: inside };
}

/** A little after, or before, an end of a change: its pace there. Share of the change. */
const PACE = 0.01;

/**
 * The moment for a number between `positions`, which stand for the poses; on the way from one to the next time runs from when that is left until the next is
 * reached. Beyond the ends it is the moment of the end or, `extrapolated`, goes on at its pace.
 */
export function momentBetween(
  poses: readonly PoseTime[],
  positions: readonly number[],
  progress: number,
  extrapolated: boolean,
): Moment {
  const last = poses.length - 1;
  if (last === 0) return { seconds: poses[0].left };
  let k = 0;
  while (k + 1 < last && progress >= positions[k + 1]) k++;
  const way = (progress - positions[k]) / (positions[k + 1] - positions[k]);
  const [from, until] = [poses[k].left, poses[k + 1].reached];
  if (way < 0 || way > 1) {
    const end = way < 0 ? from : until;
    const next = from + (until - from) * (way < 0 ? PACE : 1 - PACE);
    const beyond = way < 0 ? way / PACE : (1 - way) / PACE;
    return extrapolated ? { seconds: end, beyond: { next, way: beyond } } : { seconds: end };
  }
  return { seconds: from + (until - from) * way };
}

/** Numbers, or lists of numbers, one for each pose, at a pose number, which may lie between two and beyond the ends. */
export function betweenPoses<T extends number | readonly number[]>(values: readonly T[], pose: number): T {
  const k = Math.min(Math.max(0, Math.floor(pose)), Math.max(0, values.length - 2));
  const [from, to] = [values[k], values[Math.min(k + 1, values.length - 1)]];
  const mix = (p: number, q: number): number => p + (q - p) * (pose - k);
  return (
    typeof from === 'number'
      ? mix(from, to as number)
      : (from as readonly number[]).map((p, i) => mix(p, (to as readonly number[])[i]))
  ) as T;
}

/** The pose number at a moment: between two poses as far as the eased change is. */
export function poseNumber(track: TimedTexts): (moment: Moment) => number {
  const ready = readyTrack(track);
  return ({ seconds, beyond }) =>
    Number(beyond ? trackBeyond(ready, seconds, beyond.next, beyond.way) : (trackValue(ready, seconds) ?? 0));
}
