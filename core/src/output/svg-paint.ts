import { hexText } from '../paint';
import { numberText } from '../svg';

/** Numbers of a gradient as the frame samples them; see `GradientSample`. */
export interface GradientNumbers {
  readonly kind: 'linear' | 'radial';
  readonly geometry: ArrayLike<number>;
  readonly at: ArrayLike<number>;
  readonly colours: ArrayLike<number>;
}

const n = (v: number): string => numberText(v, 4);

/** The animatable attributes of a gradient element, by name. Radial ones are the unit circle under a transform. */
export function gradientAttributes({ kind, geometry: g }: GradientNumbers): Record<string, string> {
  return kind === 'linear'
    ? { x1: n(g[0]), y1: n(g[1]), x2: n(g[2]), y2: n(g[3]) }
    : { cx: '0', cy: '0', r: '1', fx: n(g[5]), fy: n(g[6]) };
}

/** The three steps of a radial gradient's transform, the outermost first. */
export const gradientSteps = (
  g: ArrayLike<number>,
): readonly (readonly ['translate' | 'rotate' | 'scale', string])[] => [
  ['translate', `${n(g[0])} ${n(g[1])}`],
  ['rotate', n(g[4])],
  ['scale', `${n(Math.max(g[2], 1e-4))} ${n(Math.max(g[3], 1e-4))}`],
];

/** A gradient element in user space. `inside` and `insideStop` give the animations that belong into it. */
export function gradientElement(
  id: string,
  numbers: GradientNumbers,
  inside = '',
  insideStop: (stop: number) => string = () => '',
): string {
  const tag = `${numbers.kind}Gradient`;
  const attributes = Object.entries(gradientAttributes(numbers))
    .map(([name, value]) => ` ${name}="${value}"`)
    .join('');
  const steps = gradientSteps(numbers.geometry).map(([name, value]) => `${name}(${value})`);
  const transform = numbers.kind === 'radial' ? ` gradientTransform="${steps.join(' ')}"` : '';
  let stops = '';
  for (let i = 0; i < numbers.at.length; i++) {
    const [r, g, b, alpha] = [0, 1, 2, 3].map((k) => numbers.colours[4 * i + k]);
    const opacity = alpha < 1 ? ` stop-opacity="${n(alpha)}"` : '';
    const inner = insideStop(i);
    stops += `<stop offset="${n(numbers.at[i])}" stop-color="${hexText({ r, g, b })}"${opacity}${inner ? `>${inner}</stop>` : '/>'}`;
  }
  return `<${tag} id="${id}" gradientUnits="userSpaceOnUse"${attributes}${transform}>${inside}${stops}</${tag}>\n`;
}

/** Text made safe for XML content and attributes. */
export const escapeText = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');
