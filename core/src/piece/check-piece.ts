import { CoreError } from '../errors';
import { isGradient, type Paint, readColour } from '../paint';
import { canClip } from './clips';
import { migratePiece } from './migrations';
import { type SchemaFinding, validatePiece } from './piece-check.generated';
import type { Piece } from './records';

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
  checkReferences(migrated as Piece);
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

function refuse(where: string, expected: string, found: string): never {
  throw new CoreError('piece-invalid', `The piece cannot be used: ${where} must ${expected}; found ${found}.`, where);
}

const own = (table: object, key: string): boolean => Object.hasOwn(table, key);

/** Rules that a schema cannot say: ids fit their keys, references exist, rails are chains, colours are colours. */
function checkReferences(piece: Piece): void {
  for (const table of ['figures', 'poses', 'parts', 'shifts', 'texts', 'groups'] as const) {
    for (const [key, record] of Object.entries(piece[table])) {
      if (record.id !== key) refuse(`/${table}/${key}/id`, `be “${key}”`, `“${record.id}”`);
    }
  }
  if (new Set(piece.figureOrder).size !== piece.figureOrder.length)
    refuse('/figureOrder', 'name each figure once', 'one twice');
  for (const id of piece.figureOrder)
    if (!own(piece.figures, id)) refuse('/figureOrder', 'name figures of the piece', `“${id}”`);
  for (const id of Object.keys(piece.figures))
    if (!piece.figureOrder.includes(id)) refuse('/figureOrder', 'name every figure', `“${id}” missing`);
  for (const figure of Object.values(piece.figures)) {
    const where = `/figures/${figure.id}`;
    checkClip(piece, figure.id);
    if (figure.group !== null && !own(piece.groups, figure.group))
      refuse(`${where}/group`, 'name a group of the piece', `“${figure.group}”`);
    for (const id of figure.poses)
      if (!own(piece.poses, id)) refuse(`${where}/poses`, 'name poses of the piece', `“${id}”`);
    figure.rail.forEach((id, i) => {
      const shift = own(piece.shifts, id)
        ? piece.shifts[id]
        : refuse(`${where}/rail/${i}`, 'name a shift of the piece', `“${id}”`);
      if (!figure.poses.includes(shift.from) || !figure.poses.includes(shift.to))
        refuse(`/shifts/${id}`, 'join two poses of its figure', `${shift.from} → ${shift.to}`);
      const before = i > 0 ? piece.shifts[figure.rail[i - 1]] : undefined;
      if (before && before.to !== shift.from)
        refuse(
          `${where}/rail/${i}`,
          'leave the pose that the shift before reaches',
          `“${shift.from}” after “${before.to}”`,
        );
    });
  }
  for (const pose of Object.values(piece.poses)) {
    for (const id of pose.parts)
      if (!own(piece.parts, id)) refuse(`/poses/${pose.id}/parts`, 'name parts of the piece', `“${id}”`);
  }
  checkColour('/canvas/background', piece.canvas.background);
  for (const part of Object.values(piece.parts)) {
    checkPaint(`/parts/${part.id}/fill`, part.fill);
    checkPaint(`/parts/${part.id}/stroke/paint`, part.stroke?.paint ?? null);
    const { source } = part;
    if (source?.kind === 'glyph' && !own(piece.texts, source.text))
      refuse(`/parts/${part.id}/source/text`, 'name a text of the piece', `“${source.text}”`);
  }
}

/** Clipping figures exist, and none is clipped by itself, directly or round about. */
function checkClip({ figures }: Piece, id: string): void {
  const { clip } = figures[id];
  if (clip === null) return;
  if (!own(figures, clip)) refuse(`/figures/${id}/clip`, 'name a figure of the piece', `“${clip}”`);
  if (!canClip(figures, id, clip)) refuse(`/figures/${id}/clip`, 'not lead back to the figure itself', `“${clip}”`);
}

function checkPaint(where: string, paint: Paint | null): void {
  if (isGradient(paint)) {
    paint.stops.forEach((stop, i) => {
      checkColour(`${where}/stops/${i}/colour`, stop.colour);
      if (i > 0 && stop.at < paint.stops[i - 1].at)
        refuse(`${where}/stops/${i}/at`, 'not lie before the stop before it', String(stop.at));
    });
  } else checkColour(where, paint);
}

function checkColour(where: string, colour: string | null): void {
  if (colour !== null && !readColour(colour)) refuse(where, 'be a CSS colour', `“${colour.slice(0, 40)}”`);
}
