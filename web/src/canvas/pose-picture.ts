import { outlineBox, outlineOfPart, type Part, type Piece, type Pose, writePathData } from '@core';

/** A part as plain SVG. */
export interface PartPicture {
  readonly d: string;
  readonly fill: string;
  readonly fillRule: 'nonzero' | 'evenodd';
  readonly stroke?: {
    readonly colour: string;
    readonly width: number;
    readonly cap: 'butt' | 'round' | 'square';
    readonly join: 'miter' | 'round' | 'bevel';
  };
}

export interface PosePicture {
  readonly viewBox: string;
  readonly parts: readonly PartPicture[];
}

const cache = new WeakMap<Part, PartPicture>();

function partPicture(part: Part): PartPicture {
  let picture = cache.get(part);
  if (!picture) {
    picture = {
      d: writePathData(outlineOfPart(part)),
      fill: part.fill ?? 'none',
      fillRule: part.fillRule,
      stroke: part.stroke ?? undefined,
    };
    cache.set(part, picture);
  }
  return picture;
}

/** A pose in its own coordinates with a square view box around it. */
export function posePicture(piece: Piece, pose: Pose): PosePicture {
  const parts = pose.parts.map((id) => piece.parts[id]);
  const box = outlineBox({ contours: parts.flatMap((part) => outlineOfPart(part).contours), fillRule: 'nonzero' });
  const stroke = Math.max(0, ...parts.map((part) => part.stroke?.width ?? 0));
  const width = box.maxX - box.minX;
  const height = box.maxY - box.minY;
  const size = Math.max(width, height, 1e-3) * 1.12 + stroke;
  const x = (box.minX + box.maxX) / 2 - size / 2;
  const y = (box.minY + box.maxY) / 2 - size / 2;
  return { viewBox: `${x} ${y} ${size} ${size}`, parts: parts.map(partPicture) };
}
