import { contourArea, contourOfRecord, type Part, type PathEngine, readPathData, recordOfContour } from '@core';
import { beforeAll, describe, expect, test } from '@jest/globals';
import { drawingActions } from '../../state';
import { type DrawnFigure, drawnPiece, newId } from '../../testing/drawn-piece';
import { Driver, engineOf } from '../../testing/driver';
import { pathEngine } from '../../testing/engine';
import {
  addPoint,
  alignAnchors,
  alignTargets,
  chooseAllFigures,
  chosenAnchors,
  closeContours,
  copiedSvg,
  cutContours,
  distributeTargets,
  fillTargetHoles,
  groupChosen,
  joinEnds,
  motionAtStop,
  pasteCopied,
  restack,
  reverseContours,
  scaleTargets,
  setAnchorKind,
  setStart,
  setTargetsBox,
  shapeChosenCorners,
  turnTargets,
  walkAnchors,
} from '..';

const SQUARE = { d: 'M100 100H200V200H100Z' };
const RIGHT = { d: 'M300 100H400V200H300Z' };
let paths: PathEngine;
beforeAll(async () => {
  paths = await pathEngine();
});
const noSnap = (driver: Driver): Driver => {
  driver.store.dispatch(
    drawingActions.snapChanged({ points: false, outlines: false, centres: false, guides: false, grid: false }),
  );
  return driver;
};

