import { describe, expect, test } from '@jest/globals';
import { readAnimatedDocument } from '../document/animated-document';
import { timelineOf } from './timeline';

function timeline(...animations: string[]) {
  const notes: string[] = [];
  const { root } = readAnimatedDocument(
    `<svg xmlns="http://www.w3.org/2000/svg">${animations.map((each) => `<circle r="2"><animate attributeName="r" values="1;2" ${each}/></circle>`).join('')}</svg>`,
  );
  return { ...timelineOf(root, (text) => void notes.push(text)), notes };
}
const again = 'repeatCount="indefinite"';

describe('how long a drawing plays', () => {
  test('once until the last of it has ended, again and again where all repeat', () => {
    expect(timeline('dur="1s" fill="freeze"', 'begin="2s" dur="0.5s" fill="freeze"')).toMatchObject({
      duration: 2.5,
      playback: 'once',
    });
    expect(timeline(`dur="2s" ${again}`)).toMatchObject({ duration: 2, once: 0, playback: 'loop' });
  });
  test('different periods meet after their least common multiple; some never do within reason', () => {
    expect(timeline(`dur="1s" ${again}`, `dur="1.5s" ${again}`)).toMatchObject({ duration: 3, notes: [] });
    const { duration, notes } = timeline(`dur="61.3s" ${again}`, `dur="7.1s" ${again}`);
    expect([duration, notes.length]).toEqual([61.3, 1]);
  });
  test('what repeats after something else has happened is a stretch', () => {
    expect(timeline('dur="1s" fill="freeze"', `begin="0.4s" dur="2s" ${again}`)).toMatchObject({
      once: 1,
      again: 2,
      duration: 3,
      playback: 'stretch',
    });
  });
  test('what began before the beginning has no first time', () => {
    expect(timeline(`begin="-0.7s" dur="2s" ${again}`)).toMatchObject({ once: 0, duration: 2, playback: 'loop' });
  });
});
