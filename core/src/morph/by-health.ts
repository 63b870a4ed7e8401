import type { Alternative } from './alternative';
import { evaluate } from './evaluate';
import { type Health, VERDICTS } from './health-figures';

/** An alternative scored worse than the best by less than this may stand before it where it is fuller. */
const NEARLY_AS_GOOD = 0.25;

type HealthOf = (alternative: Alternative) => Health;
const rankOf = ({ verdict }: Health): number => VERDICTS.indexOf(verdict);

/**
 * Alternatives of which the first is sound, best score first; before it stands the one, of those that are nearly as good, of which least is to be said, then the
 * fuller one.
 */
export function fullestFirst(found: readonly Alternative[], healthOf: HealthOf): Alternative[] {
  const [first] = found;
  const [{ each: fullest }] = found
    .filter(({ score }) => score < first.score + NEARLY_AS_GOOD)
    .map((each) => ({ each, health: healthOf(each) }))
    .filter(({ health }) => health.sound)
    .sort((p, q) => rankOf(p.health) - rankOf(q.health) || q.health.areaDip - p.health.areaDip);
  return [fullest, ...found.filter((each) => each !== fullest)];
}

/** Alternatives with whether they are sound: sound ones first, of equal health in their order. Beyond `few` they are looked at only until one is sound. */
export function soundFirst(
  found: readonly Alternative[],
  few: number,
  healthOf: HealthOf,
): [alternative: Alternative, sound: boolean][] {
  const healths: [Alternative, Health][] = [];
  const seen = new Set<string>();
  for (const each of found) {
    if (healths.length >= few && healths.some(([, { sound }]) => sound)) break;
    const halfWay = String(evaluate(each.plan, 0.5));
    // Found twice, by different thoughts.
    if (seen.has(halfWay)) continue;
    seen.add(halfWay);
    healths.push([each, healthOf(each)]);
  }
  const rank = (health: Health): number => (health.sound ? 0 : 1 + rankOf(health));
  return healths.sort(([, p], [, q]) => rank(p) - rank(q)).map(([each, { sound }]) => [each, sound]);
}
