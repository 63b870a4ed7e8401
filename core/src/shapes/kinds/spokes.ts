import { type Contour, roundedPolygon } from '../../outline';
import { fromTop } from '../shape-kind';

/** A closed polygon with corners at the given distances from the middle, evenly round from the top. */
export function spokes(radii: readonly number[], rounding: number): Contour {
  const corners = radii.flatMap((r, i) => {
    const a = fromTop((360 * i) / radii.length);
    return [r * Math.cos(a), r * Math.sin(a)];
  });
  return roundedPolygon(
    corners,
    radii.map(() => rounding),
  );
}
