/** Widths of the columns beside a picture, CSS px; null: the column is folded away. */
export interface FittedColumns {
  readonly left: number | null;
  readonly right: number | null;
}

/** How far the columns may be drawn, CSS px. */
export const LEFT_COLUMN = { least: 170, most: 220 } as const;
export const RIGHT_COLUMN = { least: 250, most: 300 } as const;

const within = (width: number, { least, most }: { readonly least: number; readonly most: number }): number =>
  Math.min(most, Math.max(least, width));

/**
 * What of the wanted columns finds room, so that the picture keeps at least half of `room` px: both, narrower where they must be, or only the one that goes
 * first. A single column is shown wherever it can be read.
 */
export function fitColumns(wanted: FittedColumns, room: number, first: 'left' | 'right'): FittedColumns {
  const half = Math.floor(room / 2);
  const left = wanted.left === null ? null : within(wanted.left, LEFT_COLUMN);
  const right = wanted.right === null ? null : within(wanted.right, RIGHT_COLUMN);
  if (left !== null && right !== null && LEFT_COLUMN.least + RIGHT_COLUMN.least <= half) {
    const narrowed = Math.max(RIGHT_COLUMN.least, Math.min(right, half - left));
    return { left: Math.min(left, half - narrowed), right: narrowed };
  }
  const keepsLeft = left !== null && (right === null || first === 'left');
  return {
    left: keepsLeft ? Math.max(LEFT_COLUMN.least, Math.min(left, half)) : null,
    right: right !== null && !keepsLeft ? Math.max(RIGHT_COLUMN.least, Math.min(right, half)) : null,
  };
}
