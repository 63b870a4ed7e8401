import type { Reason } from '../../match';
import { areAlike, planPointByPoint, type ShiftPlan } from '../../morph';
import { outlineOfPart, type Piece, type Shift } from '../../piece';
import { placedParts } from './placed-parts';
import type { ShiftInput } from './shift-input';

/** What is said where a shift goes point by point. */
export const BY_POINTS: Reason = {
  code: 'by-points',
  text: 'Each point goes straight to the point with its number; nothing is matched.',
};

/** The way of a part to the one that has its place in the order. */
interface PartWay {
  readonly a: string;
  readonly b: string;
  readonly plan: ShiftPlan;
}

/** The ways of all parts of a shift that goes point by point, part by part in their order; undefined where the poses are not built alike. */
export function planByPoints({ from, to, method }: ShiftInput): PartWay[] | undefined {
  if (method !== 'points' || from.parts.length !== to.parts.length) return undefined;
  const [first, second] = [placedParts(from), placedParts(to)];
  const plans: PartWay[] = [];
  for (const [i, { part, outline }] of first.entries()) {
    const plan = planPointByPoint(outline, second[i].outline);
    if (!plan) return undefined;
    plans.push({ a: part.id, b: second[i].part.id, plan });
  }
  return plans;
}

/** Are two poses built alike: as many parts, contours and points, in this order? */
export function canGoByPoints({ poses, parts }: Pick<Piece, 'poses' | 'parts'>, { from, to }: Shift): boolean {
  const [first, second] = [poses[from].parts, poses[to].parts];
  const contours = (id: string) => outlineOfPart(parts[id]).contours;
  return first.length === second.length && first.every((id, i) => areAlike(contours(id), contours(second[i])));
}
