import { setLaneAtStop } from '@core';
import { describe, expect, test } from '@jest/globals';
import { changePiece, drawingActions, sessionActions } from '../../state';
import { type DrawnFigure, drawnPiece, newId } from '../../testing/drawn-piece';
import { Driver } from '../../testing/driver';
import { redrawAs, setPaint, turnTargetsIntoPoints } from '..';

const SQUARE = { d: 'M100 100H200V200H100Z' };
const noSnap = (driver: Driver): Driver => {
  driver.store.dispatch(
    drawingActions.snapChanged({ points: false, outlines: false, centres: false, guides: false, grid: false }),
  );
  return driver;
};

describe('drawing', () => {
  const tool = (id: 'draw' | 'shape', ...figures: DrawnFigure[]): Driver => {
    const driver = noSnap(new Driver(drawnPiece(...figures)));
    driver.store.dispatch(drawingActions.toolChosen(id));
    driver.store.dispatch(drawingActions.changed({ drawsAs: 'figure' }));
    return driver;
  };

  test('corners and curves; the first point closes, Enter ends an open one, Delete takes the last back', () => {
    const driver = tool('draw');
    driver.press(100, 100).press(300, 100).press(400, 400).run('remove').drag([300, 300], [350, 300]).press(100, 100);
    expect(driver.points()).toEqual([
      [100, 100],
      [300, 100],
      [300, 300],
    ]);
    const [part] = driver.parts();
    expect([part.contours[0].closed, part.contours[0].anchors[2].out, part.stroke]).toEqual([true, [350, 300], null]);
    driver.run('leave');
    driver.store.dispatch(drawingActions.toolChosen('draw'));
    driver.press(10, 10).press(60, 10).run('confirm');
    expect(driver.parts(driver.piece.figureOrder[1])[0]).toMatchObject({ fill: null, contours: [{ closed: false }] });
    driver.press(500, 10).run('leave').run('leave');
    expect(driver.piece.figureOrder).toHaveLength(2);
  });

  test('the pen left by Escape keeps an open line; undo takes its last point back, then what was done before', () => {
    const driver = tool('draw', SQUARE);
    driver.press(10, 10).press(60, 10).press(60, 90).run('undo').run('leave');
    const [, drawn] = driver.piece.figureOrder;
    expect(driver.points(drawn)).toEqual([
      [10, 10],
      [60, 10],
    ]);
    expect(driver.parts(drawn)[0].contours[0].closed).toBe(false);
    expect(driver.state.drawing.tool).toBe('draw');
    driver.press(200, 10).run('undo').run('undo');
    expect(driver.piece.figureOrder).toHaveLength(1);
  });

  test('a tool stays at hand until Escape, and draws where a handle of what is chosen lies; or goes back after one', () => {
    const driver = tool('shape');
    driver.drag([100, 100], [300, 200]).drag([300, 200], [400, 400]);
    expect(driver.piece.figureOrder).toHaveLength(2);
    expect(driver.parts()[0].source).toMatchObject({ width: 200, height: 100 });
    driver.run('leave');
    expect(driver.state.drawing.tool).toBe('select');
    driver.store.dispatch(drawingActions.changed({ keepTool: false }));
    driver.store.dispatch(drawingActions.toolChosen('shape'));
    driver.drag([10, 10], [60, 60]);
    expect(driver.state.drawing.tool).toBe('select');
  });

  test('a click that only lets go makes nothing: beside what was just made, out of a field or a menu; nor does one outside the canvas', () => {
    const driver = tool('shape');
    driver.press(200, 200);
    expect(driver.piece.figureOrder).toHaveLength(1);
    expect(driver.state.session.selection).not.toBeNull();
    driver.press(30, 30);
    expect([driver.piece.figureOrder.length, driver.state.session.selection]).toEqual([1, null]);
    // The next one is meant, and so is a drag.
    driver.press(60, 60).drag([10, 10], [90, 90]);
    expect(driver.piece.figureOrder).toHaveLength(3);
    driver.store.dispatch(sessionActions.selected(null));
    for (const other of ['shape', 'text', 'draw'] as const) {
      driver.store.dispatch(drawingActions.toolChosen(other));
      driver.press(200, 200, { letsGo: true }).press(-10, 50).press(50, 99_999).run('leave');
      expect([other, driver.piece.figureOrder.length]).toEqual([other, 3]);
    }
    expect(driver.messages).toContain('A click outside the canvas makes nothing.');
    // A drag may begin there, and a line that is being drawn may lead there.
    driver.store.dispatch(drawingActions.toolChosen('shape'));
    driver.drag([-20, -20], [90, 90]);
    driver.store.dispatch(drawingActions.toolChosen('draw'));
    driver.press(10, 10).press(-40, 10).run('leave');
    expect(driver.piece.figureOrder).toHaveLength(5);
  });

  test('what was drawn becomes the next pose or a part instead, as one step, until something else is done', () => {
    const driver = tool('shape');
    driver.drag([100, 100], [300, 200]);
    // A first shape has nothing that it could belong to.
    expect(driver.state.drawing.drawn?.into).toBeNull();
    driver.drag([350, 100], [400, 200]);
    const [first] = driver.piece.figureOrder;
    expect(driver.piece.figureOrder).toHaveLength(2);
    redrawAs(driver.store, 'pose', 0);
    expect(driver.piece.figureOrder).toEqual([first]);
    expect(driver.piece.figures[first].poses).toHaveLength(2);
    expect(driver.history).toEqual(['Draw Rectangle', 'Draw Rectangle']);
    expect(driver.state.session.selection).toMatchObject({ figureId: first, stop: 1 });
    redrawAs(driver.store, 'part', 0);
    expect(driver.piece.figures[first].poses).toHaveLength(1);
    expect(driver.parts(first).map(({ source }) => source?.kind)).toEqual(['rectangle', 'rectangle']);
    redrawAs(driver.store, 'figure', 0);
    expect([driver.piece.figureOrder.length, driver.history.length]).toEqual([2, 2]);
  });

  test('into the chosen part it is a hole, into the pose a part, after it the next pose', () => {
    const driver = tool('draw', SQUARE).select();
    const draw = (as: 'contour' | 'part' | 'pose'): void => {
      driver.store.dispatch(drawingActions.toolChosen('draw'));
      driver.store.dispatch(drawingActions.changed({ drawsAs: as }));
      driver.press(120, 120).press(180, 120).press(180, 180).press(120, 120);
    };
    draw('contour');
    expect(driver.parts()[0]).toMatchObject({ fillRule: 'evenodd', contours: [{}, {}] });
    draw('part');
    expect(driver.parts()).toHaveLength(2);
    draw('pose');
    expect(driver.piece.figures.f0.poses).toHaveLength(2);
    expect(driver.state.session.selection).toMatchObject({ stop: 1 });
  });

  test('a number that has a lane is set in it by handles, and points are what the lane made of the shape', async () => {
    const driver = tool('shape');
    driver.drag([100, 100], [200, 160]);
    driver.run('leave');
    const [figure] = driver.piece.figureOrder;
    driver.store.dispatch(
      changePiece('Lane', (draft) => setLaneAtStop(draft, figure, 'rectangle.width', 0, [60], newId)),
    );
    const width = () => Object.values(driver.piece.lanes)[0]?.keys[0].value[0];
    // Its lower right corner lies where a shape of that width has it.
    driver.drag([180, 160], [200, 160]);
    expect([width(), driver.parts()[0].source]).toEqual([80, expect.objectContaining({ width: 100 })]);
    await turnTargetsIntoPoints(driver.store, 0);
    const xs = driver.parts()[0].contours[0].anchors.map(({ at }) => at[0]);
    expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo(80, 9);
    expect(driver.parts()[0].source).toBeUndefined();
  });

  test('shapes are dragged out, put down by a click, adjusted by their handles, turned into points', async () => {
    const driver = tool('shape');
    driver.drag([100, 100], [300, 200]);
    expect(driver.parts()[0].source).toMatchObject({ kind: 'rectangle', width: 200, height: 100, x: 200, y: 150 });
    driver.run('leave').drag([300, 200], [340, 220]);
    expect(driver.parts()[0].source).toMatchObject({ width: 240, height: 120 });
    await turnTargetsIntoPoints(driver.store, 0);
    expect(driver.parts()[0].source).toBeUndefined();
    expect(driver.messages).toContain('“Rectangle” is points now: it is no longer adjustable.');
    expect(driver.state.session.messages[0].undoChange).toBe(driver.state.document.past.at(-1)?.id);
    driver.run('leave');
    driver.store.dispatch(drawingActions.shapeChosen('star'));
    driver.press(400, 400);
    expect(driver.parts(driver.piece.figureOrder[1])[0].source).toMatchObject({ kind: 'star', x: 400, y: 400 });
  });

  test('guides are pulled out of the rulers, moved, and put back', () => {
    const driver = new Driver(drawnPiece(SQUARE));
    driver.store.dispatch(drawingActions.changed({ rulers: true }));
    driver.drag([-20, 300], [250, 300]);
    expect(driver.piece.aids.guides).toMatchObject([{ axis: 'x', at: 250 }]);
    driver.drag([250, 600], [260, 600]);
    expect(driver.piece.aids.guides).toMatchObject([{ axis: 'x', at: 260 }]);
    driver.drag([260, 600], [-25, 600]);
    expect(driver.piece.aids.guides).toEqual([]);
  });

  test('gradients are edited on the canvas', () => {
    const driver = noSnap(new Driver(drawnPiece(SQUARE))).select();
    setPaint(driver.store, 0, 'fill', {
      kind: 'linear',
      from: [100, 150],
      to: [200, 150],
      stops: [
        { at: 0, colour: '#000000' },
        { at: 1, colour: '#ffffff' },
      ],
    });
    driver.drag([200, 150], [240, 180]);
    expect(driver.parts()[0].fill).toMatchObject({ to: [240, 180] });
    setPaint(driver.store, 0, 'fill', {
      kind: 'radial',
      centre: [150, 150],
      radii: [30, 30],
      rotation: 0,
      focus: [0, 0],
      stops: [
        { at: 0, colour: '#000000' },
        { at: 1, colour: '#ffffff' },
      ],
    });
    driver.drag([180, 150], [150, 210]);
    expect(driver.parts()[0].fill).toMatchObject({ radii: [60, 30], rotation: 90 });
  });
});
