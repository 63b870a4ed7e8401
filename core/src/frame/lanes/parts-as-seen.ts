import { cssText } from '../../paint';
import { type Id, lanesOf, type Part, type Piece, type Pose, placementScale } from '../../piece';
import { type OverSample, overLanes, prepareOver, sampleOver } from './over-paint';
import { keptBook, partAt, shapeLanesOf } from './shape-lanes';

/**
 * The parts of a figure's pose as they are seen at a time in s, in the pose's own coordinates. They are shaped by lanes of numbers, and have the colours and the width of line
 * that lanes put in place of their own. The same records where nothing changes them, and the same again for the same values. Opacity, softness and drawn
 * stretches are left out: it is for pictures by which a pose is known again.
 */
export function partsAsSeen(piece: Piece, figureId: Id, { parts, placement }: Pose, seconds: number): readonly Part[] {
  const own = parts.map((id) => piece.parts[id]);
  const lanes = lanesOf(piece, figureId);
  if (lanes.length === 0) return own;
  const shapes = shapeLanesOf(piece, figureId);
  const shaped = shapes.length > 0 ? own.map((part) => partAt(part, shapes, seconds)) : own;
  const over = lanes.some(({ property }) => PAINTED.has(property)) && overLanes(keptBook(piece), figureId);
  if (!over) return shaped;
  const sample = prepareOver(over);
  sampleOver(over, seconds, sample);
  const scale = placementScale(placement);
  return shaped.map((part) => painted(part, sample, scale));
}

/** What of a figure's lanes changes the paint of such pictures. */
const PAINTED: ReadonlySet<string> = new Set(['fill', 'stroke', 'strokeWidth']);

/** Parts in other paint, as long as their records are the same. */
const known = new WeakMap<Part, Map<string, Part>>();
/** A part is remembered in so many paints: it may stand at several stops. */
const MOST_KNOWN = 16;

function painted(part: Part, { fill, stroke, strokeWidth }: OverSample, scale: number): Part {
  const text = ({ colour: [r, g, b, alpha] }: NonNullable<OverSample['fill']>): string => cssText(r, g, b, alpha);
  const seen = {
    fill: part.fill && fill ? text(fill) : part.fill,
    stroke: part.stroke && {
      ...part.stroke,
      paint: stroke ? text(stroke) : part.stroke.paint,
      width: strokeWidth && scale > 0 ? strokeWidth[0] / scale : part.stroke.width,
    },
  };
  const key = JSON.stringify(seen);
  let kept = known.get(part);
  if (!kept) known.set(part, (kept = new Map()));
  let made = kept.get(key);
  if (!made) {
    if (kept.size >= MOST_KNOWN) kept.clear();
    made = key === JSON.stringify({ fill: part.fill, stroke: part.stroke }) ? part : { ...part, ...seen };
    kept.set(key, made);
  }
  return made;
}
