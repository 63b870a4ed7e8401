import { areaCentre, enclosingCircle, type Outline, outlineBox, transformOutline } from '../../outline';
import { boxSize, determinant, IDENTITY, type Matrix, multiply, rotation, scaling, type translation } from '../../vec';
import type { Canvas, Figure, Part, Piece, Placement, PlacementRule, Pose } from '../records';
import { CANVAS_SHARE, outlineOfPart, placementMatrix } from '../records';

/** Measures that placement needs, px. */
interface Extent {
  readonly x: number;
  readonly y: number;
  readonly longest: number;
  readonly area: number;
  /** How large it looks: between its area and its reach, so that a star or a triangle does not come out small. */
  readonly eye: number;
}

/** Parts that already stand somewhere. */
export interface PlacedParts {
  readonly parts: readonly Part[];
  readonly placement: Placement;
}

/**
 * Where the rule puts a pose. It is turned and mirrored as `as` says, then scaled evenly and moved. Its centre (of area, box or enclosing
 * circle) comes to lie on the target's, and its longest side, area or apparent size fits. The target is the pose before it
 * as it stands, the canvas (60 % of its shorter side), or a box (wholly inside it).
 */
export function placeByRule(
  rule: PlacementRule,
  parts: readonly Part[],
  canvas: Canvas,
  previous?: PlacedParts,
  as?: Placement,
): Placement {
  const turn = as?.rotation ?? 0;
  const flipX = (as?.scaleX ?? 1) < 0 ? -1 : 1;
  const flipY = (as?.scaleY ?? 1) < 0 ? -1 : 1;
  const turned = multiply(rotation((turn * Math.PI) / 180), scaling(flipX, flipY));
  const own = extentOf(parts, turned, rule);
  let target: Extent;
  if (rule.to === 'box' && rule.box) target = boxExtent(...rule.box);
  else if (previous && rule.to === 'previous')
    target = extentOf(previous.parts, placementMatrix(previous.placement), rule);
  else target = canvasExtent(canvas);
  let scale = 1;
  if (rule.to === 'box' && rule.box && rule.fit !== 'none') scale = insideBox(own, rule.box);
  else if (rule.fit !== 'none') {
    const measure = (extent: Extent): number =>
      rule.fit === 'area' ? Math.sqrt(extent.area) : rule.fit === 'eye' ? extent.eye : extent.longest;
    if (measure(own) > 0 && measure(target) > 0) scale = measure(target) / measure(own);
  }
  const moved = rule.centre !== 'none';
  return {
    x: moved ? target.x - own.x * scale : 0,
    y: moved ? target.y - own.y * scale : 0,
    scaleX: flipX * scale,
    scaleY: flipY * scale,
    rotation: turn,
    rule,
  };
}

interface SizedExtent extends Extent {
  readonly width: number;
  readonly height: number;
}

function insideBox(own: SizedExtent, [, , width, height]: readonly number[]): number {
  const sx = own.width > 0 ? width / own.width : Infinity;
  const sy = own.height > 0 ? height / own.height : Infinity;
  const scale = Math.min(sx, sy);
  return Number.isFinite(scale) && scale > 0 ? scale : 1;
}

/** What a rule needs to know of parts under a matrix; what it does not need is not measured and is NaN. */
function extentOf(parts: readonly Part[], matrix: Matrix, { centre, fit }: PlacementRule): SizedExtent {
  const outlines = parts.map(outlineOfPart);
  const placed = isIdentity(matrix) ? outlines : outlines.map((outline) => transformOutline(outline, matrix));
  const all: Outline = { contours: placed.flatMap((outline) => outline.contours), fillRule: 'nonzero' };
  const box = outlineBox(all);
  const middle = { x: (box.minX + box.maxX) / 2 || 0, y: (box.minY + box.maxY) / 2 || 0 };
  const circle = centre === 'circle' || fit === 'eye' ? enclosingCircle(all) : undefined;
  const filled = centre === 'area' || fit === 'area' || fit === 'eye' ? filledCentre(outlines, matrix) : undefined;
  const area = filled?.area ?? Number.NaN;
  const at = centre === 'circle' && circle ? circle : centre === 'area' && filled && area > 0 ? filled : middle;
  const reach = 2 * (circle?.r ?? Number.NaN);
  return {
    x: at.x,
    y: at.y,
    longest: boxSize(box),
    area,
    eye: area > 0 ? Math.sqrt(Math.sqrt(area) * reach) : reach,
    width: Math.max(0, box.maxX - box.minX) || 0,
    height: Math.max(0, box.maxY - box.minY) || 0,
  };
}

