import { CoreError } from '../../errors';
import type { Part, Piece } from '../records';
import { emptyPiece, MOST_RECORDS, migratePiece } from '../records';
import { type SchemaFinding, validatePiece } from './piece-check.generated';
import { checkWhole, type Refuse, recordRules } from './piece-rules';

/** A piece file longer than this is refused before reading. */
export const PIECE_BYTE_LIMIT = 20 * 1024 * 1024;

/**
 * Reads a piece file.
 * @throws CoreError 'file-too-large', 'json-syntax', 'piece-version', 'piece-invalid'
 */
export function readPieceFile(text: string): Piece {
  if (text.length > PIECE_BYTE_LIMIT) {
    throw new CoreError(
      'file-too-large',
      `Expected a piece file of at most ${PIECE_BYTE_LIMIT / 1024 / 1024} MB; this one has ${(text.length / 1024 / 1024).toFixed(1)} MB.`,
    );
  }
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch (error) {
    throw new CoreError(
      'json-syntax',
      `Expected a piece file in JSON; it cannot be read: ${(error as Error).message}.`,
    );
  }
  return checkPiece(data);
}

/**
 * Checks anything against the schema and the rules between records, after bringing older versions up to date. Returns the piece itself.
 * @throws CoreError 'piece-version', 'piece-invalid', with the path of the field in `where`
 */
export function checkPiece(data: unknown): Piece {
  const migrated = migratePiece(data);
  if (!validatePiece(migrated)) {
    const finding = validatePiece.errors?.[0];
    throw new CoreError(
      'piece-invalid',
      `The piece cannot be used: ${sentence(migrated, finding)}.`,
      finding?.instancePath || '/',
    );
  }
  checkRules(migrated as Piece);
  return migrated as Piece;
}

function sentence(data: unknown, finding: SchemaFinding | undefined): string {
  if (!finding) return 'it does not fit the schema';
  const { params } = finding;
  const extra = params.allowedValues
    ? ` (${(params.allowedValues as unknown[]).join(', ')})`
    : params.additionalProperty
      ? ` (“${String(params.additionalProperty)}”)`
      : '';
  const came = finding.instancePath
    .split('/')
    .slice(1)
    .reduce<unknown>((at, key) => (at as Record<string, unknown>)?.[key.replace(/~1/g, '/').replace(/~0/g, '~')], data);
  const shown = came === undefined || typeof came === 'object' ? '' : `; found ${JSON.stringify(came).slice(0, 40)}`;
  return `${finding.instancePath || 'the file'} ${finding.message ?? 'is not as expected'}${extra}${shown}`;
}

const refuse: Refuse = (where, expected, found) => {
  throw new CoreError('piece-invalid', `The piece cannot be used: ${where} must ${expected}; found ${found}.`, where);
};

type RuledTable = keyof typeof recordRules;
const RULED = Object.keys(recordRules) as RuledTable[];

/** All rules that a schema cannot say. */
function checkRules(piece: Piece): void {
  for (const table of RULED) for (const record of Object.values(piece[table])) ruleOf(table)(piece, record, refuse);
  checkWhole(piece, refuse);
}

const ruleOf = (table: RuledTable) => recordRules[table] as (piece: Piece, record: unknown, refuse: Refuse) => void;

/** A piece of nothing but some records, for the schema alone. */
const withOnly = ({ id, name, canvas, playback, aids }: Piece, tables: Partial<Piece>): Piece => ({
  ...emptyPiece(id, name),
  canvas,
  playback,
  aids,
  ...tables,
});

/** Parts that were found to fit the schema: records never change. */
const sound = new WeakSet<Part>();

/**
 * Do parts fit the schema by themselves? Undefined if so, otherwise what was expected and what came. `findingOfChange` does not look at them again: thousands
 * that arrive are looked at a portion at a time.
 */
export function findingOfParts(parts: readonly Part[]): string | undefined {
  const piece: Piece = {
    ...emptyPiece('parts', 'Parts'),
    parts: Object.fromEntries(parts.map((part) => [part.id, part])),
  };
  if (!validatePiece(piece)) return sentence(piece, validatePiece.errors?.[0]);
  for (const part of parts) sound.add(part);
  return undefined;
}

const TABLES = ['figures', 'poses', 'parts', 'shifts', 'lanes', 'texts', 'groups'] as const;

/** Records of a table that are not the very ones that were there before. */
function changedRecords<T>(before: Readonly<Record<string, T>>, after: Readonly<Record<string, T>>): Record<string, T> {
  const changed: Record<string, T> = {};
  if (before !== after) for (const id of Object.keys(after)) if (before[id] !== after[id]) changed[id] = after[id];
  return changed;
}

/**
 * Would `after` be refused as a file? `before` is a piece that would not be, and only what is another object in `after` is looked at, so that this is
 * quick enough for every edit. Undefined when all is well, otherwise what was expected and what came.
 */
export function findingOfChange(before: Piece, after: Piece): string | undefined {
  const changed = {
    figures: changedRecords(before.figures, after.figures),
    poses: changedRecords(before.poses, after.poses),
    parts: changedRecords(before.parts, after.parts),
    shifts: changedRecords(before.shifts, after.shifts),
    lanes: changedRecords(before.lanes, after.lanes),
    texts: changedRecords(before.texts, after.texts),
    groups: changedRecords(before.groups, after.groups),
  };
  const part = withOnly(after, {
    ...changed,
    parts: Object.fromEntries(Object.entries(changed.parts).filter(([, each]) => !sound.has(each))),
    ...(before.figureOrder === after.figureOrder ? {} : { figureOrder: after.figureOrder }),
    ...(before.references === after.references ? {} : { references: after.references }),
  });
  if (!validatePiece(part)) return sentence(part, validatePiece.errors?.[0]);
  for (const table of TABLES) {
    const count = before[table] === after[table] ? 0 : Object.keys(after[table]).length;
    if (count > MOST_RECORDS[table]) return `/${table} must have at most ${MOST_RECORDS[table]}; found ${count}`;
  }
  try {
    for (const table of RULED)
      for (const record of Object.values(changed[table])) ruleOf(table)(after, record, findAndStop);
    // A part that grows moves the pose that it belongs to.
    if (Object.keys(changed.parts).length > 0)
      for (const pose of Object.values(after.poses))
        if (pose.parts.some((id) => Object.hasOwn(changed.parts, id))) recordRules.poses(after, pose, findAndStop);
    checkWhole(after, findAndStop);
  } catch (error) {
    if (error instanceof CoreError) return error.message;
    throw error;
  }
  return undefined;
}

const findAndStop: Refuse = (where, expected, found) => {
  throw new CoreError('piece-invalid', `${where} must ${expected}; found ${found}`, where);
};
