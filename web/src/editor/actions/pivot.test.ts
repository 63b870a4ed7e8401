import { setPlacementRule } from '@core';
import { describe, expect, test } from '@jest/globals';
import { changePiece } from '../../state';
import { drawnPiece } from '../../testing/drawn-piece';
import { Driver } from '../../testing/driver';
import { type ShownPose, shownPose } from '../scene/scene';
import { scalePoseTo, scaleTargets, turnPoseTo, turnTargets } from './figure-actions';
import { motionValues } from './motion-actions';

const SQUARE = 'M100 100h200v120h-200z';

describe('the pivot', () => {
  /** A square with a pivot at its left top corner, placed by its rule. */
  const pivoted = (): Driver => {
    const driver = new Driver(drawnPiece({ d: SQUARE }));
    driver.select();
    driver.store.dispatch(
      changePiece('Rule', (draft) =>
        setPlacementRule(draft, 'f0', draft.figures.f0.poses[0], { centre: 'box', fit: 'none', to: 'canvas' }),
      ),
    );
    const [x, y] = driver.points()[0];
    driver.store.dispatch(
      changePiece('Pivot', (draft) => {
        draft.figures[draft.figureOrder[0]].pivot = [x, y];
      }),
    );
    return driver;
  };
  const target = (driver: Driver): ShownPose =>
    shownPose(driver.piece, driver.piece.figures[driver.piece.figureOrder[0]], null, 0) as ShownPose;
  const corner = (driver: Driver): number[] => driver.points()[0].map((v) => +v.toFixed(6));

  test('stays where it is when a pose is turned or scaled by number, with a living rule too', () => {
    const driver = pivoted();
    const before = corner(driver);
    const [, second] = driver.points();
    turnPoseTo(driver.store, target(driver), 30);
    expect(corner(driver)).toEqual(before);
    expect(driver.points()[1]).not.toEqual(second);
    scalePoseTo(driver.store, target(driver), 0.5);
    expect(corner(driver)).toEqual(before);
    const { turn, scale } = motionValues(target(driver));
    expect([turn, ...scale]).toEqual([expect.closeTo(30, 9), expect.closeTo(0.5, 9), expect.closeTo(0.5, 9)]);
    // What was done by hand lies on top: the rule goes on, and the base is what it gives.
    expect(driver.pose().placement).toMatchObject({ rotation: 0, scaleX: 1, rule: { to: 'canvas' } });
    turnTargets(driver.store, 0, 45);
    expect(corner(driver)).toEqual(before);
  });

  test('without one of its own a pose turns about the middle of its box, and a mirrored one does too', () => {
    const driver = new Driver(drawnPiece({ d: SQUARE }));
    driver.select();
    scaleTargets(driver.store, 0, -1, 1, 'Mirror');
    const middle = (): number[] => {
      const points = driver.points();
      return [0, 1].map((k) => {
        const values = points.map((point) => point[k]);
        return +((Math.min(...values) + Math.max(...values)) / 2).toFixed(6);
      });
    };
    const before = middle();
    turnPoseTo(driver.store, target(driver), 90);
    expect(middle()).toEqual(before);
    scalePoseTo(driver.store, target(driver), 2);
    expect(middle()).toEqual(before);
  });

  test('is what the handles scale about once it was set; Alt means the opposite side then', () => {
    const driver = pivoted();
    const before = corner(driver);
    const right = Math.max(...driver.points().map(([x]) => x));
    const bottom = Math.max(...driver.points().map(([, y]) => y));
    const top = Math.min(...driver.points().map(([, y]) => y));
    const left = Math.min(...driver.points().map(([x]) => x));
    driver.drag([right, bottom], [right + 40, bottom + 40], { shift: true });
    expect(corner(driver)).toEqual(before);
    expect(Math.max(...driver.points().map(([x]) => x))).toBeGreaterThan(right + 20);
    expect([Math.min(...driver.points().map(([x]) => x)), Math.min(...driver.points().map(([, y]) => y))]).toEqual([
      expect.closeTo(left, 3),
      expect.closeTo(top, 3),
    ]);
  });
});
