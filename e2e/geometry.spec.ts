import {
  blendAlong,
  blendColour,
  contourLength,
  cubicPoint,
  type Easing,
  ease,
  hexText,
  measureArcLength,
  outlineBox,
  outlineLength,
  placeAtShare,
  planColourBlend,
  readColour,
  readPathData,
  seededRandom,
  writeCssEasing,
  writePathData,
} from '@core';
import type { Page } from '@playwright/test';
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

test('points at shares of the length agree with getPointAtLength to 0.1 px of 960', async ({ page }) => {
  await page.setContent('<svg xmlns="http://www.w3.org/2000/svg"><path/></svg>');
  const single = icons
    .map(({ d }) => readPathData(d))
    .filter(({ contours }) => contours.length === 1)
    .slice(0, 60)
    .map(({ contours: [contour] }) => ({ ...contour, points: contour.points.map((v) => 40 * v) }));
  expect(single.length).toBeGreaterThan(20);
  const shares = [0.1, 0.37, 0.5, 0.81];
  const theirs = await pointsAt(
    page,
    single.map((contour) => writePathData({ contours: [contour], fillRule: 'nonzero' })),
    shares,
  );
  const point = new Float64Array(2);
  single.forEach((contour, i) => {
    const table = measureArcLength(contour);
    shares.forEach((share, k) => {
      const { segment, t } = placeAtShare(table, share);
      cubicPoint(contour.points, 6 * segment, t, point);
      const [x, y] = theirs[i][k];
      expect(Math.hypot(point[0] - x, point[1] - y)).toBeLessThan(0.1 + 5e-4 * contourLength(contour));
    });
  });
});

test('places on motion paths agree with getPointAtLength to half a px of 400', async ({ page }) => {
  await page.setContent('<svg xmlns="http://www.w3.org/2000/svg"><path/></svg>');
  const random = seededRandom(21);
  const pair = (): [number, number] => [Math.round(random() * 400), Math.round(random() * 400)];
  const ways = Array.from({ length: 40 }, () => ({ from: pair(), out: pair(), into: pair(), to: pair() }));
  const shares = Array.from({ length: 21 }, (_, i) => i / 20);
  const theirs = await pointsAt(
    page,
    ways.map(
      ({ from, out, into, to }) =>
        `M${from}C${from[0] + out[0]} ${from[1] + out[1]} ${to[0] + into[0]} ${to[1] + into[1]} ${to}`,
    ),
    shares,
  );
  const place = new Float64Array(2);
  ways.forEach(({ from, out, into, to }, i) => {
    const blend = blendAlong(from, out, into, to);
    shares.forEach((share, k) => {
      blend.write(share, place, 0);
      // A two-hundredth of a step of a twentieth of the way: the browser flattens curves.
      expect(Math.hypot(place[0] - theirs[i][k][0], place[1] - theirs[i][k][1])).toBeLessThan(0.5);
    });
  });
});

/** Points of paths at shares of their lengths, by the browser. */
const pointsAt = (page: Page, ds: readonly string[], shares: readonly number[]): Promise<[number, number][][]> =>
  page.evaluate(
    ([all, at]) => {
      const path = document.querySelector('path') as SVGPathElement;
      return (all as string[]).map((d) => {
        path.setAttribute('d', d);
        const length = path.getTotalLength();
        return (at as number[]).map((share): [number, number] => {
          const { x, y } = path.getPointAtLength(share * length);
          return [x, y];
        });
      });
    },
    [ds, shares] as const,
  );

test("blends of colours agree with the browser's color-mix in oklab and srgb, to a level of 255", async ({ page }) => {
  const random = seededRandom(8);
  const colour = (): string => hexText({ r: random(), g: random(), b: random() });
  const pairs = Array.from({ length: 40 }, () => ({ from: colour(), to: colour(), share: Math.round(random() * 100) }));
  await page.setContent('<canvas width="1" height="1"></canvas><i></i>');
  for (const space of ['oklab', 'srgb'] as const) {
    const theirs = await page.evaluate(
      ([each, name]) => {
        const context = document.querySelector('canvas')?.getContext('2d', { willReadFrequently: true });
        const box = document.querySelector('i') as HTMLElement;
        return (each as typeof pairs).map(({ from, to, share }) => {
          box.style.color = `color-mix(in ${name}, ${from}, ${to} ${share}%)`;
          if (context) context.fillStyle = getComputedStyle(box).color;
          context?.fillRect(0, 0, 1, 1);
          return [...(context?.getImageData(0, 0, 1, 1).data ?? [])];
        });
      },
      [pairs, space] as const,
    );
    const out = new Float64Array(4);
    pairs.forEach(({ from, to, share }, i) => {
      const [p, q] = [readColour(from), readColour(to)];
      if (!p || !q) throw new Error('Expected two colours.');
      blendColour(planColourBlend(p, q, space), share / 100, out);
      for (let k = 0; k < 3; k++) expect(Math.abs(255 * out[k] - theirs[i][k])).toBeLessThanOrEqual(1.01);
    });
  }
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
