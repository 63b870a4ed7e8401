import { CAPS, JOINS } from '../../paint';
import { type Box, emptyBox, includePoint } from '../../vec';
import { motionMatrix } from '../lanes';
import { type Frame, isVanished } from './sample';

/** A blur reaches three times its standard deviation. */
const BLUR_REACH = 3;

/**
 * The box round all that a frame shows, px of the canvas: outlines with their handles, strokes as wide as they are, blurs as far as they reach. What lies
 * behind the figures does not count. An empty box (see `emptyBox`) where nothing is shown.
 */
export function paintedBox({ figures }: Pick<Frame, 'figures'>): Box {
  const box = emptyBox();
  for (const { parts, motion, opacity, over, hidden } of figures) {
    if (hidden || !(opacity[0] > 0)) continue;
    const [a, b, c, d, e, f] = motion ? motionMatrix(motion) : [1, 0, 0, 1, 0, 0];
    const soft = BLUR_REACH * (over?.softness?.[0] ?? 0);
    for (const { contours, points, progress, stroke } of parts) {
      // A mitre is at most its limit times half the width long, and the corner of a square cap lies √2 of that from the end of the line.
      const width = stroke ? (over?.strokeWidth ?? stroke.values.strokeWidth)[0] : 0;
      const reach = stroke
        ? Math.max(
            CAPS[stroke.values.cap[0]] === 'square' ? Math.SQRT2 : 1,
            JOINS[stroke.values.join[0]] === 'miter' ? stroke.values.miter[0] : 1,
          )
        : 0;
      const pen = (width / 2) * reach;
      const roomX = pen * Math.hypot(a, c) + soft;
      const roomY = pen * Math.hypot(b, d) + soft;
      for (const contour of contours) {
        if (isVanished(contour, progress)) continue;
        const end = contour.at + 6 * contour.segments + 2;
        for (let i = contour.at; i < end; i += 2) {
          const x = a * points[i] + c * points[i + 1] + e;
          const y = b * points[i] + d * points[i + 1] + f;
          includePoint(box, x - roomX, y - roomY);
          includePoint(box, x + roomX, y + roomY);
        }
      }
    }
  }
  return box;
}
