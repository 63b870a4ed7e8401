import fs from 'node:fs';
import {
  CAPS,
  cssText,
  frameAt,
  inBetweenPathData,
  isVanished,
  JOINS,
  type PaintSample,
  type Piece,
  readPathData,
} from '@core';
import type { Browser, Page } from '@playwright/test';
import { outlineDistance } from '../core/src/testing/outline-distance';
import { fittedCanvas } from './support/fitted-canvas';
import { expect, test } from './support/fixtures';
import { shareOfDifferentPixels } from './support/pixels';

const SIZE = 640;

/** The engine's frame as a still SVG without any animation, part by part, written here from the sampled numbers alone. */
function stillSvg(piece: Piece, seconds: number): { svg: string; paths: string[] } {
  const { width, height, background } = piece.canvas;
  let body = background ? `<rect width="${width}" height="${height}" fill="${background}"/>` : '';
  const paths: string[] = [];
  const css = ({ colour: [r, g, b, alpha] }: PaintSample): string => cssText(r, g, b, alpha);
  for (const { parts } of frameAt(piece, seconds).figures) {
    for (const part of parts) {
      const d = inBetweenPathData(part.lanes.plan, part.points, 4);
      paths.push(d);
      if (part.contours.every((contour) => isVanished(contour, part.progress))) continue;
      const pen = part.stroke?.values;
      const stroke =
        part.stroke && pen
          ? `stroke="${css(part.stroke.paint)}" stroke-width="${pen.strokeWidth[0]}" stroke-linecap="${CAPS[pen.cap[0]]}" stroke-linejoin="${JOINS[pen.join[0]]}"`
          : '';
      body += `<path d="${d}" fill="${part.fill ? css(part.fill) : 'none'}" fill-rule="${part.fillRule}" ${stroke}/>`;
    }
  }
  return {
    svg: `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${SIZE}" height="${SIZE}">${body}</svg>`,
    paths,
  };
}

const picture = async (page: Page): Promise<Buffer> =>
  page.screenshot({ clip: { x: 0, y: 0, width: SIZE, height: SIZE } });
const show = (page: Page, svg: string): Promise<void> =>
  page.setContent(
    `<style>body{margin:0;background:#fff}svg{display:block;width:${SIZE}px;height:${SIZE}px}</style>${svg}`,
  );

/** Compares the running file, stopped at each time, with the engine's frames: pixels and path data. */
async function compare(
  browser: Browser,
  text: string,
  piece: Piece,
  times: readonly number[],
  { onePathEach = true } = {},
): Promise<void> {
  const page = await browser.newPage({ viewport: { width: SIZE, height: SIZE } });
  for (const time of times) {
    await show(page, text);
    const running = await page.evaluate((t) => {
      const svg = document.querySelector('svg') as SVGSVGElement;
      svg.pauseAnimations();
      svg.setCurrentTime(t);
      const shown = (element: Element | null): boolean =>
        element === null || (getComputedStyle(element).display !== 'none' && shown(element.parentElement));
      return [...document.querySelectorAll('path')]
        .filter((path) => shown(path))
        .map((path) => /path\("(.*)"\)/.exec(getComputedStyle(path).getPropertyValue('d'))?.[1] ?? '');
    }, time);
    const shown = await picture(page);
    const { svg, paths } = stillSvg(piece, time);
    await show(page, svg);
    const { share, inked } = await shareOfDifferentPixels(page, shown, await picture(page));
    expect(inked).toBeGreaterThan(2000);
    expect([time, share <= 0.005]).toEqual([time, true]);
    if (!onePathEach) continue;
    expect(running).toHaveLength(paths.length);
    running.forEach((d, i) => {
      expect(outlineDistance(readPathData(d), readPathData(paths[i]))).toBeLessThan(0.1);
    });
  }
  await page.close();
}

// Files show a still picture where motion is to be reduced: here they play.
test.use({ contextOptions: { reducedMotion: 'no-preference' } });

for (const [id, times] of [
  ['demo-quay-mark', [0.4, 1.2, 1.45, 2.9, 4.9]],
  ['demo-boarding-button', [0.5, 1.15, 1.25, 2.55, 2.7]],
] as const) {
  test(`the exported file of ${id}, stopped at five times, is the engine's frame`, async ({ piece, page, browser }) => {
    await piece.open(id, 'output');
    await expect(page.getByTestId('output-size')).toContainText(/bytes|KB/);
    const [download] = await Promise.all([page.waitForEvent('download'), page.getByTestId('download-svg').click()]);
    await compare(browser, fs.readFileSync(await download.path(), 'utf8'), await piece.stored(), times);
  });
}

test('the same with an overshooting easing, a stroke and a piece that plays once', async ({ piece, page, browser }) => {
  await piece.open('demo-boarding-button');
  await piece.drop([
    {
      name: 'ring.svg',
      text: '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 24 24" fill="none" stroke="#7d2a63" stroke-width="3" stroke-linecap="round"><path d="M4 12a8 8 0 1 1 16 0"/><path d="M7 19l10 0"/></svg>',
    },
  ]);
  await expect(piece.cards).toHaveCount(4);
  await piece.selectShift(1);
  await page.getByRole('button', { name: 'Overshoot' }).click();
  await page.keyboard.press('Escape');
  await page.getByLabel('At the end the piece').selectOption({ label: 'Stops' });
  await piece.saved();
  await page.getByRole('link', { name: 'Output' }).click();
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByTestId('download-svg').click()]);
  const stored = await piece.stored();
  expect(stored.playback).toBe('once');
  await compare(browser, fs.readFileSync(await download.path(), 'utf8'), stored, [1.2, 2.55, 2.65, 2.8, 3.1], {
    // A tick without partner has a stroke of its own, so that it leaves no dot where it waits.
    onePathEach: false,
  });
});

