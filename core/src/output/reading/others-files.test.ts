import fs from 'node:fs';
import { expect, test } from '@jest/globals';
import { countedIds } from '../../testing/pieces';
import { readMovingFile } from './moving-file';

/**
 * Files of the tests of lottie-web 5, a player that is not ours: what comes in whole is held against that player's frames in a browser test; of the others it is said
 * by name what is missing, or they are refused.
 */
const FOLDER = `${__dirname}/../../../../node_modules/lottie-web/test/animations`;
const outcomeOf = (name: string): string => {
  try {
    const text = fs.readFileSync(`${FOLDER}/${name}.json`, 'utf8');
    return readMovingFile(text, { id: 'f', name, newId: countedIds() }).notes.join(' ');
  } catch (error) {
    return (error as Error).message;
  }
};

test.each([
  ['adrock', 'A “merging” of shapes was left out.'],
  ['banner', 'Text was left out'],
  ['lights', '20 values are worked out by an expression'],
  ['starfish', '26 values are worked out by an expression'],
  ['footage/data', 'Pictures were left out.'],
  ['ripple', '6 values are worked out by an expression'],
  ['dalek', 'too many keys, copies, clips or style rules'],
])('a file by another program comes in, with what is missing by name, or is refused: %s', (name, said) => {
  expect(outcomeOf(name)).toContain(said);
});
