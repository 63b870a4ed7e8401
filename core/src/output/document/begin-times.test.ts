import { describe, expect, test } from '@jest/globals';
import { readBegins, runsOfAnimations } from './begin-times';

const seconds = (text: string): number | null => (/^-?[\d.]+s$/.test(text.trim()) ? Number.parseFloat(text) : null);
const animation = (id: string, begin: string | undefined, lasts: number) => ({
  id,
  begins: readBegins(begin, seconds),
  lasts,
});

describe('when animations begin (SVG Animations 2, 2.4)', () => {
  test('a list of times, and of other animations’ beginnings and ends; people’s events are left out', () => {
    expect(readBegins(undefined, seconds)).toEqual([{ at: 0 }]);
    expect(readBegins('0s; a.end+0.5s;b.begin - 1s; click', seconds)).toEqual([
      { at: 0 },
      { of: 'a', edge: 'end', after: 0.5 },
      { of: 'b', edge: 'begin', after: -1 },
    ]);
  });
  test('one after another, round and round', () => {
    const runs = runsOfAnimations([
      animation('a', '0s;c.end', 1),
      animation('b', 'a.end', 0.5),
      animation('c', 'b.end+0.25s', 0.25),
    ]);
    expect(runs).toEqual([
      { begin: 0, period: 2, irregular: false },
      { begin: 1, period: 2, irregular: false },
      { begin: 1.75, period: 2, irregular: false },
    ]);
  });
  test('what begins once has no period, what waits for an event or for something endless never begins', () => {
    const [first, event, after] = runsOfAnimations([
      animation('a', '0.3s', Number.POSITIVE_INFINITY),
      animation('b', 'click', 1),
      animation('c', 'a.end', 1),
    ]);
    expect(first).toEqual({ begin: 0.3, period: null, irregular: false });
    expect([event, after]).toEqual([null, null]);
  });
  test('no regular times are told', () => {
    const [run] = runsOfAnimations([animation('a', '0s;1s;3s', 0.2)]);
    expect(run).toMatchObject({ begin: 0, irregular: true });
  });
  test('two that set each other off at once come to an end', () => {
    const runs = runsOfAnimations([animation('a', '0s;b.begin', 1), animation('b', 'a.begin', 1)]);
    expect(runs.map((run) => run?.begin)).toEqual([0, 0]);
  });
});
