import type { ReactNode } from 'react';
import { drawingActions, useAppDispatch, useAppSelector } from '../state';
import { Columns } from '../ui';
import { useColumns } from './use-columns';

/** A room: its picture between the columns that are unfolded and find room, at the widths that were chosen last. */
export function RoomColumns({
  left,
  right,
  children,
}: {
  readonly left?: ReactNode;
  readonly right?: ReactNode;
  readonly children: ReactNode;
}) {
  const dispatch = useAppDispatch();
  const chosen = useAppSelector((state) => state.drawing.widths);
  const { columns } = useColumns(left !== undefined);
  return (
    <Columns
      left={columns.left !== null && left}
      right={columns.right !== null && right}
      widths={{ left: columns.left ?? chosen.left, right: columns.right ?? chosen.right }}
      onWidths={(widths) => dispatch(drawingActions.changed({ widths }))}
    >
      {children}
    </Columns>
  );
}
