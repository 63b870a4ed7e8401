import type { Id, Piece, PoseShiftPlan } from '@core';

/** Is a contour a hole that opens through a slit or a cut? Then it comes and goes with its solid. */
export function isJoined(piece: Piece, plan: PoseShiftPlan, contourId: string, side: 'a' | 'b'): boolean {
  return plan.parts.some((part) => {
    const id = part[side];
    const index = id ? piece.parts[id]?.contours.findIndex((contour) => contour.id === contourId) : -1;
    return index !== undefined && index >= 0 && !part.plan.contours.some((contour) => contour[side] === index);
  });
}

/** Which contour becomes which in a plan, by id. */
export function pairedNow(piece: Piece, plan: PoseShiftPlan | undefined): Map<string, string[]> {
  const out = new Map<string, string[]>();
  for (const { a, b, plan: shift } of plan?.parts ?? []) {
    for (const contour of shift.contours) {
      const first = a && piece.parts[a]?.contours[contour.a ?? -1]?.id;
      const second = b && piece.parts[b]?.contours[contour.b ?? -1]?.id;
      if (contour.role === 'pair' && first && second) out.set(first, [...(out.get(first) ?? []), second]);
    }
  }
  return out;
}

/** The contours of the first outline that have a partner, and whether that is run against the way in which it is written. */
export function pairedContours(piece: Piece, plan: PoseShiftPlan | undefined): Map<Id, boolean> {
  const out = new Map<Id, boolean>();
  for (const { a, plan: shift } of plan?.parts ?? [])
    for (const contour of shift.contours) {
      const id = a && piece.parts[a]?.contours[contour.a ?? -1]?.id;
      if (id && contour.role === 'pair' && contour.reversed !== undefined) out.set(id, contour.reversed);
    }
  return out;
}

/** How many points each contour of the shift has, beside those of its outlines. */
export function pointsText(plan: PoseShiftPlan | undefined): string {
  const counts = plan?.parts.flatMap(({ plan: shift }) => shift.contours.map(({ segments }) => segments)) ?? [];
  if (counts.length === 0) return '–';
  return counts.length === 1 ? `${counts[0]} points` : `${counts.join(' + ')} points`;
}

/** Does any pair of the plan have an open contour on one side and a closed one on the other? */
export function opensOrCloses(piece: Piece, plan: PoseShiftPlan | undefined): boolean {
  return (plan?.parts ?? []).some(({ a, b, plan: shift }) =>
    shift.contours.some((contour) => {
      const first = a && piece.parts[a]?.contours[contour.a ?? -1];
      const second = b && piece.parts[b]?.contours[contour.b ?? -1];
      return contour.role === 'pair' && first && second && first.closed !== second.closed;
    }),
  );
}

/** Does anything come or go alone? */
export const comesOrGoes = (plan: PoseShiftPlan | undefined): boolean =>
  plan?.parts.some(({ plan: shift }) => shift.contours.some(({ role }) => role !== 'pair')) ?? false;
