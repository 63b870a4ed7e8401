import { emptyPiece } from '@core';
import { describe, expect, test } from '@jest/globals';
import { drawingActions } from '../../state';
import { Driver } from '../../testing/driver';
import { pieceOf } from '../../testing/pieces';
import type { KeyPress } from './key-pointer';

const SQUARE = 'M100 100h200v200h-200z';

/** A designer without a mouse: keys go to the marker, or else to the commands. */
class Keys extends Driver {
  get said(): string {
    return this.state.session.said;
  }
  key(key: string, held: Partial<KeyPress> = {}): boolean {
    return this.editor.drawing.keyPointer.press({
      key,
      shiftKey: false,
      ctrlKey: false,
      metaKey: false,
      altKey: false,
      ...held,
    });
  }
  keys(...keys: string[]): this {
    for (const key of keys) this.key(key);
    return this;
  }
}
const withKeys = (...ds: string[]): Keys => {
  const driver = new Keys(ds.length > 0 ? pieceOf(ds) : emptyPiece('test', 'Test'));
  driver.editor.drawing.keyPointer.show();
  return driver;
};

describe('the marker that keys lead', () => {
  test('begins in the middle of the canvas and says where it goes', () => {
    const driver = withKeys();
    expect(driver.said).toBe('320, 320');
    driver.keys('ArrowRight', 'ArrowDown');
    expect(driver.said).toBe('330, 330');
    driver.key('ArrowLeft', { shiftKey: true });
    driver.key('ArrowUp', { ctrlKey: true });
    expect(driver.said).toBe('280, 329');
    driver.keys('Home');
    expect(driver.said).toBe('320, 320');
  });

  test('is nothing to other keys, to Alt, and while it is hidden', () => {
    const driver = withKeys();
    expect([driver.key('x'), driver.key('ArrowLeft', { altKey: true }), driver.key('Escape')]).toEqual([
      false,
      false,
      false,
    ]);
    driver.editor.drawing.keyPointer.hide();
    expect(driver.key('ArrowLeft')).toBe(false);
  });

  test('puts shapes down where it is, and says what was drawn', () => {
    const driver = withKeys();
    driver.run('tool-shape');
    expect(driver.said).toMatch(/^Rectangle\. /);
    driver.run('tool-shape');
    expect(driver.said).toMatch(/^Ellipse\. /);
    driver.run('shape-before').run('tool-shape').keys('ArrowRight', 'Enter');
    expect(driver.said).toBe('Draw Ellipse.');
    expect(driver.parts()[0].source).toMatchObject({ kind: 'ellipse' });
    expect(Math.min(...driver.points().map(([x]) => x))).toBeCloseTo(330 - 128, 3);
    driver.run('shape-before').keys('Home', 'Enter');
    expect([driver.piece.figureOrder.length, driver.run('drawn-as-pose').piece.figureOrder.length]).toEqual([2, 1]);
    driver.run('loop');
    const figure = driver.piece.figures[driver.piece.figureOrder[0]];
    expect([figure.poses.length, figure.rail.length]).toEqual([2, 2]);
    expect(driver.said).toBe('At the end it goes back to the first pose.');
    driver.run('loop');
    expect(driver.piece.figures[driver.piece.figureOrder[0]].rail).toHaveLength(1);
  });

  test('draws point by point: Enter sets one, the first one closes, a second press at one place ends an open line', () => {
    const driver = withKeys();
    driver.run('tool-draw');
    driver.keys('Enter', 'ArrowRight', 'ArrowRight', 'Enter', 'ArrowDown', 'ArrowDown', 'Enter', 'PageDown');
    expect(driver.said).toBe('First point: closes, 320, 320');
    driver.keys('Enter');
    expect(driver.points()).toEqual([
      [320, 320],
      [340, 320],
      [340, 340],
    ]);
    expect(driver.parts()[0].contours[0].closed).toBe(true);
    driver.run('tool-draw').keys('ArrowLeft', 'Enter', 'ArrowLeft', 'ArrowLeft', 'Enter', 'Enter');
    const [line] = driver.parts(driver.piece.figureOrder[1]);
    expect([line.contours[0].closed, line.contours[0].anchors.length]).toEqual([false, 2]);
  });

  test('takes hold, drags and lets go: a figure is moved and sized, and left as it was by Escape', () => {
    const driver = withKeys(SQUARE);
    driver.store.dispatch(
      drawingActions.snapChanged({ points: false, outlines: false, centres: false, guides: false }),
    );
    driver.keys('PageDown');
    expect(driver.said).toBe('Figure, 320, 320');
    driver.keys('Enter');
    expect(driver.said).toBe('Figure chosen.');
    const before = driver.points();
    const width = (): number => driver.points()[1][0] - driver.points()[0][0];
    driver.key('Enter', { shiftKey: true });
    driver.keys('ArrowRight', 'ArrowRight', 'Enter');
    expect(driver.points().map(([x, y]) => [x - 20, y])).toEqual(before);
    expect(driver.said).toBe('Move Pose 1 by hand.');

    const size = width();
    driver.keys('PageDown');
    while (!driver.said.startsWith('Corner at the bottom right')) driver.keys('PageDown');
    driver.key('Enter', { shiftKey: true });
    driver.keys('ArrowRight', 'ArrowDown', 'Enter');
    expect(width()).toBeCloseTo(size + 10, 6);

    const done = driver.points();
    driver.key('Enter', { shiftKey: true });
    driver.keys('ArrowRight', 'Escape');
    expect([driver.points(), driver.said]).toEqual([done, 'Left as it was.']);
  });

  test('walks the points of what is chosen; one is chosen, dragged and removed', () => {
    const driver = withKeys(SQUARE);
    driver.select().run('tool-points').keys('PageDown', 'PageDown');
    expect(driver.said).toMatch(/^Point 2 of Part, /);
    driver.keys('Enter');
    expect(driver.said).toBe('1 point chosen.');
    const before = driver.points();
    driver.key('Enter', { shiftKey: true });
    driver.keys('ArrowUp', 'Enter');
    expect(driver.points()[1]).toEqual([before[1][0], before[1][1] - 10]);
    driver.run('remove');
    expect(driver.points()).toHaveLength(3);
    driver.keys('PageUp');
    expect(driver.said).toMatch(/^Point 3 of Part, /);
  });

  test('two presses at one place lead to the points of what lies there, as a double press does', () => {
    const driver = withKeys(SQUARE);
    driver.keys('PageDown', 'Enter', 'Enter');
    expect(driver.state.drawing.tool).toBe('points');
  });
});
