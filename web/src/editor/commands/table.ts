import { type RailTimeline, railTimeline } from '@core';
import {
  chosenFigure,
  documentActions,
  drawingActions,
  ROOMS,
  type RoomId,
  type RootState,
  selectedPose,
  sessionActions,
  TOOLS,
  type ToolId,
} from '../../state';
import { offeredDrawn, redrawAs, takeShapeKind } from '../actions/draw-actions';
import {
  chooseAllFigures,
  duplicateChosenFigures,
  groupChosen,
  nudgeTargets,
  removeChosenFigures,
  targetsBox,
} from '../actions/figure-actions';
import { chooseWholeContours, moveChosenAnchors } from '../actions/point-actions';
import { duplicateChosenPoses, removeChosenPoses } from '../actions/pose-actions';
import { reverseChosen, toggleLoop } from '../actions/rail-actions';
import type { Editor } from '../editor';
import { TOOL_TABLE } from '../tools/table';

/** What commands may use besides the editor. */
export interface CommandContext {
  readonly editor: Editor;
  readonly openRoom: (room: RoomId) => void;
  readonly saveNow: () => void;
}

export interface Command {
  readonly id: string;
  readonly label: string;
  readonly group: 'Play' | 'Tools' | 'Change' | 'View' | 'Go to';
  /** Keys in the notation of react-hotkeys-hook; the first one is shown. */
  readonly keys: readonly string[];
  /** Done by the browser's own copy, cut and paste events; the table only names it. */
  readonly native?: boolean;
  readonly isEnabled: (state: RootState) => boolean;
  readonly run: (context: CommandContext) => void;
}

const always = (): boolean => true;
const withPiece = (state: RootState): boolean => (state.document.piece?.figureOrder.length ?? 0) > 0;

const poseChosen = ({ document, session }: RootState): boolean =>
  document.piece !== null && selectedPose(document.piece, session.selection) !== undefined;

const withPieceOpen = (state: RootState): boolean => state.document.piece !== null;

/** Moves points or figures by 1 px, with ⇧ by 10. */
function nudge({ editor }: CommandContext, dx: number, dy: number): void {
  const { store, clock } = editor;
  if (store.getState().drawing.anchors.length > 0) moveChosenAnchors(store, clock.seconds, dx, dy, 'Nudge points');
  else nudgeTargets(store, clock.seconds, dx, dy);
}
const NUDGES = (
  [
    ['left', -1, 0],
    ['right', 1, 0],
    ['up', 0, -1],
    ['down', 0, 1],
  ] as const
).flatMap(([key, dx, dy]) =>
  [1, 10].map(
    (far): Command => ({
      id: `nudge-${key}-${far}`,
      label: `Nudge ${key} by ${far} px`,
      group: 'Change',
      keys: [far === 1 ? `alt+${key}` : `alt+shift+${key}`],
      isEnabled: (state) => state.session.selection?.kind === 'stop',
      run: (context) => nudge(context, dx * far, dy * far),
    }),
  ),
);

/** Runs a command of the current tool. */
function helpNow({ store, drawing }: Editor, tool: ToolId): string {
  const figures = store.getState().document.piece?.figureOrder.length ?? 0;
  return TOOL_TABLE[tool].help({ figures, targets: drawing.look().targets });
}

function timelineOf(editor: Editor): RailTimeline | undefined {
  const { document, session } = editor.store.getState();
  const figure = document.piece && chosenFigure(document.piece, session.selection);
  return document.piece && figure ? railTimeline(document.piece, figure) : undefined;
}

/** Jumps to the start of the previous or next pose. */
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

