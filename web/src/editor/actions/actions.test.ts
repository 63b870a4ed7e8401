import type { PathEngine, TextFont } from '@core';
import { beforeAll, describe, expect, test } from '@jest/globals';
import { changePiece, drawingActions } from '../../state';
import { drawnPiece } from '../../testing/drawn-piece';
import { Driver, engineOf } from '../../testing/driver';
import { heavyFont, pathEngine } from '../../testing/engine';
import {
  addText,
  changePaint,
  changeText,
  outlineRemarks,
  paintOf,
  paletteOf,
  setPaint,
  turnTargetsIntoPoints,
  typedAsPose,
} from '..';
import { niceStep } from '../overlay/paint-aids';
import { handleMatrix, handlePlace, hitHandle } from '../tools/transform-box';

let font: TextFont;
let paths: PathEngine;
beforeAll(async () => {
  font = heavyFont();
  paths = await pathEngine();
});

describe('typing', () => {
  const typed = async (): Promise<Driver> => {
    const driver = new Driver(drawnPiece(), engineOf(paths, font));
    driver.store.dispatch(drawingActions.toolChosen('text'));
    driver.press(100, 300);
    return driver.settled();
  };
  const textOf = (driver: Driver) => Object.values(driver.piece.texts)[0];

  test('a press puts a text down where it is, chosen, ready to be typed over', async () => {
    const driver = await typed();
    expect(driver.parts().map(({ name }) => name)).toEqual(['T', 'e', 'x', 't']);
    expect(textOf(driver)).toMatchObject({ content: 'Text', x: 100, y: 300 });
    expect([driver.state.drawing.tool, driver.state.drawing.details]).toEqual(['select', 'outline']);
    expect(driver.piece.figures[driver.piece.figureOrder[0]].name).toBe('Text');
    expect(driver.state.drawing.typesInto).toBe(textOf(driver).id);
  });

  test('letters, size and alignment change it; each is one step', async () => {
    const driver = await typed();
    const change = (next: Parameters<typeof changeText>[4]) =>
      changeText(driver.store, driver.editor.shapes, driver.pose().id, textOf(driver).id, next);
    await change({ content: 'Quay 7' });
    expect(driver.parts().map(({ name }) => name)).toEqual(['Q', 'u', 'a', 'y', '7']);
    await change({ size: 40 });
    await change({ align: 'end' });
    expect(driver.history.slice(-3)).toEqual(['Type', 'Set the text', 'Set the text']);
    driver.run('undo').run('undo').run('undo');
    expect(driver.parts().map(({ name }) => name)).toEqual(['T', 'e', 'x', 't']);
  });

  test('a sign that is fitted to a gap follows it when the text is changed, in the same step', async () => {
    const driver = await typed();
    const [textFigure] = driver.piece.figureOrder;
    const text = textOf(driver).id;
    const change = (content: string) =>
      changeText(driver.store, driver.editor.shapes, driver.pose(textFigure).id, text, { content });
    await change('Qu y');
    driver.store.dispatch(drawingActions.toolChosen('shape'));
    driver.press(320, 320);
    const sign = driver.piece.figureOrder.find((id) => id !== textFigure) ?? '';
    driver.store.dispatch(
      changePiece('Place', (draft) => {
        const { placement } = draft.poses[draft.figures[sign].poses[0]];
        placement.rule = { centre: 'box', fit: 'longest', to: 'box', box: [0, 0, 1, 1], letter: { text, index: 2 } };
      }),
    );
    const middle = (): number => {
      const xs = driver.points(sign).map(([x]) => x);
      return (Math.min(...xs) + Math.max(...xs)) / 2;
    };
    const before = middle();
    const steps = driver.history.length;
    await change('MM Qu  y');
    expect(middle()).toBeGreaterThan(before + 50);
    expect(driver.history.length).toBe(steps + 1);
    const [, , width] = driver.pose(sign).placement.rule?.box ?? [];
    expect(width).toBeGreaterThan(0);
    driver.run('undo');
    expect(middle()).toBeCloseTo(before, 9);
  });

  test('a text that became a figure becomes the next pose of the one before by one press, after its letters were typed too', async () => {
    const driver = new Driver(drawnPiece({ d: 'M100 100h80v80h-80z' }), engineOf(paths, font));
    driver.store.dispatch(drawingActions.toolChosen('text'));
    driver.press(100, 300);
    await driver.settled();
    expect(driver.piece.figureOrder).toHaveLength(2);
    const [, figure] = driver.piece.figureOrder;
    await changeText(driver.store, driver.editor.shapes, driver.pose(figure).id, textOf(driver).id, { content: 'Sea' });
    typedAsPose(driver.store);
    expect(driver.piece.figureOrder).toEqual(['f0']);
    expect(driver.piece.figures.f0.poses).toHaveLength(2);
    expect(driver.parts('f0', 1).map(({ name, source }) => [name, source?.kind])).toEqual([
      ['S', 'glyph'],
      ['e', 'glyph'],
      ['a', 'glyph'],
    ]);
    expect(driver.state.session.selection).toEqual({ kind: 'stop', figureId: 'f0', stop: 1 });
    driver.run('undo');
    expect(driver.piece.figureOrder).toHaveLength(2);
  });

  test('a duplicated text is a text with letters of its own', async () => {
    const driver = await typed();
    driver.run('duplicate');
    const [figure] = driver.piece.figureOrder;
    expect(Object.keys(driver.piece.texts)).toHaveLength(2);
    const glyph = (stop: number) => driver.parts(figure, stop)[0].source;
    expect([glyph(0)?.kind, glyph(1)?.kind]).toEqual(['glyph', 'glyph']);
    expect(glyph(1)).not.toEqual(glyph(0));
    const own = glyph(1) as { text: string };
    await changeText(driver.store, driver.editor.shapes, driver.pose(figure, 1).id, own.text, { content: 'Sea' });
    const letters = (stop: number): string =>
      driver
        .parts(figure, stop)
        .map(({ name }) => name)
        .join('');
    expect([letters(0), letters(1)]).toEqual(['Text', 'Sea']);
    expect(driver.piece.texts[own.text].content).toBe('Sea');
  });

  test('pose and figure are called like the letters, unless somebody gave them a name', async () => {
    const driver = await typed();
    const [figure] = driver.piece.figureOrder;
    const change = (content: string) =>
      changeText(driver.store, driver.editor.shapes, driver.pose().id, textOf(driver).id, { content });
    await change('Quay 7');
    expect([driver.pose().name, driver.piece.figures[figure].name]).toEqual(['Quay 7', 'Quay 7']);
    driver.store.dispatch(changePiece('Rename', (draft) => void (draft.figures[figure].name = 'Sign')));
    await change('Pier');
    expect([driver.pose().name, driver.piece.figures[figure].name]).toEqual(['Pier', 'Sign']);
  });

  test('changes that come faster than letters are set all count', async () => {
    const driver = await typed();
    const change = (next: Parameters<typeof changeText>[4]) =>
      changeText(driver.store, driver.editor.shapes, driver.pose().id, textOf(driver).id, next);
    await Promise.all([change({ content: 'Qu' }), change({ content: 'Quay' }), change({ size: 120 })]);
    expect(driver.parts().map(({ name }) => name)).toEqual(['Q', 'u', 'a', 'y']);
    expect(textOf(driver)).toMatchObject({ content: 'Quay', size: 120 });
    void change({ content: 'Pier' });
    await turnTargetsIntoPoints(driver.store, 0);
    expect(driver.parts().map(({ name, source }) => [name, source])).toEqual(
      ['P', 'i', 'e', 'r'].map((c) => [c, undefined]),
    );
    expect(driver.messages).toContain('The letters “Pier” are points now: they no longer follow their text.');
  });

  test('a text of nothing is refused with a reason, missing letters are told', async () => {
    const driver = await typed();
    const change = (content: string) =>
      changeText(driver.store, driver.editor.shapes, driver.pose().id, textOf(driver).id, { content });
    await change('   ');
    expect(driver.messages).toContain('at least one letter');
    expect(textOf(driver).content).toBe('Text');
    await change('A中');
    expect(driver.messages).toContain('“中”');
  });

  test('a font that is not there is told and changes nothing', async () => {
    const driver = await typed();
    const broken = {
      ...driver.editor.shapes,
      layoutText: () => Promise.reject(new Error('The font “gone” is not on this server.')),
    };
    await changeText(driver.store, broken as never, driver.pose().id, textOf(driver).id, { font: 'gone' });
    expect(driver.messages).toContain('not on this server');
    expect(textOf(driver).font).not.toBe('gone');
    await addText(driver.store, broken as never, 0, 0, 0);
    expect(driver.piece.figureOrder).toHaveLength(1);
  });

  test('as points it is text no more, and looks the same', async () => {
    const driver = await typed();
    const before = driver.points();
    await turnTargetsIntoPoints(driver.store, 0);
    expect([driver.piece.texts, driver.points()]).toEqual([{}, before]);
  });
});

