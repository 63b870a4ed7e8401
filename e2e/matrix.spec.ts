import fs from 'node:fs';
import { createRequire } from 'node:module';
import {
  type CompiledPiece,
  cellOf,
  checkPiece,
  comparePainted,
  FEATURE_IDS,
  type FeatureId,
  FORM_IDS,
  featuresOf,
  makeTextFiles,
  type Piece,
  type PieceDraft,
  paintedOfFrame,
  planAndCompile,
  prepareFrame,
  proofTimes,
  proveText,
  readMovingFile,
  readOptions,
  refusalsOf,
  runLength,
  sampleFrame,
  TEXT_FORMS,
  type TextForm,
} from '@core';
import { expect, test } from '@playwright/test';
import { pieceBetween } from '../core/src/testing/pieces';
import { DEMO_PIECES } from '../server/src/demo/pieces';
import { LANE_CASES } from './support/lane-cases';
import { PAIRS } from './support/pair-cases';
import { type Case, ROWS } from './support/property-cases';

// One after the other in one process: what all of them look at is planned once.
test.describe.configure({ mode: 'default' });

const SIZE = 240;

function pieceOf(name: string, { from, to, options, also }: Case): Piece {
  const draft = structuredClone(pieceBetween(from, to, options)) as PieceDraft;
  Object.assign(draft.canvas, { width: SIZE, height: SIZE });
  draft.name = name;
  also?.(draft);
  return draft as Piece;
}

interface Source {
  readonly piece: Piece;
  readonly compiled: CompiledPiece;
  readonly features: readonly FeatureId[];
}
let known: readonly Source[] | null = null;

/** All cases of the tests of properties, and the example pieces; planned once, when the first test asks. */
function sources(): readonly Source[] {
  known ??= [
    ...[ROWS, PAIRS, LANE_CASES].flatMap((cases) => Object.entries(cases).map(([name, each]) => pieceOf(name, each))),
    ...DEMO_PIECES.map((make) => checkPiece(make())),
  ].map((piece) => {
    const compiled = planAndCompile(piece);
    return { piece, compiled, features: featuresOf(piece, compiled) };
  });
  return known;
}

/** Where points lie that only a number of all points tells: a part of a line is compared one way, so its length is not seen. */
const VARIANTS: Readonly<Record<string, readonly Readonly<Record<string, string>>[]>> = {
  'path-data': [{}, { format: 'csv', fps: '20', digits: '3' }],
  'clip-path': [{ digits: '3' }, { unit: 'percent', digits: '3' }],
};

test('every feature of the matrix is had by some piece here, so that each of its cells is looked at', () => {
  const had = new Set(sources().flatMap(({ features }) => features));
  expect(FEATURE_IDS.filter((id) => !had.has(id))).toEqual([]);
});

for (const form of TEXT_FORMS)
  test(`${form.label}: of each case it is made and read back within its bounds, or refused with the reasons of the matrix`, () => {
    const failed: string[] = [];
    const rows: string[] = [];
    let made = 0;
    for (const { piece, compiled, features } of sources())
      for (const given of VARIANTS[form.id] ?? [{}]) {
        const refusals = refusalsOf(form.id, features);
        if (refusals.length > 0) {
          for (const { reason } of refusals)
            expect(() => makeTextFiles(form, { piece, compiled }, given)).toThrow(reason);
          continue;
        }
        const files = makeTextFiles(form, { piece, compiled }, given);
        const { holds, lines } = proveText(form.id, files, compiled, readOptions(form, given));
        made++;
        const said = lines.filter(({ what }) => /deviation/.test(what)).map(({ found }) => found);
        const size = files.reduce((sum, { text }) => sum + text.length, 0);
        rows.push(
          `${piece.name.padEnd(16)} ${form.id.padEnd(13)} ${String(size).padStart(8)} bytes  ${said.join(', ')}`,
        );
        if (!holds)
          failed.push(
            `${piece.name} ${JSON.stringify(given)}: ${lines
              .filter((line) => !line.holds)
              .map((line) => `${line.what} ${line.found}`)
              .join(', ')}`,
          );
      }
    const examples = (VARIANTS[form.id] ?? [{}]).length * DEMO_PIECES.length;
    process.stdout.write(`${rows.slice(-examples).join('\n')}\n`);
    expect(failed).toEqual([]);
    expect(made).toBeGreaterThan(sources().length / 2);
  });

