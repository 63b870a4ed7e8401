import { expect, test } from '@jest/globals';
import { titleOfFile } from './file-title';

test('names of files become words, names of shapes stay as they are', () => {
  expect(titleOfFile('ferry-sign_two.SVG', 'Pose')).toBe('ferry sign two');
  expect(titleOfFile('three--dots.json', 'Pose')).toBe('three dots');
  expect(titleOfFile('Five-pointed star', 'Pose')).toBe('Five-pointed star');
});

test('where nothing is left of it, the other name is taken', () => {
  expect([titleOfFile('-.svg', 'Pose'), titleOfFile('.csv', 'Moving piece'), titleOfFile('  ', 'Pose')]).toEqual([
    'Pose',
    'Moving piece',
    'Pose',
  ]);
});
