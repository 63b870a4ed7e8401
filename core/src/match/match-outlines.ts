import { CoreError } from '../errors';
import type { Outline } from '../outline';
import { DIRECTION_CHOICES, type DirectionChoice, type Joining, type Match, type MatchOptions } from './match';
import { Matcher } from './matcher';
import { type Pairing, pairingsOf } from './pairings';
import { reasonsFor } from './reasons';
import { UNPAIRED_ORDERS } from './unpaired-order';

/**
 * Finds which place of outline `a` becomes which place of outline `b` (both in px, y down): contour pairs, direction, start places and a
 * monotone map along each pair, by what they cost. Neither outline is altered. Every automatic decision comes with its reason. What the
 * in-betweens look like is not asked here; `rankAlternatives` does that.
 *
 * @throws CoreError 'option'
 */
export function matchOutlines(a: Outline, b: Outline, options: MatchOptions = {}): Match {
  const matcher = prepareMatcher(a, b, options);
  const pairings = pairingsOf(matcher);
  // The last one of the best assignment joins and cuts nothing.
  return cheapestMatch(
    matcher,
    pairings.find((pairing) => pairing.slots.every(([{ joiningA, joiningB }]) => plain(joiningA) && plain(joiningB))) ??
      pairings[0],
  );
}

const plain = (joining: Joining | undefined): boolean => !joining?.slits && !joining?.cut;

/** @throws CoreError 'option' */
export function prepareMatcher(a: Outline, b: Outline, options: MatchOptions): Matcher {
  const checkDirection = (direction: DirectionChoice, where: string): void => {
    if (DIRECTION_CHOICES.includes(direction)) return;
    throw new CoreError(
      'option',
      `Expected ${where} to be one of ${DIRECTION_CHOICES.join(', ')}; found ${String(direction)}.`,
      where,
    );
  };
  checkDirection(options.direction ?? 'auto', 'options.direction');
  options.directions?.forEach(({ direction }, i) => checkDirection(direction, `options.directions[${i}].direction`));
  if (options.unpairedOrder !== undefined && !UNPAIRED_ORDERS.includes(options.unpairedOrder))
    throw new CoreError(
      'option',
      `Expected options.unpairedOrder to be one of ${UNPAIRED_ORDERS.join(', ')}; found ${String(options.unpairedOrder)}.`,
      'options.unpairedOrder',
    );
  for (const [name, count] of [
    ['starts', options.starts],
    ['ties', options.ties],
  ] as const) {
    count?.forEach(({ contourA, contourB, shareA, shareB }, i) => {
      const known = contourA in a.contours && contourB in b.contours;
      if (known && shareA >= 0 && shareA <= 1 && shareB >= 0 && shareB <= 1) return;
      throw new CoreError(
        'option',
        `Expected options.${name}[${i}] to name contours of both outlines and shares from 0 to 1; found contours ${contourA}, ${contourB} and shares ${shareA}, ${shareB}.`,
        `options.${name}[${i}]`,
      );
    });
  }
  return new Matcher(a, b, options);
}

/** The directions in which unpaired contours are wiped, as the options say; undefined where none is. */
export function wipesOf(
  { wipes }: MatchOptions,
  unpairedB: readonly number[],
  unpairedA: readonly number[],
): Match['wipes'] {
  if (!wipes || wipes.length === 0) return undefined;
  const angle = (side: 'a' | 'b', contour: number): number | undefined =>
    wipes.find((wipe) => wipe.side === side && wipe.contour === contour)?.angle;
  return { unpairedB: unpairedB.map((j) => angle('b', j)), unpairedA: unpairedA.map((i) => angle('a', i)) };
}

function cheapestMatch(matcher: Matcher, pairing: Pairing): Match {
  const pairs = pairing.slots.map(([spec]) => matcher.fits(spec)[0]);
  const { unpairedB, unpairedA } = pairing;
  const { even, touchUps } = matcher.options;
  const wipes = wipesOf(matcher.options, unpairedB, unpairedA);
  return {
    pairs,
    unpairedB,
    unpairedA,
    wipes,
    even,
    touchUps,
    reasons: reasonsFor(matcher, pairs, unpairedB, unpairedA),
  };
}
