import { type PieceDraft, setClosedRail, stopsOf } from '@core';
import { describe, expect, test } from '@jest/globals';
import { itemsIn, layoutRail } from '../../rail/layout';
import { Driver } from '../../testing/driver';
import { pieceOf } from '../../testing/pieces';
import { takeAlternative } from '../match/match-actions';
import { choosingHow, chosenAfter } from './choosing';
import { copiedSvg, pasteCopied } from './pose-actions';
import { chooseOnRail, chosenOnRail, holdChosen, reverseChosen, setChosenShifts } from './rail-actions';

const SQUARE = 'M0 0h40v40h-40z';
const chain = (count: number, closed = false): Driver => {
  const piece = structuredClone(pieceOf(Array.from({ length: count }, () => SQUARE))) as PieceDraft;
  let n = 0;
  if (closed) setClosedRail(piece, 'f', true, (prefix) => `back-${prefix}${++n}`);
  return new Driver(piece);
};
const chosen = (driver: Driver): string => {
  const choice = chosenOnRail(driver.store);
  const rail = driver.piece.figures.f.rail;
  return `${choice?.stops.join(' ') ?? ''} | ${choice?.shifts.map((id) => rail.indexOf(id)).join(' ') ?? ''}`;
};
const stop = (at: number) => ({ kind: 'stop', stop: at }) as const;
const shift = (driver: Driver, at: number) => ({ kind: 'shift', shiftId: driver.piece.figures.f.rail[at] }) as const;
const names = ({ piece }: Driver): string =>
  stopsOf(piece, piece.figures.f)
    .map((id) => piece.poses[id].name.replace('Pose ', ''))
    .join(' ');

describe('choosing on the rail', () => {
  test('⇧ takes all of a kind between two, or everything between a pose and a shift; Ctrl single ones', () => {
    const driver = chain(5);
    const choose = (item: Parameters<typeof chooseOnRail>[2], how: Parameters<typeof chooseOnRail>[3]): string => {
      chooseOnRail(driver.store, 'f', item, how);
      return chosen(driver);
    };
    expect(choose(stop(3), 'alone')).toBe('3 | ');
    expect(choose(stop(1), 'range')).toBe('1 2 3 | ');
    // A range goes on from where it began.
    expect(choose(stop(4), 'range')).toBe('3 4 | ');
    expect(choose(shift(driver, 1), 'range')).toBe('2 3 | 1 2');
    expect(choose(stop(0), 'more')).toBe('0 2 3 | 1 2');
    expect(choose(shift(driver, 1), 'more')).toBe('0 2 3 | 2');
    // The one it began with can be taken out too.
    expect(choose(stop(3), 'more')).toBe('0 2 | 2');
    expect(choose(shift(driver, 3), 'alone')).toBe(' | 3');
    expect(choose(shift(driver, 0), 'range')).toBe(' | 0 1 2 3');
    expect(choosingHow({ ctrlKey: false, metaKey: true, shiftKey: false })).toBe('more');
    expect(choosingHow({ ctrlKey: true, metaKey: false, shiftKey: true })).toBe('range');
  });

  test('in a list ⇧ takes a range from the first one chosen, Ctrl single ones', () => {
    const list = ['a', 'b', 'c', 'd', 'e'];
    expect(chosenAfter(list, ['d'], 'b', 'range')).toEqual(['d', 'b', 'c']);
    expect(chosenAfter(list, ['d', 'b', 'c'], 'e', 'range')).toEqual(['d', 'e']);
    expect(chosenAfter(list, ['d', 'e'], 'a', 'more')).toEqual(['d', 'e', 'a']);
    expect(chosenAfter(list, ['d', 'e', 'a'], 'e', 'more')).toEqual(['d', 'a']);
    expect(chosenAfter(list, [], 'c', 'range')).toEqual(['c']);
    expect(chosenAfter(list, ['a', 'b'], 'c', 'alone')).toEqual(['c']);
  });

  test('a box takes what it touches', () => {
    const { piece } = chain(3);
    const layout = layoutRail(piece, piece.figures.f, 1000, 3.6);
    const [a, b] = layout.bars;
    expect(itemsIn(layout, b.cardX + 60, 20, a.cardX + 20, 0)).toEqual([stop(0), stop(1)]);
    const between = { kind: 'shift', shiftId: layout.arcs[0].shiftId } as const;
    expect(itemsIn(layout, layout.arcs[0].x0 + 4, 60, layout.arcs[0].x1 - 4, 100)).toEqual([between]);
    expect(itemsIn(layout, 0, 0, 1000, 130)).toHaveLength(5);
    expect(itemsIn(layout, 0, 0, 2, 2)).toEqual([]);
  });

  test('what is not there any more is not chosen', () => {
    const driver = chain(3);
    chooseOnRail(driver.store, 'f', stop(1), 'alone');
    chooseOnRail(driver.store, 'f', stop(2), 'more');
    driver.run('remove');
    expect([names(driver), chosen(driver)]).toEqual(['1', ' | ']);
    driver.run('undo');
    expect(names(driver)).toBe('1 2 3');
  });
});

