import { emptyPiece, type PathEngine, type TextFont } from '@core';
import { beforeAll, describe, expect, test } from '@jest/globals';
import { changePiece, drawingActions, type ToolId } from '../../state';
import { drawnPiece } from '../../testing/drawn-piece';
import { Driver, engineOf } from '../../testing/driver';
import { heavyFont, pathEngine } from '../../testing/engine';
import { TOOL_TABLE } from './table';

let font: TextFont;
let paths: PathEngine;
beforeAll(async () => {
  font = heavyFont();
  paths = await pathEngine();
});

describe('the hint of a tool', () => {
  const hint = (tool: ToolId, driver: Driver): string =>
    TOOL_TABLE[tool].help({ figures: driver.piece.figureOrder.length, targets: driver.editor.drawing.look().targets });

  test('never promises what what is there cannot do', async () => {
    const empty = new Driver(emptyPiece('e', 'Empty'));
    for (const tool of ['select', 'points', 'cut', 'colour'] as const)
      expect(hint(tool, empty)).toMatch(/^The piece is empty/);
    const driver = new Driver(drawnPiece({ d: 'M100 100h200v120h-200z' }), engineOf(paths, font));
    expect(hint('cut', driver)).toBe('First choose what to split, with Select.');
    expect(hint('select', driver)).toBe('Click to choose, drag round several.');
    driver.select();
    expect(hint('select', driver)).toMatch(/for its points\.$/);
    expect(hint('points', driver)).toMatch(/^Drag points/);
    driver.store.dispatch(changePiece('Lock', (draft) => void (draft.figures[draft.figureOrder[0]].locked = true)));
    for (const tool of ['select', 'points', 'cut'] as const) expect(hint(tool, driver)).toMatch(/^It is locked/);
    driver.run('tool-shape').press(300, 300);
    expect(hint('points', driver)).toMatch(/^Drag its handles/);
    driver.store.dispatch(drawingActions.toolChosen('text'));
    driver.press(100, 300);
    await driver.settled();
    expect(hint('points', driver)).toMatch(/^Letters have no points/);
    expect(hint('select', driver)).toMatch(/Its letters are under Outline\.$/);
  });
});