for (const id of ['animated-svg', 'lottie'] as const)
  test(`${id}: out and in again gives the same frames within a tenth of a px, of each case and example`, () => {
    const form = TEXT_FORMS.find((each) => each.id === id) as TextForm;
    const failed: string[] = [];
    const rows: string[] = [];
    for (const { piece, compiled, features } of sources()) {
      if (refusalsOf(id, features).length > 0) continue;
      const [{ text }] = makeTextFiles(form, { piece, compiled }, {});
      let count = 0;
      const newId = (prefix: string): string => `${prefix}${++count}`;
      const back = readMovingFile(text, { id: 'back', name: piece.name, newId });
      const again = planAndCompile(back.piece);
      const [one, two] = [prepareFrame(compiled), prepareFrame(again)];
      let [largest, colour, lost] = [0, 0, 0];
      for (const seconds of proofTimes(compiled, runLength(compiled))) {
        const wanted = paintedOfFrame(sampleFrame(compiled, seconds, one));
        const found = paintedOfFrame(sampleFrame(again, seconds, two));
        const compared = comparePainted(wanted, found);
        largest = Math.max(largest, compared.largest);
        colour = Math.max(colour, compared.colour);
        lost = Math.max(lost, compared.missing + compared.extra);
      }
      const counts = [piece, back.piece].map(
        ({ figures, poses }) => `${Object.keys(figures).length}/${Object.keys(poses).length}`,
      );
      rows.push(`${piece.name.padEnd(46)} ${largest.toFixed(3)} px  figures/poses ${counts.join(' -> ')}`);
      if (largest > 0.1 || colour > 3.5 / 255 || lost > 0 || back.notes.length > 0)
        failed.push(
          `${piece.name}: ${largest.toFixed(3)} px, colour ${colour.toFixed(4)}, ${lost} lost, ${back.notes}`,
        );
    }
    process.stdout.write(`${id}\n${rows.slice(-DEMO_PIECES.length).join('\n')}\n`);
    expect(failed).toEqual([]);
    expect(rows.length).toBeGreaterThan(sources().length / 2);
  });

test('Lottie: each file is valid by the published schema of the specification 1.0', () => {
  const require = createRequire(import.meta.url);
  const { Ajv2020 } = require('ajv/dist/2020');
  const {
    LottieValidator,
    get_schema_path,
  } = require('@lottie-animation-community/lottie-specs/src/validator-node.js');
  const validator = new LottieValidator(Ajv2020, JSON.parse(fs.readFileSync(get_schema_path(), 'utf8')));
  const form = TEXT_FORMS.find(({ id }) => id === 'lottie') as TextForm;
  // What players read besides what the specification has: their own version, when a layer's clock starts, and which layer is only a matte.
  const besides = /\/(?:v|st|td)$/;
  for (const { piece, compiled, features } of sources()) {
    if (refusalsOf('lottie', features).length > 0) continue;
    const [{ text }] = makeTextFiles(form, { piece, compiled }, {});
    const found = (validator.validate(text) as { path: string; message: string; type: string }[]).filter(
      ({ path, type }) => type === 'error' || !besides.test(path),
    );
    expect([piece.name, found]).toEqual([piece.name, []]);
  }
});

test('each cell says what becomes of it: exact, a deviation, or a reason', () => {
  for (const form of FORM_IDS)
    for (const feature of FEATURE_IDS) {
      const cell = cellOf(form, feature);
      const words = cell.kind === 'baked' ? cell.deviation : cell.kind === 'exact' ? 'exact' : cell.reason;
      expect([form, feature, words.length > 3]).toEqual([form, feature, true]);
    }
});
