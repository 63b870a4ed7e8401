import { pairOptimally } from '../match';
import { areaCentre, outlineBox, outlineSize, transformOutline } from '../outline';
import { coloursOf, type Rgba, readColour } from '../paint';
import { outlineOfPart, type Part, placementMatrix, placementScale } from '../piece';
import { boxSize } from '../vec';
import type { PlacedPart } from './match-input';
import type { PoseInput, ShiftInput } from './shift-input';

/** The parts of both poses that become each other. */
export function pairedParts(input: ShiftInput): { a: PlacedPart; b: PlacedPart }[] {
  const from = placedParts(input.from);
  const to = placedParts(input.to);
  return pairParts(from, to, input.match).map(([i, j]) => ({ a: from[i], b: to[j] }));
}
/** A pose's parts where they stand on the canvas. */
export function placedParts(pose: PoseInput): PlacedPart[] {
  const matrix = placementMatrix(pose.placement);
  return pose.parts.map((part) => ({
    part,
    outline: transformOutline(outlineOfPart(part), matrix),
    matrix,
    scale: placementScale(pose.placement),
  }));
}
/**
 * Which part becomes which: optimal assignment on distance, size, colour and origin; parts on their own grow or shrink. Parts with contours
 * that were paired by hand belong together.
 */
export function pairParts(
  from: readonly PlacedPart[],
  to: readonly PlacedPart[],
  choices: ShiftInput['match'],
): [number, number][] {
  if (from.length === 1 && to.length === 1) return [[0, 0]];
  const size = Math.max(1e-9, ...[...from, ...to].map(({ outline }) => outlineSize(outline)));
  const measure = ({ outline, part }: PlacedPart) => {
    const centre = areaCentre(outline);
    const longest = boxSize(outlineBox(outline)) / size;
    return {
      x: centre.x / size,
      y: centre.y / size,
      weight: Math.max(1e-3, longest),
      colour: readColour(coloursOf(part.fill ?? part.stroke?.paint ?? null)[0] ?? ''),
    };
  };
  const a = from.map(measure);
  const b = to.map(measure);
  const apart = (p: Rgba | undefined, q: Rgba | undefined): number =>
    p && q ? Math.hypot(p.r - q.r, p.g - q.g, p.b - q.b) : p === q ? 0 : 1;
  const has = (part: PlacedPart, id: string | null): boolean => part.part.contours.some((contour) => contour.id === id);
  const own = (i: number, j: number): number =>
    choices.pairs.some((pair) => has(from[i], pair.a) && has(to[j], pair.b)) ? OWN_PAIR : 0;
  const linked = (i: number, j: number): number => (sharesOrigins(from[i].part, to[j].part) ? LINKED_PARTS : 0);
  return pairOptimally(
    a.length,
    b.length,
    (i, j) =>
      own(i, j) +
      linked(i, j) +
      Math.hypot(a[i].x - b[j].x, a[i].y - b[j].y) / 0.5 +
      0.7 * Math.abs(Math.log(a[i].weight / b[j].weight)) +
      0.6 * apart(a[i].colour, b[j].colour),
    (i) => 1.2 * (0.3 + a[i].weight),
    (j) => 1.2 * (0.3 + b[j].weight),
  );
}

/** What makes parts belong together: chosen by hand, or copies of each other. */
const OWN_PAIR = -100;
const LINKED_PARTS = -4;

/** Are at least half of the anchors of one part copies of the other's, or of the same third? */
function sharesOrigins(a: Part, b: Part): boolean {
  const anchors = (part: Part) => part.contours.flatMap((contour) => contour.anchors);
  const known = new Set(anchors(a).flatMap(({ id, origin }) => (origin ? [id, origin] : [id])));
  const linked = anchors(b).filter(({ id, origin }) => known.has(id) || (origin !== undefined && known.has(origin)));
  return linked.length > 0 && 2 * linked.length >= Math.min(anchors(a).length, anchors(b).length);
}