describe('what is chosen on the rail', () => {
  const threeOfFive = (): Driver => {
    const driver = chain(5);
    chooseOnRail(driver.store, 'f', stop(1), 'alone');
    chooseOnRail(driver.store, 'f', stop(3), 'range');
    return driver;
  };

  test('is held so long, as one step', () => {
    const driver = threeOfFive();
    holdChosen(driver.store, 0.25);
    const { piece } = driver;
    expect(piece.figures.f.poses.map((id) => piece.poses[id].hold)).toEqual([0.8, 0.25, 0.25, 0.25, 0.8]);
    expect(driver.history).toEqual(['Hold 3 poses 0.25 s']);
  });

  test('gets a duration, an easing and a method, each as one step', () => {
    const driver = chain(4);
    chooseOnRail(driver.store, 'f', shift(driver, 0), 'alone');
    chooseOnRail(driver.store, 'f', shift(driver, 2), 'more');
    setChosenShifts(driver.store, 'Duration 0.2 s', { duration: 0.2 });
    setChosenShifts(driver.store, 'Ease', { easing: { kind: 'linear' } });
    setChosenShifts(driver.store, 'Method', { method: 'turning' });
    const { piece } = driver;
    const of = (at: number) => {
      const { duration, easing, method } = piece.shifts[piece.figures.f.rail[at]];
      return [duration, easing.kind, method];
    };
    expect([of(0), of(1), of(2)]).toEqual([
      [0.2, 'linear', 'turning'],
      [0.6, 'cubic-bezier', 'auto'],
      [0.2, 'linear', 'turning'],
    ]);
    expect(driver.history).toEqual(['Duration 0.2 s, 2 shifts', 'Ease, 2 shifts', 'Method, 2 shifts']);
    // An alternative that was taken goes its way at any pace, but not by another method.
    const { shiftId } = shift(driver, 0);
    const choice = { method: 'straight' as const, smoothing: 0, starts: [], taken: { look: [0, 0], pairs: [] } };
    takeAlternative(driver.store, shiftId, choice);
    setChosenShifts(driver.store, 'Duration 0.3 s', { duration: 0.3 });
    expect(driver.piece.shifts[shiftId].match.taken).toEqual(choice.taken);
    setChosenShifts(driver.store, 'Method', { method: 'blended' });
    expect(driver.piece.shifts[shiftId].match.taken).toBeNull();
  });

  test('is duplicated as a row with its shifts, which is chosen then', () => {
    const driver = threeOfFive();
    const between = driver.piece.figures.f.rail[1];
    chooseOnRail(driver.store, 'f', { kind: 'shift', shiftId: between }, 'more');
    setChosenShifts(driver.store, 'Duration', { duration: 1.7 });
    driver.run('duplicate');
    expect(names(driver)).toBe('1 2 3 4 2 copy 3 copy 4 copy 5');
    expect(chosen(driver)).toBe('4 5 6 | ');
    const { piece } = driver;
    expect(piece.figures.f.rail.map((id) => piece.shifts[id].duration)).toEqual([0.6, 1.7, 0.6, 0.6, 1.7, 0.6, 0.6]);
  });

  test('is copied and pasted with its timing; for others the poses stand side by side', () => {
    const driver = threeOfFive();
    chooseOnRail(driver.store, 'f', shift(driver, 2), 'more');
    setChosenShifts(driver.store, 'Duration', { duration: 1.3 });
    const copied = copiedSvg(driver.store, 0);
    expect(copied?.svg.match(/<path/g)).toHaveLength(3);
    const [, , width, height] = (/viewBox="([^"]+)"/.exec(copied?.svg ?? '')?.[1] ?? '').split(' ').map(Number);
    expect(width / height).toBeGreaterThan(2.5);
    const other = chain(1);
    expect(pasteCopied(other.store, copied?.json ?? '', 0)).toBe(true);
    expect(names(other)).toBe('1 2 copy 3 copy 4 copy');
    expect(other.piece.figures.f.rail.map((id) => other.piece.shifts[id].duration)).toEqual([0.6, 0.6, 1.3]);
    // Shifts that make no sense make no piece.
    const spoiled = (copied?.json ?? '').replace('"duration":1.3', '"duration":-5');
    expect([spoiled === copied?.json, pasteCopied(other.store, spoiled, 0)]).toEqual([false, false]);
  });

  test('is run the other way, and the same poses stay chosen', () => {
    const driver = threeOfFive();
    reverseChosen(driver.store);
    expect([names(driver), chosen(driver), driver.history]).toEqual(['1 4 3 2 5', '1 2 3 | ', ['Reverse 3 poses']]);
    driver.run('undo');
    expect(names(driver)).toBe('1 2 3 4 5');
  });

  test('of a closed rail the return is its first pose', () => {
    const driver = chain(3, true);
    chooseOnRail(driver.store, 'f', stop(3), 'alone');
    chooseOnRail(driver.store, 'f', stop(0), 'more');
    driver.run('duplicate');
    expect(names(driver)).toBe('1 1 copy 2 3 1');
  });
});
