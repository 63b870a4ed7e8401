// npx tsx scripts/morph-pictures.ts: makes the pictures of docs/how-a-morph-is-found.md.
import fs from 'node:fs';
import { evaluate, inBetweenPathData, rankAlternatives, readPathData, type ShiftPlan } from '../core/src/index';
import { type Contour, flattenContour } from '../core/src/outline';

const SAIL = 'M52 6C66 26 82 50 86 78H18C34 58 46 34 52 6Z';
const LANTERN = 'M38 8H62V18L78 34V78L68 92H32L22 78V34L38 18Z';
const BEE =
  'M12 6H56C76 6 84 16 84 28C84 38 78 45 70 48C82 52 90 60 90 71C90 86 78 94 58 94H12ZM34 24V40H52C58 40 61 36 61 32C61 27 58 24 52 24ZM34 58V76H54C62 76 66 72 66 67C66 62 62 58 54 58Z';
const EIGHT =
  'M50 4C72 4 86 14 86 28C86 38 80 45 70 49C83 53 91 61 91 72C91 87 74 96 50 96C26 96 9 87 9 72C9 61 17 53 30 49C20 45 14 38 14 28C14 14 28 4 50 4ZM50 20C40 20 34 24 34 30C34 37 40 41 50 41C60 41 66 37 66 30C66 24 60 20 50 20ZM50 57C38 57 31 62 31 69C31 76 38 80 50 80C62 80 69 76 69 69C69 62 62 57 50 57Z';
const [FIRST, SECOND, INK, LINE] = ['#7d2a63', '#2147b5', '#23201b', '#c2401f'];
const CELL = 112;
const FRAMES = 9;
/** Points of the method that everybody thinks of first. */
const EVEN_POINTS = 72;

const planOf = (a: string, b: string): ShiftPlan => rankAlternatives(readPathData(a), readPathData(b))[0].plan;
const at = (column: number, inside: string): string =>
  `<g transform="translate(${column * CELL + 6} 6)">${inside}</g>\n`;
const dot = (x: number, y: number, fill: string, r = 2.2): string =>
  `<circle cx="${x.toFixed(1)}" cy="${y.toFixed(1)}" r="${r}" fill="${fill}"/>`;
function write(name: string, columns: number, body: string): void {
  const [width, height] = [columns * CELL, CELL];
  const ground = `<rect width="${width}" height="${height}" fill="#fffdf8"/>`;
  const file = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${1.5 * width}" height="${1.5 * height}">\n${ground}\n${body}</svg>\n`;
  fs.writeFileSync(`docs/morph/${name}.svg`, file);
}

/** An outline with its own points. */
function withPoints(d: string, colour: string): string {
  const dots = readPathData(d).contours.flatMap(({ points }) =>
    Array.from({ length: (points.length - 2) / 6 }, (_, k) => dot(points[6 * k], points[6 * k + 1], INK)),
  );
  return `<path d="${d}" fill="${colour}" fill-opacity="0.25" stroke="${colour}"/>${dots.join('')}`;
}

/** The points of a plan on both outlines, each joined to its partner. */
function joined(a: string, b: string): string {
  const { from, to, contours } = planOf(a, b);
  const parts = contours.flatMap(({ at: begin, segments }) =>
    Array.from({ length: segments }, (_, k) => {
      const i = begin + 6 * k;
      const [x, y, u, v] = [from[i], from[i + 1], to[i] + 2 * CELL, to[i + 1]];
      return `<path d="M${x.toFixed(1)} ${y.toFixed(1)}L${u.toFixed(1)} ${v.toFixed(1)}" stroke="${LINE}" stroke-width="0.5"/>${dot(x, y, INK, 1.6)}${dot(u, v, INK, 1.6)}`;
    }),
  );
  const second = `<g transform="translate(${2 * CELL} 0)"><path d="${b}" fill="${SECOND}" fill-opacity="0.25"/></g>`;
  return at(0, `<path d="${a}" fill="${FIRST}" fill-opacity="0.25"/>${second}${parts.join('')}`);
}

const colourOf = (k: number): string => (k === 0 ? FIRST : k === FRAMES - 1 ? SECOND : INK);
const strip = (pathAt: (progress: number) => string): string =>
  Array.from({ length: FRAMES }, (_, k) => at(k, `<path fill="${colourOf(k)}" d="${pathAt(k / (FRAMES - 1))}"/>`)).join(
    '',
  );

/** Places along a closed contour at even shares of its length, from its first point on. */
function evenPlaces(contour: Contour): [number, number][] {
  const flat = flattenContour(contour, 0.05);
  const count = flat.length / 2;
  const point = (i: number): [number, number] => [flat[2 * (i % count)], flat[2 * (i % count) + 1]];
  const lengths = Array.from({ length: count }, (_, i) => {
    const [[x, y], [u, v]] = [point(i), point(i + 1)];
    return Math.hypot(u - x, v - y);
  });
  const whole = lengths.reduce((sum, length) => sum + length, 0);
  return Array.from({ length: EVEN_POINTS }, (_, k) => {
    let left = (whole * k) / EVEN_POINTS;
    let i = 0;
    while (i < count - 1 && left > lengths[i]) left -= lengths[i++];
    const [[x, y], [u, v]] = [point(i), point(i + 1)];
    const share = lengths[i] > 0 ? left / lengths[i] : 0;
    return [x + (u - x) * share, y + (v - y) * share];
  });
}

/** Even points, the first to the first, as the files have them. */
function plainPath(a: string, b: string): (progress: number) => string {
  const [from, to] = [a, b].map((d) => evenPlaces(readPathData(d).contours[0]));
  return (progress) =>
    `M${from.map(([x, y], k) => [x + (to[k][0] - x) * progress, y + (to[k][1] - y) * progress].map((v) => v.toFixed(1)).join(' ')).join('L')}Z`;
}
const foundPath = (a: string, b: string): ((progress: number) => string) => {
  const plan = planOf(a, b);
  return (progress) => inBetweenPathData(plan, evaluate(plan, progress), 1);
};

fs.mkdirSync('docs/morph', { recursive: true });
write('points', 2, at(0, withPoints(SAIL, FIRST)) + at(1, withPoints(LANTERN, SECOND)));
// The same lantern, drawn from another corner and the other way round: what a file may well have.
write('plain', FRAMES, strip(plainPath(SAIL, 'M32 92H68L78 78V34L62 18V8H38V18L22 34V78Z')));
write('joined', 3, joined(SAIL, LANTERN));
write('found', FRAMES, strip(foundPath(SAIL, LANTERN)));
write('holes', FRAMES, strip(foundPath(BEE, EIGHT)));
