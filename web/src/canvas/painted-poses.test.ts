import type { Context2D, Piece } from '@core';
import { describe, expect, test } from '@jest/globals';
import { pieceOf } from '../testing/pieces';
import { isLarge, PaintedPoses } from './painted-poses';

/** A row of squares of side 10, each a contour, from x = 0 on. */
const squares = (count: number): string => Array.from({ length: count }, (_, i) => `M${20 * i} 0h10v10h-10Z`).join('');
const partsOf = (piece: Piece) => poseOf(piece).parts.map((id) => piece.parts[id]);
const poseOf = (piece: Piece, at = 0) => piece.poses[piece.figures.f.poses[at]];

/** What a page lends, with everything counted; time goes on by `cost` ms at each look at the clock. */
function page(cost = 0) {
  const seen = { canvases: 0, steps: 0, starts: 0, maps: [] as number[][] };
  let now = 0;
  let onStep = (): void => {};
  const painted = new PaintedPoses({
    makeCanvas: (width, height) => {
      seen.canvases++;
      const names = ['beginPath', 'bezierCurveTo', 'closePath', 'fill'];
      return Object.assign(Object.fromEntries(names.map((name) => [name, () => {}])), {
        canvas: { width, height },
        setTransform: (...m: number[]) => void seen.maps.push(m),
        moveTo: () => void seen.starts++,
      }) as unknown as Context2D;
    },
    later: async () => {
      seen.steps++;
      onStep();
    },
    now: () => {
      now += cost;
      return now;
    },
    address: async ({ canvas }) => `picture of ${canvas.width} by ${canvas.height}`,
  });
  return { painted, seen, onEachStep: (act: () => void) => void (onStep = act) };
}

describe('painted pictures of poses', () => {
  test('poses of more than 300 contours are painted, in one part or in many', () => {
    expect(isLarge(partsOf(pieceOf([squares(300)])))).toBe(false);
    const piece = pieceOf([squares(301)]);
    expect(isLarge(partsOf(piece))).toBe(true);
    const [one] = partsOf(piece);
    const sixty = { ...one, contours: one.contours.slice(0, 60) };
    expect(isLarge(Array.from({ length: 5 }, () => sixty))).toBe(false);
    expect(isLarge(Array.from({ length: 6 }, () => sixty))).toBe(true);
  });
  test('every contour is painted, with the whole pose in the square', async () => {
    const piece = pieceOf([squares(400)]);
    const { painted, seen } = page();
    expect(await painted.of(partsOf(piece), poseOf(piece).placement).done).toBe('picture of 256 by 256');
    expect(seen.starts).toBe(400);
    const [[zoom, , , , x]] = seen.maps;
    const { x: left } = poseOf(piece).placement;
    // 399 steps of 20 and a square of 10, with 6 % of room at each side: where the first begins and the last ends.
    const scale = poseOf(piece).placement.scaleX;
    expect(zoom * 7990 * scale).toBeCloseTo(256 / 1.12, 3);
    expect(left * zoom + x).toBeCloseTo((256 * 0.06) / 1.12, 3);
  });
  test('a pose is painted once, however many places show it, and again when a part of it has changed', async () => {
    const piece = pieceOf([squares(301)]);
    const { painted, seen } = page();
    await Promise.all([
      painted.of(partsOf(piece), poseOf(piece).placement).done,
      painted.of(partsOf(piece), poseOf(piece).placement).done,
    ]);
    expect(seen.canvases).toBe(1);
    await painted.of([{ ...partsOf(piece)[0], fill: '#ff0000' }], poseOf(piece).placement).done;
    expect(seen.canvases).toBe(2);
  });
  test('painting lets the page have its turn where it takes long', async () => {
    const piece = pieceOf([squares(301)]);
    const many = Array.from({ length: 200 }, (_, i) => ({ ...partsOf(piece)[0], id: `part-${i}` }));
    const quick = page(0);
    await quick.painted.of(many, poseOf(piece).placement).done;
    const slow = page(10);
    await slow.painted.of(many, poseOf(piece).placement).done;
    expect(quick.seen.steps).toBe(1);
    // Ten looks at the clock at each of two passes.
    expect(slow.seen.steps).toBe(21);
    expect(slow.seen.starts).toBe(200 * 301);
  });
  test('what nobody waits for any more is given up, and painted anew for who asks later', async () => {
    const piece = pieceOf([squares(301)]);
    const { painted, seen, onEachStep } = page();
    const { done, leave } = painted.of(partsOf(piece), poseOf(piece).placement);
    onEachStep(leave);
    expect(await done).toBeUndefined();
    expect(seen.starts).toBe(0);
    onEachStep(() => {});
    expect(await painted.of(partsOf(piece), poseOf(piece).placement).done).toBe('picture of 256 by 256');
  });
  test('who leaves and asks again at once, as with an edit elsewhere, gets the painting that is under way', async () => {
    const piece = pieceOf([squares(301)]);
    const { painted, seen } = page();
    painted.of(partsOf(piece), poseOf(piece).placement).leave();
    expect(await painted.of(partsOf(piece), poseOf(piece).placement).done).toBe('picture of 256 by 256');
    expect(seen.canvases).toBe(1);
  });
  test('where no canvas can be had there is no picture', async () => {
    const piece = pieceOf([squares(301)]);
    const painted = new PaintedPoses({
      makeCanvas: () => undefined,
      later: async () => {},
      now: () => 0,
      address: async () => 'never',
    });
    expect(await painted.of(partsOf(piece), poseOf(piece).placement).done).toBeUndefined();
  });
});
