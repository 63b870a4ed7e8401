import { LIMITS, toMillionths } from '../../num';
import type { Figure, Id, Piece } from '../records';
import { SHORTEST_SECONDS } from '../records';
import { type RailTimeline, railTimeline } from '../time';
import type { PieceDraft } from './edit';

/** A rate of frames as a fraction. */
export interface Rate {
  readonly num: number;
  readonly den: number;
}

/** The rates of film, video and the web (common practice); those of colour television are exact fractions (SMPTE ST 170). */
export const RATES: readonly Rate[] = [
  { num: 12, den: 1 },
  { num: 15, den: 1 },
  { num: 24_000, den: 1_001 },
  { num: 24, den: 1 },
  { num: 25, den: 1 },
  { num: 30_000, den: 1_001 },
  { num: 30, den: 1 },
  { num: 50, den: 1 },
  { num: 60, den: 1 },
];

/**
 * A rate from what was typed: a number, or a fraction as 24000/1001. Decimals of the rates of colour television mean these fractions. Undefined where it is
 * none, or faster than a piece can be.
 */
export function readRate(text: string): Rate | undefined {
  const [, whole, over] = /^\s*(\d{1,6}(?:\.\d{1,4})?)\s*(?:\/\s*(\d{1,6}))?\s*(?:fps)?\s*$/.exec(text) ?? [];
  if (whole === undefined) return undefined;
  const value = Number(whole) / Number(over ?? 1);
  if (!(value > 0 && value <= LIMITS.rate.max)) return undefined;
  if (over !== undefined) {
    const [num, den] = [Number(whole), Number(over)];
    return Number.isInteger(num) && den <= LIMITS.rateDenominator.max ? reduced(num, den) : undefined;
  }
  const known = RATES.find(
    ({ num, den }) => den > 1 && Math.abs(num / den - value) < 0.006 && !Number.isInteger(value),
  );
  return known ?? reduced(Math.round(value * 10_000), 10_000);
}

function reduced(num: number, den: number): Rate {
  let [a, b] = [num, den];
  while (b > 0) [a, b] = [b, a % b];
  return { num: num / a, den: den / a };
}

/** Times are kept to a millionth of a second; what lasts lasts a tenth of a millisecond at least. */
const timed = (seconds: number): number => (seconds === 0 ? 0 : Math.max(SHORTEST_SECONDS, toMillionths(seconds)));

/** What of a rail is meant: some of its poses and shifts, by id. */
export interface RailPart {
  readonly poses: readonly Id[];
  readonly shifts: readonly Id[];
}

/** Makes everything `factor` times as long: holds, shifts, and how far free keys are from their stops. Order and proportions stay. */
export function retime(draft: PieceDraft, factor: number): void {
  for (const figure of Object.values(draft.figures)) figure.start = timed(figure.start * factor);
  for (const pose of Object.values(draft.poses)) pose.hold = timed(pose.hold * factor);
  for (const shift of Object.values(draft.shifts)) shift.duration = timed(shift.duration * factor);
  for (const { keys, follow, drift, pulse } of Object.values(draft.lanes)) {
    for (const key of keys) if (key.after !== null) key.after = toMillionths(key.after * factor);
    if (follow) follow.delay = toMillionths(follow.delay * factor);
    if (drift) drift.speed = Math.min(60, Math.max(0.01, toMillionths(drift.speed / factor)));
    if (!pulse) continue;
    pulse.period = Math.max(0.02, toMillionths(pulse.period * factor));
    pulse.from = toMillionths(pulse.from * factor);
    if (pulse.until !== null) pulse.until = toMillionths(pulse.until * factor);
  }
  for (const moment of [draft.stretch?.from, draft.stretch?.until, draft.poster])
    if (moment) moment.after = toMillionths(moment.after * factor);
}

/** Times as they are kept: to a millionth. */

/** Makes some holds and shifts `factor` times as long. */
export function retimeSome(draft: PieceDraft, { poses, shifts }: RailPart, factor: number): void {
  for (const id of new Set(poses)) draft.poses[id].hold = timed(draft.poses[id].hold * factor);
  for (const id of new Set(shifts)) draft.shifts[id].duration = timed(draft.shifts[id].duration * factor);
}

/** How long some holds and shifts last together on a rail, s: a pose that stands twice counts twice. */
export function secondsOf(piece: Piece, figure: Figure, stops: readonly number[], shifts: readonly Id[]): number {
  const timeline: RailTimeline = railTimeline(piece, figure);
  return (
    stops.reduce((sum, stop) => sum + (timeline.stops[stop]?.hold ?? 0), 0) +
    shifts.reduce((sum, id) => sum + piece.shifts[id].duration, 0)
  );
}

/** Gives the piece another rate: with the seconds that all has, or with its frames, so that the seconds change. */
export function setRate(draft: PieceDraft, rate: Rate, keeps: 'seconds' | 'frames'): void {
  const { num, den } = draft.canvas.rate;
  draft.canvas.rate = { ...rate };
  if (keeps === 'frames') retime(draft, (num * rate.den) / (den * rate.num));
}

/** Rounds holds and shifts to whole frames; what lasted lasts a frame at least. */
export function snapToFrames(draft: PieceDraft): void {
  const { num, den } = draft.canvas.rate;
  const whole = (seconds: number): number =>
    seconds === 0 ? 0 : timed((Math.max(1, Math.round((seconds * num) / den)) * den) / num);
  for (const figure of Object.values(draft.figures)) figure.start = whole(figure.start);
  for (const pose of Object.values(draft.poses)) pose.hold = whole(pose.hold);
  for (const shift of Object.values(draft.shifts)) shift.duration = whole(shift.duration);
  for (const lane of Object.values(draft.lanes))
    for (const key of lane.keys)
      if (key.after !== null) key.after = toMillionths((Math.round((key.after * num) / den) * den) / num);
}
