// npm run screenshots: starts the built application with the demo data and takes the pictures of docs/screenshots anew.
import fs from 'node:fs';
import { chromium, expect } from '@playwright/test';
import { planAndCompile, posterSeconds, writeAnimatedSvg } from '../core/src/index';
import { ServerProcess } from '../e2e/support/server';
import { quayMark } from '../server/src/demo/quay-mark';
import { chromiumPath } from './chromium.mjs';

const FOLDER = 'docs/screenshots';
// The moving picture of the README, as the program writes it.
const mark = quayMark();
const calmAt = posterSeconds(mark);
fs.writeFileSync(
  'docs/quay-mark.svg',
  writeAnimatedSvg(planAndCompile(mark), { title: mark.name, scale: 0.5, calmAt }),
);
const server = new ServerProcess();
await server.start({ demo: true });
const browser = await chromium.launch({
  executablePath: chromiumPath(),
  args: ['--headless', '--no-sandbox', '--disable-gpu'],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
/** A picture, once every shift of the page is matched and what was changed is saved. */
const take = async (name: string): Promise<void> => {
  await expect(page.locator('[aria-label*="being matched"]')).toHaveCount(0, { timeout: 20_000 });
  await expect(page.getByText(/^(Being matched|Matching )/)).toHaveCount(0, { timeout: 20_000 });
  const saved = page.getByTestId('save-state');
  if ((await saved.count()) > 0) await expect(saved).toHaveText('Saved');
  await page.screenshot({ path: `${FOLDER}/${name}.png` });
};

try {
  await takeAll();
} finally {
  // Whatever failed: nothing stays behind that would keep the process alive.
  await browser.close();
  await server.dispose();
}

/** Two versions of a piece side by side: the server was away when the page was left. */
async function takeVersions(): Promise<void> {
  await page.goto(`${server.url}/piece/demo-quay-mark/shapes`);
  await page.getByLabel('Name of the piece').waitFor();
  await server.stop();
  await page.getByLabel('Name of the piece').fill('Quay Mark at night');
  await page.getByLabel('Name of the piece').press('Enter');
  await expect(page.getByTestId('save-state')).toHaveText('Offline');
  await page.goto('about:blank');
  await server.start();
  await page.goto(`${server.url}/piece/demo-quay-mark/shapes`);
  await page.getByRole('dialog').waitFor();
  await page.waitForTimeout(2500);
  await take('versions');
}

/** The Output room with files that were made and that are being made, a proof, and a file on the ferry line's page. */
async function takeOutput(): Promise<void> {
  await page.getByTestId('download-svg').waitFor();
  const make = async (form: string, fields: Readonly<Record<string, string>> = {}): Promise<void> => {
    await page.getByRole('button', { name: form, exact: true }).click();
    for (const [name, value] of Object.entries(fields)) {
      await page.getByRole('textbox', { name, exact: true }).fill(value);
      await page.getByRole('textbox', { name, exact: true }).press('Enter');
    }
    await page.getByRole('button', { name: 'Make and prove' }).click();
  };
  const proved = page.getByRole('button', { name: 'Proved' });
  await make('Custom element');
  await make('MP4', { Width: '320' });
  await make('GIF', { Width: '320', 'Frames per second': '12' });
  await expect(proved).toHaveCount(3, { timeout: 60_000 });
  await proved.first().click();
  await page.waitForTimeout(300);
  await take('proof');
  await page.getByRole('button', { name: 'Close the proof' }).click();
  await make('PNG sequence', { Width: '1600' });
  await make('Animated SVG');
  await page.waitForTimeout(1500);
  await take('output');
  await page.getByRole('button', { name: 'Cancel PNG sequence' }).click();
  await page.getByRole('button', { name: /^See .*zip on a page/ }).click();
  await page.frameLocator('iframe').locator('moving-piece').waitFor();
  await page.waitForTimeout(1200);
  await take('site');
  await page.getByRole('button', { name: 'Close the page' }).click();
}

/** A star whose points and inner radius have lanes. */
async function takeNumbers(): Promise<void> {
  await page.goto(server.url);
  await page.getByRole('button', { name: 'New piece' }).first().click();
  await page.getByRole('button', { name: 'Shape', exact: true }).click();
  await page.getByRole('radio', { name: 'Star' }).click();
  const pane = await page.locator('.canvas-pane').boundingBox();
  if (!pane) throw new Error('The canvas is not on the page.');
  const [x, y] = [pane.x + pane.width / 2, pane.y + pane.height / 2];
  await page.mouse.move(x - 150, y - 150);
  await page.mouse.down();
  await page.mouse.move(x + 150, y + 150, { steps: 4 });
  await page.mouse.up();
  await page.keyboard.press('Escape');
  await page.locator('.rail-card').first().click();
  await page.keyboard.press('Control+d');
  await page.getByRole('link', { name: 'Timing' }).click();
  for (const [label, field, value] of [
    ['Star: Inner radius', 'Inner radius', '85'],
    ['Star: Points', 'Points', '11'],
  ]) {
    await page.getByLabel('Add a lane to Star').selectOption({ label });
    const block = page.getByRole('group', { name: `${label} of Star` }).getByRole('button', { name: /pose 2/ });
    await block.focus();
    await page.keyboard.press('Enter');
    await page.getByRole('textbox', { name: field, exact: true }).fill(value);
    await page.keyboard.press('Enter');
  }
  await page.waitForTimeout(600);
  await take('numbers');
}

/** The Timing room with many lanes and a path on the picture, a rail of eight poses, and the easing editor. */
async function takeTiming(): Promise<void> {
  await page.goto(`${server.url}/piece/demo-deckhand/timing`);
  await page.waitForTimeout(2500);
  await page.locator('.lane-name', { hasText: 'Pupil left' }).click();
  for (let i = 0; i < 12; i++) await page.keyboard.press('Shift+ArrowRight');
  await page.getByRole('button', { name: /^Position X of Pupil left, at 2\.2 s/ }).focus();
  await page.keyboard.press('Enter');
  // Nearer to the left eye.
  const pane = await page.locator('.canvas-pane').boundingBox();
  if (!pane) throw new Error('The canvas is not on the page.');
  await page.mouse.move(pane.x + pane.width / 2 - 22, pane.y + 120);
  await page.keyboard.down('Control');
  for (let i = 0; i < 4; i++) await page.mouse.wheel(0, -100);
  await page.keyboard.up('Control');
  await page.waitForTimeout(400);
  await take('timing');

  const flag = (i: number): string => {
    const [w, h] = [40 + 7 * i, 90 - 6 * i];
    return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100" width="100" height="100"><path fill="hsl(${20 + 24 * i} 60% 48%)" d="M${50 - w / 2} ${50 - h / 2}C${50 - w / 4} ${44 - h / 2 - i} ${50 + w / 4} ${56 - h / 2 + i} ${50 + w / 2} ${50 - h / 2}L${50 + w / 2 - 3 * i} ${50 + h / 2}C${50 + w / 4} ${56 + h / 2 + i} ${50 - w / 4} ${44 + h / 2 - i} ${50 - w / 2 + 2 * i} ${50 + h / 2}Z"/></svg>`;
  };
  await page.goto(server.url);
  await page.getByRole('button', { name: 'New piece' }).click();
  await page.getByRole('region', { name: 'Canvas' }).waitFor();
  await page.getByTestId('svg-chooser').setInputFiles(
    Array.from({ length: 8 }, (_, i) => ({
      name: `flag-${i + 1}.svg`,
      mimeType: 'image/svg+xml',
      buffer: Buffer.from(flag(i)),
    })),
  );
  await page.getByRole('button', { name: /^Pose 8/ }).waitFor();
  await page.waitForTimeout(2500);
  await page.getByRole('button', { name: /^Pose 4/ }).click();
  await take('rail');

  await page.goto(`${server.url}/piece/demo-quay-mark/shapes`);
  await page.waitForTimeout(1200);
  await page.getByRole('button', { name: /^Shift Wave to Sail/ }).focus();
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Compare with …' }).click();
  await page.getByLabel('Kind').selectOption('spring');
  await page.locator('.easing-plot').evaluate((plot) => plot.scrollIntoView());
  await page.waitForTimeout(900);
  await take('easing');
}

async function takeAll(): Promise<void> {
  await takeVersions();
  await page.getByRole('region', { name: 'On the server' }).waitFor();
  await page.getByRole('button', { name: 'Discard' }).click();
  await page.goto(server.url);
  await page.waitForTimeout(2200);
  await take('shelf');
  await page.getByRole('button', { name: 'New piece' }).click();
  await page.getByRole('region', { name: 'Canvas' }).waitFor();
  await take('empty-piece');
  await page.goto(`${server.url}/piece/demo-boarding-button/shapes`);
  await page.waitForTimeout(1200);
  await page.getByRole('button', { name: /^Pose 2/ }).click();
  await page.getByRole('link', { name: 'Output' }).click();
  await takeOutput();
  await page.getByRole('link', { name: 'Shapes' }).click();
  await page.getByRole('button', { name: 'Dark theme' }).click();
  await page.waitForTimeout(400);
  await take('dark');
  await page.getByRole('button', { name: 'Light theme' }).click();

  await page.goto(`${server.url}/piece/demo-tide-gauge/shapes`);
  await page.waitForTimeout(1500);
  await page.getByRole('button', { name: 'Figure Level' }).click();
  await page.keyboard.press('.');
  await page.keyboard.press('.');
  await page.getByRole('button', { name: /^Pose 3/ }).click();
  await page.keyboard.press('p');
  for (let i = 0; i < 5; i++) await page.getByRole('button', { name: 'Next point' }).click();
  await page.waitForTimeout(300);
  await take('points');

  await page.goto(`${server.url}/piece/demo-pier-letters/shapes`);
  await page.waitForTimeout(1500);
  await page.getByRole('button', { name: 'Figure B to 8' }).click();
  await page.getByRole('tab', { name: 'Outline' }).click();
  await page.waitForTimeout(300);
  await take('text');

  await page.goto(`${server.url}/piece/demo-quay-mark/shapes`);
  await page.waitForTimeout(1200);
  await page.getByRole('button', { name: /^Pose 2/ }).click();
  await page.getByRole('tab', { name: 'Paint' }).click();
  await page.getByRole('button', { name: 'Parts of Mark' }).click();
  await page.getByRole('button', { name: 'Canvas', exact: true }).click();
  await page.getByText('Linear', { exact: true }).click();
  await page.waitForTimeout(300);
  await take('paint');
  // The piece as it was: it is shown again below.
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('save-state')).not.toHaveText('Saved');
  await expect(page.getByTestId('save-state')).toHaveText('Saved');

  const boat = (sail: string): string =>
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100" width="100" height="100"><g id="rig"><path id="sail" fill="#eeb03a" d="${sail}"/><path id="jib" fill="#e58a2f" d="M42 22V78H10C22 62 34 44 42 22Z"/></g><path id="hull" fill="#17324d" d="M6 84H94C90 92 82 96 72 96H28C18 96 10 92 6 84Z"/></svg>`;
  await page.goto(server.url);
  await page.getByRole('button', { name: 'New piece' }).click();
  await page.getByRole('region', { name: 'Canvas' }).waitFor();
  await page.getByTestId('svg-chooser').setInputFiles({
    name: 'ferry.svg',
    mimeType: 'image/svg+xml',
    buffer: Buffer.from(boat('M48 4C70 26 86 54 90 78H48Z')),
  });
  await page.getByTestId('arrival').waitFor();
  await page.getByRole('button', { name: 'change' }).click();
  await page.waitForTimeout(500);
  await take('arrival');
  await page.getByRole('button', { name: 'Leave it as it is' }).click();
  await page.getByRole('button', { name: /^Pose 1/ }).click();
  await page.getByRole('tab', { name: 'Outline' }).click();
  await page.getByRole('button', { name: 'Exchange …' }).click();
  await page.getByTestId('exchange-chooser').setInputFiles({
    name: 'ferry-2.svg',
    mimeType: 'image/svg+xml',
    buffer: Buffer.from(boat('M48 10C66 26 80 50 84 78H48Z')),
  });
  await page.getByTestId('exchange-summary').waitFor();
  await page.waitForTimeout(400);
  await take('exchange');
  for (const [name, easing] of [
    ['Harbour swell', { kind: 'spring', bounce: 0.4 }],
    ['Gang plank', { kind: 'bounce', side: 'out' }],
  ] as const)
    await page.request.post(`${server.url}/api/easings`, { data: { name, easing } });
  await page.goto(`${server.url}/shapes`);
  await page.waitForTimeout(500);
  await take('drawer');
  await page.goto(`${server.url}/piece/demo-quay-mark/match`);
  await page.waitForTimeout(1500);
  await take('match');
  await page.goto(`${server.url}/piece/demo-gate/match`);
  await page.waitForTimeout(1500);
  await page.getByRole('button', { name: 'Split the solid', exact: true }).click();
  const box = await page.getByTestId('match-a').boundingBox();
  if (!box) throw new Error('The first outline is not on the page.');
  await page.mouse.move(box.x + box.width * 0.42, box.y + 50);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.58, box.y + box.height - 50, { steps: 5 });
  await page.mouse.up();
  await page.waitForTimeout(1500);
  await take('match-cut');
  // Last, for it moves what others show.
  await takeTiming();
  await takeNumbers();
}
