import { CoreError } from '../../errors';
import { PIECE_VERSION } from './records';

/** Steps from version n to n + 1, by n. A step gets data of its version and returns data of the next. */
const STEPS: Readonly<Record<number, (data: Record<string, unknown>) => Record<string, unknown>>> = {
  1: shapesStep,
  2: matchStep,
  3: wipeStep,
  4: turnsStep,
  5: motionStep,
  6: comingStep,
  // To version 8: lanes for numbers of adjustable shapes, shifts point by point.
  7: (data) => data,
  // To version 9: an alternative that was taken is known by what it looks like.
  8: (data) => ({
    ...data,
    shifts: mapTable(data.shifts, (shift) => ({ ...shift, match: { taken: null, ...rowsOf(shift.match) } })),
  }),
  // To version 10: a moment whose picture stands for the piece can be chosen.
  9: (data) => data,
  // Figures could not lean.
  10: (data) => data,
  11: namesStep,
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

/** What decisions of a match are called since version 12: softness is what a blur does, and turning is rotation. */
const NEW_NAMES: Readonly<Record<string, string>> = { softness: 'smoothing', turns: 'unpairedOrder' };

function namesStep(data: Record<string, unknown>): Record<string, unknown> {
  const renamed = (match: Table): unknown =>
    Object.fromEntries(Object.entries(match).map(([name, value]) => [NEW_NAMES[name] ?? name, value]));
  return { ...data, shifts: mapTable(data.shifts, (shift) => ({ ...shift, match: renamed(rowsOf(shift.match)) })) };
}

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

/** When unpaired contours go and come was added within version 5: files of its first days do not say it. */
const withTurns = (data: Record<string, unknown>): Record<string, unknown> => ({
  ...data,
  shifts: mapTable(data.shifts, (shift) => ({ ...shift, match: { turns: 'auto', ...rowsOf(shift.match) } })),
});

/**
 * To version 7: more kinds of lanes and of playing; what was there stays as it is. When a figure begins, and whether it is seen before and after, was added within
 * version 6: files of its first days do not say it.
 */
function comingStep(data: Record<string, unknown>): Record<string, unknown> {
  return { ...data, figures: mapTable(data.figures, (figure) => ({ ...AT_ONCE, ...figure })) };
}
const AT_ONCE = { start: 0, before: 'held', after: 'held' } as const;

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

type Row = Record<string, unknown>;
const rowsOf = (table: unknown): Table => (typeof table === 'object' && table !== null ? (table as Table) : {});
const listOf = (value: unknown): readonly unknown[] => (Array.isArray(value) ? value : []);

/**
 * To version 6: lanes. How a pose was turned by hand is no longer baked into its placement but the value of its figure's turn, about a middle that stays where
 * it is. Frames at the poses are as they were, and what is turned further from one pose to the next spins.
 */
function motionStep(before: Row): Row {
  const data = withTurns(before);
  const poses = { ...rowsOf(data.poses) };
  const shifts = rowsOf(data.shifts);
  const lanes: Table = {};
  const figures = mapTable(data.figures, (figure) => {
    const rail = listOf(figure.rail).map(String);
    const stops =
      rail.length === 0
        ? listOf(figure.poses).slice(0, 1).map(String)
        : [String(shifts[rail[0]]?.from), ...rail.map((id) => String(shifts[id]?.to))];
    const turnOf = (id: string): number => Number((poses[id]?.placement as Row | undefined)?.rotation ?? 0) || 0;
    if (!stops.some((id) => turnOf(id) !== 0)) return { ...AT_ONCE, middle: null, ...figure };
    const [x, y] = (figure.pivot as [number, number] | null) ?? middleOf(data, poses[stops[0]]);
    const closed = rail.length > 1 && stops[0] === stops[stops.length - 1];
    const id = `turn-${String(figure.id)}`.slice(0, 64);
    lanes[id] = {
      id,
      figure: figure.id,
      property: 'turn',
      keys: (closed ? stops.slice(0, -1) : stops).map((pose, i) => ({
        id: `k${i}`,
        stop: { pose, shift: i > 0 ? rail[i - 1] : null },
        after: null,
        value: [turnOf(pose)],
        easing: null,
      })),
    };
    for (const pose of new Set(stops)) {
      const { placement, ...rest } = (poses[pose] ?? {}) as Row & { placement?: Row };
      const turn = (turnOf(pose) * Math.PI) / 180;
      if (turn === 0 || !placement) continue;
      // Turned about the middle it comes to lie where it lay.
      const [dx, dy] = [Number(placement.x) - x, Number(placement.y) - y];
      const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
      poses[pose] = {
        ...rest,
        placement: { ...placement, rotation: 0, x: x + cos * dx + sin * dy, y: y - sin * dx + cos * dy },
      };
    }
    return { ...AT_ONCE, middle: [x, y], ...figure };
  });
  return { ...data, figures, poses, lanes };
}

/** The middle of the box round a pose's anchors as it stands, px. */
function middleOf(data: Row, pose: Row | undefined): [number, number] {
  const {
    x = 0,
    y = 0,
    scaleX = 1,
    scaleY = 1,
    rotation = 0,
  } = (rowsOf(pose).placement ?? {}) as unknown as Record<string, number>;
  const turn = (rotation * Math.PI) / 180;
  const xs: number[] = [];
  const ys: number[] = [];
  for (const id of listOf(pose?.parts))
    for (const contour of listOf(rowsOf(data.parts)[String(id)]?.contours))
      for (const anchor of listOf((contour as Row).anchors)) {
        const [u, v] = listOf((anchor as Row).at).map(Number);
        xs.push(x + Math.cos(turn) * scaleX * u - Math.sin(turn) * scaleY * v);
        ys.push(y + Math.sin(turn) * scaleX * u + Math.cos(turn) * scaleY * v);
      }
  const mid = (list: readonly number[]): number =>
    list.length > 0 ? (list.reduce((a, b) => Math.min(a, b)) + list.reduce((a, b) => Math.max(a, b))) / 2 : 0;
  return [mid(xs), mid(ys)];
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
