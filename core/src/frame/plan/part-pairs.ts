import { type Nearness, pairOptimally } from '../../match';
import { areaCentre, outlineBox, outlineSize } from '../../outline';
import { coloursOf, type Rgba, readColour } from '../../paint';
import type { MatchChoices, Part, PartShape, Piece, Pose } from '../../piece';
import { boxSize } from '../../vec';
import { type PlacedPart, placedParts } from './placed-parts';

/** Indices of parts that become each other: in the pose that is left, and in the one that is reached. */
export type PartPairs = readonly (readonly [from: number, to: number])[];

const ONE_TO_ONE: PartPairs = [[0, 0]];

interface Known {
  readonly to: Pose;
  readonly parts: readonly Part[];
  readonly pairs: MatchChoices['pairs'];
  readonly found: PartPairs;
}
/** Pairs by the pose that is left, as long as all that they depend on is the same. */
const known = new WeakMap<Pose, Known[]>();
const MOST_KNOWN = 4;

/**
 * Which part of one pose becomes which of another: optimal assignment on distance, size, colour and origin; what remains is unpaired. Parts
 * with contours that were paired by hand belong together.
 */
export function pairedPartsOf(piece: Piece, from: Pose, to: Pose, { pairs }: MatchChoices): PartPairs {
  if (from.parts.length === 1 && to.parts.length === 1) return ONE_TO_ONE;
  const parts = [...from.parts, ...to.parts].map((id) => piece.parts[id]);
  const before = known.get(from) ?? [];
  const same = before.find(
    (other) => other.to === to && other.pairs === pairs && parts.every((part, i) => part === other.parts[i]),
  );
  if (same) return same.found;
  const found = pairParts(
    { placement: from.placement, parts: parts.slice(0, from.parts.length) },
    { placement: to.placement, parts: parts.slice(from.parts.length) },
    pairs,
  );
  known.set(from, [{ to, parts, pairs, found }, ...before].slice(0, MOST_KNOWN));
  return found;
}

export type PaintedPose = { readonly placement: Pose['placement']; readonly parts: readonly Part[] };

/** As `pairedPartsOf`, for parts at hand. */
export const pairParts = (from: PaintedPose, to: PaintedPose, chosen: MatchChoices['pairs']): PartPairs =>
  pairShapes(
    { ...from, colours: from.parts.map(leadingColour) },
    { ...to, colours: to.parts.map(leadingColour) },
    chosen,
  );

/** The colour by which a part is paired: the first of its fill, or of its stroke; empty where it has none. */
export const leadingColour = ({ fill, stroke }: Part): string => coloursOf(fill ?? stroke?.paint ?? null)[0] ?? '';

/** The outlines of a pose with their leading colours. */
export interface ColouredShapes {
  readonly placement: Pose['placement'];
  readonly parts: readonly PartShape[];
  readonly colours: readonly string[];
}

