import { CoreError } from '../errors';
import { contourArea, nestingOf, type Outline, reverseContour } from '../outline';
import { type ContourFit, fitContours } from './contour-pair';
import { pairContours } from './contour-pairs';
import { DIRECTION_CHOICES, type Match, type MatchOptions, type PairMatch, type Reason } from './match';

/**
 * Finds which place of outline `a` becomes which place of outline `b` (both in px, y down): contour pairs, direction, start places and a
 * monotone map along each pair. Neither outline is altered. Every automatic decision comes with its reason.
 *
 * @throws CoreError 'option'
 */
export function matchOutlines(a: Outline, b: Outline, options: MatchOptions = {}): Match {
  const direction = options.direction ?? 'auto';
  if (!DIRECTION_CHOICES.includes(direction)) {
    throw new CoreError(
      'option',
      `Expected options.direction to be one of ${DIRECTION_CHOICES.join(', ')}; found ${String(direction)}.`,
      'options.direction',
    );
  }
  const nestingA = nestingOf(a);
  const nestingB = nestingOf(b);
  const reasons: Reason[] = [];
  const pairs = pairContours(a, nestingA, b, nestingB).map(([ia, ib]): PairMatch => {
    const ca = a.contours[ia];
    const cb = b.contours[ib];
    const bothClosed = ca.closed && cb.closed;
    // Solids are run clockwise, holes the other way, so that the picture stays filled the same way in between.
    const reversedA = ca.closed && contourArea(ca) !== 0 && contourArea(ca) > 0 === nestingA[ia].hole;
    const aligned = cb.closed && contourArea(cb) !== 0 && contourArea(cb) > 0 === nestingB[ib].hole;
    const runA = reversedA ? reverseContour(ca) : ca;
    const fitRun = (reversed: boolean): ContourFit => fitContours(runA, reversed ? reverseContour(cb) : cb);
    if (direction !== 'auto') {
      const reversedB = (direction === 'reversed') !== reversedA;
      reasons.push({
        code: 'direction-own',
        text:
          direction === 'same'
            ? 'Both outlines are run as they are written: your choice.'
            : 'The second outline is run backwards: your choice.',
      });
      return { a: ia, b: ib, reversedA, reversedB, ...fitRun(reversedB) };
    }
    if (bothClosed) {
      reasons.push(
        aligned === reversedA
          ? { code: 'direction-aligned', text: 'Both outlines run the same way round.' }
          : {
              code: 'direction-reversed',
              text: 'The second outline runs the other way round, so it is run backwards.',
            },
      );
      return { a: ia, b: ib, reversedA, reversedB: aligned, ...fitRun(aligned) };
    }
    const forward = fitRun(false);
    const backward = fitRun(true);
    const reversedB = backward.cost < forward.cost * (1 - 1e-9);
    reasons.push({
      code: 'direction-by-cost',
      text: reversedB ? 'The second line fits better backwards.' : 'The second line fits better as it is written.',
    });
    if (ca.closed !== cb.closed)
      reasons.push({ code: 'opened', text: 'A closed contour is cut open at its start point to become a line.' });
    return { a: ia, b: ib, reversedA, reversedB, ...(reversedB ? backward : forward) };
  });
  const deaths = a.contours.map((_, i) => i).filter((i) => !pairs.some((pair) => pair.a === i));
  const births = b.contours.map((_, i) => i).filter((i) => !pairs.some((pair) => pair.b === i));
  if (deaths.length > 0)
    reasons.push({
      code: 'contour-dies',
      text: count(
        deaths.length,
        'contour of the first outline has no partner and shrinks away',
        'contours of the first outline have no partner and shrink away',
      ),
    });
  if (births.length > 0)
    reasons.push({
      code: 'contour-born',
      text: count(
        births.length,
        'contour of the second outline has no partner and grows from a point',
        'contours of the second outline have no partner and grow from points',
      ),
    });
  return { pairs, births, deaths, reasons: unique(reasons) };
}

const count = (n: number, one: string, many: string): string => `${n === 1 ? 'One' : n} ${n === 1 ? one : many}.`;

const unique = (reasons: readonly Reason[]): Reason[] =>
  reasons.filter((reason, i) => reasons.findIndex((other) => other.text === reason.text) === i);
