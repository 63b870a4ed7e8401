import { describe, expect, test } from '@jest/globals';
import { createStore, documentActions, type RootState, sessionActions } from '../../state';
import { pieceOf } from '../../testing/pieces';
import type { EngineClient } from '../../workers';
import { createEditor } from '../editor';
import { COMMANDS, type CommandContext, commandById } from './table';

const SQUARE = 'M0 0H10V10H0Z';
const open = () => {
  const store = createStore();
  store.dispatch(documentActions.opened({ piece: pieceOf([SQUARE, SQUARE, SQUARE]), revision: 1 }));
  const editor = createEditor({
    store,
    planners: [{ plan: () => new Promise(() => {}), cancel: () => {} }],
    shapes: {} as EngineClient,
    clock: { now: () => 0, requestFrame: () => 1, cancelFrame: () => {} },
  });
  const rooms: string[] = [];
  const context: CommandContext = { editor, openRoom: (room) => rooms.push(room), saveNow: () => {} };
  return { store, editor, rooms, run: (id: Parameters<typeof commandById>[0]) => commandById(id).run(context) };
};

describe('the table of commands', () => {
  test('no key means two things, every command has a name and a key', () => {
    const keys = COMMANDS.flatMap((command) => [...command.keys]);
    expect(new Set(keys).size).toBe(keys.length);
    expect(new Set(COMMANDS.map(({ id }) => id)).size).toBe(COMMANDS.length);
    for (const { label, keys: own } of COMMANDS) expect([label.length > 2, own.length > 0]).toEqual([true, true]);
  });

  test('what cannot be done is not enabled', () => {
    const empty = createStore().getState() as RootState;
    const enabled = COMMANDS.filter(({ isEnabled }) => isEnabled(empty)).map(({ id }) => id);
    const rooms = ['room-shapes', 'room-match', 'room-timing', 'room-output'];
    expect(enabled).toEqual(['zoom-in', 'zoom-out', 'fit', ...rooms, 'sheet']);
  });

  test('stepping and going from pose to pose', () => {
    const { editor, run } = open();
    run('next-frame');
    expect(editor.clock.seconds).toBeCloseTo(1 / 60, 9);
    run('ten-forward');
    expect(editor.clock.seconds).toBeCloseTo(11 / 60, 9);
    run('next-pose');
    expect(editor.clock.seconds).toBeCloseTo(1.4, 9);
    run('next-pose');
    run('next-pose');
    expect(editor.clock.seconds).toBeCloseTo(2.8, 9);
    run('previous-pose');
    expect(editor.clock.seconds).toBeCloseTo(1.4, 9);
  });

  test('duplicating keeps the origins of anchors, removing takes the copy off again', () => {
    const { store, run } = open();
    store.dispatch(sessionActions.selected({ kind: 'stop', figureId: 'f', stop: 1 }));
    const piece = () => (store.getState() as RootState).document.piece;
    const before = piece();
    run('duplicate');
    expect(piece()?.figures.f.poses).toHaveLength(4);
    const source = before?.parts[before.poses[before.figures.f.poses[1]].parts[0]];
    const copies = Object.values(piece()?.parts ?? {}).filter(({ contours }) => contours[0].anchors[0].origin);
    expect(copies).toHaveLength(1);
    expect(copies[0].contours[0].anchors.map(({ origin }) => origin)).toEqual(
      source?.contours[0].anchors.map(({ id }) => id),
    );
    run('remove');
    expect(piece()?.figures.f.poses).toEqual(before?.figures.f.poses);
    run('undo');
    run('undo');
    expect(piece()).toEqual(before);
  });

  test('rooms and zoom', () => {
    const { editor, rooms, run } = open();
    run('room-output');
    run('room-shapes');
    expect(rooms).toEqual(['output', 'shapes']);
    editor.viewport.setPane(1000, 700);
    const fitted = editor.viewport.view.zoom;
    run('zoom-in');
    expect(editor.viewport.view.zoom).toBeCloseTo(fitted * 1.25, 9);
    run('zoom-out');
    run('fit');
    expect(editor.viewport.view.zoom).toBeCloseTo(fitted, 9);
  });
});
