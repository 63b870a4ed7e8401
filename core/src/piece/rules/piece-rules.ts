import { curveFinding, type Easing } from '../../easing';
import { LIMITS } from '../../num';
import { isGradient, type Paint, readColour } from '../../paint';
import { shapeNumber } from '../../shapes';
import type { Anchor, Figure, LaneProperty, LaneRecord, Part, Piece, Pose, Shift } from '../records';
import {
  ANCHORS_OF_PIECE,
  CANVAS_LANES,
  FRAMES_OF_PIECE,
  isCanvasLane,
  isColourLane,
  isDriven,
  isShapeNumber,
  laneLimits,
  neutralOf,
  SHORTEST_SECONDS,
  SMALLEST_SCALE,
  TOUCH_UP_GAP,
} from '../records';
import { frameCount } from '../time';
import { canClip } from './clips';
import { canFollow, chainText, followCycle } from './follow';

/** Told of what a rule forbids: the path of the field (as in JSON Pointer), what was expected and what came. Throws, so that the first ends the check. */
export type Refuse = (where: string, expected: string, found: string) => void;

const own = (table: object, key: string): boolean => Object.hasOwn(table, key);

/** Rules of single records that a schema cannot say. They need the piece only to look up what a record names. */
export const recordRules = {
  figures({ figures, groups, poses }: Piece, figure: Figure, refuse: Refuse): void {
    const where = `/figures/${figure.id}`;
    const { clip, group } = figure;
    if (clip !== null && !own(figures, clip)) refuse(`${where}/clip`, 'name a figure of the piece', `“${clip}”`);
    else if (clip !== null && !canClip(figures, figure.id, clip))
      refuse(`${where}/clip`, 'not lead back to the figure itself', `“${clip}”`);
    if (group !== null && !own(groups, group)) refuse(`${where}/group`, 'name a group of the piece', `“${group}”`);
    checkSeconds(`${where}/start`, figure.start, refuse);
    for (const id of figure.poses) if (!own(poses, id)) refuse(`${where}/poses`, 'name poses of the piece', `“${id}”`);
    const twice = figure.rail.findIndex((id, i) => figure.rail.indexOf(id) < i);
    if (twice >= 0) refuse(`${where}/rail/${twice}`, 'name each shift once', `“${figure.rail[twice]}” again`);
  },
  poses({ parts }: Piece, pose: Pose, refuse: Refuse): void {
    const where = `/poses/${pose.id}`;
    checkSeconds(`${where}/hold`, pose.hold, refuse);
    for (const id of pose.parts) if (!own(parts, id)) refuse(`${where}/parts`, 'name parts of the piece', `“${id}”`);
    for (const axis of ['scaleX', 'scaleY'] as const) {
      const scale = pose.placement[axis];
      if (scale !== 0 && !(Math.abs(scale) >= SMALLEST_SCALE))
        refuse(`${where}/placement/${axis}`, `be 0 or at least ${SMALLEST_SCALE}`, String(scale));
    }
    const reach = reachOf(
      pose,
      pose.parts.flatMap((id) => (own(parts, id) ? [parts[id]] : [])),
    );
    if (!(reach <= LIMITS.coordinate.max))
      refuse(
        `${where}/placement`,
        `leave its points within ${LIMITS.coordinate.max.toLocaleString('en')} px of the canvas`,
        `${Math.round(reach).toLocaleString('en')} px`,
      );
  },
  parts({ texts }: Piece, part: Part, refuse: Refuse): void {
    const where = `/parts/${part.id}`;
    checkPaint(`${where}/fill`, part.fill, refuse);
    checkPaint(`${where}/stroke/paint`, part.stroke?.paint ?? null, refuse);
    const { source } = part;
    if (source?.kind === 'glyph' && !own(texts, source.text))
      refuse(`${where}/source/text`, 'name a text of the piece', `“${source.text}”`);
  },
  lanes(piece: Piece, lane: LaneRecord, refuse: Refuse): void {
    checkLane(piece, lane, refuse);
  },
  shifts(_piece: Piece, shift: Shift, refuse: Refuse): void {
    const where = `/shifts/${shift.id}`;
    checkSeconds(`${where}/duration`, shift.duration, refuse);
    checkEasing(`${where}/easing`, shift.easing, refuse);
    const progresses = shift.match.touchUps.map(({ progress }) => progress);
    const marks = [0, ...[...progresses].sort((p, q) => p - q), 1];
    marks.forEach((mark, i) => {
      if (i > 0 && !(mark - marks[i - 1] >= TOUCH_UP_GAP))
        refuse(
          `${where}/match/touchUps`,
          `lie at least ${TOUCH_UP_GAP} of progress from each other and from both poses`,
          `${marks[i - 1]} and ${mark}`,
        );
    });
  },
};

