import { CoreError } from '../errors';
import { PIECE_VERSION } from './records';

/** Steps from version n to n + 1, by n. A step gets data of its version and returns data of the next. */
const STEPS: Readonly<Record<number, (data: Record<string, unknown>) => Record<string, unknown>>> = {
  1: shapesStep,
  2: matchStep,
  3: wipeStep,
  4: turnsStep,
};

type Table = Record<string, Record<string, unknown>>;
const mapTable = (table: unknown, map: (record: Record<string, unknown>) => Record<string, unknown>): unknown =>
  typeof table === 'object' && table !== null
    ? Object.fromEntries(
        Object.entries(table as Table).map(([id, record]) => [
          id,
          typeof record === 'object' && record !== null ? map(record) : record,
        ]),
      )
    : table;

/** To version 2: turned and mirrored placements, gradients, dashes, texts, groups, clipping figures, reference pictures, drawing aids. */
function shapesStep(data: Record<string, unknown>): Record<string, unknown> {
  return {
    ...data,
    figures: mapTable(data.figures, (figure) => ({
      group: null,
      clip: null,
      opacity: 1,
      hidden: false,
      locked: false,
      seeThrough: false,
      pivot: null,
      ...figure,
    })),
    poses: mapTable(data.poses, (pose) => {
      const { scale, rule, ...place } = (pose.placement ?? {}) as Record<string, unknown>;
      const old = rule as { to?: string } | null | undefined;
      const to = old?.to === 'first' ? 'previous' : old?.to;
      return {
        ...pose,
        placement: { ...place, scaleX: scale, scaleY: scale, rotation: 0, rule: old ? { ...old, to } : old },
      };
    }),
    parts: mapTable(data.parts, (part) => {
      if (!part.stroke) return part;
      const { colour, ...stroke } = part.stroke as Record<string, unknown>;
      return { ...part, stroke: { ...stroke, paint: colour, miter: 4, dash: [], dashOffset: 0 } };
    }),
    texts: {},
    groups: {},
    references: [],
    aids: { guides: [], grid: { size: 20, shown: false }, thirds: false, safeArea: false },
  };
}

/** To version 3: what can be decided about a match. There was one method, which nobody had chosen. */
function matchStep(data: Record<string, unknown>): Record<string, unknown> {
  return {
    ...data,
    shifts: mapTable(data.shifts, (shift) => ({
      ...shift,
      method: 'auto',
      match: {
        starts: [],
        ties: [],
        pairs: [],
        cuts: [],
        softness: null,
        points: [],
        even: null,
        touchUps: [],
        ...(shift.match as Record<string, unknown>),
      },
    })),
  };
}

/** To version 4: contours that are wiped, and what happens where open meets closed. */
function wipeStep(data: Record<string, unknown>): Record<string, unknown> {
  return {
    ...data,
    shifts: mapTable(data.shifts, (shift) => ({
      ...shift,
      match: { wipes: [], opening: 'auto', ...(shift.match as Record<string, unknown>) },
    })),
  };
}

/** To version 5: directions of single contours, and when unpaired contours go and come. */
function turnsStep(data: Record<string, unknown>): Record<string, unknown> {
  return {
    ...data,
    shifts: mapTable(data.shifts, (shift) => ({
      ...shift,
      match: { directions: [], turns: 'auto', ...(shift.match as Record<string, unknown>) },
    })),
  };
}

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
