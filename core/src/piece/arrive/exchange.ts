import type { Draft } from 'immer';
import { mapShare, matchOutlines, pairOptimally } from '../../match';
import {
  areaCentre,
  type Contour,
  measureArcLength,
  type Outline,
  outlineBox,
  reverseContour,
  segmentCount,
  shareOfAnchor,
  transformOutline,
} from '../../outline';
import { type Box, boxSize, type Matrix } from '../../vec';
import { applyPlacementRules, type NewPose, type PieceDraft } from '../edit';
import type { ContourRecord, Figure, Id, Part } from '../records';
import { contourOfRecord, type IdSource, outlineOfPart, recordOfContour } from '../records';

/** What exchanging an outline keeps and changes, for people. */
export interface ExchangeSummary {
  readonly partsKept: number;
  readonly partsNew: number;
  readonly partsGone: number;
  readonly anchorsKept: number;
  readonly anchorsNew: number;
}

/** Anchors farther apart than this share of the contour's length are not the same place. */
const SAME_PLACE_SHARE = 0.02;

/**
 * Puts a new version of a pose's outline in its place. Timing, shifts and the placement rule stay; parts that have a partner keep their id,
 * name and (with `keepPaint`) paint. Anchors of the new outline take the ids of the old ones that the match finds at the same place, so that
 * starts and ties keep their hold. A pose without a rule keeps its middle and its longest side.
 */
export function exchangePose(
  draft: PieceDraft,
  poseId: Id,
  added: NewPose,
  keepPaint: boolean,
  newId: IdSource,
): ExchangeSummary {
  const pose = draft.poses[poseId];
  const old = pose.parts.map((id) => draft.parts[id] as Part);
  const before = boxOf(old);
  const after = boxOf(added.parts);
  const into = ontoBox(after, before);
  const pairs = new Map(pairParts(old, added.parts, into, boxSize(before)).map(([i, j]) => [j, i]));
  let anchorsKept = 0;
  let anchorsNew = 0;
  const next = added.parts.map((part, j): Part => {
    const like = pairs.has(j) ? old[pairs.get(j) as number] : undefined;
    const contours = like ? carriedContours(like, part, into, newId) : part.contours;
    const ids = new Set(like?.contours.flatMap(({ anchors }) => anchors.map(({ id }) => id)));
    for (const { anchors } of contours)
      for (const { id } of anchors) {
        if (ids.has(id)) anchorsKept++;
        else anchorsNew++;
      }
    const paint = like && keepPaint ? { fill: like.fill, stroke: like.stroke } : {};
    return { ...part, ...(like && { id: like.id, name: like.name }), ...paint, contours };
  });
  const staying = new Set(next.map(({ id }) => id));
  for (const { id } of old) if (!staying.has(id)) delete draft.parts[id];
  for (const part of next) draft.parts[part.id] = part as Draft<Part>;
  pose.parts = next.map(({ id }) => id);
  if (pose.placement.rule === null) {
    const [k, , , , ex, ey] = into;
    const { scaleX, scaleY, rotation } = pose.placement;
    const [c, s] = [Math.cos((rotation * Math.PI) / 180), Math.sin((rotation * Math.PI) / 180)];
    pose.placement.x += c * scaleX * ex - s * scaleY * ey;
    pose.placement.y += s * scaleX * ex + c * scaleY * ey;
    pose.placement.scaleX *= k;
    pose.placement.scaleY *= k;
  }
  const figure = Object.values(draft.figures as Record<Id, Figure>).find(({ poses }) => poses.includes(poseId));
  if (figure) applyPlacementRules(draft, figure.id);
  return {
    partsKept: pairs.size,
    partsNew: next.length - pairs.size,
    partsGone: old.length - pairs.size,
    anchorsKept,
    anchorsNew,
  };
}

const boxOf = (parts: readonly Part[]): Box =>
  outlineBox({ contours: parts.flatMap((part) => outlineOfPart(part).contours), fillRule: 'nonzero' });

