import { type RailTimeline, railTimeline } from '@core';
import { chosenFigure, documentActions, type RootState, sessionActions } from '../../state';
import type { Editor } from '../editor';
import { duplicateSelectedPose, removeSelectedPose } from './pose-actions';

/** What commands may use beside the editor. */
export interface CommandContext {
  readonly editor: Editor;
  readonly openRoom: (room: 'shapes' | 'output') => void;
  readonly saveNow: () => void;
}

export interface Command {
  readonly id: string;
  readonly label: string;
  readonly group: 'Play' | 'Change' | 'View' | 'Go to';
  /** As react-hotkeys-hook writes them; the first one is shown. */
  readonly keys: readonly string[];
  readonly isEnabled: (state: RootState) => boolean;
  readonly run: (context: CommandContext) => void;
}

const always = (): boolean => true;
const withPiece = (state: RootState): boolean => (state.document.piece?.figureOrder.length ?? 0) > 0;

function timelineOf(editor: Editor): RailTimeline | undefined {
  const { document, session } = editor.store.getState();
  const figure = document.piece && chosenFigure(document.piece, session.selection);
  return document.piece && figure ? railTimeline(document.piece, figure) : undefined;
}

/** Jumps to the start of the pose before or after the play position. */
function goToPose(editor: Editor, direction: 1 | -1): void {
  const stops = timelineOf(editor)?.stops ?? [];
  const now = editor.clock.seconds;
  const starts = stops.map((stop) => stop.start);
  const target =
    direction > 0 ? starts.find((start) => start > now + 1e-6) : starts.findLast((start) => start < now - 1e-6);
  if (target === undefined) return;
  editor.clock.pause();
  editor.clock.seek(target);
}

/** The one table of commands: buttons, shortcut sheet and keyboard are fed from it. */
export const COMMANDS = [
  {
    id: 'play',
    label: 'Play or pause',
    group: 'Play',
    keys: ['space'],
    isEnabled: withPiece,
    run: ({ editor }) => editor.clock.toggle(),
  },
  {
    id: 'next-frame',
    label: 'Next frame',
    group: 'Play',
    keys: ['right'],
    isEnabled: withPiece,
    run: ({ editor }) => editor.clock.step(1),
  },
  {
    id: 'previous-frame',
    label: 'Previous frame',
    group: 'Play',
    keys: ['left'],
    isEnabled: withPiece,
    run: ({ editor }) => editor.clock.step(-1),
  },
  {
    id: 'ten-forward',
    label: 'Ten frames forward',
    group: 'Play',
    keys: ['shift+right'],
    isEnabled: withPiece,
    run: ({ editor }) => editor.clock.step(10),
  },
  {
    id: 'ten-back',
    label: 'Ten frames back',
    group: 'Play',
    keys: ['shift+left'],
    isEnabled: withPiece,
    run: ({ editor }) => editor.clock.step(-10),
  },
  {
    id: 'next-pose',
    label: 'Next pose',
    group: 'Play',
    keys: ['period'],
    isEnabled: withPiece,
    run: ({ editor }) => goToPose(editor, 1),
  },
  {
    id: 'previous-pose',
    label: 'Previous pose',
    group: 'Play',
    keys: ['comma'],
    isEnabled: withPiece,
    run: ({ editor }) => goToPose(editor, -1),
  },
  {
    id: 'undo',
    label: 'Undo',
    group: 'Change',
    keys: ['mod+z'],
    isEnabled: (state) => state.document.past.length > 0,
    run: ({ editor }) => editor.store.dispatch(documentActions.undone()),
  },
  {
    id: 'redo',
    label: 'Redo',
    group: 'Change',
    keys: ['mod+shift+z'],
    isEnabled: (state) => state.document.future.length > 0,
    run: ({ editor }) => editor.store.dispatch(documentActions.redone()),
  },
  {
    id: 'duplicate',
    label: 'Duplicate pose',
    group: 'Change',
    keys: ['mod+d'],
    isEnabled: (state) => state.session.selection?.kind === 'stop',
    run: ({ editor }) => duplicateSelectedPose(editor.store),
  },
  {
    id: 'remove',
    label: 'Remove pose',
    group: 'Change',
    keys: ['delete', 'backspace'],
    isEnabled: (state) => state.session.selection?.kind === 'stop',
    run: ({ editor }) => removeSelectedPose(editor.store),
  },
  {
    id: 'leave',
    label: 'Select nothing',
    group: 'Change',
    keys: ['escape'],
    isEnabled: (state) => state.session.selection !== null,
    run: ({ editor }) => editor.store.dispatch(sessionActions.selected(null)),
  },
  {
    id: 'save',
    label: 'Save now',
    group: 'Change',
    keys: ['mod+s'],
    isEnabled: (state) => state.document.piece !== null,
    run: ({ saveNow }) => saveNow(),
  },
  {
    id: 'zoom-in',
    label: 'Zoom in',
    group: 'View',
    keys: ['plus', 'equal', 'shift+equal'],
    isEnabled: always,
    run: ({ editor }) => editor.viewport.zoomBy(1.25),
  },
  {
    id: 'zoom-out',
    label: 'Zoom out',
    group: 'View',
    keys: ['minus'],
    isEnabled: always,
    run: ({ editor }) => editor.viewport.zoomBy(0.8),
  },
  {
    id: 'fit',
    label: 'Fit the canvas',
    group: 'View',
    keys: ['0'],
    isEnabled: always,
    run: ({ editor }) => editor.viewport.fit(),
  },
  {
    id: 'room-shapes',
    label: 'Shapes',
    group: 'Go to',
    keys: ['1'],
    isEnabled: always,
    run: ({ openRoom }) => openRoom('shapes'),
  },
  {
    id: 'room-output',
    label: 'Output',
    group: 'Go to',
    keys: ['5'],
    isEnabled: always,
    run: ({ openRoom }) => openRoom('output'),
  },
  {
    id: 'sheet',
    label: 'Shortcuts',
    group: 'View',
    keys: ['shift+slash'],
    isEnabled: always,
    run: ({ editor }) => editor.store.dispatch(sessionActions.sheetToggled()),
  },
] as const satisfies readonly Command[];

export type CommandId = (typeof COMMANDS)[number]['id'];

export const commandById = (id: CommandId): Command => COMMANDS.find((command) => command.id === id) as Command;
