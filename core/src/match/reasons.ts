import type { PairMatch, Reason } from './match';
import { directionOf, type Matcher } from './matcher';

/** One sentence for each decision about a match, without repetition. */
export function reasonsFor(
  { a, b, options }: Matcher,
  pairs: readonly PairMatch[],
  unpairedB: readonly number[],
  unpairedA: readonly number[],
): Reason[] {
  const reasons: Reason[] = [];
  const add = (code: Reason['code'], text: string): void => {
    if (!reasons.some((reason) => reason.text === text)) reasons.push({ code, text });
  };
  for (const pair of pairs) {
    const ca = a.contours[pair.a];
    const cb = b.contours[pair.b];
    const mine = (p: { contourA: number; contourB: number }): boolean => p.contourA === pair.a && p.contourB === pair.b;
    const direction = directionOf(options, pair.a);
    if (direction === 'same') add('direction-own', 'Both outlines are run as they are written: your choice.');
    else if (direction === 'reversed') add('direction-own', 'The second outline is run backwards: your choice.');
    else if (ca.closed && cb.closed) {
      if (pair.reversedA === pair.reversedB) add('direction-aligned', 'Both outlines run the same way round.');
      else add('direction-reversed', 'The second outline runs the other way round, so it is run backwards.');
    } else if (pair.reversedB) add('direction-by-cost', 'The second line fits better backwards.');
    else add('direction-by-cost', 'The second line fits better as it is written.');
    if (pair.joiningA?.chord || pair.joiningB?.chord)
      add('closed-by-chord', 'An open line is closed by its chord: your choice.');
    else if (ca.closed !== cb.closed)
      add('opened', 'A closed contour is cut open at its start point to become a line.');
    if (pair.unmet)
      add(
        'choice-lost',
        'The start point and ties that you set contradict each other: the match is made without them.',
      );
    else if (options.starts?.some(mine)) add('start-own', 'The start points are your choice.');
    if (!pair.unmet && options.ties?.some(mine)) {
      const n = options.ties.filter(mine).length;
      add('ties-own', `The match passes through ${n === 1 ? 'the tie' : `${n} ties`} that you set.`);
    }
    if (pair.byOrigin)
      add('origins', 'Points that were copied from the first outline go back to where they came from.');
    if (pair.joiningA?.slits || pair.joiningB?.slits)
      add('slit', 'An unpaired hole opens and closes through a slit to its outline.');
    if (pair.joiningA?.cut || pair.joiningB?.cut)
      add(
        'cut',
        (pair.joiningA?.cut ? options.cuts?.a : options.cuts?.b)?.length
          ? 'A solid is cut along the line that you drew.'
          : 'A solid is cut into several along a straight line.',
      );
  }
  if (options.even) add('even', `Each contour has ${options.even} evenly set points: your choice.`);
  if (options.touchUps?.length) {
    const n = options.touchUps.length;
    add('touched-up', `${n === 1 ? 'One touch-up corrects' : `${n} touch-ups correct`} the in-between.`);
  }
  if (options.pairs?.length) add('pairs-own', 'Some contours are paired, or left alone, as you said.');
  for (const [side, cuts] of [
    ['joiningA', options.cuts?.a],
    ['joiningB', options.cuts?.b],
  ] as const) {
    const used = Math.max(0, ...pairs.map((pair) => (pair[side]?.cut?.lines[0] === cuts?.[0] ? 1 : 0)));
    if (cuts?.length && used === 0)
      add(
        'choice-lost',
        `The line drawn across the ${side === 'joiningA' ? 'first' : 'second'} outline cuts nothing: it gives other parts than there are solids on the other side.`,
      );
  }
  const wiped = (options.wipes ?? []).filter(({ side, contour }) =>
    (side === 'a' ? unpairedA : unpairedB).includes(contour),
  );
  if (wiped.length > 0)
    add(
      'wiped',
      counted(wiped.length, 'unpaired contour is wiped: your choice', 'unpaired contours are wiped: your choice'),
    );
  const growing = unpairedB.length - wiped.filter(({ side }) => side === 'b').length;
  const shrinking = unpairedA.length - wiped.filter(({ side }) => side === 'a').length;
  if (shrinking > 0)
    add(
      'contour-dies',
      counted(
        shrinking,
        'contour of the first outline has no partner and shrinks away',
        'contours of the first outline have no partner and shrink away',
      ),
    );
  if (growing > 0)
    add(
      'contour-born',
      counted(
        growing,
        'contour of the second outline has no partner and grows from a point',
        'contours of the second outline have no partner and grow from points',
      ),
    );
  return reasons;
}

const counted = (n: number, one: string, many: string): string => `${n === 1 ? 'One' : n} ${n === 1 ? one : many}.`;
