import type { Moment, Piece } from '../records';
import { stopNamed } from './lane-keys';
import { pieceDuration, railTimeline, stopsOf } from './rail';

/** When a moment is, s; undefined where its figure or stop is gone. */
export function secondsOfMoment(piece: Piece, { at, after }: Moment): number | undefined {
  if (!at) return after;
  const figure = piece.figures[at.figure];
  if (!figure) return undefined;
  const stop = stopNamed(figure, stopsOf(piece, figure), at.stop);
  return stop < 0 ? undefined : railTimeline(piece, figure).stops[stop].start + after;
}

/** The shortest stretch that is played again and again, s; a shorter one is not looped at all. */
const SHORTEST_STRETCH = 1 / 60;

/**
 * What a piece plays again and again, s, within its duration. All of it where no stretch is named, or where one of its ends is gone or they do not follow each
 * other.
 */
export function stretchOf(piece: Piece): readonly [from: number, until: number] {
  const duration = pieceDuration(piece);
  if (!piece.stretch) return [0, duration];
  const [from, until] = [piece.stretch.from, piece.stretch.until].map((moment) => secondsOfMoment(piece, moment));
  if (from === undefined || until === undefined) return [0, duration];
  const [a, b] = [Math.max(0, from), Math.min(duration, until)];
  return b - a >= SHORTEST_STRETCH ? [a, b] : [0, duration];
}

/**
 * When the picture stands that stands for the piece, s within its duration: the chosen moment, else the middle of the longest hold of a figure that is seen, of
 * another pose than its first. Where nothing is held but first poses it is the beginning.
 */
export function posterSeconds(piece: Piece): number {
  // What lies after a stretch that plays again is never seen.
  const until = piece.playback === 'stretch' ? stretchOf(piece)[1] : pieceDuration(piece);
  const chosen = piece.poster && secondsOfMoment(piece, piece.poster);
  if (chosen !== undefined) return Math.min(until, Math.max(0, chosen));
  let [longest, at] = [0, 0];
  for (const id of piece.figureOrder) {
    const figure = piece.figures[id];
    if (figure.hidden) continue;
    const { stops } = railTimeline(piece, figure);
    for (const { poseId, start, hold } of stops) {
      const seen = Math.min(until, start + hold) - start;
      if (poseId === stops[0].poseId || !(seen > longest + SAME_HOLD)) continue;
      [longest, at] = [seen, start + seen / 2];
    }
  }
  return at;
}

/** Holds nearer than this, s, are equally long: the earlier one stands. */
const SAME_HOLD = 1e-6;
