import { type Gradient, isGradient, type Paint, readColour } from '../../paint';
import type { SvgShape } from '../../svg';
import type { Sample } from './sample';

/** What shapes look like at a moment. */
export interface ShapeSample extends Sample {
  readonly shapes: readonly SvgShape[];
}

/** What of shapes is told by lanes of their own, and left out here. */
export interface Beside {
  readonly fill?: boolean;
  readonly stroke?: boolean;
  readonly strokeWidth?: boolean;
  readonly drawn?: boolean;
}

/** By how much points and widths may stray, px; where stops lie, and angles in degrees. */
const POINT_ERROR = 0.03;
const WIDTH_ERROR = 0.02;
const STOP_ERROR = 2e-3;

/** What can be compared of shapes. Nothing where one of them draws nothing. */
export function shapeSample(shapes: readonly (SvgShape | null)[], beside: Beside = {}): ShapeSample {
  const kinds: string[] = [];
  let length = 0;
  for (const shape of shapes) for (const { points } of shape?.outline.contours ?? []) length += points.length;
  // Room for all points, and for what else there is: more is made where it is needed.
  let numbers = new Float64Array(length + 32 * shapes.length);
  let errors = new Float64Array(numbers.length);
  length = 0;
  const colours: number[] = [];
  const add = (values: ArrayLike<number>, error: number): void => {
    if (length + values.length > numbers.length) {
      numbers = grown(numbers, length + values.length);
      errors = grown(errors, length + values.length);
    }
    numbers.set(values, length);
    errors.fill(error, length, length + values.length);
    length += values.length;
  };
  const paint = (value: Paint | null, left: boolean | undefined): void => {
    if (isGradient(value)) {
      kinds.push(`${value.kind}${value.stops.length}`);
      add(gradientNumbers(value), POINT_ERROR);
      for (const { at, colour } of value.stops) {
        add([at], STOP_ERROR);
        colours.push(...rgba(colour));
      }
    } else {
      kinds.push('colour');
      if (!left) colours.push(...(value === null ? [0, 0, 0, 0] : rgba(value)));
    }
  };
  for (const shape of shapes) {
    if (!shape) {
      kinds.push('nothing');
      continue;
    }
    const { outline, fill, stroke } = shape;
    kinds.push(
      outline.fillRule,
      ...outline.contours.map(({ points, closed }) => `${points.length}${closed ? 'z' : ''}`),
    );
    for (const { points } of outline.contours) add(points, POINT_ERROR);
    paint(fill, beside.fill);
    if (!stroke) {
      kinds.push('unstroked');
      continue;
    }
    kinds.push(stroke.cap, stroke.join);
    paint(stroke.paint, beside.stroke);
    if (!beside.strokeWidth) add([stroke.width], WIDTH_ERROR);
    add([stroke.miter], WIDTH_ERROR);
    if (beside.drawn) continue;
    kinds.push(`${stroke.dash.length}`);
    add(stroke.dash, WIDTH_ERROR);
    add([stroke.dashOffset], WIDTH_ERROR);
  }
  return {
    kind: kinds.join(' '),
    numbers: numbers.subarray(0, length),
    errors: errors.subarray(0, length),
    colours: Float64Array.from(colours),
    shapes: shapes.filter((shape) => shape !== null),
  };
}

function grown(values: Float64Array, least: number): Float64Array<ArrayBuffer> {
  const more = new Float64Array(2 * least);
  more.set(values);
  return more;
}

export function rgba(css: string): [number, number, number, number] {
  const { r, g, b, alpha } = readColour(css) ?? { r: 0, g: 0, b: 0, alpha: 1 };
  return [r, g, b, alpha];
}

/** Where a gradient lies: the two ends of its line, or centre, radii, rotation and focus of its ellipse. */
function gradientNumbers(gradient: Gradient): readonly number[] {
  if (gradient.kind === 'linear') return [...gradient.from, ...gradient.to];
  const { centre, radii, rotation, focus } = gradient;
  return [...centre, ...radii, rotation, ...focus];
}
