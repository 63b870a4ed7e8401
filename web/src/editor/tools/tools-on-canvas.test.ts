import type { Paint } from '@core';
import { beforeAll, describe, expect, test } from '@jest/globals';
import { drawingActions } from '../../state';
import { type DrawnFigure, drawnPiece } from '../../testing/drawn-piece';
import { Driver } from '../../testing/driver';
import { type Mark, Paper, PaperPath, PEN_COLOURS } from '../../testing/paper';
import { setAnchorKind, setPaint } from '..';

const SQUARE = { d: 'M100 100H200V200H100Z' };
const OTHER = { d: 'M300 100H400V200H300Z' };
const KEYS = { shift: false, alt: false, clicks: 1 };
/** Where the canvas begins in the pane, px. */
const OFFSET = 28;
beforeAll(() => void Object.assign(globalThis, { Path2D: PaperPath }));

const cursor = (driver: Driver, x: number, y: number, keys: Partial<typeof KEYS> = {}): string =>
  driver.editor.drawing.hover(x + OFFSET, y + OFFSET, { ...KEYS, ...keys });
/** What the tool at hand paints over the picture, in px of the canvas. */
const painted = (driver: Driver): Paper => {
  const paper = new Paper();
  driver.editor.drawing.paint({ context: paper.context, colours: PEN_COLOURS, zoom: 1, toScreen: (x, y) => [x, y] });
  return paper;
};
/** The names of all places that Page Down walks. */
const walked = (driver: Driver): string[] => {
  const { keyPointer } = driver.editor.drawing;
  keyPointer.show();
  const names: string[] = [];
  for (let i = 0; i < 60; i++) {
    keyPointer.press({ key: 'PageDown', shiftKey: false, ctrlKey: false, metaKey: false, altKey: false });
    const { said } = driver.state.session;
    if (names.includes(said)) break;
    names.push(said);
  }
  keyPointer.hide();
  return names;
};
const circles = (marks: readonly Mark[], radius: number): (readonly number[])[] =>
  marks.flatMap(({ arcs }) => arcs.filter(([, , r]) => r === radius).map(([x, y]) => [x, y]));
const boxes = (marks: readonly Mark[], size: number): (readonly number[])[] =>
  marks
    .filter(({ kind }) => kind === 'stroke')
    .flatMap(({ paths }) => paths)
    .filter((path) => path.length === 2 && Math.abs(path[1][0] - path[0][0] - size) < 0.02)
    .map(([[x, y]]) => [x + size / 2, y + size / 2]);
const points = (...figures: DrawnFigure[]): Driver => {
  const driver = new Driver(drawnPiece(...figures)).select();
  driver.store.dispatch(drawingActions.toolChosen('points'));
  return driver;
};