describe('selecting and moving', () => {
  test('a click chooses, a drag moves, ⇧ keeps to an axis, Escape leaves, one step each', () => {
    const driver = noSnap(new Driver(drawnPiece(SQUARE, RIGHT)));
    driver.press(150, 150);
    expect(driver.state.session.selection).toMatchObject({ figureId: 'f0', stop: 0 });
    driver.drag([150, 150], [170, 157]);
    expect(driver.points()[0]).toEqual([120, 107]);
    driver.drag([150, 150], [190, 160], { shift: true });
    expect(driver.points()[0]).toEqual([160, 107]);
    driver.drag([190, 150], [300, 300], { leave: true });
    expect(driver.points()[0]).toEqual([160, 107]);
    expect(driver.history).toEqual(['Move Pose 1 by hand', 'Move Pose 1 by hand']);
    driver.run('undo').run('undo');
    expect(driver.points()[0]).toEqual([100, 100]);
  });

  test('⇧ chooses several, a box too; they move together; a click on nothing leaves', () => {
    const driver = noSnap(new Driver(drawnPiece(SQUARE, RIGHT)));
    driver.press(150, 150).press(350, 150, { shift: true });
    expect(driver.state.drawing.also).toEqual(['f1']);
    driver.drag([350, 150], [350, 180]);
    expect([driver.points('f0')[0], driver.points('f1')[0]]).toEqual([
      [100, 130],
      [300, 130],
    ]);
    driver.press(600, 600);
    expect(driver.state.session.selection).toBeNull();
    driver.drag([50, 50], [450, 300]);
    expect([driver.state.session.selection, driver.state.drawing.also.length]).toEqual([
      expect.objectContaining({ kind: 'stop' }),
      1,
    ]);
    driver.run('remove');
    expect(driver.piece.figureOrder).toEqual([]);
  });

  test('locked and hidden figures are not hit', () => {
    const piece = drawnPiece(SQUARE);
    const driver = new Driver({ ...piece, figures: { f0: { ...piece.figures.f0, locked: true } } });
    driver.press(150, 150);
    expect(driver.state.session.selection).toBeNull();
  });

  test('moving snaps to middles and edges of others', () => {
    const driver = new Driver(drawnPiece(SQUARE, RIGHT));
    driver.press(150, 150).drag([150, 150], [153, 248]);
    // The square's middle meets the level of nothing, its left edge stays; dragged near the other's middle it snaps.
    driver.drag([driver.points()[0][0] + 50, driver.points()[0][1] + 50], [driver.points()[0][0] + 50, 154]);
    expect(driver.points()[0][1]).toBe(100);
  });

  test('corner handles scale about the opposite corner, the turning handle about the pivot', () => {
    const driver = noSnap(new Driver(drawnPiece(SQUARE)));
    driver.press(150, 150).drag([200, 200], [250, 300]);
    expect(driver.points()).toEqual([
      [100, 100],
      [250, 100],
      [250, 300],
      [100, 300],
    ]);
    driver.run('undo');
    driver.drag([200, 200], [250, 210], { shift: true });
    expect(driver.points()[2]).toEqual([250, 250]);
    driver.run('undo');
    // The handle stands 22 px above the box; a quarter turn about the middle.
    driver.drag([150, 78], [222, 150]);
    expect(motionAtStop(driver.piece, driver.piece.figures.f0, 0)?.turn[0]).toBeCloseTo(90, 6);
    expect(driver.pose().placement.rotation).toBe(0);
    expect(driver.points()[0]).toEqual([200, 100]);
  });

  test('nothing gets smaller than a px by dragging', () => {
    for (const shift of [false, true]) {
      const driver = noSnap(new Driver(drawnPiece(SQUARE)));
      driver.press(150, 150).drag([200, 200], [100.01, 100.01], { shift });
      const xs = driver.points().map(([x]) => x);
      const ys = driver.points().map(([, y]) => y);
      expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo(1, 6);
      expect(Math.max(...ys) - Math.min(...ys)).toBeCloseTo(1, 6);
    }
  });

  test('the pivot is dragged, stays where it is, and things turn about it', () => {
    const driver = noSnap(new Driver(drawnPiece(SQUARE)));
    driver.press(150, 150).drag([150, 150], [100, 100], { alt: true });
    expect(driver.piece.figures.f0.pivot).toEqual([100, 100]);
    turnTargets(driver.store, 0, 90);
    expect(driver.points()).toEqual([
      [100, 100],
      [100, 200],
      [0, 200],
      [0, 100],
    ]);
    expect(driver.piece.figures.f0.pivot).toEqual([100, 100]);
  });

  test('a second click goes into the parts; parts move and go by themselves', () => {
    const piece = drawnPiece({ d: 'M100 100H200V200H100Z' });
    const pose = Object.values(piece.poses)[0];
    const part = piece.parts[pose.parts[0]];
    const other: Part = {
      ...part,
      id: 'other',
      contours: readPathData('M300 300H350V350Z').contours.map((c) => recordOfContour(c, newId)),
    };
    const driver = noSnap(
      new Driver({
        ...piece,
        parts: { ...piece.parts, other },
        poses: { [pose.id]: { ...pose, parts: [...pose.parts, 'other'] } },
      }),
    );
    driver.press(150, 150).press(340, 320);
    expect(driver.state.drawing.parts).toEqual(['other']);
    driver.drag([340, 320], [350, 320]);
    expect(driver.piece.parts.other.contours[0].anchors[0].at).toEqual([310, 300]);
    expect(driver.points()[0]).toEqual([100, 100]);
    driver.run('remove');
    expect(driver.pose().parts).toHaveLength(1);
    driver.run('leave').run('leave');
    expect(driver.state.session.selection).toBeNull();
  });

  test('several figures are duplicated together, with their shifts, and the copies are chosen', () => {
    const driver = new Driver(drawnPiece(SQUARE, RIGHT));
    driver.press(150, 150).press(350, 150, { shift: true }).run('duplicate');
    expect(driver.piece.figureOrder).toHaveLength(4);
    const [, , ...copies] = driver.piece.figureOrder;
    expect(driver.state.session.selection).toMatchObject({ figureId: copies[0] });
    expect(driver.state.drawing.also).toEqual(copies.slice(1));
    expect(copies.map((id) => driver.points(id))).toEqual([driver.points('f0'), driver.points('f1')]);
    expect(driver.history).toEqual(['Duplicate 2 figures']);
    driver.run('undo');
    expect(driver.piece.figureOrder).toEqual(['f0', 'f1']);
  });

  test('keys nudge by one and by ten', () => {
    const driver = new Driver(drawnPiece(SQUARE)).select();
    driver.run('nudge-left-1' as never).run('nudge-down-10' as never);
    expect(driver.points()[0]).toEqual([99, 110]);
  });
});

describe('arranging', () => {
  test('align, distribute, restack, group, mirror, size by number', () => {
    const driver = new Driver(drawnPiece(SQUARE, RIGHT, { d: 'M450 400H460V410H450Z' }));
    chooseAllFigures(driver.store);
    alignTargets(driver.store, 0, 'top', false);
    expect(['f0', 'f1', 'f2'].map((f) => driver.points(f)[0][1])).toEqual([100, 100, 100]);
    distributeTargets(driver.store, 0, 'x', false);
    expect(driver.points('f1')[0][0]).toBe(275);
    distributeTargets(driver.store, 0, 'x', true);
    expect(driver.points('f0')[0][0]).toBeCloseTo((640 - 210) / 4, 5);
    groupChosen(driver.store, true);
    driver.run('leave').press(...([driver.points('f0')[0][0] + 5, 105] as [number, number]));
    expect(driver.state.drawing.also).toHaveLength(2);
    groupChosen(driver.store, false);
    expect(driver.piece.groups).toEqual({});
    driver.select('f0');
    restack(driver.store, 'top');
    expect(driver.piece.figureOrder).toEqual(['f1', 'f2', 'f0']);
    restack(driver.store, 'down');
    expect(driver.piece.figureOrder).toEqual(['f1', 'f0', 'f2']);
    setTargetsBox(driver.store, 0, { x: 10, y: 20, width: 50, height: 200 });
    expect([driver.points('f0')[0], driver.points('f0')[2]]).toEqual([
      [10, 20],
      [60, 220],
    ]);
    scaleTargets(driver.store, 0, -1, 1, 'Mirror');
    expect(driver.points('f0')[0]).toEqual([60, 20]);
  });
});

