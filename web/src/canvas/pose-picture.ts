import {
  IDENTITY,
  type Matrix,
  type MotionSample,
  motionMatrix,
  multiply,
  type Outline,
  outlineBox,
  outlineOfPart,
  type Paint,
  type Part,
  type Pose,
  placementMatrix,
  type Stroke,
  transformOutline,
  writePathData,
} from '@core';

/** A part as plain SVG, in its pose's own coordinates. */
export interface PartPicture {
  readonly d: string;
  readonly fill: Paint | null;
  readonly fillRule: 'nonzero' | 'evenodd';
  readonly stroke: Stroke | null;
}

export interface PosePicture {
  readonly viewBox: string;
  readonly transform?: string;
  readonly parts: readonly PartPicture[];
}

const cache = new WeakMap<Part, PartPicture>();

function partPicture(part: Part): PartPicture {
  let picture = cache.get(part);
  if (!picture) {
    picture = {
      d: writePathData(outlineOfPart(part)),
      fill: part.fill,
      fillRule: part.fillRule,
      stroke: part.stroke,
    };
    cache.set(part, picture);
  }
  return picture;
}

/** The square that holds outlines with a little room around them, in their own px. */
export function squareOf(
  outlines: readonly Outline[],
  stroke: number,
): { readonly x: number; readonly y: number; readonly size: number } {
  const box = outlineBox({ contours: outlines.flatMap(({ contours }) => contours), fillRule: 'nonzero' });
  const width = box.maxX - box.minX || 0;
  const height = box.maxY - box.minY || 0;
  const size = Math.max(width, height, 1e-3) * 1.12 + stroke;
  return { x: (box.minX + box.maxX) / 2 - size / 2 || 0, y: (box.minY + box.maxY) / 2 - size / 2 || 0, size };
}

/** The same square as a view box. */
export function squareBox(outlines: readonly Outline[], stroke: number): string {
  const { x, y, size } = squareOf(outlines, stroke);
  return `${x} ${y} ${size} ${size}`;
}

/** A map's turn and stretching alone, of no other size on the whole; what has none stays as it is. */
function evenSized([a, b, c, d]: Matrix): Matrix {
  const size = Math.sqrt(Math.abs(a * d - b * c));
  return size > 0 ? [a / size, b / size, c / size, d / size, 0, 0] : IDENTITY;
}

/** A pose as it stands, turned and mirrored, by its figure's motion too, with a square view box around it; `parts` are its own, or as its figure shows them. */
export function posePicture(
  { placement }: Pick<Pose, 'placement'>,
  parts: readonly Part[],
  motion: MotionSample | null = null,
): PosePicture {
  const stroke = Math.max(0, ...parts.map((part) => part.stroke?.width ?? 0));
  const { scaleX, scaleY, rotation } = placement;
  const k = Math.abs(scaleX) || 1;
  const base = placementMatrix({ ...placement, x: 0, y: 0, scaleX: scaleX / k || 1, scaleY: scaleY / k || 1 });
  const moved = motion ? evenSized(motionMatrix(motion)) : IDENTITY;
  const matrix = multiply(moved, base);
  const upright = rotation === 0 && scaleX > 0 && scaleX === scaleY && moved.every((v, i) => v === IDENTITY[i]);
  const outlines = parts.map((part) => (upright ? outlineOfPart(part) : transformOutline(outlineOfPart(part), matrix)));
  return {
    viewBox: squareBox(outlines, stroke),
    transform: upright ? undefined : `matrix(${matrix.join(' ')})`,
    parts: parts.map(partPicture),
  };
}
