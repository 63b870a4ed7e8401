import { type Contour, type Outline, segmentCount } from '../../outline';
import { IDENTITY, type Matrix, rotation } from '../../vec';
import { writeSegment } from './anchors';
import type { Anchor, ContourRecord, Id, Part, Placement } from './records';

/** Makes a fresh id; the prefix tells readers what it is of. */
export type IdSource = (prefix: string) => Id;

const outlines = new WeakMap<Part['contours'], Outline>();

/** What of a part is its outline. */
/** Its source is there only where a shift goes by the numbers of shapes. */
export type PartShape = Pick<Part, 'id' | 'contours' | 'fillRule' | 'source'>;

/** The outline of a part in the pose's own coordinates. Kept with its contours: records never change, and paint is no outline. */
export function outlineOfPart({ contours, fillRule }: Omit<PartShape, 'id'>): Outline {
  let outline = outlines.get(contours);
  if (outline?.fillRule !== fillRule) {
    outline = { contours: outline?.contours ?? contours.map(contourOfRecord), fillRule };
    outlines.set(contours, outline);
  }
  return outline;
}

/** A record as a run of cubics; segments without handles get theirs at the thirds. */
export function contourOfRecord(record: ContourRecord): Contour {
  const { anchors, closed } = record;
  const segments = closed ? anchors.length : anchors.length - 1;
  const points = new Float64Array(6 * segments + 2);
  points.set(anchors[0].at, 0);
  for (let i = 0; i < segments; i++)
    writeSegment(anchors[i], anchors[(i + 1) % anchors.length], IDENTITY, points, 6 * i);
  return {
    points,
    closed,
    anchorIds: anchors.map((anchor) => anchor.id),
    originIds: anchors.some((anchor) => anchor.origin) ? anchors.map((anchor) => anchor.origin) : undefined,
  };
}

/**
 * A run of cubics as a record; anchors without an id get a fresh one. Straight segments with handles at the thirds are written without
 * handles. `like` is the record that it came from: its id and its anchors' kinds are kept.
 */
export function recordOfContour(contour: Contour, newId: IdSource, like?: ContourRecord): ContourRecord {
  const kinds = new Map(like?.anchors.map(({ id, kind }) => [id, kind]));
  const p = contour.points;
  const segments = segmentCount(contour);
  const count = contour.closed ? segments : segments + 1;
  const handle = (segment: number, which: 2 | 4): readonly [number, number] | undefined => {
    const at = 6 * segment;
    const anchor = which === 2 ? at : at + 6;
    if (atThirds(p, at)) return undefined;
    if (p[at + which] === p[anchor] && p[at + which + 1] === p[anchor + 1]) return undefined;
    return [p[at + which], p[at + which + 1]];
  };
  const anchors: Anchor[] = [];
  for (let i = 0; i < count; i++) {
    const before = i > 0 ? i - 1 : contour.closed ? segments - 1 : -1;
    const into = before >= 0 ? handle(before, 4) : undefined;
    const out = i < segments ? handle(i, 2) : undefined;
    const origin = contour.originIds?.[i];
    const id = contour.anchorIds?.[i] || newId('a');
    const kind = kinds.get(id);
    anchors.push({
      id,
      at: [p[6 * i], p[6 * i + 1]],
      ...(into && { in: into }),
      ...(out && { out }),
      ...(origin && { origin }),
      ...(kind && { kind }),
    });
  }
  return { id: like?.id ?? newId('c'), closed: contour.closed, anchors };
}

function atThirds(p: Float64Array, at: number): boolean {
  for (let k = 0; k < 2; k++) {
    const d = p[at + 6 + k] - p[at + k];
    const epsilon = 1e-12 * (Math.abs(d) + Math.abs(p[at + k]));
    if (Math.abs(p[at + 2 + k] - p[at + k] - d / 3) > epsilon) return false;
    if (Math.abs(p[at + 4 + k] - p[at + k] - (d * 2) / 3) > epsilon) return false;
  }
  return true;
}

/** From the pose's own coordinates to the canvas: scaled, turned, moved. */
export function placementMatrix({ x, y, scaleX, scaleY, rotation: degrees }: Placement): Matrix {
  // Unturned placements keep their exact numbers.
  const [a, b, c, d] = degrees === 0 ? IDENTITY : rotation((degrees * Math.PI) / 180);
  return [a * scaleX, b * scaleX, c * scaleY, d * scaleY, x, y];
}

/** By how much lengths grow on the way to the canvas, on average. */
export const placementScale = ({ scaleX, scaleY }: Placement): number => Math.sqrt(Math.abs(scaleX * scaleY));
