import { ease } from '../easing';

const attribute = (tag: string, name: string): string | undefined => new RegExp(` ${name}="([^"]*)"`).exec(tag)?.[1];
const list = (text: string | undefined): string[] => text?.split(';') ?? [];

/**
 * The value of an animation element at a time in s, by the definition of SMIL (SVG Animations 2, sections 2.8 to 2.14: begin, dur, repeat, key
 * times, key splines), and undefined before it begins. Numbers inside the texts are interpolated one by one.
 */
export function playSmil(tag: string, seconds: number): string | undefined {
  const begin = Number.parseFloat(attribute(tag, 'begin') ?? '0');
  const dur = Number.parseFloat(attribute(tag, 'dur') ?? '');
  const repeats = attribute(tag, 'repeatCount') === 'indefinite';
  let share = (seconds - begin) / dur;
  if (share < 0) return undefined;
  share = repeats ? share - Math.floor(share) : Math.min(1, share);
  const values = list(attribute(tag, 'values'));
  const times = list(attribute(tag, 'keyTimes')).map(Number);
  const splines = list(attribute(tag, 'keySplines'));
  let k = 0;
  while (k + 1 < times.length && times[k + 1] <= share) k++;
  if (attribute(tag, 'calcMode') === 'discrete' || k === times.length - 1) return values[k];
  const [x1, y1, x2, y2] = (splines[k] ?? '0 0 1 1').split(/[ ,]+/).map(Number);
  const way = ease({ kind: 'cubic-bezier', x1, y1, x2, y2 }, (share - times[k]) / (times[k + 1] - times[k]));
  return mixed(values[k], values[k + 1], way);
}

/** Numbers of two texts of the same structure, mixed. */
function mixed(from: string, to: string, way: number): string {
  const number = /-?(?:\d+\.?\d*|\.\d+)/g;
  const others = [...to.matchAll(number)].map(([text]) => Number(text));
  let i = 0;
  return from.replace(number, (text) => ` ${Number(text) + (others[i++] - Number(text)) * way}`);
}
