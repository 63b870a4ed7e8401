import { laneOf, stopsOf } from '@core';
import { describe, expect, test } from '@jest/globals';
import { drawnPiece } from '../../testing/drawn-piece';
import { Driver } from '../../testing/driver';
import { type ShownPose, shownPose } from '../scene/scene';
import { turnPoseTo, turnTargets } from './figure-actions';
import { motionValues, resetMotion, setMotion, setPivot } from './motion-actions';

const SQUARE = { d: 'M100 100H200V200H100Z' };
const open = (): Driver => new Driver(drawnPiece(SQUARE)).select();
const shown = (driver: Driver): ShownPose => shownPose(driver.piece, driver.piece.figures.f0, null, 0) as ShownPose;
const rounded = (points: readonly (readonly number[])[]): number[][] =>
  points.map((point) => point.map((v) => +v.toFixed(4)));

describe('motion by hand', () => {
  test('turns are kept as they are typed, several of them too, and add up', () => {
    const driver = open();
    turnPoseTo(driver.store, shown(driver), -300);
    turnTargets(driver.store, 0, -300);
    expect(motionValues(shown(driver)).turn).toBeCloseTo(-600, 9);
    expect(laneOf(driver.piece, 'f0', 'turn')?.keys[0].value[0]).toBeCloseTo(-600, 9);
  });

  test('the base placement, and so the match, stays as it was', () => {
    const driver = open();
    const before = driver.pose().placement;
    driver.drag([150, 150], [190, 160]);
    turnTargets(driver.store, 0, 45);
    expect(driver.pose().placement).toBe(before);
  });

  test('is taken back in one step', () => {
    const driver = open();
    const before = rounded(driver.points());
    setMotion(driver.store, 'f0', 0, 'Move', { position: [30, 5], scale: [2, 2], turn: [10] });
    expect(rounded(driver.points())).not.toEqual(before);
    resetMotion(driver.store, 'f0', 0, 'Back');
    expect([driver.piece.lanes, rounded(driver.points())]).toEqual([{}, before]);
    driver.run('undo');
    expect(Object.keys(driver.piece.lanes)).toHaveLength(3);
  });
});

describe('another pivot', () => {
  test('moves nothing of the picture at any pose, whatever was turned, scaled and moved before', () => {
    const driver = open();
    setMotion(driver.store, 'f0', 0, 'Move', { position: [30, 5] });
    turnTargets(driver.store, 0, 40);
    const stops = stopsOf(driver.piece, driver.piece.figures.f0).length;
    const before = Array.from({ length: stops }, (_, i) => rounded(driver.points('f0', i)));
    setPivot(driver.store, shown(driver), [60, 300]);
    expect(Array.from({ length: stops }, (_, i) => rounded(driver.points('f0', i)))).toEqual(before);
    // It lies where it was put, and from now on things turn about it.
    const far = (): number => Math.hypot(driver.points()[0][0] - 60, driver.points()[0][1] - 300);
    const distance = far();
    turnTargets(driver.store, 0, 75);
    expect(far()).toBeCloseTo(distance, 4);
    setPivot(driver.store, shown(driver), null);
    expect(driver.piece.figures.f0.pivot).toBeNull();
    expect(far()).toBeCloseTo(distance, 4);
  });
});