describe('the choosing tool', () => {
  test('shows by the cursor what a press would do', () => {
    const driver = new Driver(drawnPiece(SQUARE));
    expect([cursor(driver, 150, 150), cursor(driver, 202, 150), cursor(driver, 500, 500)]).toEqual([
      'move',
      'move',
      'default',
    ]);
    driver.select();
    const at = [
      [100, 100],
      [150, 100],
      [200, 200],
      [100, 150],
      [150, 78],
    ] as const;
    expect(at.map(([x, y]) => cursor(driver, x, y))).toEqual([
      'nw-resize',
      'n-resize',
      'se-resize',
      'w-resize',
      'grab',
    ]);
    // The middle moves the figure; with Alt it is the pivot that moves.
    expect([cursor(driver, 150, 150), cursor(driver, 120, 120, { alt: true })]).toEqual(['move', 'move']);
  });

  test('draws a box with ten handles; a small one keeps to its corners and the turning handle', () => {
    const large = painted(new Driver(drawnPiece(SQUARE)).select()).marks;
    expect(boxes(large, 7)).toEqual([
      [100, 100],
      [150, 100],
      [200, 100],
      [200, 150],
      [200, 200],
      [150, 200],
      [100, 200],
      [100, 150],
    ]);
    expect(circles(large, 5)).toContainEqual([150, 78]);
    expect(circles(large, 4.5)).toEqual([[150, 150]]);
    const small = painted(new Driver(drawnPiece({ d: 'M100 100H140V140H100Z' })).select()).marks;
    expect(boxes(small, 7)).toHaveLength(4);
    expect(circles(small, 4.5)).toEqual([]);
    expect(painted(new Driver(drawnPiece(SQUARE))).marks).toEqual([]);
  });

  test('shows no pivot for several figures', () => {
    const driver = new Driver(drawnPiece(SQUARE, OTHER));
    driver.press(150, 150).press(350, 150, { shift: true });
    expect(circles(painted(driver).marks, 4.5)).toEqual([]);
  });

  test('draws the band while it is dragged, and no longer', () => {
    const driver = new Driver(drawnPiece(SQUARE));
    const { drawing } = driver.editor;
    drawing.down(OFFSET + 300, OFFSET + 300, KEYS);
    drawing.move(OFFSET + 250, OFFSET + 280, KEYS);
    expect(painted(driver).strokes).toMatchObject([
      {
        dash: [4, 3],
        paths: [
          [
            [300, 300],
            [250, 280],
          ],
        ],
      },
    ]);
    drawing.cancel();
    expect(painted(driver).strokes).toEqual([]);
  });

  test('a band chooses what lies wholly in it, not what is hidden, locked or only touched', () => {
    const piece = drawnPiece(SQUARE, OTHER, { d: 'M100 300H200V400H100Z' }, { d: 'M300 300H400V400H300Z' });
    const driver = new Driver({
      ...piece,
      figures: {
        ...piece.figures,
        f1: { ...piece.figures.f1, locked: true },
        f2: { ...piece.figures.f2, hidden: true },
      },
    });
    driver.drag([50, 50], [450, 450]);
    expect([driver.state.session.selection?.figureId, driver.state.drawing.also]).toEqual(['f0', ['f3']]);
    driver.drag([50, 50], [150, 450]);
    expect(driver.state.session.selection).toBeNull();
    // With ⇧ what was chosen stays, also where the band holds nothing.
    driver.press(150, 150).drag([290, 290], [410, 410], { shift: true });
    expect([driver.state.session.selection?.figureId, driver.state.drawing.also]).toEqual(['f0', ['f3']]);
    driver.drag([500, 500], [520, 520], { shift: true });
    expect(driver.state.session.selection?.figureId).toBe('f0');
  });

  test('a press of less than 4 px moves nothing; nor does a locked figure move beside a free one', () => {
    const driver = new Driver(drawnPiece(SQUARE)).select();
    driver.drag([150, 130], [152, 132]);
    expect([driver.points()[0], driver.history]).toEqual([[100, 100], []]);
    const piece = drawnPiece(SQUARE);
    const locked = new Driver({ ...piece, figures: { f0: { ...piece.figures.f0, locked: true } } }).select();
    locked.drag([200, 200], [260, 260]);
    expect([locked.points()[2], locked.history]).toEqual([[200, 200], []]);
  });

  test('⇧ and a press take a chosen figure off again', () => {
    const driver = new Driver(drawnPiece(SQUARE, OTHER));
    driver.press(150, 130).press(350, 130, { shift: true }).press(350, 130, { shift: true });
    expect([driver.state.session.selection?.figureId, driver.state.drawing.also]).toEqual(['f0', []]);
  });

  test('a double press goes on to the points of what was hit', () => {
    const driver = new Driver(drawnPiece(SQUARE, OTHER)).select('f0');
    driver.press(350, 130, { clicks: 2 });
    expect([driver.state.session.selection?.figureId, driver.state.drawing.tool]).toEqual(['f1', 'points']);
  });

  test('names every figure in sight and every handle for those who walk by keys', () => {
    const piece = drawnPiece(SQUARE, OTHER);
    const driver = new Driver({ ...piece, figures: { ...piece.figures, f1: { ...piece.figures.f1, hidden: true } } });
    expect(walked(driver)).toEqual(['Figure 1, 150, 150']);
    const names = walked(driver.select('f0'));
    expect(names).toHaveLength(10);
    expect(names).toContain('Corner at the top left: scales, 100, 100');
    expect(names).toContain('Handle above: turns, 150, 78');
    expect(names.some((name) => name.startsWith('Pivot'))).toBe(false);
    driver.drag([150, 150], [120, 120], { alt: true });
    expect(walked(driver)).toContain('Pivot, 120, 120');
  });

  test('shows the handles of a gradient, each with its arm', () => {
    const driver = new Driver(drawnPiece(SQUARE)).select();
    const stops = [
      { at: 0, colour: '#000000' },
      { at: 1, colour: '#ffffff' },
    ];
    setPaint(driver.store, 0, 'fill', { kind: 'linear', from: [110, 150], to: [190, 170], stops });
    expect(
      circles(
        painted(driver).marks.filter(({ kind }) => kind === 'fill'),
        5,
      ),
    ).toEqual([
      [150, 78],
      [110, 150],
      [190, 170],
    ]);
    setPaint(driver.store, 0, 'fill', {
      kind: 'radial',
      centre: [150, 150],
      radii: [30, 20],
      rotation: 90,
      focus: [0.5, 0],
      stops,
    });
    const places = circles(
      painted(driver).marks.filter(({ kind }) => kind === 'fill'),
      5,
    ).slice(1);
    expect(places).toEqual([
      [150, 180],
      [130, 150],
      [150, 165],
      [150, 150],
    ]);
    // The focus is kept inside the circle, and lies on the centre until it is taken clearly away.
    driver.drag([150, 165], [300, 300]);
    const focus = () => (driver.parts()[0].fill as Extract<Paint, { kind: 'radial' }>).focus;
    expect(Math.hypot(...focus())).toBeCloseTo(0.98, 6);
    driver.drag([150 - 20 * focus()[1], 150 + 30 * focus()[0]], [151, 150]);
    expect(focus()).toEqual([0, 0]);
    // A line has none of its own while it is filled that is painted.
    driver.store.dispatch(drawingActions.changed({ paints: 'stroke' }));
    expect(
      circles(
        painted(driver).marks.filter(({ kind }) => kind === 'fill'),
        5,
      ),
    ).toEqual([[150, 78]]);
  });
});