/** The one table of commands. Buttons, the sheet of shortcuts and the keyboard all use it. */
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
    isEnabled: withPieceOpen,
    run: ({ editor }) => {
      const { dispatch, getState } = editor.store;
      if (!editor.drawing.undo() && getState().document.past.length > 0) dispatch(documentActions.undone());
    },
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
    isEnabled: ({ session: { selection, more } }) =>
      selection?.kind === 'stop' || more.some(({ kind }) => kind === 'stop'),
    run: ({ editor }) => {
      if (editor.store.getState().drawing.also.length > 0) duplicateChosenFigures(editor.store);
      else duplicateChosenPoses(editor.store);
    },
  },
  {
    id: 'reverse',
    label: 'Reverse the chosen poses',
    group: 'Change',
    keys: ['shift+r'],
    isEnabled: ({ session: { more } }) => more.length > 0,
    run: ({ editor }) => reverseChosen(editor.store),
  },
  {
    id: 'rename',
    label: 'Rename the pose',
    group: 'Change',
    keys: ['f2'],
    isEnabled: poseChosen,
    run: ({ editor }) => {
      const { document, session } = editor.store.getState();
      const found = document.piece && selectedPose(document.piece, session.selection);
      if (found) editor.store.dispatch(drawingActions.changed({ details: 'pose', renames: found.pose.id }));
    },
  },
  {
    id: 'remove',
    label: 'Remove',
    group: 'Change',
    keys: ['delete', 'backspace'],
    isEnabled: withPieceOpen,
    run: ({ editor }) => {
      if (editor.drawing.remove()) return;
      if (editor.store.getState().drawing.also.length > 0) removeChosenFigures(editor.store);
      else removeChosenPoses(editor.store);
    },
  },
  {
    id: 'leave',
    label: 'Select nothing',
    group: 'Change',
    keys: ['escape'],
    isEnabled: (state) => state.document.piece !== null,
    run: ({ editor }) => {
      const { dispatch, getState } = editor.store;
      if (editor.drawing.leave()) return;
      if (getState().drawing.tool !== 'select') dispatch(drawingActions.toolChosen('select'));
      else dispatch(sessionActions.selected(null));
    },
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
  ...TOOLS.map(
    (tool): Command => ({
      id: `tool-${tool}`,
      label: TOOL_TABLE[tool].label,
      group: 'Tools',
      keys: [TOOL_TABLE[tool].key],
      isEnabled: withPieceOpen,
      run: ({ editor }) => {
        // Pressing the key of the shape tool again selects the next kind of shape.
        if (tool === 'shape' && editor.store.getState().drawing.tool === 'shape') takeShapeKind(editor.store, 1);
        else {
          editor.store.dispatch(drawingActions.toolChosen(tool));
          if (tool === 'shape') takeShapeKind(editor.store, 0);
          else editor.store.dispatch(sessionActions.said(helpNow(editor, tool)));
        }
      },
    }),
  ),
  {
    id: 'shape-before',
    label: 'The kind of shape before (A again: the next)',
    group: 'Tools',
    keys: ['shift+a'],
    isEnabled: withPieceOpen,
    run: ({ editor }) => takeShapeKind(editor.store, -1),
  },
  {
    id: 'drawn-as-pose',
    label: 'Make what was drawn the next pose',
    group: 'Change',
    keys: ['n'],
    isEnabled: (state) => offeredDrawn(state) !== undefined,
    run: ({ editor }) => {
      redrawAs(editor.store, 'pose', editor.clock.seconds);
      editor.drawing.standAtPose();
      editor.store.dispatch(sessionActions.said('It is the next pose now.'));
    },
  },
  {
    id: 'loop',
    label: 'Back to the first pose at the end, or not',
    group: 'Change',
    keys: ['b'],
    isEnabled: ({ document, session }) =>
      document.piece !== null && (chosenFigure(document.piece, session.selection)?.poses.length ?? 0) > 1,
    run: ({ editor }) => toggleLoop(editor.store),
  },
  {
    id: 'confirm',
    label: 'Confirm what is being drawn',
    group: 'Tools',
    keys: ['enter'],
    isEnabled: withPieceOpen,
    run: ({ editor }) => void editor.drawing.confirm(),
  },
  ...NUDGES,
  {
    id: 'all',
    label: 'Choose all',
    group: 'Change',
    keys: ['mod+a'],
    isEnabled: withPiece,
    run: ({ editor }) =>
      editor.store.getState().drawing.tool === 'points'
        ? chooseWholeContours(editor.store, editor.clock.seconds)
        : chooseAllFigures(editor.store),
  },
  {
    id: 'group',
    label: 'Group figures',
    group: 'Change',
    keys: ['g'],
    isEnabled: (state) => state.drawing.also.length > 0,
    run: ({ editor }) => groupChosen(editor.store, true),
  },
  {
    id: 'copy',
    label: 'Copy',
    group: 'Change',
    keys: ['mod+c'],
    native: true,
    isEnabled: withPieceOpen,
    run: () => {},
  },
  {
    id: 'cut-out',
    label: 'Cut (clipboard)',
    group: 'Change',
    keys: ['mod+x'],
    native: true,
    isEnabled: withPieceOpen,
    run: () => {},
  },
  {
    id: 'paste',
    label: 'Paste',
    group: 'Change',
    keys: ['mod+v'],
    native: true,
    isEnabled: withPieceOpen,
    run: () => {},
  },
  {
    id: 'zoom-chosen',
    label: 'Zoom to what is chosen',
    group: 'View',
    keys: ['z'],
    isEnabled: (state) => state.session.selection?.kind === 'stop',
    run: ({ editor }) => {
      const box = targetsBox(editor.drawing.look().targets);
      if (box) editor.viewport.show(box);
    },
  },
  {
    id: 'one-to-one',
    label: 'One to one',
    group: 'View',
    keys: ['o'],
    isEnabled: withPieceOpen,
    run: ({ editor }) => editor.viewport.actualSize(),
  },
  ...ROOMS.map(
    ({ id, label, key }): Command => ({
      id: `room-${id}`,
      label,
      group: 'Go to',
      keys: [key],
      isEnabled: always,
      run: ({ openRoom }) => openRoom(id),
    }),
  ),
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
