import type { Painted } from './painted';

/** How far what a file paints is from what the piece paints. */
export interface Comparison {
  /** px: of the worst point, and on average. */
  readonly largest: number;
  readonly mean: number;
  /** The worst colour, as a share of its range. */
  readonly colour: number;
  /** How much is in the one and not in the other. */
  readonly missing: number;
  readonly extra: number;
}

/** What is smaller than this is not seen, px; nor is what is thinner than this share. */
const LEAST_PX = 0.05;
const NOTICED_PX = 0.5;
const LEAST_ALPHA = 0.004;
/** Further than this it is no longer the same thing, px. */
const LOST_PX = 25;
/** Things nearer to each other than this may be taken for each other: then their colours decide. */
const ALIKE_PX = 0.5;
/** And are of one colour up to this share. */
const TWIN_COLOUR = 0.02;

/**
 * Compares what two pictures paint: each thing of the file with the thing of the piece on which it lies, points of each against edges of the other, and their
 * colours. Lines that are only partly there are compared one way.
 */
export function comparePainted(wanted: readonly Painted[], found: readonly Painted[]): Comparison {
  const [want, find] = [wanted, found].map((all) => all.map(seen).filter((each) => each !== null));
  const owners = new Map<Painted, Painted[]>();
  let [largest, colour, extra, sum, count] = [0, 0, 0, 0, 0];
  const add = (stray: Stray): void => {
    largest = Math.max(largest, stray.largest);
    sum += stray.sum;
    count += stray.count;
  };
  for (const each of find) {
    const owner = ownerOf(each, want);
    if (!owner) {
      if (isNoticed(each)) extra++;
      continue;
    }
    owners.set(owner.painted, [...(owners.get(owner.painted) ?? []), each]);
    add(owner.stray);
    colour = Math.max(colour, colourOff(each, owner.painted));
  }
  for (const each of want) {
    const mine = owners.get(each);
    if (mine && !each.partly)
      add(
        strayOf(
          each.lines,
          mine.flatMap(({ lines }) => lines),
        ),
      );
  }
  const missing = want.filter((each) => !owners.has(each) && isNoticed(each) && !hasTwin(each, find)).length;
  return { largest, mean: count > 0 ? sum / count : 0, colour, missing, extra };
}

/** Without contours that are a mere point; null where nothing of it is seen. */
function seen(each: Painted): Painted | null {
  const lines = each.lines.filter((line) => longerSide(line) > LEAST_PX);
  if (lines.length === 0 || !each.colours.some((c) => c[3] > LEAST_ALPHA)) return null;
  return lines.length === each.lines.length ? each : { ...each, lines };
}

interface Stray {
  readonly largest: number;
  readonly sum: number;
  readonly count: number;
}

/** The thing on which another lies: the nearest, and of several that are as near the one of its colour. */
function ownerOf(each: Painted, wanted: readonly Painted[]): { painted: Painted; stray: Stray } | null {
  const box = boxOf(each.lines);
  const near = wanted
    .filter(({ kind }) => kind === each.kind)
    .map((painted) => ({ painted, off: boxOff(box, boxOf(painted.lines), painted.partly) }))
    .filter(({ off }) => off < LOST_PX)
    .map(({ painted }) => ({ painted, stray: strayOf(each.lines, painted.lines) }))
    .filter(({ stray }) => stray.largest < LOST_PX);
  if (near.length === 0) return null;
  const best = Math.min(...near.map(({ stray }) => stray.largest));
  const alike = near.filter(({ stray }) => stray.largest <= best + ALIKE_PX);
  return alike.reduce((p, q) => (colourOff(each, q.painted) < colourOff(each, p.painted) ? q : p));
}

/** Of things that lie on each other only one is found; the others are there if they look the same. */
const hasTwin = (each: Painted, found: readonly Painted[]): boolean =>
  found.some(
    (other) =>
      other.kind === each.kind &&
      colourOff(other, each) <= TWIN_COLOUR &&
      strayOf(each.lines, other.lines).largest <= ALIKE_PX,
  );

type Bounds = readonly [left: number, top: number, right: number, bottom: number];

function boxOf(lines: readonly Float64Array[]): Bounds {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const line of lines)
    for (let i = 0; i < line.length; i += 2) {
      left = Math.min(left, line[i]);
      right = Math.max(right, line[i]);
      top = Math.min(top, line[i + 1]);
      bottom = Math.max(bottom, line[i + 1]);
    }
  return [left, top, right, bottom];
}

/** Something that has just begun to grow may be there in the one and not yet in the other. */
const isNoticed = ({ lines }: Painted): boolean => lines.some((line) => longerSide(line) > NOTICED_PX);

function longerSide(line: Float64Array): number {
  const [left, top, right, bottom] = boxOf([line]);
  return Math.max(right - left, bottom - top);
}

/** How far a box reaches beyond another; where it may be only a part, it may be smaller. */
function boxOff(p: Bounds, q: Bounds, partly: boolean): number {
  const beyond = Math.max(q[0] - p[0], q[1] - p[1], p[2] - q[2], p[3] - q[3]);
  const short = Math.max(p[0] - q[0], p[1] - q[1], q[2] - p[2], q[3] - p[3]);
  return partly ? beyond : Math.max(beyond, short);
}

/** The largest difference of a channel; of gradients, stop by stop. */
function colourOff(p: Painted, q: Painted): number {
  if (p.colours.length !== q.colours.length) return 1;
  let worst = 0;
  for (const [i, c] of p.colours.entries()) {
    const d = q.colours[i];
    // What is hardly there may be of any colour.
    const seen = Math.max(c[3], d[3]);
    for (let k = 0; k < 3; k++) worst = Math.max(worst, seen * Math.abs(c[k] - d[k]));
    worst = Math.max(worst, Math.abs(c[3] - d[3]));
  }
  return worst;
}

/** How far points of lines are from the nearest edges of others. */
function strayOf(from: readonly Float64Array[], to: readonly Float64Array[]): Stray {
  let [largest, sum, count] = [0, 0, 0];
  for (const line of from)
    for (let i = 0; i < line.length; i += 2) {
      const off = nearestOff(line[i], line[i + 1], to);
      largest = Math.max(largest, off);
      sum += off;
      count++;
    }
  return { largest, sum, count };
}

function nearestOff(x: number, y: number, lines: readonly Float64Array[]): number {
  let best = Infinity;
  for (const p of lines) {
    if (p.length === 2) best = Math.min(best, (p[0] - x) ** 2 + (p[1] - y) ** 2);
    for (let i = 0; i + 3 < p.length; i += 2) {
      const [dx, dy] = [p[i + 2] - p[i], p[i + 3] - p[i + 1]];
      const length2 = dx * dx + dy * dy;
      const along = length2 > 0 ? ((x - p[i]) * dx + (y - p[i + 1]) * dy) / length2 : 0;
      const t = along < 0 ? 0 : along > 1 ? 1 : along;
      const [u, v] = [p[i] + t * dx - x, p[i + 1] + t * dy - y];
      best = Math.min(best, u * u + v * v);
    }
  }
  return Math.sqrt(best);
}