describe('points', () => {
  const start = (...figures: DrawnFigure[]): Driver => {
    const driver = noSnap(new Driver(drawnPiece(...figures))).select();
    driver.store.dispatch(drawingActions.toolChosen('points'));
    return driver;
  };

  test('drag a point, several chosen by a box, ⇧ by 45°, typed and nudged', () => {
    const driver = start(SQUARE);
    driver.drag([200, 200], [220, 230]);
    expect(driver.points()[2]).toEqual([220, 230]);
    driver.drag([90, 90], [210, 110]);
    expect(driver.state.drawing.anchors).toHaveLength(2);
    driver.drag([100, 100], [100, 80]);
    expect(driver.points().slice(0, 2)).toEqual([
      [100, 80],
      [200, 80],
    ]);
    driver.run('nudge-right-10' as never);
    expect(driver.points()[0]).toEqual([110, 80]);
    driver.press(500, 500).drag([100, 200], [104, 240], { shift: true });
    expect(driver.points()[3]).toEqual([100, 240]);
    driver.drag([100, 240], [300, 300], { leave: true });
    expect(driver.points()[3]).toEqual([100, 240]);
  });

  test('a point is added on the outline by a double press, and goes again without a trace', () => {
    const driver = start({ d: 'M100 100C150 50 200 50 250 100V200H100Z' });
    const before = contourArea(contourOfRecord(driver.parts()[0].contours[0]));
    driver.press(175, 62.5, { clicks: 2 });
    expect(driver.points()).toHaveLength(5);
    expect(contourArea(contourOfRecord(driver.parts()[0].contours[0]))).toBeCloseTo(before, 6);
    driver.run('remove');
    expect(driver.points()).toHaveLength(4);
    expect(contourArea(contourOfRecord(driver.parts()[0].contours[0]))).toBeCloseTo(before, 3);
  });

  test('handles: smooth, symmetric, dragged together and freely', () => {
    const driver = start(SQUARE);
    driver.press(200, 100);
    setAnchorKind(driver.store, 0, 'symmetric');
    const anchor = () => driver.parts()[0].contours[0].anchors[1];
    expect([anchor().in, anchor().out]).toHaveLength(2);
    const [hx, hy] = anchor().out as [number, number];
    driver.drag([hx, hy], [240, 100]);
    expect(anchor().out).toEqual([240, 100]);
    expect(anchor().in?.[0]).toBeCloseTo(160, 6);
    driver.drag([240, 100], [200, 60], { alt: true });
    expect([anchor().kind, anchor().in?.[0]]).toEqual(['corner', expect.closeTo(160, 6)]);
    setAnchorKind(driver.store, 0, 'bare');
    expect(anchor().in).toBeUndefined();
  });

  test('points of two figures that lie on each other move together, as one step', () => {
    const driver = start(
      { d: 'M100 200L200 150L300 200', fill: null, stroke: 4 },
      { d: 'M100 200L200 150L300 200V300H100Z' },
    );
    driver.drag([200, 150], [200, 120]);
    expect([driver.points('f0')[1], driver.points('f1')[1]]).toEqual([
      [200, 120],
      [200, 120],
    ]);
    expect(driver.history).toEqual(['Move points of 2 figures']);
    driver.run('undo');
    driver.store.dispatch(drawingActions.changed({ together: false }));
    driver.press(500, 500).drag([200, 150], [200, 110]);
    expect([driver.points('f0')[1], driver.points('f1')[1]]).toEqual([
      [200, 110],
      [200, 150],
    ]);
  });

  test('round, chamfer, start, reverse, cut, join, close', () => {
    const driver = start(SQUARE);
    driver.press(200, 100);
    shapeChosenCorners(driver.store, 0, 20, 'round');
    expect(driver.points().slice(1, 3)).toEqual([
      [180, 100],
      [200, 120],
    ]);
    driver.run('undo');
    shapeChosenCorners(driver.store, 0, 20, 'chamfer');
    expect(driver.points()).toHaveLength(5);
    driver.run('undo');
    setStart(driver.store, 0);
    expect(driver.points()[0]).toEqual([200, 100]);
    reverseContours(driver.store, 0);
    expect(driver.points()[1]).toEqual([100, 100]);
    cutContours(driver.store, 0);
    const contour = () => driver.parts()[0].contours[0];
    expect([contour().closed, contour().anchors.length]).toEqual([false, 5]);
    closeContours(driver.store, 0);
    expect([contour().closed, contour().anchors.length]).toEqual([true, 4]);
  });

  test('two open contours are joined at the chosen ends', () => {
    const driver = start({ d: 'M100 100H200M300 100H400', fill: null, stroke: 2 });
    driver.press(200, 100).press(300, 100, { shift: true });
    joinEnds(driver.store, 0);
    expect(driver.parts()[0].contours).toHaveLength(1);
    expect(driver.points()).toEqual([
      [100, 100],
      [200, 100],
      [300, 100],
      [400, 100],
    ]);
    joinEnds(driver.store, 0);
    expect(driver.messages).toContain('Choose two ends');
  });

  test('walking along, adding after, aligning, choosing a run by Alt', () => {
    const driver = start({ d: 'M100 100H200V200H100Z' });
    walkAnchors(driver.store, 0, 1);
    expect(chosenAnchors(driver.store, 0)[0].index).toBe(0);
    walkAnchors(driver.store, 0, -1);
    expect(chosenAnchors(driver.store, 0)[0].index).toBe(3);
    driver.press(100, 100).press(200, 200, { alt: true });
    expect(driver.state.drawing.anchors).toHaveLength(3);
    alignAnchors(driver.store, 0, 'y');
    expect(
      new Set(
        driver
          .points()
          .slice(0, 3)
          .map(([, y]) => y),
      ).size,
    ).toBe(1);
    driver.run('undo');
    const [{ ref }] = chosenAnchors(driver.store, 0);
    addPoint(driver.store, ref, 0, 0.5);
    expect(driver.points()[1]).toEqual([150, 100]);
  });
});

