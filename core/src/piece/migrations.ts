import { CoreError } from '../errors';
import { PIECE_VERSION } from './records';

/** Steps from version n to n + 1, by n. A step gets data of its version and returns data of the next. */
const STEPS: Readonly<Record<number, (data: Record<string, unknown>) => Record<string, unknown>>> = {};

/**
 * Brings the data of a piece file up to the present version.
 * @throws CoreError 'piece-invalid' when it is no piece, 'piece-version' when the version is unknown
 */
export function migratePiece(data: unknown): unknown {
  if (
    typeof data !== 'object' ||
    data === null ||
    Array.isArray(data) ||
    (data as { format?: unknown }).format !== 'arcshift-piece'
  ) {
    throw new CoreError(
      'piece-invalid',
      'Expected a piece file (an object with format “arcshift-piece”); found something else.',
      '/format',
    );
  }
  let piece = data as Record<string, unknown>;
  for (let version = Number(piece.version); version !== PIECE_VERSION; version++) {
    const step = STEPS[version];
    if (!step) {
      throw new CoreError(
        'piece-version',
        `Expected a piece file of version 1 to ${PIECE_VERSION}; this one has version ${JSON.stringify(piece.version)?.slice(0, 20)}. A newer Arc Shift may have written it.`,
        '/version',
      );
    }
    piece = { ...step(piece), version: version + 1 };
  }
  return piece;
}
