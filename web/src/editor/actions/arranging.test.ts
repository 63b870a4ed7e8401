import { type Part, type Piece, readPathData, recordOfContour } from '@core';
import { beforeAll, describe, expect, test } from '@jest/globals';
import { drawingActions, sessionActions } from '../../state';
import { drawnPiece, newId } from '../../testing/drawn-piece';
import { Driver, engineOf } from '../../testing/driver';
import { pathEngine } from '../../testing/engine';
import {
  addText,
  alignTargets,
  copiedSvg,
  duplicateChosenFigures,
  pasteCopied,
  pasteKeys,
  restack,
  simplifyTargets,
  toggleLoop,
} from '..';
import { handleMatrix, handlePlace } from '../tools/transform-box';

const SQUARE = { d: 'M100 100H200V200H100Z' };
const RIGHT = { d: 'M300 150H400V250H300Z' };
const THIRD = { d: 'M450 300H460V310H450Z' };
let engine: ReturnType<typeof engineOf>;
beforeAll(async () => {
  engine = engineOf(await pathEngine());
});
const choose = (driver: Driver, ...ids: string[]): Driver => {
  driver.select(ids[0]).store.dispatch(drawingActions.changed({ also: ids.slice(1) }));
  return driver;
};

describe('several figures', () => {
  test('are not aligned while one of them has no outline, nor is nothing', () => {
    const piece = drawnPiece(SQUARE, RIGHT);
    const [pose] = piece.figures.f1.poses;
    const driver = new Driver({ ...piece, poses: { ...piece.poses, [pose]: { ...piece.poses[pose], parts: [] } } });
    alignTargets(choose(driver, 'f0', 'f1').store, 0, 'left', false);
    driver.store.dispatch(sessionActions.selected(null));
    driver.store.dispatch(drawingActions.changed({ also: [] }));
    alignTargets(driver.store, 0, 'left', false);
    expect([driver.points('f0')[0], driver.history]).toEqual([[100, 100], []]);
  });

  test('a single one is aligned with the canvas, several with each other', () => {
    const driver = new Driver(drawnPiece(SQUARE, RIGHT));
    alignTargets(driver.select('f0').store, 0, 'left', false);
    expect(driver.points('f0')[0]).toEqual([0, 100]);
    alignTargets(choose(driver, 'f0', 'f1').store, 0, 'bottom', false);
    expect([driver.points('f0')[2][1], driver.points('f1')[2][1]]).toEqual([250, 250]);
  });

  test('go one step up or down in the order, and no further than the end', () => {
    const driver = new Driver(drawnPiece(SQUARE, RIGHT, THIRD)).select('f0');
    restack(driver.store, 'up');
    expect(driver.piece.figureOrder).toEqual(['f1', 'f0', 'f2']);
    restack(driver.store, 'up');
    expect(driver.piece.figureOrder).toEqual(['f1', 'f2', 'f0']);
    restack(choose(driver, 'f2', 'f0').store, 'down');
    expect(driver.piece.figureOrder).toEqual(['f2', 'f0', 'f1']);
    restack(driver.store, 'down');
    expect(driver.piece.figureOrder).toEqual(['f2', 'f0', 'f1']);
    restack(driver.store, 'bottom');
    expect(driver.piece.figureOrder).toEqual(['f2', 'f0', 'f1']);
    restack(driver.select('f1').store, 'bottom');
    expect(driver.piece.figureOrder).toEqual(['f1', 'f2', 'f0']);
  });

  test('a duplicate is called after the one, or says how many they are', () => {
    const driver = new Driver(drawnPiece(SQUARE, RIGHT)).select('f1');
    duplicateChosenFigures(driver.store);
    expect(driver.history).toEqual(['Duplicate Figure 2']);
    duplicateChosenFigures(choose(driver, 'f0', 'f1').store);
    expect(driver.history.at(-1)).toBe('Duplicate 2 figures');
  });
});

test('without a figure no loop is closed', () => {
  const driver = new Driver(drawnPiece());
  toggleLoop(driver.store);
  expect([driver.history, driver.state.session.said]).toEqual([[], '']);
});

