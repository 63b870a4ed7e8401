import { beforeEach, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Viewport } from './viewport';

let port: Viewport;
/** Where a px of the piece is seen. */
const seen = (x: number, y: number): [number, number] => [
  port.view.x + x * port.view.zoom,
  port.view.y + y * port.view.zoom,
];
beforeEach(() => {
  port = new Viewport();
  port.setPane(800, 600);
  port.setCanvas(640, 640);
});

describe('the canvas in its pane', () => {
  test('is fitted with a margin, in the middle of what the bar of a tool leaves free', () => {
    const [left, top] = seen(0, 0);
    const [right, bottom] = seen(640, 640);
    expect(left + right).toBe(800);
    expect([top, bottom]).toEqual([28, 600 - 52]);
  });
  test('stays fitted while the pane changes, until somebody zooms', () => {
    port.setPane(1600, 1200);
    expect(seen(320, 320)).toEqual([800, 600 - 12]);
    port.zoomBy(2);
    const zoomed = port.view;
    port.setPane(500, 500);
    expect(port.view).toEqual(zoomed);
    port.fit();
    expect(seen(320, 320)).toEqual([250, 250 - 12]);
  });
  test('a canvas of the same size moves nothing; another size fits anew', () => {
    let told = 0;
    const stop = port.onChange(() => void told++);
    port.setCanvas(640, 640);
    expect(told).toBe(0);
    port.setCanvas(320, 320);
    expect(told).toBe(1);
    stop();
    port.fit();
    expect(told).toBe(1);
  });
});

describe('zooming', () => {
  test('keeps what lies under the pointer where it is', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 5, noNaN: true }),
        fc.integer({ min: 0, max: 800 }),
        fc.integer({ min: 0, max: 600 }),
        (factor, x, y) => {
          const before = [(x - port.view.x) / port.view.zoom, (y - port.view.y) / port.view.zoom];
          port.zoomBy(factor, x, y);
          const [u, v] = seen(before[0], before[1]);
          expect(Math.hypot(u - x, v - y)).toBeLessThan(1e-6);
        },
      ),
      { numRuns: 60, seed: 5 },
    );
  });
  test('ends at its limits', () => {
    port.zoomBy(1e6);
    expect(port.view.zoom).toBe(32);
    port.zoomBy(1e-9);
    expect(port.view.zoom).toBe(0.05);
  });
  test('actual size is one px for one px', () => {
    const middle = [(400 - port.view.x) / port.view.zoom, (300 - port.view.y) / port.view.zoom] as const;
    port.actualSize();
    expect(port.view.zoom).toBeCloseTo(1, 12);
    expect(seen(...middle).map(Math.round)).toEqual([400, 300]);
  });
});

test('a box is shown as large as the pane allows, in its middle; one without extent too', () => {
  port.show({ minX: 100, minY: 200, maxX: 200, maxY: 220 });
  expect(seen(150, 210).map((v) => +v.toFixed(9))).toEqual([400, 300]);
  expect(seen(200, 210)[0]).toBeCloseTo(800 - 28, 9);
  port.show({ minX: 5, minY: 5, maxX: 5, maxY: 5 });
  expect(port.view.zoom).toBe(32);
  expect(seen(5, 5)).toEqual([400, 300]);
});

test('moving goes by px of the screen, whatever the zoom', () => {
  port.zoomBy(3);
  const [x, y] = seen(7, 9);
  port.moveBy(12, -5);
  expect(seen(7, 9)).toEqual([x + 12, y - 5]);
});