function checkLane(piece: Piece, lane: LaneRecord, refuse: Refuse): void {
  const where = `/lanes/${lane.id}`;
  const { property } = lane;
  if (isShapeNumber(property) && !shapeNumber(property))
    refuse(`${where}/property`, 'name a number of an adjustable shape', `“${property}”`);
  if (lane.figure !== null && !own(piece.figures, lane.figure))
    refuse(`${where}/figure`, 'name a figure of the piece', `“${lane.figure}”`);
  if ((lane.figure === null) !== isCanvasLane(property))
    refuse(
      `${where}/property`,
      lane.figure === null ? `be ${CANVAS_LANES.join(' or ')}, for the canvas` : 'be of a figure',
      property,
    );
  const figure = lane.figure === null ? null : piece.figures[lane.figure];
  const poses = new Set(figure?.poses);
  const rail = new Set(figure?.rail);
  const stops = new Set<string>();
  const count = neutralOf(property).length;
  const size = (at: string, numbers: readonly number[]): void => {
    if (numbers.length !== count) refuse(at, `have ${count} numbers for ${property}`, String(numbers.length));
  };
  if (lane.keys.length === 0 && !isDriven(lane))
    refuse(`${where}/keys`, 'have a key, or follow, drift or pulse', 'none');
  lane.keys.forEach(({ stop, after, value, easing }, i) => {
    const at = `${where}/keys/${i}`;
    size(`${at}/value`, value);
    checkLaneValue(`${at}/value`, property, value, refuse);
    if (easing) checkEasing(`${at}/easing`, easing, refuse);
    if ((stop === null) !== (figure === null))
      refuse(`${at}/stop`, figure ? 'name a stop of the figure' : 'be null, for the canvas', JSON.stringify(stop));
    if (stop === null) {
      if (after === null) refuse(`${at}/after`, 'be a time, for the canvas', 'null');
      return;
    }
    if (!poses.has(stop.pose)) refuse(`${at}/stop/pose`, 'name a pose of the figure', `“${stop.pose}”`);
    if (stop.shift !== null && !rail.has(stop.shift))
      refuse(`${at}/stop/shift`, 'name a shift of the rail', `“${stop.shift}”`);
    if (after !== null) return;
    const name = `${stop.pose} ${stop.shift}`;
    if (stops.has(name)) refuse(`${at}/stop`, 'name a stop that has no key yet', `“${stop.pose}” again`);
    stops.add(name);
  });
  checkDrive(piece, lane, refuse, size);
}

