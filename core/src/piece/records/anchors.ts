import type { Matrix } from '../../vec';
import type { Anchor, AnchorKind, Id } from './records';

/** One anchor of a piece. */
export interface AnchorRef {
  readonly part: Id;
  readonly contour: Id;
  readonly anchor: Id;
}

type Point = readonly [x: number, y: number];
const plus = (p: Point, dx: number, dy: number): Point => [p[0] + dx, p[1] + dy];
/** Directions that differ by less than this (rad) count as one line. */
const IN_LINE_RAD = 0.01;

/** Writes the cubic from `a` to `b`, mapped by `matrix`: eight numbers from `out[at]` on. Without both handles it is straight. */
export function writeSegment(a: Anchor, b: Anchor, matrix: Matrix, out: Float64Array, at: number): void {
  const start = a.at;
  const end = b.at;
  const straight = !a.out && !b.in;
  const first = a.out ?? start;
  const second = b.in ?? end;
  // Handles at the thirds.
  const dx = straight ? (end[0] - start[0]) / 3 : 0;
  const dy = straight ? (end[1] - start[1]) / 3 : 0;
  put(matrix, start[0], start[1], out, at);
  put(matrix, straight ? start[0] + dx : first[0], straight ? start[1] + dy : first[1], out, at + 2);
  put(matrix, straight ? start[0] + 2 * dx : second[0], straight ? start[1] + 2 * dy : second[1], out, at + 4);
  put(matrix, end[0], end[1], out, at + 6);
}

function put([a, b, c, d, e, f]: Matrix, x: number, y: number, out: Float64Array, at: number): void {
  out[at] = a * x + c * y + e;
  out[at + 1] = b * x + d * y + f;
}

/** The anchor with its handles, moved. */
export const movedAnchor = (anchor: Anchor, dx: number, dy: number): Anchor => ({
  ...anchor,
  at: plus(anchor.at, dx, dy),
  ...(anchor.in && { in: plus(anchor.in, dx, dy) }),
  ...(anchor.out && { out: plus(anchor.out, dx, dy) }),
});

/** The anchor's kind: what was chosen, or else what its handles look like. */
export function kindOf(anchor: Anchor): AnchorKind {
  if (anchor.kind) return anchor.kind;
  const { at, in: into, out } = anchor;
  if (!into || !out) return 'corner';
  const turn = angle(at, out) - angle(into, at);
  const off = Math.abs(Math.atan2(Math.sin(turn), Math.cos(turn)));
  if (off > IN_LINE_RAD) return 'corner';
  const [p, q] = [distance(at, into), distance(at, out)];
  return Math.abs(p - q) <= 0.01 * Math.max(p, q) ? 'symmetric' : 'smooth';
}

const angle = (p: Point, q: Point): number => Math.atan2(q[1] - p[1], q[0] - p[0]);
const distance = (p: Point, q: Point): number => Math.hypot(q[0] - p[0], q[1] - p[1]);

/**
 * The anchor after one of its handles was dragged to `to`. The other handle follows as the anchor's kind asks, unless `free`, which makes
 * it a corner. A handle dragged onto its anchor goes.
 */
export function withHandle(anchor: Anchor, side: 'in' | 'out', to: Point, free = false): Anchor {
  const other = side === 'in' ? 'out' : 'in';
  const kind = free ? 'corner' : kindOf(anchor);
  const next: { -readonly [K in keyof Anchor]: Anchor[K] } = { ...anchor, [side]: to };
  if (free) next.kind = 'corner';
  const reach = distance(anchor.at, to);
  if (!(reach > 0)) {
    delete next[side];
    return next;
  }
  const opposite = anchor[other];
  if (kind === 'corner' || (!opposite && kind !== 'symmetric')) return next;
  const length = kind === 'symmetric' ? reach : distance(anchor.at, opposite as Point);
  next[other] = [
    anchor.at[0] - ((to[0] - anchor.at[0]) / reach) * length,
    anchor.at[1] - ((to[1] - anchor.at[1]) / reach) * length,
  ];
  return next;
}

/**
 * The anchor made a corner, smooth or symmetric. Smoothing turns both handles into their mean direction; handles that are not there yet
 * point along the line between the neighbours, a third of the way to each.
 */
export function withKind(
  anchor: Anchor,
  kind: AnchorKind,
  before: Point | undefined,
  after: Point | undefined,
): Anchor {
  if (kind === 'corner') return { ...anchor, kind };
  const { at } = anchor;
  let direction: number | undefined;
  if (anchor.in && anchor.out) {
    const a = angle(anchor.in, at);
    const b = angle(at, anchor.out);
    direction = Math.atan2(Math.sin(a) + Math.sin(b), Math.cos(a) + Math.cos(b));
  } else if (before && after) direction = angle(before, after);
  else if (anchor.in) direction = angle(anchor.in, at);
  else if (anchor.out) direction = angle(at, anchor.out);
  if (direction === undefined) return { ...anchor, kind };
  let into = anchor.in ? distance(at, anchor.in) : before ? distance(at, before) / 3 : 0;
  let out = anchor.out ? distance(at, anchor.out) : after ? distance(at, after) / 3 : 0;
  if (kind === 'symmetric' && into > 0 && out > 0) into = out = (into + out) / 2;
  const [c, s] = [Math.cos(direction), Math.sin(direction)];
  return {
    ...anchor,
    kind,
    ...(before && into > 0 && { in: [at[0] - c * into, at[1] - s * into] as const }),
    ...(after && out > 0 && { out: [at[0] + c * out, at[1] + s * out] as const }),
  };
}

/** The anchor without its handles: straight on both sides where the neighbours have none either. */
export function withoutHandles({ in: _in, out: _out, kind: _kind, ...anchor }: Anchor): Anchor {
  return anchor;
}
