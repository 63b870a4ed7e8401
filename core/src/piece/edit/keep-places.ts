import { cubicPoint } from '../../curve';
import {
  type Contour,
  contourBox,
  measureArcLength,
  nearestOnContour,
  type Place,
  placeAtShare,
  placeOfShare,
  segmentAt,
  shareOfCurvePlace,
  shareOfPlace,
} from '../../outline';
import { boxSize } from '../../vec';
import type { Id, MatchChoices, Part, Piece, Shift } from '../records';
import { type Carrier, DECISION_NAMES, DECISIONS, isDecided, outlineOfPart } from '../records';
import { carryThrough } from './carry-through';

/** A place further from the new outline than this share of the old contour's size is gone. */
const GONE_BEYOND = 0.06;

/** New choices for shifts whose outlines changed, and in words what could not be kept. */
export interface KeptPlaces {
  readonly matches: ReadonlyMap<Id, MatchChoices>;
  readonly lost: readonly string[];
}

/**
 * Carries the places that were chosen for matches (start points, ties, touch-ups, added points) over a change of the outlines. A place whose
 * anchors are still there stays as it is, another goes to the nearest place of the new outline. What lies nowhere near any more is taken
 * out and named.
 */
export function keepPlaces(before: Piece, after: Piece): KeptPlaces {
  const matches = new Map<Id, MatchChoices>();
  const lost: string[] = [];
  for (const shift of Object.values(before.shifts)) {
    const now = after.shifts[shift.id];
    if (!now) {
      // The whole figure, or a pose of it, may have gone: then there is nothing to keep.
      if (!after.poses[shift.from] || !after.poses[shift.to]) continue;
      const names = `${before.poses[shift.from].name} to ${before.poses[shift.to].name}`;
      const through = carryThrough(after, shift, before);
      for (const [id, match] of through?.matches ?? []) matches.set(id, match);
      for (const what of through?.lost ?? [])
        lost.push(`${what} of ${names} could not be kept: another pose stands between them.`);
      if (!through && (hasPlaces(shift.match) || shift.method !== 'auto'))
        lost.push(`What was set on the match from ${names} is gone: the one does not follow the other any more.`);
      continue;
    }
    if (!hasPlaces(shift.match)) continue;
    if (!posesChanged(before, after, now) || now.match !== shift.match) continue;
    const names = `${after.poses[now.from].name} to ${after.poses[now.to].name}`;
    const a = new OutlineCarrier(partsOf(before, now.from), partsOf(after, now.from));
    const b = new OutlineCarrier(partsOf(before, now.to), partsOf(after, now.to));
    const carried = carriedChoices(now.match, a, b);
    if (carried.choices !== now.match) matches.set(now.id, carried.choices);
    lost.push(...carried.lost.map((what) => `${what} of ${names} could not be kept: its place is gone.`));
  }
  return { matches, lost };
}

/** Is there anything that lies on the outlines? */
const hasPlaces = (match: MatchChoices): boolean =>
  DECISION_NAMES.some((name) => DECISIONS[name].carry !== undefined && isDecided(match, name));

const partsOf = (piece: Piece, poseId: Id): Part[] => piece.poses[poseId]?.parts.map((id) => piece.parts[id]) ?? [];

function posesChanged(before: Piece, after: Piece, shift: Shift): boolean {
  return [shift.from, shift.to].some((id) => {
    const old = partsOf(before, id);
    const now = partsOf(after, id);
    return old.length !== now.length || old.some((part, i) => part.contours !== now[i].contours);
  });
}

function carriedChoices(match: MatchChoices, a: Carrier, b: Carrier): { choices: MatchChoices; lost: string[] } {
  const lost: string[] = [];
  const changed: Record<string, unknown> = {};
  for (const name of DECISION_NAMES) {
    const { carry, one } = DECISIONS[name];
    const list = match[name];
    if (!carry || !Array.isArray(list)) continue;
    const carried = list.map((item) => carry(item as never, a, b));
    lost.push(...carried.filter((item) => item === undefined).map(() => one));
    if (carried.some((item, i) => item !== list[i])) changed[name] = carried.filter((item) => item !== undefined);
  }
  return { choices: Object.keys(changed).length > 0 ? { ...match, ...changed } : match, lost };
}

/** Carries places of a pose's old outlines over to its new ones. */
class OutlineCarrier implements Carrier {
  private readonly oldContours: Contour[];
  private readonly newContours: Contour[];
  private readonly contourIds: Set<Id>;

  constructor(old: readonly Part[], now: readonly Part[]) {
    this.oldContours = old.flatMap((part) => outlineOfPart(part).contours);
    this.newContours = now.flatMap((part) => outlineOfPart(part).contours);
    this.contourIds = new Set(now.flatMap(({ contours }) => contours.map(({ id }) => id)));
  }

  hasContour(id: Id): boolean {
    return this.contourIds.has(id);
  }

  carry(place: Place): Place | undefined {
    if (find(this.newContours, place)) return place;
    const old = find(this.oldContours, place);
    if (!old) return undefined;
    const at = new Float64Array(2);
    const curve = placeAtShare(measureArcLength(old.contour), old.share);
    cubicPoint(old.contour.points, segmentAt(curve.segment), curve.t, at);
    let best: { place: Place; distance: number } | undefined;
    // A contour that has some of the old anchors is the same contour.
    const kin = this.newContours.filter((contour) =>
      contour.anchorIds?.some((id) => old.contour.anchorIds?.includes(id)),
    );
    for (const contour of kin.length > 0 ? kin : this.newContours) {
      const nearest = nearestOnContour(contour, at[0], at[1], best?.distance);
      if (!nearest) continue;
      const table = measureArcLength(contour);
      const share = shareOfCurvePlace(table, nearest);
      const found = placeOfShare(table, contour.closed && share >= 1 ? 0 : share);
      if (found) best = { place: found, distance: nearest.distance };
    }
    return best && best.distance <= GONE_BEYOND * boxSize(contourBox(old.contour)) ? best.place : undefined;
  }
}

function find(contours: readonly Contour[], place: Place): { contour: Contour; share: number } | undefined {
  const key = 'anchor' in place ? place.anchor : place.after;
  for (const contour of contours) {
    if (!contour.anchorIds?.includes(key)) continue;
    const share = shareOfPlace(measureArcLength(contour), place);
    if (share !== undefined) return { contour, share };
  }
  return undefined;
}
