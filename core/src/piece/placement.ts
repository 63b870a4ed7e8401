import { areaCentre, type Outline, outlineBox } from '../outline';
import { boxSize } from '../vec';
import { CANVAS_SHARE } from './defaults';
import { outlineOfPart } from './geometry';
import type { Canvas, Figure, Part, Piece, Placement, PlacementRule, Pose } from './records';

/** Measures that placement needs, px. */
interface Extent {
  readonly x: number;
  readonly y: number;
  readonly longest: number;
  readonly area: number;
}

/**
 * Where the rule puts a pose: its own coordinates, scaled and moved so that its centre (of area or box) lies on the target's and its
 * longest side or area fits. The target is the figure's first pose as it stands, or the canvas (60 % of its shorter side).
 */
export function placeByRule(
  rule: PlacementRule,
  parts: readonly Part[],
  canvas: Canvas,
  first?: { parts: readonly Part[]; placement: Placement },
): Placement {
  const own = extentOf(parts, rule.centre);
  const target =
    first && rule.to === 'first' ? placedExtent(first.parts, first.placement, rule.centre) : canvasExtent(canvas);
  let scale = 1;
  if (rule.fit === 'longest' && own.longest > 0 && target.longest > 0) scale = target.longest / own.longest;
  if (rule.fit === 'area' && own.area > 0 && target.area > 0) scale = Math.sqrt(target.area / own.area);
  const moved = rule.centre !== 'none';
  return { x: moved ? target.x - own.x * scale : 0, y: moved ? target.y - own.y * scale : 0, scale, rule };
}

function extentOf(parts: readonly Part[], centre: PlacementRule['centre']): Extent {
  const outlines = parts.map(outlineOfPart);
  const all: Outline = { contours: outlines.flatMap((outline) => outline.contours), fillRule: 'nonzero' };
  const box = outlineBox(all);
  const middle = { x: (box.minX + box.maxX) / 2 || 0, y: (box.minY + box.maxY) / 2 || 0 };
  let area = 0;
  let x = 0;
  let y = 0;
  for (const outline of outlines) {
    const c = areaCentre(outline);
    area += c.area;
    x += c.x * c.area;
    y += c.y * c.area;
  }
  const byArea = centre === 'area' && area > 0;
  return { x: byArea ? x / area : middle.x, y: byArea ? y / area : middle.y, longest: boxSize(box), area };
}

function placedExtent(parts: readonly Part[], placement: Placement, centre: PlacementRule['centre']): Extent {
  const own = extentOf(parts, centre);
  const { scale } = placement;
  return {
    x: own.x * scale + placement.x,
    y: own.y * scale + placement.y,
    longest: own.longest * scale,
    area: own.area * scale * scale,
  };
}

function canvasExtent(canvas: Canvas): Extent {
  const longest = CANVAS_SHARE * Math.min(canvas.width, canvas.height);
  return { x: canvas.width / 2, y: canvas.height / 2, longest, area: longest * longest };
}

/** The placements of a figure's poses by their rules; poses moved by hand stay. Keys are pose ids; unchanged ones are left out. */
export function placementsOfFigure(piece: Piece, figure: Figure): Map<string, Placement> {
  const out = new Map<string, Placement>();
  const partsOf = (pose: Pose): Part[] => pose.parts.map((id) => piece.parts[id]);
  const firstPose = piece.poses[figure.poses[0]];
  if (!firstPose) return out;
  let first: { parts: readonly Part[]; placement: Placement } | undefined;
  for (const id of figure.poses) {
    const pose = piece.poses[id];
    const { rule } = pose.placement;
    const placement = rule ? placeByRule(rule, partsOf(pose), piece.canvas, first) : pose.placement;
    first ??= { parts: partsOf(pose), placement };
    if (!same(placement, pose.placement)) out.set(id, placement);
  }
  return out;
}

const same = (p: Placement, q: Placement): boolean =>
  p.x === q.x && p.y === q.y && p.scale === q.scale && p.rule === q.rule;
