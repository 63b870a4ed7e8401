import { IDENTITY, mapPoint } from '../../vec';
import type { CompiledPiece } from '../lanes';
import { motionMatrix } from '../lanes';
import { type Frame, prepareFrame, sampleFrame } from './sample';

/** Which points of a figure are followed. */
export interface FollowedPoints {
  /** Places at the beginning, or the end, of the stretch, px of the canvas: the nearest points are followed. Left out: points evenly along all outlines. */
  readonly near?: { readonly at: 'from' | 'until'; readonly places: readonly (readonly [x: number, y: number])[] };
  /** At most so many. */
  readonly most: number;
}

/** The ways of points through a stretch of time: where each is at its beginning, at each whole frame within it, and at its end. */
export interface PointPaths {
  /** s */
  readonly times: readonly number[];
  /** x and y at each of the times, px of the canvas, for each point. */
  readonly points: readonly Float64Array[];
}

const NO_PATHS: PointPaths = { times: [], points: [] };
/** At its very ends a stretch may already show something else, s. */
const INSIDE = 1e-6;

/** Follows points of a figure through the time of one of its shifts, in which its outlines keep their structure. */
export function pointPaths(
  compiled: CompiledPiece,
  figureId: string,
  [from, until]: readonly [number, number],
  { near, most }: FollowedPoints,
): PointPaths {
  const figure = compiled.figures.find(({ id }) => id === figureId);
  if (!figure || !(until > from)) return NO_PATHS;
  // Of a piece with many figures only this one is looked at.
  const alone: CompiledPiece = { ...compiled, figures: [{ ...figure, clip: -1 }] };
  const { rate } = compiled;
  const times = [from + INSIDE];
  for (let k = Math.floor(from * rate + INSIDE) + 1; k / rate < until - INSIDE; k++) times.push(k / rate);
  times.push(until - INSIDE);
  const frame = prepareFrame(alone);
  const looked = (seconds: number): Frame => sampleFrame(alone, seconds, frame);
  const anchors = anchorsOf(looked((from + until) / 2));
  const place = (now: Frame, { part, at }: Anchor): [number, number] => {
    const { parts, motion } = now.figures[0];
    const points = parts[part]?.points;
    return points
      ? mapPoint(motion ? motionMatrix(motion) : IDENTITY, points[at], points[at + 1])
      : [Number.NaN, Number.NaN];
  };
  let chosen: readonly Anchor[] = anchors.filter((_, i) => i % Math.max(1, Math.ceil(anchors.length / most)) === 0);
  if (near) {
    const end = looked(near.at === 'from' ? times[0] : times[times.length - 1]);
    const places = anchors.map((anchor) => place(end, anchor));
    chosen = near.places.slice(0, most).flatMap(([x, y]) => {
      const off = places.map(([px, py]) => Math.hypot(px - x, py - y));
      const best = off.indexOf(Math.min(...off));
      return best < 0 ? [] : [anchors[best]];
    });
  }
  const points = chosen.map(() => new Float64Array(2 * times.length));
  times.forEach((time, k) => {
    const now = looked(time);
    chosen.forEach((anchor, i) => points[i].set(place(now, anchor), 2 * k));
  });
  return { times, points };
}

interface Anchor {
  readonly part: number;
  /** Index of its x among the numbers of the part. */
  readonly at: number;
}

function anchorsOf({ figures }: Frame): Anchor[] {
  return figures[0].parts.flatMap(({ contours }, part) =>
    contours.flatMap(({ at, segments, closed }) =>
      Array.from({ length: closed ? segments : segments + 1 }, (_, k) => ({ part, at: at + 6 * k })),
    ),
  );
}
