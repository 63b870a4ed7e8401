// npx tsx bench/same-pictures.ts keep FILE, and later: compare FILE. Has a change of structure left every picture and every file of text as it was?
import fs from 'node:fs';
import { fileURLToPath } from 'node:url';
import { gunzipSync, gzipSync } from 'node:zlib';
import {
  type CompiledPiece,
  checkPiece,
  motionMatrix,
  type OutputOptions,
  type Piece,
  type PieceDraft,
  planAndCompile,
  prepareFrame,
  sampleFrame,
  TEXT_FORMS,
} from '../core/src/index';
import { pieceBetween } from '../core/src/testing/pieces';
import { LANE_CASES } from '../e2e/support/lane-cases';
import { PAIRS } from '../e2e/support/pair-cases';
import { type Case, ROWS } from '../e2e/support/property-cases';
import { DEMO_PIECES } from '../server/src/demo/pieces';

/** Moments of each piece that are looked at. */
const MOMENTS = 20;
/** Pictures are the same where no number is farther off. */
const SAME = 1e-9;

/** Numbers of each moment, and the text of each form. */
interface Look {
  readonly frames: readonly (readonly number[])[];
  readonly files: Readonly<Record<string, string>>;
}

/** All numbers of a frame in a fixed order, whatever the records are called. */
function numbersOf(value: unknown, out: number[] = []): number[] {
  if (typeof value === 'number') out.push(value);
  else if (typeof value === 'boolean') out.push(value ? 1 : 0);
  else if (ArrayBuffer.isView(value)) out.push(...(value as Float64Array));
  else if (Array.isArray(value)) for (const each of value) numbersOf(each, out);
  else if (value !== null && typeof value === 'object')
    for (const key of Object.keys(value).sort()) numbersOf((value as Record<string, unknown>)[key], out);
  return out;
}

/** What of a frame is seen: figures with their parts, motion and paint, and what lies behind them. */
function seenAt(compiled: CompiledPiece, frame: ReturnType<typeof prepareFrame>, seconds: number): number[] {
  const { figures, ground } = sampleFrame(compiled, seconds, frame);
  return numbersOf([
    ground,
    figures.map(({ opacity, motion, over, parts }) => [
      opacity,
      motion && motionMatrix(motion),
      over,
      parts.map(({ points, contours, fill, stroke, progress }) => [
        progress,
        points,
        contours.map(({ at, segments, closed }) => [at, segments, closed]),
        fill,
        stroke,
      ]),
    ]),
  ]);
}

function filesOf(piece: Piece, compiled: CompiledPiece): Record<string, string> {
  const made: Record<string, string> = {};
  for (const form of TEXT_FORMS) {
    const options = Object.fromEntries(form.fields.map(({ key, otherwise }) => [key, otherwise])) as OutputOptions;
    try {
      for (const file of form.write({ piece, compiled }, options, 'file'))
        if ('text' in file && typeof file.text === 'string') made[`${form.id}/${file.name}`] = file.text;
    } catch (error) {
      made[form.id] = `refused: ${(error as Error).message}`;
    }
  }
  return made;
}

function looks(): Record<string, Look> {
  const found: Record<string, Look> = {};
  const look = (name: string, piece: Piece): void => {
    const compiled = planAndCompile(piece);
    const frame = prepareFrame(compiled);
    const moments = Array.from({ length: MOMENTS }, (_, i) => (i / (MOMENTS - 1)) * compiled.duration);
    const frames = moments.map((seconds) => seenAt(compiled, frame, seconds));
    found[name] = { frames, files: filesOf(piece, compiled) };
  };
  for (const make of DEMO_PIECES) {
    const piece = checkPiece(make());
    look(piece.id, piece);
  }
  const cases: Readonly<Record<string, Case>> = { ...ROWS, ...PAIRS, ...LANE_CASES };
  for (const [name, { from, to, options, also }] of Object.entries(cases)) {
    const draft = structuredClone(pieceBetween(from, to, options)) as PieceDraft;
    also?.(draft);
    look(`case: ${name}`, draft as Piece);
  }
  return found;
}

const differs = (p: readonly number[], q: readonly number[]): boolean =>
  p.length !== q.length || p.some((v, i) => !(Math.abs(v - q[i]) <= SAME || v === q[i]));

/** Prints what is not as it was. */
function compare(before: Record<string, Look>, now: Record<string, Look>): number {
  let [other, bytesBefore, bytesNow] = [0, 0, 0];
  const tell = (text: string): void => {
    other++;
    console.log(text);
  };
  for (const [name, was] of Object.entries(before)) {
    const is = now[name];
    if (!is) {
      tell(`${name}: gone`);
      continue;
    }
    was.frames.forEach((frame, i) => {
      if (differs(frame, is.frames[i])) tell(`${name}: the picture at moment ${i} is another`);
    });
    for (const [file, text] of Object.entries(was.files)) {
      const text2 = is.files[file] ?? '';
      bytesBefore += text.length;
      bytesNow += text2.length;
      if (text2 !== text) tell(`${name}, ${file}: ${text.length} characters became ${text2.length}`);
    }
  }
  const count = Object.keys(before).length;
  console.log(
    `${count} pieces at ${MOMENTS} moments: ${other} differences; files ${bytesBefore} to ${bytesNow} characters`,
  );
  return other;
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const [, , what, file] = process.argv;
  if (!file || !['keep', 'compare'].includes(what)) {
    console.log('Expected: same-pictures.ts keep FILE, or compare FILE.');
    process.exit(1);
  }
  if (what === 'keep') fs.writeFileSync(file, gzipSync(JSON.stringify(looks())));
  else if (compare(JSON.parse(gunzipSync(fs.readFileSync(file)).toString()), looks()) > 0) process.exitCode = 1;
}
