// Spoils piece files in seeded ways and tells what becomes of them: tsx bench/any-piece.ts [how many] [first seed].
import { CoreError, checkPiece, type Piece } from '../core/src/index';
import { mutateJson } from '../core/src/testing/mutate-json';
import { badNumberOf } from '../core/src/testing/probe-piece';
import { boardingButton } from '../server/src/demo/boarding-button';
import { gate } from '../server/src/demo/gate';
import { pierLetters } from '../server/src/demo/pier-letters';
import { quayMark } from '../server/src/demo/quay-mark';
import { tideGauge } from '../server/src/demo/tide-gauge';

const MAKERS = [gate, boardingButton, quayMark, tideGauge, pierLetters];
/** Longer than this, and three times as long as the piece takes unspoiled, is slow. */
const PATIENCE_MS = 2_000;
const PATIENCE_TIMES = 3;

const usual = MAKERS.map((make) => {
  const started = performance.now();
  badNumberOf(make());
  return performance.now() - started;
});
const count = Number(process.argv[2] ?? 1_000);
const first = Number(process.argv[3] ?? 1);
const tally = { refused: 0, sound: 0, thrown: 0, notFinite: 0, changed: 0, slow: 0 };
for (let seed = first; seed < first + count; seed++) {
  const original = MAKERS[seed % MAKERS.length]();
  const spoiled = mutateJson(original, seed);
  const started = performance.now();
  const say = (what: keyof typeof tally, why = ''): void => {
    tally[what]++;
    if (what !== 'refused' && what !== 'sound') console.log(`seed ${seed} (${original.name}): ${what} ${why}`);
  };
  let piece: Piece;
  try {
    piece = checkPiece(spoiled);
  } catch (error) {
    if (error instanceof CoreError) say('refused');
    else say('thrown', `while checking: ${(error as Error).stack?.split('\n').slice(0, 3).join(' ')}`);
    continue;
  }
  const text = JSON.stringify(piece);
  try {
    const bad = badNumberOf(piece);
    if (bad) say('notFinite', bad);
    else if (JSON.stringify(checkPiece(JSON.parse(text))) !== text) say('changed');
    else say('sound');
  } catch (error) {
    say('thrown', (error as Error).stack?.split('\n').slice(0, 4).join(' '));
  }
  const took = performance.now() - started;
  if (took > Math.max(PATIENCE_MS, PATIENCE_TIMES * usual[seed % MAKERS.length])) say('slow', `${Math.round(took)} ms`);
}
console.log(tally);
