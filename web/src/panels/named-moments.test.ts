import { LIMITS } from '@core';
import { expect, test } from '@jest/globals';
import { pieceOf } from '../testing/pieces';
import { END, LATEST, namedMoments, START } from './named-moments';

const piece = pieceOf(['M0 0H9V9Z', 'M0 0H9V5Z', 'M0 0H5V9Z']);
const figure = Object.values(piece.figures)[0];
const { options, momentAt, nameOf } = namedMoments(piece, figure);

test('the beginning, each stop by its number and name, and the end are offered', () => {
  expect(options.map(({ value }) => value)).toEqual([START, '0', '1', '2', END]);
  const [, first] = options;
  expect(first.label).toBe(`1: ${Object.values(piece.poses)[0].name}`);
});

test('what is chosen is found again by its name', () => {
  for (const { value } of options) expect(nameOf(momentAt(value))).toBe(value);
  expect(momentAt('1')).toEqual({
    at: { figure: figure.id, stop: { pose: figure.poses[1], shift: figure.rail[0] } },
    after: 0,
  });
});

test('the end is later than any piece lasts; a moment of a stop that is gone counts as the beginning', () => {
  expect(LATEST).toBe(LIMITS.offset.max);
  expect(momentAt(END)).toEqual({ at: null, after: LATEST });
  expect(nameOf({ at: { figure: figure.id, stop: { pose: 'gone', shift: null } }, after: 0 })).toBe(START);
});

test('without a figure there are the beginning and the end', () => {
  const none = namedMoments(piece, undefined);
  expect(none.options.map(({ value }) => value)).toEqual([START, END]);
  expect(none.momentAt('1')).toEqual({ at: null, after: 0 });
});
