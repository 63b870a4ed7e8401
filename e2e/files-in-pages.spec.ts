import {
  checkPiece,
  type FormId,
  makeTextFiles,
  type OutputFile,
  planAndCompile,
  TEXT_FORMS,
  type TextForm,
} from '@core';
import { expect, type Page, test } from '@playwright/test';
import { DEMO_PIECES } from '../server/src/demo/pieces';
import { shareOfDifferentPixels } from './support/pixels';

/** Files as somebody puts them into a page of their own. */
const SOURCES = DEMO_PIECES.slice(0, 3).map((make) => {
  const piece = checkPiece(make());
  return { piece, compiled: planAndCompile(piece) };
});
const filesOf = (id: FormId, index: number, options: Readonly<Record<string, string>> = {}): OutputFile[] =>
  makeTextFiles(TEXT_FORMS.find((form) => form.id === id) as TextForm, SOURCES[index], options);

/** A page that uses the very words which files once used, and hides what they name. */
const HOSTILE = `<style>
body{margin:0;background:#fff}.cell{width:320px;height:240px;overflow:hidden;float:left}.cell svg{width:320px;height:240px}
.still,.moving,.not-yet,.not-seen,.m1,.m2,.file,.clip0,.p1{display:none}
#p1,#p2,#clip0,#still-p1,#soft0{display:none}
@keyframes k1{0%{opacity:0}100%{opacity:0}}@keyframes k2{0%{translate:90px}100%{translate:90px}}
</style>
<svg width="0" height="0" style="position:absolute"><defs><linearGradient id="p1"><stop stop-color="red"/></linearGradient><clipPath id="clip0"/></defs></svg>`;
const HOSTS = '<p class="not-yet host">a</p><p class="not-seen host">b</p><p class="host">c</p>';

/** Stops everything that moves in the page at a time, s. */
const stopAt = (page: Page, seconds: number): Promise<void> =>
  page.evaluate((at) => {
    for (const svg of document.querySelectorAll('svg')) {
      svg.pauseAnimations();
      svg.setCurrentTime(at);
    }
    for (const animation of document.getAnimations()) {
      animation.pause();
      animation.currentTime = 1000 * at;
    }
  }, seconds);

const pictureOf = (page: Page, index: number): Promise<Buffer> =>
  page.screenshot({ clip: { x: 320 * (index % 4), y: 240 * Math.floor(index / 4), width: 320, height: 240 } });

const inCells = (texts: readonly string[]): string => texts.map((text) => `<div class="cell">${text}</div>`).join('');

// Files show a still picture where motion is to be reduced: here they play.
test.use({ contextOptions: { reducedMotion: 'no-preference' } });

test('three pieces as SVG and as CSS, and two files twice, look in one page with the same words as each alone', async ({
  page,
}) => {
  const texts = [0, 1, 2].flatMap((i) => [filesOf('animated-svg', i)[0].text, filesOf('css', i)[0].text]);
  const all = [...texts, texts[0], texts[1]];
  await page.setViewportSize({ width: 1280, height: 480 });
  for (const seconds of [0.9, 2.1]) {
    const alone: Buffer[] = [];
    for (const text of all) {
      await page.setContent(
        `<style>body{margin:0}.cell{width:320px;height:240px;overflow:hidden}.cell svg{width:320px;height:240px}</style>${inCells([text])}`,
      );
      await stopAt(page, seconds);
      alone.push(await pictureOf(page, 0));
    }
    await page.setContent(HOSTILE + inCells(all));
    await stopAt(page, seconds);
    for (const [i, wanted] of alone.entries()) {
      const { share, inked } = await shareOfDifferentPixels(page, wanted, await pictureOf(page, i));
      expect([i, seconds, inked > 300, share < 0.001]).toEqual([i, seconds, true, true]);
    }
  }
});

test('files hide nothing of the page that they are in, and share no name with another piece', async ({ page }) => {
  const texts = [0, 1, 2].flatMap((i) => [filesOf('animated-svg', i)[0].text, filesOf('css', i)[0].text]);
  const clips = [0, 1, 2].map((i) => filesOf('clip-path', i)[0].text);
  await page.setContent(`<style>${clips.join('\n')}</style>${HOSTS}${inCells(texts)}`);
  for (const host of await page.locator('.host').all()) await expect(host).toBeVisible();
  await page.setContent(HOSTS + inCells(texts));
  const names = texts.map(
    (text) =>
      new Set([
        ...[...text.matchAll(/(?:id|class)="([^"]*)"/g)].map(([, name]) => name),
        ...[...text.matchAll(/@keyframes ([\w-]+)/g)].map(([, name]) => name),
      ]),
  );
  for (const [i, own] of names.entries())
    for (const [k, other] of names.entries())
      if (i < k) expect([i, k, [...own].filter((name) => other.has(name))]).toEqual([i, k, []]);
  // Made again, a file has the same names.
  expect(filesOf('animated-svg', 0)[0].text).toBe(texts[0]);
});

test('where less motion is asked for, SVG, CSS and clip path show the picture that stands for the piece', async ({
  page,
}) => {
  await page.setViewportSize({ width: 1280, height: 480 });
  await page.emulateMedia({ reducedMotion: 'reduce' });
  for (const i of [0, 1, 2]) {
    const poster = filesOf('still-svg', i)[0].text;
    await page.setContent(HOSTILE + inCells([poster, filesOf('animated-svg', i)[0].text, filesOf('css', i)[0].text]));
    const wanted = await pictureOf(page, 0);
    for (const cell of [1, 2]) {
      const { share, inked } = await shareOfDifferentPixels(page, wanted, await pictureOf(page, cell));
      expect([i, cell, inked > 300, share < 0.001]).toEqual([i, cell, true, true]);
    }
  }
});