test("the canvas shows the engine's frame", async ({ piece, page, browser }) => {
  await piece.open('demo-quay-mark');
  await piece.matched();
  for (let i = 0; i < 7; i++) await page.keyboard.press('Shift+ArrowRight');
  const seconds = await piece.seconds();
  const pane = await piece.canvas.boundingBox();
  if (!pane) throw new Error('There is no canvas.');
  const fitted = fittedCanvas(pane, { width: SIZE, height: SIZE });
  const shown = await page.getByTestId('canvas').evaluate(
    async (element, { zoom, left, top, size }) => {
      await new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve)));
      const canvas = element as HTMLCanvasElement;
      const side = size * zoom;
      const out = new OffscreenCanvas(side, side);
      out.getContext('2d')?.drawImage(canvas, left, top, side, side, 0, 0, side, side);
      const bytes = new Uint8Array(await (await out.convertToBlob()).arrayBuffer());
      return { png: btoa(String.fromCharCode(...bytes)), size: Math.round(side) };
    },
    { ...fitted, size: SIZE },
  );
  const other = await browser.newPage({ viewport: { width: shown.size, height: shown.size } });
  await show(
    other,
    stillSvg(await piece.stored(), seconds).svg.replace(
      /width="640" height="640">/,
      `width="${shown.size}" height="${shown.size}" style="width:${shown.size}px;height:${shown.size}px">`,
    ),
  );
  const { share, inked } = await shareOfDifferentPixels(
    other,
    Buffer.from(shown.png, 'base64'),
    await other.screenshot(),
  );
  expect(inked).toBeGreaterThan(2000);
  // The canvas lies at a fraction of a pixel; edges may differ by that.
  expect(share).toBeLessThan(0.02);
  await other.close();
});

test('gradients, a clipped figure and dashes: the running file looks as the canvas does', async ({
  browser,
  piece,
  page,
  server,
}) => {
  const base = (await (await page.request.get(`${server.url}/api/pieces/demo-tide-gauge`)).json()).piece as Piece;
  const [water, level] = base.figureOrder;
  const parts = Object.fromEntries(
    Object.entries(base.parts).map(([id, part]) => [
      id,
      part.stroke ? { ...part, stroke: { ...part.stroke, width: 40, dash: [60, 30], cap: 'butt' as const } } : part,
    ]),
  );
  const dressed: Piece = {
    ...base,
    id: 'dressed',
    name: 'Dressed',
    canvas: { ...base.canvas, width: 640, height: 640 },
    parts,
    figures: { ...base.figures, [level]: { ...base.figures[level], clip: water, opacity: 0.8 } },
  };
  expect((await page.request.post(`${server.url}/api/pieces`, { data: { piece: dressed } })).status()).toBe(201);
  await piece.open('dressed', 'output');
  await page.getByTestId('download-svg').waitFor();
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByTestId('download-svg').click()]);
  const text = fs.readFileSync(await download.path(), 'utf8');
  // The canvas at a time in a hold and at one in a shift.
  await piece.open('dressed');
  await piece.matched();
  const file = await browser.newPage({ viewport: { width: SIZE, height: SIZE } });
  for (const frames of [0, 60]) {
    await page.keyboard.press(',');
    for (let i = 0; i < frames / 10; i++) await page.keyboard.press('Shift+ArrowRight');
    const time = await piece.seconds();
    await show(file, text);
    await file.evaluate((t) => {
      const svg = document.querySelector('svg') as SVGSVGElement;
      svg.pauseAnimations();
      svg.setCurrentTime(t);
    }, time);
    const shown = await picture(file);
    // The stage paints the same frame into a canvas of the output's size.
    const pane = await piece.canvas.boundingBox();
    if (!pane) throw new Error('There is no canvas.');
    const fitted = fittedCanvas(pane, { width: 640, height: 640 });
    const data = await page.getByTestId('canvas').evaluate(
      async (element, { zoom, left, top, size }) => {
        const source = element as HTMLCanvasElement;
        const out = new OffscreenCanvas(size, size);
        const context = out.getContext('2d') as OffscreenCanvasRenderingContext2D;
        context.imageSmoothingQuality = 'high';
        context.drawImage(source, left, top, 640 * zoom, 640 * zoom, 0, 0, size, size);
        const bytes = new Uint8Array(await (await out.convertToBlob()).arrayBuffer());
        let binary = '';
        for (const byte of bytes) binary += String.fromCharCode(byte);
        return btoa(binary);
      },
      { ...fitted, size: SIZE },
    );
    const { share, inked } = await shareOfDifferentPixels(file, shown, Buffer.from(data, 'base64'), 48, 4);
    expect(inked).toBeGreaterThan(1000);
    // The canvas is drawn at another size and scaled: edges differ by their smoothing, areas must not.
    expect([frames, share < 0.04]).toEqual([frames, true]);
  }
  await file.close();
});

test('the markup is copied as it would be downloaded', async ({ page, piece, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await piece.open('demo-boarding-button', 'output');
  const link = page.getByTestId('download-svg');
  await expect(link).toBeVisible();
  await page.getByRole('button', { name: 'Copy the markup' }).click();
  await expect(page.getByText('The SVG markup is in the clipboard.')).toBeVisible();
  const copied = await page.evaluate(() => navigator.clipboard.readText());
  const [download] = await Promise.all([page.waitForEvent('download'), link.click()]);
  expect(copied).toBe(fs.readFileSync(await download.path(), 'utf8'));
  expect(copied).toMatch(/^<svg /);
});