describe('the points tool', () => {
  test('shows by the cursor what a press would do', () => {
    const driver = points(SQUARE);
    expect([cursor(driver, 203, 200), cursor(driver, 150, 202), cursor(driver, 150, 150)]).toEqual([
      'move',
      'copy',
      'crosshair',
    ]);
  });

  test('draws corners as squares, smooth points as rounds, chosen ones filled, and the start with its direction', () => {
    const driver = points({ d: 'M100 100C150 50 200 50 250 100V200H100Z' });
    driver.press(250, 100);
    setAnchorKind(driver.store, 0, 'symmetric');
    driver.press(100, 200);
    const { marks } = painted(driver);
    expect(boxes(marks, 7.2).map((place) => place.map((v) => +v.toFixed(1)))).toEqual([
      [100, 100],
      [250, 200],
    ]);
    expect(
      circles(
        marks.filter(({ kind }) => kind === 'fill'),
        3.6,
      ),
    ).toEqual([[250, 100]]);
    const chosen = marks.filter(
      ({ kind, style, paths }) => kind === 'fill' && style === 'accent' && paths.length === 1,
    );
    expect(chosen).toMatchObject([
      {
        paths: [
          [
            [95.4, 195.4],
            [104.6, 204.6],
          ],
        ],
      },
    ]);
    // The arrow leaves along the first handle: up and to the right.
    const arrow = marks.find(({ kind, style }) => kind === 'fill' && style === 'cobalt');
    expect(arrow?.paths[0][0]).toEqual([+(100 + 21 * Math.SQRT1_2).toFixed(2), +(100 - 21 * Math.SQRT1_2).toFixed(2)]);
    expect(circles(marks, 8)).toEqual([[100, 100]]);
  });

  test('draws the handles of chosen points, and walks them', () => {
    const driver = points({ d: 'M100 100C150 50 200 50 250 100V200H100Z' });
    expect(walked(driver)).toEqual([
      'Point 1 of Part 1, 100, 100',
      'Point 2 of Part 1, 250, 100',
      'Point 3 of Part 1, 250, 200',
      'Point 4 of Part 1, 100, 200',
    ]);
    driver.press(250, 100);
    expect(
      circles(
        painted(driver).marks.filter(({ kind }) => kind === 'fill'),
        3.4,
      ),
    ).toEqual([[200, 50]]);
    expect(walked(driver)).toContain('Handle before the point, 200, 50');
    expect(walked(driver)).toHaveLength(5);
  });

  test('a press without a drag chooses: one of several, the next figure, or nothing', () => {
    const driver = points(SQUARE, OTHER);
    driver.drag([90, 90], [210, 110]);
    expect(driver.state.drawing.anchors).toHaveLength(2);
    driver.press(100, 100);
    expect(driver.state.drawing.anchors).toHaveLength(1);
    driver.press(200, 100, { shift: true });
    expect(driver.state.drawing.anchors).toHaveLength(2);
    driver.press(200, 100, { shift: true });
    expect(driver.state.drawing.anchors).toHaveLength(1);
    driver.press(350, 150);
    expect(driver.state.session.selection?.figureId).toBe('f1');
    driver.press(300, 100).press(500, 400);
    expect([driver.state.drawing.anchors, driver.history]).toEqual([[], []]);
  });

  test('Alt with nothing chosen chooses the point that it presses', () => {
    const driver = points(SQUARE);
    driver.press(200, 200, { alt: true });
    expect(driver.state.drawing.anchors).toHaveLength(1);
  });

  test('a press into one of several chosen figures lets go of points alone', () => {
    const driver = new Driver(drawnPiece(SQUARE, OTHER));
    driver.press(150, 150).press(350, 150, { shift: true });
    driver.store.dispatch(drawingActions.toolChosen('points'));
    driver.press(100, 100);
    expect(driver.state.drawing.anchors).toHaveLength(1);
    driver.press(350, 150);
    expect([driver.state.drawing.anchors, driver.state.session.selection?.figureId, driver.state.drawing.also]).toEqual(
      [[], 'f0', ['f1']],
    );
  });

  test('a band with ⇧ adds to what is chosen', () => {
    const driver = points(SQUARE);
    driver.press(200, 200).drag([90, 90], [110, 210], { shift: true });
    expect(driver.state.drawing.anchors).toHaveLength(3);
    driver.drag([90, 90], [110, 110]);
    expect(driver.state.drawing.anchors).toHaveLength(1);
  });

  test('a dragged side takes both of its points along', () => {
    const driver = points(SQUARE);
    driver.drag([150, 200], [150, 240], { alt: false });
    expect(driver.points()).toEqual([
      [100, 100],
      [200, 100],
      [200, 240],
      [100, 240],
    ]);
    // The last side runs from the last point to the first.
    driver.drag([100, 180], [60, 180], { shift: true });
    expect(driver.points().map(([x]) => x)).toEqual([60, 200, 200, 60]);
  });

  test('Alt and a press choose the shorter way round; on an open line the way between', () => {
    const driver = points({ d: 'M100 100H200H300V200V300H200H100V200Z' });
    driver.press(100, 100).press(100, 200, { alt: true });
    expect(driver.state.drawing.anchors).toHaveLength(2);
    driver.press(500, 500).press(100, 100).press(300, 200, { alt: true });
    expect(driver.state.drawing.anchors).toHaveLength(4);
    const open = points({ d: 'M100 100H200H300V200V300', fill: null, stroke: 2 });
    open.press(300, 300).press(100, 100, { alt: true });
    expect(open.state.drawing.anchors).toHaveLength(5);
  });

  test('a handle pushed into its point goes away; ⇧ turns it by steps of 15°', () => {
    const driver = points({ d: 'M100 100C150 50 200 50 250 100V200H100Z' });
    driver.press(250, 100).drag([200, 50], [190, 99], { shift: true });
    const anchor = () => driver.parts()[0].contours[0].anchors[1];
    expect(anchor().in?.[1]).toBeCloseTo(100, 6);
    const [x] = anchor().in as [number, number];
    driver.drag([x, 100], [251, 100]);
    expect(anchor().in ?? null).toBeNull();
  });

  test('keeps what was dragged in sight: the points move with the outline', () => {
    const driver = points(SQUARE);
    driver.press(200, 200);
    const { drawing } = driver.editor;
    drawing.down(OFFSET + 200, OFFSET + 200, KEYS);
    for (const x of [205, 230]) drawing.move(OFFSET + x, OFFSET + 200, { ...KEYS, alt: true });
    expect(circles(painted(driver).marks, 7)).toEqual([[230, 200]]);
    drawing.cancel();
    expect(circles(painted(driver).marks, 7)).toEqual([[200, 200]]);
  });
});

