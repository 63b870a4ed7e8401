import { contourArea, contourOfRecord, type PathEngine, readPathData } from '@core';
import { beforeAll, describe, expect, test } from '@jest/globals';
import { drawingActions } from '../../state';
import { drawnPiece } from '../../testing/drawn-piece';
import { Driver, engineOf } from '../../testing/driver';
import { pathEngine } from '../../testing/engine';
import {
  changePaint,
  chooseAllFigures,
  combineTargets,
  fillTargetHoles,
  outlineTargetStrokes,
  separateTargets,
  simplifyTargets,
} from '..';

const SQUARE = { d: 'M100 100H200V200H100Z' };
const RIGHT = { d: 'M300 100H400V200H300Z' };
let paths: PathEngine;
beforeAll(async () => {
  paths = await pathEngine();
});

describe('whole outlines', () => {
  test('figures are united into the lowest; others with more poses refuse', async () => {
    const driver = new Driver(
      drawnPiece(SQUARE, { d: 'M150 150H250V250H150Z' }, { d: 'M120 180H180V300H120Z' }),
      engineOf(paths),
    );
    chooseAllFigures(driver.store);
    await combineTargets(driver.store, driver.editor.shapes, 'unite', 0);
    expect(driver.piece.figureOrder).toEqual(['f0']);
    expect(driver.parts()[0].contours).toHaveLength(1);
    driver.run('undo');
    expect(driver.piece.figureOrder).toHaveLength(3);
    driver.select('f1').run('duplicate');
    chooseAllFigures(driver.store);
    await combineTargets(driver.store, driver.editor.shapes, 'unite', 0);
    expect(driver.messages).toContain('would lose them');
    expect(driver.piece.figureOrder).toHaveLength(3);
  });

  test('holes, solids, strokes, points: filled, separated, outlined, simplified; nothing to do is told', async () => {
    const driver = new Driver(
      drawnPiece({ d: 'M100 100H300V300H100ZM150 150V250H250V150ZM400 100H450V150H400Z', stroke: 10 }),
      engineOf(paths),
    ).select();
    separateTargets(driver.store, 0);
    expect(driver.parts().map(({ contours }) => contours.length)).toEqual([2, 1]);
    fillTargetHoles(driver.store, 0);
    expect(driver.parts().map(({ contours }) => contours.length)).toEqual([1, 1]);
    fillTargetHoles(driver.store, 0);
    expect(driver.messages).toContain('no holes');
    await outlineTargetStrokes(driver.store, driver.editor.shapes, 0);
    expect(driver.parts().map(({ stroke, contours }) => [stroke, contours.length])).toEqual([
      [null, 1],
      [null, 2],
      [null, 1],
      [null, 2],
    ]);
    await simplifyTargets(driver.store, driver.editor.shapes, 0, 0.5);
    expect(driver.messages).toMatch(/points|No point/);
    await outlineTargetStrokes(driver.store, driver.editor.shapes, 0);
    expect(driver.messages).toContain('has a stroke');
  });

  test('dashes become areas of their own; dashes that draw nothing are told and stay', async () => {
    const driver = new Driver(drawnPiece({ d: 'M100 100H200', fill: null, stroke: 10 }), engineOf(paths)).select();
    const dashes = (lengths: number[]) =>
      changePaint(driver.store, 0, 'Dashes', (part) => {
        if (part.stroke) Object.assign(part.stroke, { dash: lengths, cap: 'butt' });
      });
    dashes([0, 20]);
    await outlineTargetStrokes(driver.store, driver.editor.shapes, 0);
    expect(driver.messages).toContain('draw nothing');
    expect(driver.parts()[0].stroke?.width).toBe(10);
    dashes([30, 10]);
    await outlineTargetStrokes(driver.store, driver.editor.shapes, 0);
    expect(driver.parts().map(({ stroke, contours }) => [stroke, contours.length])).toEqual([[null, 3]]);
  });

  test('the cut tool divides what is chosen', async () => {
    const driver = new Driver(drawnPiece(SQUARE), engineOf(paths)).select();
    driver.store.dispatch(drawingActions.toolChosen('cut'));
    driver.drag([50, 150], [300, 150]);
    await driver.settled();
    expect(driver.parts()).toHaveLength(2);
    expect(driver.parts().map(({ contours }) => Math.abs(contourArea(contourOfRecord(contours[0]))))).toEqual([
      expect.closeTo(5000, 3),
      expect.closeTo(5000, 3),
    ]);
    driver.select().drag([500, 0], [600, 0]);
    await driver.settled();
    expect(driver.messages).toContain('crosses nothing');
  });

  test('a worker’s answer to a piece that was changed meanwhile is not taken', async () => {
    let answer: (value: never) => void = () => {};
    const slow = { ...engineOf(paths), combine: () => new Promise<never>((resolve) => (answer = resolve)) };
    const driver = new Driver(drawnPiece(SQUARE, RIGHT), slow as never);
    chooseAllFigures(driver.store);
    const work = combineTargets(driver.store, driver.editor.shapes, 'unite', 0);
    driver.select('f0').run('nudge-left-1' as never);
    answer({ outline: readPathData('M0 0H9V9Z'), notes: [] } as never);
    await work;
    expect(driver.piece.figureOrder).toHaveLength(2);
    expect(driver.messages).toContain('changed meanwhile');
  });
});