describe('paint', () => {
  test('fill and stroke of all that is chosen, as one step; nothing is a paint too', () => {
    const driver = new Driver(drawnPiece({ d: 'M0 0H9V9Z' }, { d: 'M20 0H29V9Z' }));
    driver.select('f0').store.dispatch(drawingActions.alsoChosen(['f1']));
    setPaint(driver.store, 0, 'fill', '#abcdef');
    setPaint(driver.store, 0, 'stroke', '#123456');
    expect(
      ['f0', 'f1'].map((f) => [
        driver.parts(f)[0].fill,
        driver.parts(f)[0].stroke?.paint,
        driver.parts(f)[0].stroke?.width,
      ]),
    ).toEqual([
      ['#abcdef', '#123456', 4],
      ['#abcdef', '#123456', 4],
    ]);
    setPaint(driver.store, 0, 'fill', null);
    setPaint(driver.store, 0, 'stroke', null);
    expect(paintOf(driver.parts('f1'), 'fill')).toBeNull();
    expect(driver.history).toEqual(['Fill', 'Stroke', 'Fill', 'Stroke']);
  });

  test('the palette has the most used colours first; changes need something chosen', () => {
    const driver = new Driver(
      drawnPiece(
        { d: 'M0 0H9V9Z', fill: '#111111' },
        { d: 'M20 0H29V9Z', fill: '#222222', stroke: 2 },
        { d: 'M40 0H49V9Z', fill: '#222222' },
      ),
    );
    expect(paletteOf(driver.piece)[0]).toBe('#222222');
    expect(paletteOf(driver.piece)).toContain('#c04020');
    changePaint(driver.store, 0, 'Nothing', (part) => void (part.fill = '#000000'));
    expect(driver.history).toEqual([]);
  });

  test('the eyedropper paints with what it finds, Alt the other of fill and stroke', () => {
    const driver = new Driver(drawnPiece({ d: 'M100 100H200V200Z' })).select();
    driver.editor.pickColourWith((x) => (x < 300 ? '#00ff00' : undefined));
    driver.store.dispatch(drawingActions.toolChosen('colour'));
    driver.press(120, 120).press(130, 120, { alt: true }).press(400, 400);
    expect([driver.parts('f0')[0].fill, driver.parts('f0')[0].stroke?.paint]).toEqual(['#00ff00', '#00ff00']);
  });

  test('what looks unmeant is told: nearly closed, filled though open', () => {
    const remarks = (d: string, fill: string | null = '#000000'): string[] =>
      outlineRemarks(Object.values(drawnPiece({ d, fill }).parts));
    expect(remarks('M0 0H90V90H0V1')[0]).toContain('open by 1 px');
    expect(remarks('M0 0H90V90')).toEqual(['A filled contour is open: its fill is closed by a straight line.']);
    expect(remarks('M0 0H90V90', null)).toEqual([]);
    expect(remarks('M0 0H90V90Z')).toEqual([]);
  });
});