/** What a lane follows, and what it adds without keys. */
function checkDrive(
  piece: Piece,
  { id, figure, property, follow, drift, pulse }: LaneRecord,
  refuse: Refuse,
  size: (at: string, numbers: readonly number[]) => void,
): void {
  const where = `/lanes/${id}`;
  if (follow) {
    if (follow.figure !== null && !own(piece.figures, follow.figure))
      refuse(`${where}/follow/figure`, 'name a figure of the piece', `“${follow.figure}”`);
    if (isShapeNumber(follow.property) && !shapeNumber(follow.property))
      refuse(`${where}/follow/property`, 'name a number of an adjustable shape', `“${follow.property}”`);
    if ((follow.figure === null) !== isCanvasLane(follow.property))
      refuse(`${where}/follow/property`, 'be a lane of what it follows', follow.property);
    if (!canFollow(property, follow))
      refuse(
        `${where}/follow`,
        `be of the same kind as ${property}, or a single number`,
        `${follow.property}, axis ${follow.axis}`,
      );
    const cycle = followCycle(piece, { figure, property }, follow);
    if (cycle) refuse(`${where}/follow`, 'not lead back to the lane itself', chainText(piece, cycle));
  }
  for (const [name, each] of [
    ['drift', drift],
    ['pulse', pulse],
  ] as const) {
    if (!each) continue;
    if (isColourLane(property)) refuse(`${where}/${name}`, 'be left out for colours', 'one');
    size(`${where}/${name}/amount`, each.amount);
  }
}

function checkLaneValue(at: string, property: LaneProperty, value: readonly number[], refuse: Refuse): void {
  value.forEach((v, i) => {
    const [least, most] = laneLimits(property, i);
    if (v >= least && v <= most) return;
    const bounds = Number.isFinite(most) ? `be from ${least} to ${most}, for ${property}` : `be ${least} or more`;
    refuse(`${at}/${i}`, bounds, String(v));
  });
}

function checkEasing(where: string, easing: Easing, refuse: Refuse): void {
  if (easing.kind === 'steps' && easing.jump === 'none' && easing.count < 2)
    refuse(`${where}/count`, 'be at least 2 where it jumps at neither end', String(easing.count));
  if (easing.kind !== 'curve') return;
  const finding = curveFinding(easing.points);
  if (finding) refuse(`${where}/points`, finding.split('; ')[0], finding.split('; ')[1] ?? 'something else');
}

function checkSeconds(where: string, seconds: number, refuse: Refuse): void {
  if (seconds !== 0 && !(seconds >= SHORTEST_SECONDS))
    refuse(where, `be 0 or at least ${SHORTEST_SECONDS} s`, String(seconds));
}

/** How far from the origin of the canvas a pose's points and handles lie at most, px; an upper bound. */
function reachOf({ placement }: Pose, parts: readonly Part[]): number {
  const { x, y, scaleX, scaleY } = placement;
  const scale = Math.max(Math.abs(scaleX), Math.abs(scaleY));
  const far = parts.reduce((most, part) => Math.max(most, partReach(part)), 0);
  return Math.max(Math.abs(x), Math.abs(y)) + scale * far;
}

const pointReach = (point: readonly [number, number] | undefined): number =>
  point ? Math.max(Math.abs(point[0]), Math.abs(point[1])) : 0;
const anchorReach = (anchor: Anchor): number =>
  Math.max(pointReach(anchor.at), pointReach(anchor.in), pointReach(anchor.out));
const partReach = ({ contours }: Part): number =>
  contours.reduce((most, { anchors }) => anchors.reduce((m, anchor) => Math.max(m, anchorReach(anchor)), most), 0);

