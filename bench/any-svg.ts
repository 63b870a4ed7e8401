// Spoils drawings in seeded ways and tells what becomes of them: tsx bench/any-svg.ts [how many] [first seed].
import { CoreError } from '../core/src/index';
import { realIcons } from '../core/src/testing/icons';
import { mutateText } from '../core/src/testing/mutate-text';
import { faultOfArrival, GRADIENT_DRAWING } from '../core/src/testing/probe-svg';

const PATIENCE_MS = 2_000;
const originals = [GRADIENT_DRAWING, ...realIcons(200).map(({ svg }) => svg)];
const count = Number(process.argv[2] ?? 5_000);
const first = Number(process.argv[3] ?? 1);
const tally = { refused: 0, sound: 0, faulty: 0, thrown: 0, slow: 0 };
let longest = 0;
for (let seed = first; seed < first + count; seed++) {
  const text = mutateText(originals[seed % originals.length], seed);
  const started = performance.now();
  try {
    const fault = faultOfArrival(text);
    tally[fault ? 'faulty' : 'sound']++;
    if (fault) console.log(`seed ${seed}: ${fault}`);
  } catch (error) {
    const refused = error instanceof CoreError;
    tally[refused ? 'refused' : 'thrown']++;
    if (!refused) console.log(`seed ${seed}: ${(error as Error).stack?.split('\n').slice(0, 3).join(' ')}`);
  }
  const took = performance.now() - started;
  longest = Math.max(longest, took);
  if (took <= PATIENCE_MS) continue;
  tally.slow++;
  console.log(`seed ${seed}: ${Math.round(took)} ms`);
}
console.log(tally, `longest ${Math.round(longest)} ms`);