/** As `pairParts`, by all that it depends on. */
export function pairShapes(from: ColouredShapes, to: ColouredShapes, chosen: MatchChoices['pairs']): PartPairs {
  const placedA = placedParts(from);
  const placedB = placedParts(to);
  const size = Math.max(1e-9, ...[...placedA, ...placedB].map(({ outline }) => outlineSize(outline)));
  const measure = ({ outline }: PlacedPart, colour: string): Measured => {
    const centre = areaCentre(outline);
    const longest = boxSize(outlineBox(outline)) / size;
    return {
      x: centre.x / size,
      y: centre.y / size,
      weight: Math.max(1e-3, longest),
      colour: readColour(colour),
    };
  };
  const a = placedA.map((placed, i) => measure(placed, from.colours[i]));
  const b = placedB.map((placed, j) => measure(placed, to.colours[j]));
  const apart = (p: Rgba | undefined, q: Rgba | undefined): number =>
    p && q ? Math.hypot(p.r - q.r, p.g - q.g, p.b - q.b) : p === q ? 0 : 1;
  const keyOf = (i: number, j: number): number => i * b.length + j;
  const own = new Set(
    chosen.flatMap((pair) => {
      const [i, j] = [partWith(from.parts, pair.a), partWith(to.parts, pair.b)];
      return i < 0 || j < 0 ? [] : [keyOf(i, j)];
    }),
  );
  const linked = partsByOrigin(from.parts, to.parts);
  return pairOptimally({
    countA: a.length,
    countB: b.length,
    cost: (i, j) =>
      (own.has(keyOf(i, j)) ? OWN_PAIR : 0) +
      (linked.has(keyOf(i, j)) ? LINKED_PARTS : 0) +
      Math.hypot(a[i].x - b[j].x, a[i].y - b[j].y) / FAR +
      LIKE_SIZE * Math.abs(Math.log(a[i].weight / b[j].weight)) +
      LIKE_COLOUR * apart(a[i].colour, b[j].colour),
    costUnpairedA: (i) => 1.2 * (0.3 + a[i].weight),
    costUnpairedB: (j) => 1.2 * (0.3 + b[j].weight),
    near: () =>
      nearness(
        a,
        b,
        [...own, ...linked].map((key) => [Math.floor(key / b.length), key % b.length]),
      ),
  });
}

/** The part that has a contour, or −1. */
const partWith = (parts: readonly PartShape[], contour: string | null): number =>
  contour === null ? -1 : parts.findIndex(({ contours }) => contours.some(({ id }) => id === contour));

const FAR = 0.5;
const LIKE_SIZE = 0.7;
const LIKE_COLOUR = 0.6;

interface Measured {
  readonly x: number;
  readonly y: number;
  readonly weight: number;
  readonly colour: Rgba | undefined;
}

/** Place, size and colour, by which near parts are found. What has no colour counts as grey. */
function nearness(a: readonly Measured[], b: readonly Measured[], linked: [number, number][]): Nearness {
  const features = (all: readonly Measured[]): Float64Array =>
    Float64Array.from(
      all.flatMap(({ x, y, weight, colour }) => [
        x / FAR,
        y / FAR,
        Math.log(weight),
        colour?.r ?? 0.5,
        colour?.g ?? 0.5,
        colour?.b ?? 0.5,
      ]),
    );
  return {
    axes: 6,
    a: features(a),
    b: features(b),
    distance: (apart) =>
      Math.hypot(apart[0], apart[1]) + LIKE_SIZE * apart[2] + LIKE_COLOUR * Math.hypot(apart[3], apart[4], apart[5]),
    linked,
  };
}

/** What makes parts belong together: chosen by hand, or copies of each other. */
const OWN_PAIR = -100;
const LINKED_PARTS = -4;

/**
 * Parts of which at least half of the anchors of one are copies of the other's, or of the same third. Each is given as its index in the first list times the length of the second
 * plus the index there. Only parts that have a name in common are looked at.
 */
function partsByOrigin(a: readonly PartShape[], b: readonly PartShape[]): ReadonlySet<number> {
  const owners = new Map<string, number[]>();
  const countsA = a.map((part, i) => {
    const names = new Set<string>();
    let count = 0;
    for (const { anchors } of part.contours)
      for (const { id, origin } of anchors) {
        count++;
        names.add(id);
        if (origin) names.add(origin);
      }
    for (const name of names) {
      const known = owners.get(name);
      if (known) known.push(i);
      else owners.set(name, [i]);
    }
    return count;
  });
  const linked = new Set<number>();
  b.forEach((part, j) => {
    const hits = new Map<number, number>();
    let count = 0;
    for (const { anchors } of part.contours)
      for (const { id, origin } of anchors) {
        count++;
        const mine = new Set([...(owners.get(id) ?? []), ...(origin === undefined ? [] : (owners.get(origin) ?? []))]);
        for (const i of mine) hits.set(i, (hits.get(i) ?? 0) + 1);
      }
    for (const [i, shared] of hits) if (2 * shared >= Math.min(countsA[i], count)) linked.add(i * b.length + j);
  });
  return linked;
}
