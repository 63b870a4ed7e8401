// How matching grows with contours and points: tsx bench/many-contours.ts [counts]. Times are of one run; what counts is how they grow.
import { matchOutlines, measureHealth, planShift, rankAlternatives, readPathData } from '../core/src/index';
import { seededRandom } from '../core/src/num';

/** Loose blobs of six corners on a grid. */
function blobs(count: number, seed: number) {
  const random = seededRandom(seed);
  const columns = Math.ceil(Math.sqrt(count));
  const corner = (i: number, x: number, y: number): string => {
    const [angle, r] = [(i * Math.PI) / 3, 7 * (0.7 + 0.3 * random())];
    return `${i > 0 ? 'L' : 'M'}${(x + r * Math.cos(angle)).toFixed(2)} ${(y + r * Math.sin(angle)).toFixed(2)}`;
  };
  const one = (k: number): string => {
    const [x, y] = [20 * (k % columns) + 8 * random(), 20 * Math.floor(k / columns) + 8 * random()];
    return `${Array.from({ length: 6 }, (_, i) => corner(i, x, y)).join('')}Z`;
  };
  return readPathData(Array.from({ length: count }, (_, k) => one(k)).join(''));
}

function star(points: number) {
  const corner = (k: number): string => {
    const [angle, r] = [(k * Math.PI) / points, k % 2 ? 60 : 100];
    return `${k > 0 ? 'L' : 'M'}${(r * Math.cos(angle)).toFixed(4)} ${(r * Math.sin(angle)).toFixed(4)}`;
  };
  return readPathData(`${Array.from({ length: 2 * points }, (_, k) => corner(k)).join('')}Z`);
}

function print(name: string, a: ReturnType<typeof star>, b: ReturnType<typeof star>): void {
  const began = performance.now();
  rankAlternatives(a, b);
  const started = performance.now();
  const match = matchOutlines(a, b, {});
  const matched = performance.now();
  const plan = planShift(a, b, match);
  const planned = performance.now();
  measureHealth(plan);
  const measured = performance.now();
  const ms = (v: number): string => `${Math.round(v)} ms`.padStart(9);
  console.log(
    `${name.padEnd(36)} match ${ms(matched - started)}, plan ${ms(planned - matched)}, health ${ms(measured - planned)}; ranked ${ms(started - began)}; memory up to ${Math.round(process.resourceUsage().maxRSS / 1024)} MB`,
  );
}

const counts = (process.argv[2] ?? '25,50,100,200,1000').split(',').map(Number);
for (const count of counts) print(`${count} against ${count} contours`, blobs(count, 1), blobs(count, 2));
const circle = readPathData('M100 0A100 100 0 0 1 -100 0A100 100 0 0 1 100 0Z');
for (const points of [250, 1_000, 2_500]) print(`a star of ${2 * points} points and a circle`, star(points), circle);
print('1000 contours and a circle', blobs(1_000, 3), circle);
