import { describe, expect, test } from '@jest/globals';
import { seededRandom } from '../num';
import { type Outline, transformOutline } from '../outline';
import { readPathData } from '../svg';
import { realIcons } from '../testing/icons';
import { outlineDistance } from '../testing/outline-distance';
import { variantsOf } from '../testing/variants';
import { endOutline } from './end-outline';
import { evaluate } from './evaluate';
import { inBetweenOutline } from './plan-outline';
import { rankAlternatives } from './rank';

const PAIRS = 14;
/** In-betweens of the same pair told otherwise are to be within this share of the size. */
const NEAR = 0.005;

/** Random pairs of real icons with one contour. */
function iconPairs(): [Outline, Outline][] {
  const outlines = realIcons(600, 5)
    .map(({ d }) => readPathData(d))
    .filter(({ contours }) => contours.length === 1);
  const random = seededRandom(31);
  const pick = (): Outline => outlines[Math.floor(random() * outlines.length)];
  return Array.from({ length: PAIRS }, () => [pick(), pick()]);
}

describe(`${PAIRS} random pairs of real icons`, () => {
  const pairs = iconPairs().map(([a, b]) => ({ a, b, alternatives: rankAlternatives(a, b) }));

  test.each(variantsOf(pairs[0].a, pairs[0].b).map(({ name }, i) => [name, i] as const))(
    '%s: at least 95 %% have the same inBetweens',
    (name, i) => {
      const strays: string[] = [];
      pairs.forEach(({ a, b, alternatives }, k) => {
        const [{ plan }] = alternatives;
        const variant = variantsOf(a, b)[i];
        const other = rankAlternatives(variant.a, variant.b)[0].plan;
        const apart = Math.max(
          ...[0.25, 0.5, 0.75].map((p) => {
            const inBetween = inBetweenOutline(other, evaluate(other, variant.swapped ? 1 - p : p));
            return outlineDistance(
              transformOutline(inBetween, variant.back),
              inBetweenOutline(plan, evaluate(plan, p)),
              0.03,
            );
          }),
        );
        if (!(apart <= NEAR * plan.size)) {
          const scores = alternatives.slice(0, 3).map(({ score }) => score.toFixed(3));
          strays.push(
            `pair ${k} by ${((100 * apart) / plan.size).toFixed(1)} %, alternatives scored ${scores.join(', ')}`,
          );
        }
      });
      // Those that stray are listed with the alternatives that tied.
      expect({ name, strays: strays.length <= 0.05 * PAIRS ? [] : strays }).toEqual({ name, strays: [] });
    },
  );

  test('every in-between is finite, also beyond the ends, and the ends are exact', () => {
    for (const { a, b, alternatives } of pairs) {
      for (const { plan } of alternatives) {
        for (let k = -6; k <= 26; k++) expect(evaluate(plan, k / 20).every(Number.isFinite)).toBe(true);
        expect(outlineDistance(endOutline(plan, 'first'), a)).toBeLessThan(0.01);
        expect(outlineDistance(endOutline(plan, 'second'), b)).toBeLessThan(0.01);
      }
    }
  });
});