describe('the box with its handles', () => {
  const box = { minX: 100, minY: 100, maxX: 300, maxY: 200 };
  const at = (x: number, y: number, keys: { shift?: boolean; alt?: boolean } = {}) => ({
    x,
    y,
    zoom: 1,
    shift: false,
    alt: false,
    clicks: 1,
    ...keys,
  });
  const map = ([a, b, c, d, e, f]: readonly number[], x: number, y: number): number[] =>
    [a * x + c * y + e, b * x + d * y + f].map((v) => +v.toFixed(6));

  test.each(['nw', 'ne', 'se', 'sw', 'n', 'e', 's', 'w'] as const)(
    '%s: the handle goes where the pointer goes, the opposite side stays',
    (handle) => {
      const [x, y] = handlePlace(handle, box, [200, 150], 1);
      const matrix = handleMatrix(handle, box, [200, 150], at(x + 30, y + 20), at(x, y), false);
      const [nx, ny] = map(matrix, x, y);
      if (handle !== 'n' && handle !== 's') expect(nx).toBeCloseTo(x + 30, 6);
      if (handle !== 'e' && handle !== 'w') expect(ny).toBeCloseTo(y + 20, 6);
      const opposite = [handle.includes('w') ? 300 : 100, handle.includes('n') ? 200 : 100];
      const kept = map(matrix, opposite[0], opposite[1]);
      if (handle.length === 2) expect(kept).toEqual(opposite);
    },
  );

  test('⇧ keeps proportions, Alt scales about the pivot, turning snaps to steps', () => {
    const even = handleMatrix('se', box, [200, 150], at(400, 210, { shift: true }), at(300, 200), false);
    expect(even[0]).toBeCloseTo(even[3], 9);
    const about = handleMatrix('e', box, [200, 150], at(350, 150, { alt: true }), at(300, 150), false);
    expect(map(about, 200, 150)).toEqual([200, 150]);
    const turn = handleMatrix('turn', box, [200, 150], at(250, 148, { shift: true }), at(200, 78), false);
    expect(map(turn, 200, 100)).toEqual([250, 150]);
  });

  test('zero is passed without getting lost in it', () => {
    const flat = handleMatrix('e', box, [200, 150], at(100, 150), at(300, 150), false);
    expect(Math.abs(flat[0])).toBeGreaterThan(0);
    expect(handleMatrix('e', box, [200, 150], at(0, 150), at(300, 150), false)[0]).toBeLessThan(0);
  });

  test('handles are hit where they stand; small boxes leave the sides out', () => {
    expect(hitHandle(at(300, 200), box, [200, 150], false)).toBe('se');
    expect(hitHandle(at(200, 78), box, [200, 150], false)).toBe('turn');
    expect(hitHandle(at(200, 150), box, [200, 150], false)).toBeUndefined();
    expect(hitHandle(at(200, 150), box, [200, 150], true)).toBe('pivot');
    const tiny = { minX: 0, minY: 0, maxX: 20, maxY: 20 };
    expect(hitHandle(at(20, 10), tiny, [10, 10], true)).toBeUndefined();
  });

  test('rulers step by 1, 2, 5, 10, …', () => {
    expect([0.3, 1, 1.5, 3, 7, 12, 60, 450].map(niceStep).map((v) => +v.toFixed(6))).toEqual([
      0.5, 1, 2, 5, 10, 20, 100, 500,
    ]);
  });
});
