import { setLaneAtStop } from '@core';
import { beforeAll, describe, expect, test } from '@jest/globals';
import { changePiece, drawingActions } from '../../state';
import { drawnPiece, newId } from '../../testing/drawn-piece';
import { Driver } from '../../testing/driver';
import { Paper, PaperPath, PEN_COLOURS } from '../../testing/paper';
import { niceStep, paintAids, paintRulers } from './paint-aids';
import { paintOverlay } from './paint-overlay';

const SQUARE = { d: 'M100 100H200V200H100Z' };
const pen = (paper: Paper, zoom = 1, x = 0, y = 0) => ({
  context: paper.context,
  colours: PEN_COLOURS,
  zoom,
  toScreen: (px: number, py: number): readonly [number, number] => [x + px * zoom, y + py * zoom],
});
const piece = drawnPiece(SQUARE);
const withAids = (aids: Partial<typeof piece.aids>, zoom = 1): Paper => {
  const paper = new Paper(700, 500);
  paintAids(pen(paper, zoom), {
    ...piece,
    canvas: { ...piece.canvas, width: 300, height: 200 },
    aids: { ...piece.aids, ...aids },
  });
  return paper;
};
beforeAll(() => void Object.assign(globalThis, { Path2D: PaperPath }));

describe('aids', () => {
  test('nothing is drawn while all are off', () => {
    expect(withAids({}).marks).toEqual([]);
  });

  test('the grid has a line for each step inside the canvas, none on its edges', () => {
    const [grid] = withAids({ grid: { shown: true, size: 50 } }).strokes;
    expect(grid.style).toBe('line');
    expect(grid.paths.filter(([p, q]) => p[0] === q[0]).map(([[x]]) => x)).toEqual([50.5, 100.5, 150.5, 200.5, 250.5]);
    expect(grid.paths.filter(([p, q]) => p[1] === q[1]).map(([[, y]]) => y)).toEqual([50.5, 100.5, 150.5]);
  });

  test('a grid that would be finer than 5 px is drawn at every second, fourth, … line', () => {
    const [grid] = withAids({ grid: { shown: true, size: 10 } }, 0.2).strokes;
    // Steps of 40 px of the canvas are 8 px of the screen; steps of 20 are 4 and too fine.
    expect(grid.paths.filter(([p, q]) => p[0] === q[0]).map(([[x]]) => x)).toEqual([
      8.5, 16.5, 24.5, 32.5, 40.5, 48.5, 56.5,
    ]);
  });

  test('thirds divide both sides; the safe areas are 93 % and 90 % of the picture', () => {
    const [thirds] = withAids({ thirds: true }).strokes;
    expect(thirds.paths.map(([[x, y]]) => [x, y])).toEqual([
      [100.5, 0.5],
      [0.5, 67.5],
      [200.5, 0.5],
      [0.5, 133.5],
    ]);
    const [action, title] = withAids({ safeArea: true }).strokes;
    const size = ({ paths: [[[x0, y0], [x1, y1]]] }: typeof action) => [x1 - x0, y1 - y0].map((v) => +v.toFixed(2));
    // SMPTE ST 2046-1.
    expect([size(action), action.dash]).toEqual([[279, 186], []]);
    expect([size(title), title.dash]).toEqual([
      [270, 180],
      [4, 3],
    ]);
  });

  test('guides cross the whole pane', () => {
    const [guides] = withAids({
      guides: [
        { id: 'g', axis: 'x', at: 20 },
        { id: 'h', axis: 'y', at: 30 },
      ],
    }).strokes;
    expect(guides.paths).toEqual([
      [
        [20.5, 0],
        [20.5, 500],
      ],
      [
        [0, 30.5],
        [700, 30.5],
      ],
    ]);
  });
});

describe('rulers', () => {
  test('steps are 1, 2 or 5 times a power of ten, the next that is not below', () => {
    expect([0.3, 1, 1.1, 2, 3, 6, 60, 120, 999].map(niceStep)).toEqual([0.5, 1, 2, 2, 5, 10, 100, 200, 1000]);
  });

  test('are labelled in px of the canvas, from the ruler’s end to the edge of the pane', () => {
    const paper = new Paper();
    paintRulers(pen(paper, 0.5, 100, 40), 400, 200);
    const texts = paper.marks.filter(({ kind }) => kind === 'text');
    // A label each 200 px of the canvas, 100 px of the screen: no closer than 60.
    expect(texts.map(({ text }) => text)).toEqual(['0', '200', '400', '0', '200']);
    expect(texts.slice(0, 3).map(({ paths: [[[x]]] }) => x)).toEqual([102.5, 202.5, 302.5]);
    expect(paper.marks.filter(({ kind }) => kind === 'rect')).toHaveLength(2);
  });
});

describe('over the picture', () => {
  const painted = (driver: Driver, density = 2): Paper => {
    const paper = new Paper(1400, 1200);
    paintOverlay(paper.context, driver.editor, PEN_COLOURS, density);
    return paper;
  };
  const outline = (paper: Paper) => paper.strokes.find(({ width }) => width === 1.2)?.paths;

  test('the outline of what is chosen lies where it stands, in the pane', () => {
    const driver = new Driver(drawnPiece(SQUARE, { d: 'M300 100H400V200H300Z' })).select('f0');
    const paper = painted(driver);
    expect(paper.transform).toEqual([2, 0, 0, 2, 0, 0]);
    expect(outline(paper)).toEqual([
      [
        [128, 128],
        [228, 128],
        [228, 228],
        [128, 228],
        [128, 128],
      ],
    ]);
    expect(outline(painted(new Driver(drawnPiece(SQUARE))))).toEqual([]);
  });

  test('it is moved by lanes', () => {
    const driver = new Driver(drawnPiece(SQUARE)).select();
    driver.store.dispatch(changePiece('Lane', (draft) => setLaneAtStop(draft, 'f0', 'position', 0, [10, 20], newId)));
    const [[first]] = outline(painted(driver)) ?? [[]];
    expect(first).not.toEqual([128, 128]);
  });

  test('of the parts only those that are chosen', () => {
    const driver = new Driver(drawnPiece({ d: 'M100 100H200V200H100Z' }));
    driver.select().store.dispatch(drawingActions.partsChosen(['nothing of this pose']));
    expect(outline(painted(driver))).toHaveLength(1);
  });

  test('rulers are painted when they are on; nothing of the tool while the piece plays or moves', () => {
    const driver = new Driver(drawnPiece(SQUARE)).select();
    expect(painted(driver).texts).toEqual([]);
    driver.store.dispatch(drawingActions.changed({ rulers: true }));
    expect(painted(driver).texts).toContain('100');
    driver.editor.clock.play();
    expect(outline(painted(driver))).toBeUndefined();
  });
});