describe('placement rules', () => {
  const placedByRule = (): Driver => {
    const piece = drawnPiece({ d: 'M0 0H100V100H0ZM40 40V60H60V40ZM150 0H160V10H150Z' });
    const pose = Object.values(piece.poses)[0];
    const rule = { centre: 'area', fit: 'longest', to: 'canvas' } as const;
    return noSnap(
      new Driver(
        { ...piece, poses: { [pose.id]: { ...pose, placement: { ...pose.placement, rule } } } },
        engineOf(paths),
      ),
    );
  };

  test('live on when the outline is mended: it is centred anew', () => {
    const driver = placedByRule().select();
    const before = driver.pose().placement;
    fillTargetHoles(driver.store, 0);
    const after = driver.pose().placement;
    expect(after.rule).toEqual(before.rule);
    expect(after.x).not.toBe(before.x);
  });

  test('end when points are put somewhere by hand: what was dragged stays under the pointer', () => {
    const driver = placedByRule().select();
    driver.run('tool-points');
    const [x, y] = driver.points()[1];
    driver.drag([x, y], [x + 40, y - 30]);
    expect(driver.points()[1]).toEqual([expect.closeTo(x + 40, 6), expect.closeTo(y - 30, 6)]);
    expect(driver.pose().placement.rule).toBeNull();
  });
});

describe('the clipboard', () => {
  test('poses and parts are copied as themselves and as SVG; what others put there is not taken for ours', () => {
    const driver = noSnap(new Driver(drawnPiece(SQUARE, RIGHT))).select();
    const copied = copiedSvg(driver.store, 0);
    expect(copied?.svg).toContain('<path d="M100 100');
    expect(pasteCopied(driver.store, copied?.json ?? '', 0)).toBe(true);
    expect(driver.piece.figures.f0.poses).toHaveLength(2);
    expect(driver.parts('f0', 1)[0].contours[0].anchors[0].origin).toBe(
      driver.parts('f0', 0)[0].contours[0].anchors[0].id,
    );
    driver.select('f0').store.dispatch(drawingActions.partsChosen(driver.pose('f0').parts));
    const part = copiedSvg(driver.store, 0)?.json ?? '';
    driver.select('f1');
    expect(pasteCopied(driver.store, part, 0)).toBe(true);
    expect(driver.parts('f1')).toHaveLength(2);
    for (const nonsense of [
      '',
      '{}',
      '{"kind":"poses","poses":[{"pose":{},"parts":[]}]}',
      part.replace(/"at":\[[^\]]*\]/, '"at":["x",1]'),
    ])
      expect(pasteCopied(driver.store, nonsense, 0)).toBe(false);
  });
});
