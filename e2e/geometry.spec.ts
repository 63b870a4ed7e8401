import { contourLength, type Easing, ease, outlineBox, outlineLength, readPathData, writeCssEasing } from '@core';
import { realIcons } from '../core/src/testing/icons';
import { expect, test } from './support/fixtures';

const icons = realIcons(200);

test("lengths of 200 icons agree with the browser's getTotalLength to 0.05 %, boxes with getBBox to 1e-3 px of 24", async ({
  page,
}) => {
  await page.setContent(
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 24 24" width="960" height="960"><path/></svg>',
  );
  const measured = await page.evaluate(
    (ds) => {
      const path = document.querySelector('path') as SVGPathElement;
      return ds.map((d) => {
        path.setAttribute('d', d);
        const { x, y, width, height } = path.getBBox();
        return { length: path.getTotalLength(), x, y, width, height };
      });
    },
    icons.map(({ d }) => d),
  );
  // The browser flattens curves with single floats; its length is a little short.
  icons.forEach(({ name, d }, i) => {
    const outline = readPathData(d);
    const theirs = measured[i];
    expect([name, Math.abs(outlineLength(outline) - theirs.length) / theirs.length < 5e-4]).toEqual([name, true]);
    const box = outlineBox(outline);
    for (const [ours, other] of [
      [box.minX, theirs.x],
      [box.minY, theirs.y],
      [box.maxX, theirs.x + theirs.width],
      [box.maxY, theirs.y + theirs.height],
    ]) {
      expect([name, Math.abs(ours - other) < 1e-3]).toEqual([name, true]);
    }
  });
});

test('points at half the length agree with getPointAtLength to 0.02 px of 24', async ({ page }) => {
  await page.setContent('<svg xmlns="http://www.w3.org/2000/svg"><path/></svg>');
  const single = icons.filter(({ d }) => readPathData(d).contours.length === 1).slice(0, 60);
  expect(single.length).toBeGreaterThan(20);
  const theirs = await page.evaluate(
    (ds) => {
      const path = document.querySelector('path') as SVGPathElement;
      return ds.map((d) => {
        path.setAttribute('d', d);
        return path.getTotalLength();
      });
    },
    single.map(({ d }) => d),
  );
  single.forEach(({ d }, i) =>
    expect(Math.abs(contourLength(readPathData(d).contours[0]) - theirs[i])).toBeLessThan(0.02),
  );
});

test("arcs agree with the browser's own, in the boxes of the same path data, to 0.05 px of 40", async ({ page }) => {
  const arcs = Array.from(
    { length: 40 },
    (_, i) =>
      `M10 10A${5 + i} ${3 + ((i * 7) % 20)} ${i * 13} ${i % 2} ${(i >> 1) % 2} ${30 + (i % 9)} ${5 + ((i * 3) % 30)}`,
  );
  await page.setContent('<svg xmlns="http://www.w3.org/2000/svg"><path/></svg>');
  const boxes = await page.evaluate((ds) => {
    const path = document.querySelector('path') as SVGPathElement;
    return ds.map((d) => {
      path.setAttribute('d', d);
      const { x, y, width, height } = path.getBBox();
      return [x, y, x + width, y + height];
    });
  }, arcs);
  arcs.forEach((d, i) => {
    const { minX, minY, maxX, maxY } = outlineBox(readPathData(d));
    [minX, minY, maxX, maxY].forEach((v, k) => expect(Math.abs(v - boxes[i][k])).toBeLessThan(0.05));
  });
});

test("easings agree with the browser's own animation timing at 50 times: 2e-4, what is written as linear() within its error", async ({
  page,
}) => {
  const curve = (x1: number, y1: number, x2: number, y2: number): Easing => ({ kind: 'cubic-bezier', x1, y1, x2, y2 });
  const easings: readonly Easing[] = [
    curve(0.5, 0, 0.15, 1),
    curve(0.25, 0.1, 0.25, 1),
    curve(0.42, 0, 0.58, 1),
    curve(0.5, -0.35, 0.3, 1),
    curve(0.3, 0.1, 0.25, 1.35),
    curve(0.1, 0.6, 0.2, 1),
    curve(0.9, 0.1, 0.1, 0.9),
    { kind: 'linear' },
    ...(['end', 'start', 'none', 'both'] as const).map((jump): Easing => ({ kind: 'steps', count: 7, jump })),
    { kind: 'hold', until: 'end' },
    { kind: 'spring', bounce: 0.5 },
    { kind: 'spring', bounce: 0.1, backwards: true },
    { kind: 'spring', bounce: 0, physics: { mass: 2, stiffness: 90, damping: 7, speed: 3 } },
    { kind: 'elastic', side: 'both', amplitude: 1.2, period: 0.4 },
    { kind: 'bounce', side: 'out' },
    { kind: 'back', side: 'in', overshoot: 1.7 },
  ];
  // Beside the steps of sevenths, not on them: there the last bit decides.
  const times = Array.from({ length: 50 }, (_, i) => (i + 0.3) / 50);
  const theirs = await page.evaluate(
    ([all, at]) =>
      all.map((easing) => {
        const animation = new Animation(
          new KeyframeEffect(document.body, [{ opacity: 0 }, { opacity: 1 }], { duration: 1000, fill: 'both', easing }),
        );
        animation.pause();
        return at.map((time) => {
          animation.currentTime = time * 1000;
          return animation.effect?.getComputedTiming().progress ?? Number.NaN;
        });
      }),
    [easings.map(writeCssEasing), times] as const,
  );
  easings.forEach((easing, i) => {
    const error = ['spring', 'elastic', 'bounce', 'back'].includes(easing.kind) ? 4e-3 : 2e-4;
    times.forEach((time, k) => expect(Math.abs(ease(easing, time) - theirs[i][k])).toBeLessThan(error));
  });
});