describe('other tools', () => {
  test('an adjustable shape shows a lozenge for each handle, also beside its points, and names them', () => {
    const driver = new Driver(drawnPiece());
    driver.store.dispatch(drawingActions.toolChosen('shape'));
    driver.drag([100, 100], [300, 200]).run('leave');
    const lozenges = (): number =>
      painted(driver).marks.filter(({ kind, style, closed }) => kind === 'fill' && style === 'accent' && closed === 1)
        .length;
    const shown = lozenges();
    expect(shown).toBeGreaterThan(1);
    expect(walked(driver).filter((name) => name.startsWith('Handle: '))).toHaveLength(shown);
    driver.store.dispatch(drawingActions.toolChosen('points'));
    expect(lozenges()).toBe(shown);
  });

  test('the cut shows its line while it is dragged', () => {
    const driver = new Driver(drawnPiece(SQUARE)).select();
    driver.store.dispatch(drawingActions.toolChosen('cut'));
    expect(cursor(driver, 10, 10)).toBe('crosshair');
    const { drawing } = driver.editor;
    drawing.down(OFFSET + 50, OFFSET + 150, KEYS);
    drawing.move(OFFSET + 250, OFFSET + 160, { ...KEYS, shift: true });
    const [line] = painted(driver).strokes;
    expect([line.dash, line.paths[0][0], line.paths[0][1][1]]).toEqual([[8, 4], [50, 150], 150]);
    drawing.cancel();
    expect(painted(driver).strokes).toEqual([]);
  });

  test('a tool that removes nothing leaves the key to others', () => {
    const driver = new Driver(drawnPiece(SQUARE)).select();
    driver.store.dispatch(drawingActions.toolChosen('text'));
    expect([driver.editor.drawing.remove(), driver.editor.drawing.confirm(), driver.editor.drawing.undo()]).toEqual([
      false,
      false,
      false,
    ]);
  });

  test('guides and rulers have cursors of their own, with the choosing tool alone', () => {
    const driver = new Driver(drawnPiece(SQUARE));
    driver.store.dispatch(drawingActions.changed({ rulers: true }));
    driver.drag([-20, 300], [250, 300]);
    expect([cursor(driver, -20, 300), cursor(driver, 300, -20)]).toEqual(['ew-resize', 'ns-resize']);
    expect([cursor(driver, 252, 500), cursor(driver, 260, 500)]).toEqual(['ew-resize', 'default']);
    driver.store.dispatch(drawingActions.toolChosen('points'));
    expect(cursor(driver, 252, 500)).toBe('crosshair');
  });

  test('a guide under way is shown with its place', () => {
    const driver = new Driver(drawnPiece(SQUARE));
    driver.store.dispatch(drawingActions.changed({ rulers: true }));
    const { drawing } = driver.editor;
    drawing.down(5, 200, KEYS);
    drawing.move(OFFSET + 120, 200, KEYS);
    const paper = painted(driver);
    expect(paper.texts).toEqual(['120 px']);
    expect(paper.strokes).toMatchObject([
      {
        paths: [
          [
            [120.5, 0],
            [120.5, 480],
          ],
        ],
      },
    ]);
    drawing.cancel();
    expect(painted(driver).texts).toEqual([]);
    drawing.down(200, 5, KEYS);
    drawing.move(200, OFFSET + 90, KEYS);
    expect(painted(driver).strokes).toMatchObject([
      {
        paths: [
          [
            [0, 90.5],
            [640, 90.5],
          ],
        ],
      },
    ]);
  });

  test('snapping shows the line that it snapped to', () => {
    const driver = new Driver(drawnPiece(SQUARE, OTHER)).select('f0');
    const { drawing } = driver.editor;
    drawing.down(OFFSET + 150, OFFSET + 130, KEYS);
    for (const y of [140, 132]) drawing.move(OFFSET + 150, OFFSET + y, KEYS);
    expect(painted(driver).strokes.some(({ style, paths }) => style === 'cobalt' && paths.length === 1)).toBe(true);
    drawing.cancel();
    expect(painted(driver).strokes.some(({ style }) => style === 'cobalt')).toBe(false);
  });
});