/** A page elsewhere with a policy that allows nothing but its own files. */
async function strictPage(page: Page, index: number): Promise<string[]> {
  const files = Object.fromEntries(filesOf('element', index).map(({ name, text }) => [name, text]));
  const svg = Object.keys(files).find((name) => name.endsWith('.svg')) as string;
  const said: string[] = [];
  page.on('console', (message) => {
    if (message.type() === 'error') said.push(message.text());
  });
  await page.route('http://page.test/**', (route) => {
    const name = new URL(route.request().url()).pathname.slice(1);
    const headers = { 'content-security-policy': "default-src 'self'" };
    if (name === '')
      return route.fulfill({
        headers,
        contentType: 'text/html',
        body: `<!doctype html><title>t</title><link rel="stylesheet" href="page.css"><div id="a"><moving-piece src="${svg}" autoplay></moving-piece></div><div id="b"></div><script type="module" src="moving-piece.js"></script>`,
      });
    const types: Record<string, string> = { js: 'text/javascript', svg: 'image/svg+xml', css: 'text/css' };
    const body = name === 'page.css' ? 'body{margin:0}moving-piece{width:320px}' : files[name];
    if (body === undefined) return route.fulfill({ status: 404, body: '' });
    return route.fulfill({ headers, contentType: types[name.replace(/.*\./, '')], body });
  });
  await page.goto('http://page.test/');
  await page.waitForFunction(() => (document.querySelector('moving-piece') as MovingPiece | null)?.duration);
  return said;
}

interface MovingPiece extends HTMLElement {
  readonly duration: number;
  currentTime: number;
  readonly paused: boolean;
  pause(): void;
  play(): void;
}
const element = <T>(page: Page, work: (piece: MovingPiece) => T): Promise<T> =>
  page.evaluate(`(${work.toString()})(document.querySelector('moving-piece') ?? window.taken)`) as Promise<T>;

test('the custom element plays under a policy of default-src self, and shows what the file shows', async ({ page }) => {
  // A piece in which something is hidden at first: without its rules it would be seen all the time.
  const index = SOURCES.findIndex((_, i) => filesOf('element', i)[1].text.includes('not-yet'));
  expect(index).toBeGreaterThanOrEqual(0);
  const said = await strictPage(page, index);
  await element(page, (piece) => {
    piece.pause();
    piece.currentTime = 0.9;
  });
  const found = await page.screenshot({ clip: { x: 0, y: 0, width: 320, height: 200 } });
  expect(said).toEqual([]);
  await page.goto('about:blank');
  await page.setContent(
    `<style>body{margin:0}svg{display:block;width:320px;height:auto}</style>${filesOf('animated-svg', index, { calm: 'no' })[0].text}`,
  );
  await stopAt(page, 0.9);
  const wanted = await page.screenshot({ clip: { x: 0, y: 0, width: 320, height: 200 } });
  const { share, inked } = await shareOfDifferentPixels(page, wanted, found);
  expect([inked > 300, share < 0.005]).toEqual([true, true]);
});

test('moved in the page, or taken out and put back, the custom element goes on where it was', async ({ page }) => {
  await strictPage(page, 0);
  const clock = (piece: MovingPiece): number => piece.shadowRoot?.querySelector('svg')?.getCurrentTime() ?? -1;
  const moved = await page.evaluate(`(() => {
    const clock = ${clock};
    const piece = document.querySelector('moving-piece');
    piece.currentTime = 0.8;
    document.getElementById('b').append(piece);
    return [piece.currentTime, piece.paused, clock(piece)];
  })()`);
  expect(moved).toEqual([0.8, false, expect.closeTo(0.8, 3)]);
  const back = await page.evaluate(`(async () => {
    const clock = ${clock};
    const piece = document.querySelector('moving-piece');
    piece.currentTime = 0.7;
    piece.remove();
    await new Promise((resolve) => setTimeout(resolve, 300));
    document.getElementById('a').append(piece);
    return [piece.currentTime, piece.paused, clock(piece)];
  })()`);
  // The time that it was away has not passed for it.
  expect(back).toEqual([0.7, false, expect.closeTo(0.7, 3)]);
  // What was paused stays so.
  await element(page, (piece) => {
    piece.pause();
    piece.currentTime = 0.5;
    (document.getElementById('b') as HTMLElement).append(piece);
  });
  expect(await element(page, (piece) => [piece.currentTime, piece.paused])).toEqual([0.5, true]);
});

test('less motion that is asked for while the custom element plays is heeded, and taken back', async ({ page }) => {
  await strictPage(page, 0);
  expect(await element(page, (piece) => piece.paused)).toBe(false);
  await page.emulateMedia({ reducedMotion: 'reduce' });
  await expect.poll(() => element(page, (piece) => piece.paused)).toBe(true);
  expect(await element(page, (piece) => piece.currentTime)).toBeCloseTo(SOURCES[0].compiled.poster, 4);
  await page.emulateMedia({ reducedMotion: 'no-preference' });
  await expect.poll(() => element(page, (piece) => piece.paused)).toBe(false);
});
