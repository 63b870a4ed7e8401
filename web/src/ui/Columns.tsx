import { type ReactNode, useRef } from 'react';
import { Group, Panel, type PanelImperativeHandle, Separator } from 'react-resizable-panels';
import { LEFT_COLUMN, RIGHT_COLUMN } from './fit-columns';
import './columns.scss';

/** Widths of the columns beside the picture, CSS px. */
export interface ColumnWidths {
  readonly left: number;
  readonly right: number;
}

/** A picture between two columns, which may be missing; their edges can be dragged, or moved with the arrow keys. */
export function Columns({
  left,
  right,
  widths,
  onWidths,
  children,
}: {
  readonly left?: ReactNode;
  readonly right?: ReactNode;
  readonly widths: ColumnWidths;
  readonly onWidths: (widths: ColumnWidths) => void;
  readonly children: ReactNode;
}) {
  const leftPanel = useRef<PanelImperativeHandle>(null);
  const rightPanel = useRef<PanelImperativeHandle>(null);
  const width = (panel: PanelImperativeHandle | null, otherwise: number): number =>
    Math.round(panel?.getSize().inPixels ?? otherwise);
  return (
    <Group
      className="columns"
      orientation="horizontal"
      onLayoutChanged={(_layout, { isUserInteraction }) => {
        if (isUserInteraction)
          onWidths({ left: width(leftPanel.current, widths.left), right: width(rightPanel.current, widths.right) });
      }}
    >
      {left && (
        <Panel
          key="left"
          id="left-column"
          panelRef={leftPanel}
          defaultSize={widths.left}
          minSize={LEFT_COLUMN.least}
          maxSize={LEFT_COLUMN.most}
          groupResizeBehavior="preserve-pixel-size"
          className="column"
        >
          {left}
        </Panel>
      )}
      {left && <Separator key="left-edge" className="column-edge" aria-label="Width of the left column" />}
      <Panel key="picture" id="picture" minSize="50%" className="column">
        {children}
      </Panel>
      {right && <Separator key="right-edge" className="column-edge" aria-label="Width of the details" />}
      {right && (
        <Panel
          key="right"
          id="right-column"
          panelRef={rightPanel}
          defaultSize={widths.right}
          minSize={RIGHT_COLUMN.least}
          maxSize={RIGHT_COLUMN.most}
          groupResizeBehavior="preserve-pixel-size"
          className="column"
        >
          {right}
        </Panel>
      )}
    </Group>
  );
}
