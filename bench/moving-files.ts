// Reading files that move. `tsx bench/moving-files.ts examples [words]`: how long each form of each example takes, and how much larger what comes back is.
// `tsx bench/moving-files.ts spoiled [how many] [first seed]`: spoils such files in seeded ways and tells what becomes of them.
import {
  CoreError,
  checkPiece,
  makeTextFiles,
  movingFileOf,
  type Piece,
  planAndCompile,
  readMovingFile,
  TEXT_FORMS,
} from '../core/src/index';
import { mutateJson } from '../core/src/testing/mutate-json';
import { mutateText } from '../core/src/testing/mutate-text';
import { badNumberOf } from '../core/src/testing/probe-piece';
import { boardingButton } from '../server/src/demo/boarding-button';
import { gate } from '../server/src/demo/gate';
import { DEMO_PIECES } from '../server/src/demo/pieces';
import { quayMark } from '../server/src/demo/quay-mark';
import { tideGauge } from '../server/src/demo/tide-gauge';

/** A file that takes longer than this to be read or refused is slow: CPU time, s. */
const PATIENCE_S = 2;
/** Of so many that were read, the frames of one are looked at. */
const PLAYED = 10;

interface NamedFile {
  readonly name: string;
  readonly text: string;
}

function filesOf(piece: Piece, options: Readonly<Record<string, string>>[]): NamedFile[] {
  const source = { piece, compiled: planAndCompile(piece) };
  return TEXT_FORMS.flatMap((form) =>
    options.flatMap((each) => {
      const accepted = Object.fromEntries(
        Object.entries(each).filter(([name]) => form.fields.some(({ key }) => key === name)),
      );
      try {
        const [{ text }] = makeTextFiles(form, source, accepted);
        return movingFileOf(text) ? [{ name: `${piece.name}, ${form.id} ${accepted.format ?? ''}`, text }] : [];
      } catch (error) {
        if (error instanceof CoreError) return [];
        throw error;
      }
    }),
  );
}

function cpuSeconds(work: () => void): number {
  const before = process.cpuUsage();
  work();
  const { user, system } = process.cpuUsage(before);
  return (user + system) / 1e6;
}

function read(text: string): Piece {
  let n = 0;
  return readMovingFile(text, { id: 'r', name: 'Read', newId: (prefix) => `${prefix}${++n}` }).piece;
}

function printExamples(words: string): void {
  for (const make of DEMO_PIECES) {
    const piece = checkPiece(make());
    for (const { name, text } of filesOf(piece, [{}])) {
      if (!name.includes(words)) continue;
      let outcome = '';
      const seconds = cpuSeconds(() => {
        try {
          const back = read(text);
          const [figures, poses] = [back, piece].map((each) => [
            Object.keys(each.figures).length,
            Object.keys(each.poses).length,
          ]);
          outcome = `figures ${figures[0]} of ${poses[0]}, poses ${figures[1]} of ${poses[1]}, ${(JSON.stringify(back).length / JSON.stringify(piece).length).toFixed(1)} times the piece`;
        } catch (error) {
          outcome = (error as Error).message;
        }
      });
      console.log(
        `${name.padEnd(32)} ${(text.length / 1000).toFixed(0).padStart(6)} kB ${seconds.toFixed(2).padStart(6)} s: ${outcome}`,
      );
    }
  }
}

function printSpoiled(count: number, first: number): void {
  const options: Readonly<Record<string, string>>[] = [{ fps: '6' }, { fps: '6', format: 'csv' }];
  const files = [gate, boardingButton, quayMark, tideGauge].flatMap((make) => filesOf(checkPiece(make()), options));
  const tally = { refused: 0, sound: 0, thrown: 0, notFinite: 0, notStorable: 0, slow: 0 };
  let longest = 0;
  for (let seed = first; seed < first + count; seed++) {
    const { name, text } = files[seed % files.length];
    const asJson = text.startsWith('{') && seed % 2 === 0;
    const spoiled = asJson ? JSON.stringify(mutateJson(JSON.parse(text), seed)) : mutateText(text, seed);
    const say = (what: keyof typeof tally, why: string): void => {
      tally[what]++;
      console.log(`seed ${seed} (${name}): ${what} ${why}`);
    };
    let piece: Piece | undefined;
    let failure: unknown;
    const reading = (): void => {
      try {
        piece = read(spoiled);
      } catch (error) {
        failure = error;
      }
    };
    let seconds = cpuSeconds(reading);
    // Work is the same each time: what is more than the least of three is the machine's, not the file's.
    for (let again = 0; again < 2 && seconds > PATIENCE_S; again++) seconds = Math.min(seconds, cpuSeconds(reading));
    if (failure instanceof CoreError) tally.refused++;
    else if (failure) say('thrown', (failure as Error).stack?.split('\n').slice(0, 4).join(' ') ?? '');
    longest = Math.max(longest, seconds);
    if (seconds > PATIENCE_S) say('slow', `${seconds.toFixed(1)} s`);
    if (!piece) continue;
    const stored = JSON.stringify(piece);
    const bad = seed % PLAYED === 0 ? badNumberOf(piece) : undefined;
    if (bad) say('notFinite', bad);
    else if (JSON.stringify(checkPiece(JSON.parse(stored))) !== stored) say('notStorable', '');
    else tally.sound++;
  }
  console.log(tally, `the longest took ${longest.toFixed(2)} s of CPU`);
}

const [, , what, ...rest] = process.argv;
if (what === 'spoiled') printSpoiled(Number(rest[0] ?? 1_000), Number(rest[1] ?? 1));
else printExamples(rest[0] ?? '');
