import { execFileSync, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { checkPiece, makeTextFiles, type OutputFile, pieceDuration, planAndCompile, TEXT_FORMS } from '@core';
import type { Download, Page } from '@playwright/test';
import { unzipSync } from 'fflate';
import { GifReader } from 'omggif';
import { PNG } from 'pngjs';
import { SaxesParser } from 'saxes';
import { expect, test } from './support/fixtures';
import { shareOfDifferentPixels } from './support/pixels';

const ROOT = fileURLToPath(new URL('..', import.meta.url));

/** The Output room, in a designer's words. */
class OutputPage {
  constructor(readonly page: Page) {}
  form = (name: string): Promise<void> => this.page.getByRole('button', { name, exact: true }).click();
  jobs = () => this.page.getByTestId('output-job');
  set = async (label: string, value: string): Promise<void> => {
    const field = this.page.getByRole('textbox', { name: label, exact: true });
    await field.fill(value);
    await field.press('Enter');
  };
  choose = (answer: string): Promise<void> => this.page.getByText(answer, { exact: true }).click();
  make = (): Promise<void> => this.page.getByRole('button', { name: 'Make and prove' }).click();
  /** Makes what is chosen and waits until it is proved. */
  async proved(): Promise<void> {
    const before = await this.jobs().count();
    await this.make();
    await expect(this.jobs()).toHaveCount(before + 1);
    await expect(this.jobs().first().getByRole('button', { name: 'Proved' })).toBeVisible({ timeout: 90_000 });
  }
  async download(): Promise<string> {
    const [download] = await Promise.all([
      this.page.waitForEvent('download'),
      this.jobs()
        .first()
        .getByRole('link', { name: /^Download/ })
        .click(),
    ]);
    return savedAs(download);
  }
}

async function savedAs(download: Download): Promise<string> {
  const file = test.info().outputPath(download.suggestedFilename());
  await download.saveAs(file);
  return file;
}

const unzipped = (file: string): Record<string, Uint8Array> => unzipSync(new Uint8Array(fs.readFileSync(file)));

/** What ffprobe says of a file's first stream. */
function probed(file: string): Record<string, string> {
  const said = execFileSync(
    'ffprobe',
    ['-v', 'error', '-count_frames', '-select_streams', 'v:0', '-show_streams', '-show_format', '-of', 'json', file],
    { encoding: 'utf8' },
  );
  const { streams, format } = JSON.parse(said);
  return { ...format, ...streams[0] };
}

/** A form of one file, of several, and a table. */
const BY_COMMAND: readonly string[] = ['animated-svg', 'module', 'path-data'];

function byCommandLine(piece: string, form: string, folder: string): OutputFile[] {
  fs.mkdirSync(folder, { recursive: true });
  const run = spawnSync(
    process.execPath,
    ['--import', 'tsx', 'scripts/out.ts', piece, '--form', form, '--to', folder],
    { cwd: ROOT, encoding: 'utf8' },
  );
  expect([form, run.status, run.stderr]).toEqual([form, 0, run.stderr]);
  return fs.readdirSync(folder).map((name) => ({ name, text: fs.readFileSync(path.join(folder, name), 'utf8') }));
}

// Files show a still picture where motion is to be reduced: here they play.
test.use({ contextOptions: { reducedMotion: 'no-preference' } });

test('text forms: chosen, made, proved, downloaded, and the same as the command line makes', async ({
  piece,
  page,
}) => {
  await piece.open('demo-gate', 'output');
  const room = new OutputPage(page);
  const stored = test.info().outputPath('gate.arcshift.json');
  const gate = checkPiece(await piece.stored());
  fs.writeFileSync(stored, JSON.stringify(gate));
  const source = { piece: gate, compiled: planAndCompile(gate) };
  for (const form of TEXT_FORMS) {
    const { id, label } = form;
    await room.form(label);
    await room.proved();
    const file = await room.download();
    const made: OutputFile[] = file.endsWith('.zip')
      ? Object.entries(unzipped(file)).map(([name, bytes]) => ({ name, text: new TextDecoder().decode(bytes) }))
      : [{ name: path.basename(file), text: fs.readFileSync(file, 'utf8') }];
    // Of every form the same as without a page; of some by a process of its own, which takes its time to start.
    const wanted = BY_COMMAND.includes(id)
      ? byCommandLine(stored, id, test.info().outputPath(id))
      : makeTextFiles(form, source, {});
    expect(made.map(({ name }) => name).sort()).toEqual(wanted.map(({ name }) => name).sort());
    for (const { name, text } of made)
      expect([name, text === wanted.find((each) => each.name === name)?.text]).toEqual([name, true]);
    for (const { name, text } of made.filter((each) => each.name.endsWith('.svg'))) {
      const parser = new SaxesParser({ xmlns: true });
      parser.on('error', (error) => {
        throw new Error(`${name}: ${error.message}`);
      });
      parser.write(text).close();
    }
  }
});

test('pictures in a row and video: outside readers find the size, the frames and the times that were asked for', async ({
  piece,
  page,
}) => {
  await piece.open('demo-boarding-button', 'output');
  const room = new OutputPage(page);
  const asked = async (name: string, fields: Record<string, string>): Promise<string> => {
    await room.form(name);
    for (const [label, value] of Object.entries(fields)) await room.set(label, value);
    await room.proved();
    return room.download();
  };
  const gif = probed(await asked('GIF', { Width: '200', 'Frames per second': '10', Until: '1' }));
  expect(gif).toMatchObject({ codec_name: 'gif', width: 200, height: 200 });
  expect(Number(gif.duration)).toBeCloseTo(1, 2);
  const sequence = unzipped(await asked('PNG sequence', { Width: '160', 'Frames per second': '10', Until: '0.5' }));
  expect(Object.keys(sequence)).toEqual([
    'frame-0000.png',
    'frame-0001.png',
    'frame-0002.png',
    'frame-0003.png',
    'frame-0004.png',
  ]);
  for (const bytes of Object.values(sequence))
    expect(PNG.sync.read(Buffer.from(bytes), { checkCRC: true }).width).toBe(160);
  const sheet = unzipped(await asked('Sprite sheet', { Width: '100', Until: '0.5' }));
  const about = JSON.parse(new TextDecoder().decode(sheet['sheet.json']));
  const png = PNG.sync.read(Buffer.from(sheet['sheet.png']));
  expect([png.width, png.height, about.frames.length]).toEqual([about.width, about.height, 6]);
  const apng = probed(await asked('APNG', { Width: '120', 'Frames per second': '20', Until: '1.5' }));
  expect(apng).toMatchObject({ codec_name: 'apng', width: 120 });
  // What stands still is one picture that is shown longer.
  expect(Number(apng.nb_read_frames)).toBeGreaterThan(5);
  expect(Number(apng.nb_read_frames)).toBeLessThan(30);
  const mp4 = probed(await asked('MP4', { Width: '321', 'Frames per second': '29.97', Until: '1', Plays: '2' }));
  expect(mp4).toMatchObject({
    codec_name: 'h264',
    width: 322,
    height: 322,
    avg_frame_rate: '30000/1001',
    nb_read_frames: '60',
    pix_fmt: 'yuv420p',
    color_range: 'tv',
    color_space: 'bt709',
    color_primaries: 'bt709',
  });
  expect(Number(mp4.duration)).toBeCloseTo(60.06 / 30, 2);
  const webm = probed(await asked('WebM', { Width: '240', 'Frames per second': '25', Until: '1' }));
  expect(webm).toMatchObject({ codec_name: 'vp9', width: 240, nb_read_frames: '25' });
  await room.choose('AV1');
  await room.proved();
  expect(probed(await room.download())).toMatchObject({ codec_name: 'av1', nb_read_frames: '25' });
});

test('made while one works elsewhere: the queue goes on, cancels, and offers no half file', async ({ piece, page }) => {
  await piece.open('demo-quay-mark', 'output');
  const room = new OutputPage(page);
  await room.form('PNG sequence');
  await room.set('Width', '1600');
  await room.make();
  await room.form('Animated SVG');
  await room.make();
  await expect(room.jobs().nth(1)).toContainText('%');
  /** Would the browser ask before the tab is closed? */
  const asks = (): Promise<boolean> =>
    page.evaluate(() => !window.dispatchEvent(new Event('beforeunload', { cancelable: true })));
  // What is kept by the server goes on in another tab: leaving is no loss.
  await expect.poll(asks).toBe(false);
  await room.jobs().nth(1).getByRole('button', { name: 'Cancel PNG sequence' }).click();
  await expect(room.jobs().nth(1)).toContainText('cancelled, nothing was made');
  await expect(room.jobs().nth(1).getByRole('link')).toHaveCount(0);
  await room.form('MP4');
  await room.set('Width', '480');
  await room.make();
  await page.getByRole('link', { name: 'Shapes', exact: true }).click();
  await expect(page.getByRole('region', { name: 'Canvas' })).toBeVisible();
  await page.getByRole('link', { name: 'Output', exact: true }).click();
  await expect(room.jobs().first().getByRole('button', { name: 'Proved' })).toBeVisible({ timeout: 90_000 });
  await room.jobs().nth(2).getByRole('button', { name: 'Make PNG sequence again' }).click();
  await room
    .jobs()
    .first()
    .getByRole('button', { name: /Cancel/ })
    .click();
  await room
    .jobs()
    .first()
    .getByRole('button', { name: /Remove/ })
    .click();
  await expect(room.jobs()).toHaveCount(3);
  expect(await asks()).toBe(false);
});

test('the file is seen before it is made, in step with the bead', async ({ piece, page }) => {
  await piece.open('demo-quay-mark', 'output');
  await expect(page.getByTestId('file-svg').locator('svg')).toBeVisible();
  const fileTime = (): Promise<number> =>
    page
      .getByTestId('file-svg')
      .locator('svg')
      .evaluate((svg) => (svg as SVGSVGElement).getCurrentTime());
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  const bead = await piece.seconds();
  expect(bead).toBeGreaterThan(0.2);
  await expect.poll(fileTime).toBeCloseTo(bead, 3);
  // Another setting makes it anew, at the same moment.
  await page.getByText('3', { exact: true }).first().click();
  await page.waitForTimeout(800);
  await expect.poll(fileTime).toBeCloseTo(bead, 3);
});

test('the picture of the file beside the piece is that of the piece at the bead, with nothing over it', async ({
  piece,
  page,
}) => {
  await piece.open('demo-quay-mark', 'output');
  const file = page.getByTestId('file-svg').locator('svg');
  await expect(file).toBeVisible();
  await piece.matched();
  for (let step = 0; step < 3; step++) {
    const share = async (): Promise<number> => {
      const pictures = [await page.locator('.output-canvas').screenshot(), await file.screenshot()];
      return (await shareOfDifferentPixels(page, pictures[0], pictures[1], 64)).share;
    };
    await expect.poll(share).toBeLessThan(0.03);
    for (let i = 0; i < 4; i++) await page.keyboard.press('Shift+ArrowRight');
  }
});

test('what a form cannot show is said before it is made, and nothing is offered', async ({ piece, page }) => {
  await piece.open('demo-fog-loader', 'output');
  const room = new OutputPage(page);
  await room.form('GIF');
  await expect(page.getByRole('alert')).toContainText('An animated picture begins again at its first frame');
  await expect(page.getByRole('button', { name: 'Make and prove' })).toBeDisabled();
  await room.form('WebM');
  await expect(page.getByRole('button', { name: 'Make and prove' })).toBeEnabled();
});

test('settings are remembered, kept as a preset, and nonsense is not taken', async ({ piece, page }) => {
  await piece.open('demo-gate', 'output');
  const room = new OutputPage(page);
  await room.form('GIF');
  await room.set('Width', '550');
  await room.set('Height', '0');
  await expect(page.getByRole('textbox', { name: 'Height', exact: true })).toHaveValue('');
  await page.getByLabel('Save as preset').fill('Letter');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await room.set('Width', '100');
  await page.reload();
  await expect(page.getByRole('textbox', { name: 'Width', exact: true })).toHaveValue('100');
  await room.form('Letter');
  await expect(page.getByRole('textbox', { name: 'Width', exact: true })).toHaveValue('550');
  await page.getByRole('button', { name: 'Forget Letter' }).click();
  await expect(page.getByRole('button', { name: 'Letter', exact: true })).toHaveCount(0);
});

test('a looping sign as a GIF of 550 × 200 at 12 frames a second, opaque, put on the page', async ({ piece, page }) => {
  await piece.open('demo-pier-letters', 'output');
  const room = new OutputPage(page);
  await room.form('GIF');
  await room.set('Width', '550');
  await room.set('Height', '200');
  await room.set('Frames per second', '12');
  await room.proved();
  const file = await room.download();
  const bytes = fs.readFileSync(file);
  expect([bytes.toString('latin1', 0, 6), bytes.readUInt16LE(6), bytes.readUInt16LE(8)]).toEqual(['GIF89a', 550, 200]);
  const decoded = new GifReader(bytes);
  const shown = Array.from({ length: decoded.numFrames() }, (_, k) => decoded.frameInfo(k));
  // Twelve a second are 8, 9 and 8 hundredths; one that stays as it was is shown on.
  expect(shown.every(({ delay }) => delay >= 8)).toBe(true);
  expect(shown.some(({ delay }) => delay === 8) && shown.some(({ delay }) => delay === 9)).toBe(true);
  const { playback, frames } = await piece
    .stored()
    .then((stored) => ({ playback: stored.playback, frames: Math.ceil(pieceDuration(stored) * 12 - 1e-6) }));
  expect([playback, decoded.loopCount()]).toEqual(['loop', 0]);
  expect(shown.reduce((sum, { delay }) => sum + delay, 0)).toBe(Math.round((100 * frames) / 12));
  await page.getByRole('button', { name: /^See pier-letters.gif on a page/ }).click();
  const site = page.frameLocator('iframe');
  await expect(site.locator('[data-slot="hero"] img')).toHaveJSProperty('naturalWidth', 550);
  await page.getByText('Mail', { exact: true }).click();
  await expect(site.locator('[data-slot="mail"] img')).toHaveJSProperty('naturalHeight', 200);
  await expect(site.locator('[data-slot="hero"] img')).toHaveCount(0);
  await page.getByRole('button', { name: 'Take it off' }).click();
  await expect(site.locator('[data-slot="mail"] img')).toHaveCount(0);
});

test('a button as a custom element on the page: it plays there, and stands still for those who want less motion', async ({
  piece,
  page,
}) => {
  await piece.open('demo-boarding-button', 'output');
  const room = new OutputPage(page);
  await room.form('Custom element');
  await room.proved();
  await page.getByRole('button', { name: /^See boarding-button.zip on a page/ }).click();
  await page.getByText('Button', { exact: true }).click();
  const element = page.frameLocator('iframe').locator('[data-slot="button"] moving-piece');
  await expect(element).toHaveJSProperty('paused', false);
  await expect
    .poll(() => element.evaluate((each) => (each as HTMLElement & { currentTime: number }).currentTime))
    .toBeGreaterThan(0.2);
  await page.getByText('Reduce motion', { exact: true }).click();
  await expect(element).toHaveJSProperty('paused', true);
  await expect(element).toHaveJSProperty('currentTime', 0);
});

test('an icon pair as a code module: a slider drives it, together with four numbers of a rectangle', async ({
  piece,
  page,
}) => {
  await piece.open('demo-boarding-button', 'output');
  const room = new OutputPage(page);
  await room.form('Code module');
  await room.proved();
  const files = unzipped(await room.download());
  const [name] = Object.keys(files).filter((each) => each.endsWith('.js'));
  const code = new TextDecoder().decode(files[name]);
  // A page of somebody's own, that knows nothing but the module.
  await page.route('**/own/*', (route) =>
    route.request().url().endsWith('.js')
      ? route.fulfill({ contentType: 'text/javascript', body: code })
      : route.fulfill({
          contentType: 'text/html',
          body: `<input type="range" min="0" max="1" step="0.05" value="0" aria-label="Progress"><svg id="icon"></svg><svg><rect id="box"/></svg>
<script type="module">
import { mount, inStep, frame } from './icon.js';
const show = mount(document.getElementById('icon'));
const rect = document.getElementById('box');
const update = (progress) => {
  show(progress);
  ['x', 'y', 'width', 'height'].forEach((name, i) => rect.setAttribute(name, inStep([[10, 20, 80, 60], [30, 0, 40, 100], [10, 20, 80, 60]], progress)[i]));
  document.body.dataset.frame = JSON.stringify(frame(progress));
};
document.querySelector('input').oninput = ({ target }) => update(Number(target.value));
update(0);
</script>`,
        }),
  );
  await page.goto(`${new URL(page.url()).origin}/own/page.html`);
  const slider = page.getByRole('slider', { name: 'Progress' });
  const numbers = (): Promise<number[]> =>
    page
      .locator('#box')
      .evaluate((rect) => ['x', 'y', 'width', 'height'].map((each) => Number(rect.getAttribute(each))));
  const outlines = (): Promise<string[]> =>
    page.locator('#icon path').evaluateAll((paths) => paths.map((each) => each.getAttribute('d') ?? ''));
  const seen = [await outlines()];
  expect(await numbers()).toEqual([10, 20, 80, 60]);
  await slider.focus();
  for (let k = 0; k < 10; k++) await page.keyboard.press('ArrowRight');
  seen.push(await outlines());
  const [x, y, width, height] = await numbers();
  // All four went as far as each other, and not farther than the icon.
  const way = (x - 10) / 20;
  expect([way > 0 && way < 1, y, width, height]).toEqual(
    [true, 20 - 20 * way, 80 - 40 * way, 60 + 40 * way].map((v) => (typeof v === 'number' ? expect.closeTo(v, 6) : v)),
  );
  await page.keyboard.press('End');
  seen.push(await outlines());
  expect(await numbers()).toEqual([30, 0, 40, 100]);
  expect(new Set(seen.map((each) => each.join())).size).toBe(3);
  const said = JSON.parse((await page.locator('body').getAttribute('data-frame')) ?? '') as object;
  expect(JSON.stringify(said)).toContain(seen[2][0].slice(0, 20));
});

test('a chain of poses as opaque video, and as numbered pictures with transparency', async ({ piece, page }) => {
  await piece.open('demo-quay-mark', 'output');
  const room = new OutputPage(page);
  await page.getByRole('button', { name: 'Film', exact: true }).click();
  await room.set('Width', '320');
  await room.proved();
  const video = probed(await room.download());
  expect(video).toMatchObject({ codec_name: 'h264', nb_read_frames: '336' });
  await room.form('PNG sequence');
  await room.set('Width', '320');
  await room.set('Until', '0.2');
  await room.choose('Transparent');
  await room.proved();
  const [first] = Object.values(unzipped(await room.download()));
  expect(PNG.sync.read(Buffer.from(first)).data[3]).toBe(0);
});

test('everything for a site in one ZIP, each of it proved', async ({ piece, page }) => {
  await piece.open('demo-gate', 'output');
  const room = new OutputPage(page);
  await page.getByRole('button', { name: 'All (ZIP) for site' }).click();
  await expect(room.jobs().first().getByRole('button', { name: 'Proved' })).toBeVisible({ timeout: 90_000 });
  expect(Object.keys(unzipped(await room.download())).sort()).toEqual(['mail.gif', 'picture.svg', 'poster.svg']);
  await room.jobs().first().getByRole('button', { name: 'Proved' }).click();
  await expect(page.getByRole('region', { name: 'Proof' })).toContainText('mail: Plays');
});
