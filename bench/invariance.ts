import {
  type Alternative,
  evaluate,
  inBetweenOutline,
  type Outline,
  rankAlternatives,
  readPathData,
  transformOutline,
} from '../core/src/index';
import { outlineDistance } from '../core/src/testing/outline-distance';
import { variantsOf } from '../core/src/testing/variants';
import { pairLists } from './pair-lists';

const NEAR = 0.005;

/** The best alternatives of a pair in one line each: how they were scored, how they travel and where they start. */
const listed = (found: readonly Alternative[]): string =>
  found
    .slice(0, 3)
    .map(({ score, match }) => {
      const [pair] = match.pairs;
      if (!pair) return score.toFixed(3);
      const soft = pair.smoothing ? ` softened ${pair.smoothing}` : '';
      return `${score.toFixed(3)} ${pair.method}${soft} ${pair.startA.toFixed(2)}→${pair.startB.toFixed(2)}`;
    })
    .join(' | ');

/** Prints on how many random pairs the frames stay the same when the pair is told otherwise: other start, direction, place, size, order. */
export function printInvariance(seed: number, count: number): void {
  const same = new Map<string, number>();
  const others: string[] = [];
  for (const pair of pairLists(seed, count).single) {
    const [a, b]: [Outline, Outline] = [readPathData(pair.a), readPathData(pair.b)];
    const found = rankAlternatives(a, b);
    const [{ plan }] = found;
    for (const variant of variantsOf(a, b)) {
      const foundHere = rankAlternatives(variant.a, variant.b);
      const other = foundHere[0].plan;
      const near = [0.25, 0.5, 0.75].every((p) => {
        const frame = inBetweenOutline(other, evaluate(other, variant.swapped ? 1 - p : p));
        const apart = outlineDistance(
          transformOutline(frame, variant.back),
          inBetweenOutline(plan, evaluate(plan, p)),
          0.05,
        );
        return apart <= NEAR * plan.size;
      });
      same.set(variant.name, (same.get(variant.name) ?? 0) + (near ? 1 : 0));
      if (!near) others.push(`${pair.name}, ${variant.name}: ${listed(found)}  against  ${listed(foundHere)}`);
    }
  }
  console.log(`\nSame frames (within 0.5 % of the size) on ${count} random pairs, in % (wanted: 95)`);
  for (const [name, n] of same) console.log(`${name.padEnd(20)} ${((100 * n) / count).toFixed(1)}`);
  console.log(
    '\nThe rest, with the best alternatives of the pair as drawn and as told otherwise (score, method, starts):',
  );
  for (const line of others) console.log(line);
}