/** Moves and scales evenly so that middle and longest side of the one box become those of the other. */
function ontoBox(from: Box, to: Box): Matrix {
  const k = boxSize(from) > 0 && boxSize(to) > 0 ? boxSize(to) / boxSize(from) : 1;
  const x = (to.minX + to.maxX - k * (from.minX + from.maxX)) / 2 || 0;
  const y = (to.minY + to.maxY - k * (from.minY + from.maxY)) / 2 || 0;
  return [k, 0, 0, k, x, y];
}

const LIKE_SIZE = 0.7;

function pairParts(old: readonly Part[], next: readonly Part[], into: Matrix, size: number): [number, number][] {
  const measure = (outline: Outline) => ({
    ...areaCentre(outline),
    longest: Math.max(1e-3, boxSize(outlineBox(outline)) / (size || 1)),
  });
  const a = old.map((part) => measure(outlineOfPart(part)));
  const b = next.map((part) => measure(transformOutline(outlineOfPart(part), into)));
  const far = 0.5 * (size || 1);
  const features = (all: readonly ReturnType<typeof measure>[]): Float64Array =>
    Float64Array.from(all.flatMap(({ x, y, longest }) => [x / far, y / far, Math.log(longest)]));
  return pairOptimally({
    countA: a.length,
    countB: b.length,
    cost: (i, j) =>
      Math.hypot(a[i].x - b[j].x, a[i].y - b[j].y) / far + LIKE_SIZE * Math.abs(Math.log(a[i].longest / b[j].longest)),
    costUnpairedA: (i) => 1.2 * (0.3 + a[i].longest),
    costUnpairedB: (j) => 1.2 * (0.3 + b[j].longest),
    near: () => ({
      axes: 3,
      a: features(a),
      b: features(b),
      distance: (apart) => Math.hypot(apart[0], apart[1]) + LIKE_SIZE * apart[2],
    }),
  });
}

/** The new part's contours with the ids of the old anchors at the same places. */
function carriedContours(old: Part, part: Part, into: Matrix, newId: IdSource): ContourRecord[] {
  const a = outlineOfPart(old);
  const b = transformOutline(outlineOfPart(part), into);
  const ids = part.contours.map(({ anchors }) => anchors.map(({ id }) => id));
  const contourIds = part.contours.map(({ id }) => id);
  for (const pair of matchOutlines(a, b).pairs) {
    contourIds[pair.b] = old.contours[pair.a].id;
    const from = pair.reversedA ? reverseContour(a.contours[pair.a]) : a.contours[pair.a];
    const to = pair.reversedB ? reverseContour(b.contours[pair.b]) : b.contours[pair.b];
    const shares = anchorShares(from);
    const targets = anchorShares(to);
    const order = pair.reversedB ? reversedOrder(ids[pair.b].length, to.closed) : ids[pair.b].map((_, i) => i);
    const taken = new Set<number>();
    shares.forEach((share, i) => {
      const id = from.anchorIds?.[i];
      const local = from.closed ? wrap(share - pair.startA) : share;
      const mapped = mapShare(pair.map.a, pair.map.b, local);
      const at = to.closed ? wrap(mapped + pair.startB) : mapped;
      let best = -1;
      let least = SAME_PLACE_SHARE;
      targets.forEach((target, j) => {
        const apart = to.closed ? Math.abs(wrap(target - at + 0.5) - 0.5) : Math.abs(target - at);
        if (apart < least && !taken.has(j)) {
          least = apart;
          best = j;
        }
      });
      if (best < 0 || !id) return;
      taken.add(best);
      ids[pair.b][order[best]] = id;
    });
  }
  return part.contours.map((record, i) => ({
    ...recordOfContour({ ...contourOfRecord(record), anchorIds: ids[i] }, newId, record),
    id: contourIds[i],
  }));
}

const wrap = (share: number): number => share - Math.floor(share);

function anchorShares(contour: Contour): number[] {
  const table = measureArcLength(contour);
  const count = contour.closed ? segmentCount(contour) : segmentCount(contour) + 1;
  return Array.from({ length: count }, (_, i) => shareOfAnchor(table, i));
}

/** Which written anchor stands at which place of the reversed contour. */
const reversedOrder = (count: number, closed: boolean): number[] =>
  Array.from({ length: count }, (_, i) => (closed ? (count - i) % count : count - 1 - i));