test('pasted poses are what is chosen then', () => {
  const driver = new Driver(drawnPiece(SQUARE)).select();
  const copied = copiedSvg(driver.store, 0);
  driver.select('f0');
  expect(pasteCopied(driver.store, copied?.json ?? '', 0)).toBe(true);
  expect(driver.state.session.selection).toMatchObject({ figureId: 'f0', stop: 1 });
  driver.store.dispatch(sessionActions.selected(null));
  const empty = new Driver(drawnPiece());
  expect(pasteCopied(empty.store, copied?.json ?? '', 0)).toBe(true);
  expect(empty.piece.figureOrder).toHaveLength(1);
});

test('a pasted key with a path that is none is not taken', () => {
  const driver = new Driver(drawnPiece(SQUARE)).select();
  const keys = (path?: unknown) =>
    JSON.stringify({
      kind: 'keys',
      keys: [{ property: 'position', at: 0, value: [1, 2], easing: { kind: 'linear' }, path }],
    });
  const before = driver.piece;
  pasteKeys(driver.store, keys({ arrive: ['a', 'b'], leave: [0, 0] }), 0);
  expect(driver.piece.lanes).toEqual(before.lanes);
  pasteKeys(driver.store, keys(), 0);
  expect(Object.values(driver.piece.lanes)).toHaveLength(1);
});

test('a text is a quarter of the shorter side of the canvas high', async () => {
  const piece = drawnPiece();
  const setting: { size: number }[] = [];
  const driver = new Driver({ ...piece, canvas: { ...piece.canvas, width: 800, height: 400 } });
  const noLetters = {
    layoutText: async (_font: string, text: { size: number }) => {
      setting.push(text);
      return { glyphs: [], missing: [], notes: [] };
    },
  };
  await addText(driver.store, noLetters as never, 10, 10, 0);
  expect(setting[0].size).toBe(100);
});

test('an outline that is added to a line stays a line: only an area gets holes', () => {
  const driver = new Driver(drawnPiece({ d: 'M100 100H300V300H100Z', fill: null, stroke: 4 })).select();
  driver.store.dispatch(drawingActions.toolChosen('draw'));
  driver.store.dispatch(drawingActions.changed({ drawsAs: 'contour' }));
  driver.press(120, 120).press(180, 120).press(180, 180).press(120, 120);
  expect(driver.parts()[0]).toMatchObject({ fillRule: 'nonzero', contours: [{}, {}] });
});

test('simplifying takes points that say nothing, and leaves adjustable shapes as they are', async () => {
  const piece = drawnPiece({ d: 'M100 100H150H200V200H100Z' });
  const pose = Object.values(piece.poses)[0];
  const part = piece.parts[pose.parts[0]];
  const shape: Part = {
    ...part,
    id: 'shape',
    contours: readPathData('M300 100H350H400V200H300Z').contours.map((contour) => recordOfContour(contour, newId)),
    source: { kind: 'rectangle', width: 100, height: 100, radii: [0, 0, 0, 0], x: 350, y: 150, rotation: 0 },
  };
  const both: Piece = {
    ...piece,
    parts: { ...piece.parts, shape },
    poses: { [pose.id]: { ...pose, parts: [...pose.parts, 'shape'] } },
  };
  const driver = new Driver(both, engine).select();
  await simplifyTargets(driver.store, engine, 0, 0.5);
  expect(driver.parts().map(({ contours }) => contours[0].anchors.length)).toEqual([4, 5]);
  expect(driver.parts()[1].source).toBeDefined();
});

describe('the box', () => {
  const box = { minX: 0, minY: 0, maxX: 100, maxY: 60 };
  const at = (x: number, y: number, shift = false) => ({ x, y, zoom: 1, shift, alt: false, clicks: 1 });

  test('has its turning handle 22 px of the screen above it at every zoom', () => {
    expect([1, 2, 0.5].map((zoom) => handlePlace('turn', box, [50, 30], zoom))).toEqual([
      [50, -22],
      [50, -11],
      [50, -44],
    ]);
  });

  test('scales evenly from a side about the middle of the other', () => {
    const [a, b, c, d, e, f] = handleMatrix('e', box, [50, 30], at(200, 30, true), at(100, 30), false);
    expect([a, b, c, d, e, f].map((v) => +v.toFixed(9) + 0)).toEqual([2, 0, 0, 2, 0, -30]);
    const below = handleMatrix('s', box, [50, 30], at(50, 120, true), at(50, 60), false);
    expect(Array.from(below, (v) => +v.toFixed(9) + 0)).toEqual([2, 0, 0, 2, -50, 0]);
  });
});
