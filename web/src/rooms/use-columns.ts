import { useSyncExternalStore } from 'react';
import { drawingActions, useAppDispatch, useAppSelector } from '../state';
import { type FittedColumns, fitColumns } from '../ui';

const onResize = (listener: () => void): (() => void) => {
  window.addEventListener('resize', listener);
  return () => window.removeEventListener('resize', listener);
};

/** The columns of a room as they are shown now: those that are wanted and find room. */
export function useColumns(hasLeft: boolean): {
  readonly columns: FittedColumns;
  /** Folds a column away, or shows it, at the cost of the other where there is no room for both. */
  toggle(side: 'left' | 'right'): void;
} {
  const dispatch = useAppDispatch();
  const { left, right, widths, firstColumn } = useAppSelector((state) => state.drawing);
  const room = useSyncExternalStore(onResize, () => window.innerWidth);
  const columns = fitColumns(
    { left: hasLeft && left ? widths.left : null, right: right ? widths.right : null },
    room,
    firstColumn,
  );
  return {
    columns,
    toggle: (side) =>
      dispatch(
        drawingActions.changed(columns[side] === null ? { [side]: true, firstColumn: side } : { [side]: false }),
      ),
  };
}
