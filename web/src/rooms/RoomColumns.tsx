import type { ReactNode } from 'react';
import { drawingActions, useAppDispatch, useAppSelector } from '../state';
import { Columns } from '../ui';

/** A room: its picture between the columns that are unfolded, at the widths that were chosen last. */
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
  const shown = useAppSelector((state) => state.drawing);
  return (
    <Columns
      left={shown.left && left}
      right={shown.right && right}
      widths={shown.widths}
      onWidths={(widths) => dispatch(drawingActions.changed({ widths }))}
    >
      {children}
    </Columns>
  );
}