/** Rules between records: ids fit their keys, everything is named once, rails are chains, the whole stays within what can be stored and played. */
export function checkWhole(piece: Piece, refuse: Refuse): void {
  for (const table of ['figures', 'poses', 'parts', 'shifts', 'lanes', 'texts', 'groups'] as const) {
    for (const key of Object.keys(piece[table]))
      if (piece[table][key].id !== key) refuse(`/${table}/${key}/id`, `be “${key}”`, `“${piece[table][key].id}”`);
  }
  const ordered = new Set(piece.figureOrder);
  if (ordered.size !== piece.figureOrder.length) refuse('/figureOrder', 'name each figure once', 'one twice');
  for (const id of piece.figureOrder)
    if (!own(piece.figures, id)) refuse('/figureOrder', 'name figures of the piece', `“${id}”`);
  for (const id of Object.keys(piece.figures))
    if (!ordered.has(id)) refuse('/figureOrder', 'name every figure', `“${id}” missing`);
  const figureOfPose = new Map<string, string>();
  for (const figure of Object.values(piece.figures))
    for (const id of figure.poses) {
      if (figureOfPose.has(id)) refuse(`/figures/${figure.id}/poses`, 'name poses that are its own, once', `“${id}”`);
      figureOfPose.set(id, figure.id);
    }
  const poseOfPart = new Map<string, string>();
  for (const pose of Object.values(piece.poses))
    for (const id of pose.parts) {
      if (poseOfPart.has(id)) refuse(`/poses/${pose.id}/parts`, 'name parts that are its own, once', `“${id}”`);
      poseOfPart.set(id, pose.id);
    }
  for (const { id, from, to } of Object.values(piece.shifts)) {
    const figure = figureOfPose.get(from);
    if (figure === undefined || figureOfPose.get(to) !== figure)
      refuse(`/shifts/${id}`, 'join two poses of one figure', `${from} → ${to}`);
  }
  for (const figure of Object.values(piece.figures)) checkRail(piece, figure, refuse);
  const lanes = new Set<string>();
  for (const { id, figure, property } of Object.values(piece.lanes)) {
    if (lanes.has(`${figure} ${property}`))
      refuse(`/lanes/${id}`, 'be the only one of its figure', `${property} twice`);
    lanes.add(`${figure} ${property}`);
  }
  if (piece.playback === 'stretch' && !piece.stretch) refuse('/stretch', 'say what is played again', 'none');
  checkColour('/canvas/background', piece.canvas.background, refuse);
  let anchors = 0;
  for (const { contours } of Object.values(piece.parts))
    for (const contour of contours) anchors += contour.anchors.length;
  if (anchors > ANCHORS_OF_PIECE)
    refuse('/parts', `have at most ${ANCHORS_OF_PIECE.toLocaleString('en')} points`, anchors.toLocaleString('en'));
  const { num, den } = piece.canvas.rate;
  if (!(num / den <= LIMITS.rate.max))
    refuse('/canvas/rate', `be at most ${LIMITS.rate.max} frames a second`, String(num / den));
  const frames = frameCount(piece);
  if (!(frames <= FRAMES_OF_PIECE))
    refuse('/canvas/rate', `give at most ${FRAMES_OF_PIECE.toLocaleString('en')} frames`, frames.toLocaleString('en'));
}

/** Its shifts exist, join its own poses, and each leaves the pose that the one before reached. */
function checkRail(piece: Piece, figure: Figure, refuse: Refuse): void {
  const where = `/figures/${figure.id}/rail`;
  const poses = new Set(figure.poses);
  let reached: string | undefined;
  figure.rail.forEach((id, i) => {
    if (!own(piece.shifts, id)) refuse(`${where}/${i}`, 'name a shift of the piece', `“${id}”`);
    const { from, to } = piece.shifts[id];
    if (!poses.has(from) || !poses.has(to)) refuse(`/shifts/${id}`, 'join two poses of its figure', `${from} → ${to}`);
    if (reached !== undefined && reached !== from)
      refuse(`${where}/${i}`, 'leave the pose that the shift before reaches', `“${from}” after “${reached}”`);
    reached = to;
  });
}

function checkPaint(where: string, paint: Paint | null, refuse: Refuse): void {
  if (!isGradient(paint)) {
    checkColour(where, paint, refuse);
    return;
  }
  paint.stops.forEach((stop, i) => {
    checkColour(`${where}/stops/${i}/colour`, stop.colour, refuse);
    if (i > 0 && stop.at < paint.stops[i - 1].at)
      refuse(`${where}/stops/${i}/at`, 'not lie before the stop before it', String(stop.at));
  });
}

function checkColour(where: string, colour: string | null, refuse: Refuse): void {
  if (colour !== null && !readColour(colour)) refuse(where, 'be a CSS colour', `“${colour.slice(0, 40)}”`);
}