const isIdentity = (matrix: Matrix): boolean => matrix.every((v, k) => v === IDENTITY[k]);

/** The common centre of the areas of outlines under a matrix, and their sum: an affine map takes centroids to centroids. */
function filledCentre(outlines: readonly Outline[], matrix: Matrix): { x: number; y: number; area: number } {
  const scale = Math.abs(determinant(matrix));
  const [a, b, c, d, e, f] = matrix;
  let [area, x, y] = [0, 0, 0];
  for (const outline of outlines) {
    const own = centreOf(outline);
    const weight = own.area * scale;
    area += weight;
    x += (a * own.x + c * own.y + e) * weight;
    y += (b * own.x + d * own.y + f) * weight;
  }
  return area > 0 ? { x: x / area, y: y / area, area } : { x: 0, y: 0, area: 0 };
}

/** Centroid of a filled area, px, and its size, px². */
export type AreaCentre = ReturnType<typeof areaCentre>;

/** Centres of outlines that have been measured; outlines of parts stay the same until the part is changed. */
const centres = new WeakMap<Outline, AreaCentre>();
function centreOf(outline: Outline): AreaCentre {
  let centre = centres.get(outline);
  if (!centre) {
    centre = areaCentre(outline);
    centres.set(outline, centre);
  }
  return centre;
}

/** The centre of a part's own area; with thousands of contours it takes long, and is better measured in a worker. */
export const centreOfPart = (part: Part): AreaCentre => centreOf(outlineOfPart(part));

/** Takes a centre that was measured elsewhere. */
export function rememberCentre(part: Part, centre: AreaCentre): void {
  centres.set(outlineOfPart(part), centre);
}

const boxExtent = (x: number, y: number, width: number, height: number): Extent => ({
  x: x + width / 2,
  y: y + height / 2,
  longest: Math.max(width, height),
  area: width * height,
  eye: Math.sqrt(width * height),
});

function canvasExtent(canvas: Canvas): Extent {
  const side = CANVAS_SHARE * Math.min(canvas.width, canvas.height);
  return boxExtent((canvas.width - side) / 2, (canvas.height - side) / 2, side, side);
}

/** The placements of a figure's poses by their rules; poses without a rule stay. Keys are pose ids; unchanged ones are left out. */
export function placementsOfFigure(piece: Piece, figure: Figure): Map<string, Placement> {
  const out = new Map<string, Placement>();
  const partsOf = (pose: Pose): Part[] => pose.parts.map((id) => piece.parts[id]);
  let previous: PlacedParts | undefined;
  for (const id of figure.poses) {
    const pose = piece.poses[id];
    const { rule } = pose.placement;
    const parts = partsOf(pose);
    const placement = rule ? placeByRule(rule, parts, piece.canvas, previous, pose.placement) : pose.placement;
    if (parts.length > 0) previous = { parts, placement };
    if (!same(placement, pose.placement)) out.set(id, placement);
  }
  return out;
}

const same = (p: Placement, q: Placement): boolean =>
  p.x === q.x &&
  p.y === q.y &&
  p.scaleX === q.scaleX &&
  p.scaleY === q.scaleY &&
  p.rotation === q.rotation &&
  p.rule === q.rule;

/** A placement followed by a map of the canvas that keeps right angles (moves, turns, even scaling, mirroring), by hand. */
export function mapPlacement(placement: Placement, matrix: ReturnType<typeof translation>): Placement {
  const m = multiply(matrix, placementMatrix(placement));
  const [a, b, c, d] = m;
  const det = a * d - b * c;
  const flipped = placement.scaleX < 0;
  const sx = Math.hypot(a, b) * (flipped ? -1 : 1);
  const sy = Math.hypot(c, d) * (det < 0 === flipped ? 1 : -1);
  const angle = (Math.atan2(flipped ? -b : b, flipped ? -a : a) * 180) / Math.PI;
  const old = placement.rotation;
  return {
    x: m[4],
    y: m[5],
    scaleX: sx,
    scaleY: sy,
    rotation: angle + 360 * Math.round((old - angle) / 360),
    rule: null,
  };
}
