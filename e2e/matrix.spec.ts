import fs from 'node:fs';
import { createRequire } from 'node:module';
import {
  type CompiledPiece,
  cellOf,
  checkPiece,
  FEATURE_IDS,
  type FeatureId,
  FORM_IDS,
  featuresOf,
  makeTextFiles,
  type Piece,
  type PieceDraft,
  planAndCompile,
  proveText,
  readOptions,
  refusalsOf,
  TEXT_FORMS,
  type TextForm,
} from '@core';
import { expect, test } from '@playwright/test';
import { pieceBetween } from '../core/src/testing/pieces';
import { DEMO_PIECES } from '../server/src/demo/pieces';
import { LANE_CASES } from './support/lane-cases';
import { type Case, PAIRS, ROWS } from './support/property-cases';

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
        if (!holds)
          failed.push(
            `${piece.name} ${JSON.stringify(given)}: ${lines
              .filter((line) => !line.holds)
              .map((line) => `${line.what} ${line.found}`)
              .join(', ')}`,
          );
      }
    expect(failed).toEqual([]);
    expect(made).toBeGreaterThan(sources().length / 2);
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
  // What players read besides what the specification has: their own version, and which layer is only a matte.
  const besides = /\/(?:v|td)$/;
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
