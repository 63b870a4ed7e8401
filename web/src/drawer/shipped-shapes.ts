import { adjustableContours, outlineBox, readPathData, type ShapeSource, writePathData } from '@core';
import { withShape } from '../editor';

/** A shape of the drawer: path data in a box of 100 × 100. */
export interface ShippedShape {
  readonly name: string;
  readonly words: string;
  readonly d: string;
  /** What it is, where it can be adjusted. */
  readonly source?: ShapeSource;
}

const made = (name: string, words: string, source: ShapeSource): ShippedShape => ({
  name,
  words,
  d: writePathData({ contours: adjustableContours(source), fillRule: 'nonzero' }),
  source,
});
const at = { x: 50, y: 50, rotation: 0 };
const drawn = (name: string, words: string, d: string): ShippedShape => ({ name, words, d });

/** The shapes that come with the application, drawn for it. */
export const SHIPPED_SHAPES: readonly ShippedShape[] = [
  made('Circle', 'disc round dot ellipse', { kind: 'ellipse', ...at, width: 90, height: 90 }),
  made('Square', 'box rectangle', { kind: 'rectangle', ...at, width: 82, height: 82, radii: [0, 0, 0, 0] }),
  made('Soft square', 'rounded box button', {
    kind: 'rectangle',
    ...at,
    width: 84,
    height: 84,
    radii: [22, 22, 22, 22],
  }),
  made('Pill', 'capsule button bar', { kind: 'capsule', ...at, length: 94, thickness: 44 }),
  made('Triangle', 'polygon three', { kind: 'polygon', ...at, y: 58, radius: 50, sides: 3, rounding: 0 }),
  made('Pentagon', 'polygon five', { kind: 'polygon', ...at, radius: 48, sides: 5, rounding: 0 }),
  made('Hexagon', 'polygon six', { kind: 'polygon', ...at, radius: 48, sides: 6, rounding: 0 }),
  made('Soft octagon', 'polygon eight rounded', { kind: 'polygon', ...at, radius: 48, sides: 8, rounding: 10 }),
  made('Five-pointed star', 'star', { kind: 'star', ...at, y: 53, radius: 50, points: 5, inner: 0.45, rounding: 0 }),
  made('Twelve-pointed seal', 'star badge sun', {
    kind: 'star',
    ...at,
    radius: 48,
    points: 12,
    inner: 0.8,
    rounding: 2,
  }),
  made('Spark', 'star four shine', { kind: 'star', ...at, radius: 50, points: 4, inner: 0.3, rounding: 3 }),
  made('Ring', 'circle hole', { kind: 'ring', ...at, outer: 46, inner: 28, from: 0, to: 360 }),
  made('Gauge', 'ring sector dial tide', { kind: 'ring', ...at, outer: 46, inner: 32, from: -120, to: 120 }),
  made('Slice', 'pie sector wedge', { kind: 'ring', ...at, outer: 46, inner: 0, from: 0, to: 90 }),
  made('Pebble', 'blob organic', { kind: 'blob', ...at, radius: 42, lobes: 7, wobble: 0.14, seed: 4 }),
  made('Splash', 'blob organic drop', { kind: 'blob', ...at, radius: 36, lobes: 9, wobble: 0.34, seed: 12 }),
  drawn('Drop', 'water tear', 'M50 4C66 28 82 46 82 64C82 82 68 96 50 96C32 96 18 82 18 64C18 46 34 28 50 4Z'),
  drawn(
    'Heart',
    'love like',
    'M50 92C20 68 6 50 6 32C6 16 18 6 31 6C40 6 47 11 50 19C53 11 60 6 69 6C82 6 94 16 94 32C94 50 80 68 50 92Z',
  ),
  drawn(
    'Speech',
    'bubble chat talk',
    'M14 10H86C91 10 96 15 96 20V62C96 68 91 72 86 72H46L26 92V72H14C9 72 4 68 4 62V20C4 15 9 10 14 10Z',
  ),
  drawn('Bolt', 'flash energy', 'M58 4L18 56H46L38 96L82 40H52Z'),
  drawn('Cross', 'plus add', 'M36 6H64V36H94V64H64V94H36V64H6V36H36Z'),
  drawn('Tick', 'check done yes', 'M8 52L22 38L40 56L78 16L92 30L40 84Z'),
  drawn('Arrow', 'right next go', 'M6 38H54V14L96 50L54 86V62H6Z'),
  drawn('Chevron', 'right next angle', 'M26 10L70 50L26 90L14 78L45 50L14 22Z'),
  drawn('Play', 'triangle start', 'M22 8C22 5 25 4 28 5L90 46C93 48 93 52 90 54L28 95C25 96 22 95 22 92Z'),
  drawn('Pause', 'bars stop', 'M20 8H42V92H20ZM58 8H80V92H58Z'),
  drawn('Menu bars', 'lines list', 'M8 16H92V30H8ZM8 43H92V57H8ZM8 70H92V84H8Z'),
  drawn('House', 'home', 'M50 6L96 48H84V92H60V62H40V92H16V48H4Z'),
  drawn('Wave', 'water sea', 'M4 58C18 34 32 34 50 50C66 64 80 66 96 46V92H4Z'),
  drawn(
    'Sail',
    'boat ferry',
    'M48 4C70 26 86 54 90 78H48ZM42 22V78H10C22 62 34 44 42 22ZM6 84H94C90 92 82 96 72 96H28C18 96 10 92 6 84Z',
  ),
  drawn(
    'Anchor',
    'ship harbour',
    'M50 4C58 4 64 10 64 18C64 24 60 29 55 31V38H72V47H55V84C68 82 78 74 80 62L70 66L86 44L96 68L89 65C86 82 70 94 50 96C30 94 14 82 11 65L4 68L14 44L30 66L20 62C22 74 32 82 45 84V47H28V38H45V31C40 29 36 24 36 18C36 10 42 4 50 4ZM50 12C47 12 44 15 44 18C44 21 47 24 50 24C53 24 56 21 56 18C56 15 53 12 50 12Z',
  ),
  drawn(
    'Lantern',
    'light lamp',
    'M40 6H60V14H68L76 26H24L32 14H40ZM28 32H72V76H28ZM22 82H78V94H22ZM50 40C58 50 60 56 56 64C53 69 47 69 44 64C40 56 45 50 50 40Z',
  ),
  drawn(
    'Bell',
    'ring alert',
    'M50 4C54 4 57 7 57 11C72 15 80 27 80 44V62L90 76V82H10V76L20 62V44C20 27 28 15 43 11C43 7 46 4 50 4ZM38 86H62C62 92 57 96 50 96C43 96 38 92 38 86Z',
  ),
  drawn('Flag', 'banner pennant', 'M16 4H24V12H90L74 32L90 52H24V96H16Z'),
];

/** The shape as a file, in the middle of its box. */
export const shippedSvg = ({ d, source }: ShippedShape): string => {
  const { minX, minY, maxX, maxY } = outlineBox(readPathData(d));
  const corner = [minX + maxX, minY + maxY].map((sum) => +(sum / 2 - 50).toFixed(3)).join(' ');
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${corner} 100 100" width="100" height="100"><path fill="#23201b" fill-rule="evenodd" d="${d}"/></svg>`;
  return source ? withShape(svg, source) : svg;
};

/** A few of each kind that the drawer holds. */
export const FIRST_SHAPES = [
  'Circle',
  'Square',
  'Triangle',
  'Five-pointed star',
  'Pill',
  'Ring',
  'Heart',
  'Sail',
].flatMap((name) => SHIPPED_SHAPES.find((shape) => shape.name === name) ?? []);
