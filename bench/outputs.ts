// Outputs: seconds of film per second of work, frames a second of the display while a queue works, memory over a long piece, and sizes of text forms against the
// animated SVG. `tsx bench/outputs.ts` after a build.
import zlib from 'node:zlib';
import { chromium } from 'playwright-core';
import {
  checkPiece,
  makeTextFiles,
  type Piece,
  type PieceDraft,
  pieceDuration,
  planAndCompile,
  TEXT_FORMS,
} from '../core/src/index';
import { builtScript } from '../e2e/support/built-script';
import { ServerProcess } from '../e2e/support/server';
import { chromiumPath } from '../scripts/chromium.mjs';
import { DEMO_PIECES } from '../server/src/demo/pieces';

const gzipped = (text: string): number => zlib.gzipSync(text).length;

console.log('Size of the main file, gzipped, against that of the animated SVG:');
for (const make of DEMO_PIECES) {
  const piece = checkPiece(make());
  const source = { piece, compiled: planAndCompile(piece) };
  const sizes = TEXT_FORMS.map((form) => {
    const files = makeTextFiles(form, source, {});
    // Of the custom element the data counts: its player is one for all.
    const main = form.id === 'element' ? files[1] : files[0];
    return [form.id, gzipped(main.text)] as const;
  });
  const [, svg] = sizes[0];
  console.log(
    `  ${piece.name.padEnd(16)} ${String(svg).padStart(6)} bytes  ${sizes
      .slice(1)
      .map(([id, size]) => `${id} ${(size / svg).toFixed(2)}`)
      .join('  ')}`,
  );
}

const server = new ServerProcess();
await server.start({ demo: true });
const browser = await chromium.launch({
  executablePath: chromiumPath(),
  args: ['--headless', '--no-sandbox', '--disable-gpu', '--enable-precise-memory-info'],
});
try {
  const context = await browser.newContext({ bypassCSP: true });
  const page = await context.newPage();
  await page.goto(`${server.url}/site/`);
  await page.addScriptTag({ content: await builtScript('outputs-page.ts') });
  const make = (
    form: string,
    piece: Piece,
    options: Record<string, string>,
  ): Promise<{ size: number; seconds: number }> =>
    page.evaluate(
      (args) =>
        (
          window as unknown as { makeAndProve(...args: unknown[]): Promise<{ size: number; seconds: number }> }
        ).makeAndProve(...args),
      [form, piece, options] as const,
    );
  const quay = checkPiece(DEMO_PIECES[DEMO_PIECES.length - 1]());
  const length = pieceDuration(quay);
  console.log('\nSeconds of film per second of work (the example mark):');
  for (const [form, options, wanted] of [
    ['mp4', { width: '1920', height: '1080', fps: '30' }, 'wanted: at least 0.8'],
    ['mp4', { width: '1920', height: '1080', fps: '60' }, ''],
    ['webm', { width: '1920', height: '1080', fps: '30' }, ''],
    ['gif', { width: '550', height: '200', fps: '12' }, 'wanted: at least 3'],
    ['png-sequence', { width: '1920', height: '1080', fps: '30' }, ''],
  ] as const) {
    const { seconds, size } = await make(form, quay, options);
    console.log(
      `  ${form.padEnd(13)} ${options.width} × ${options.height} at ${options.fps}: ${(length / seconds).toFixed(2)}   ${(size / 1024).toFixed(0)} KB   ${wanted}`,
    );
  }

  // As long as five minutes: the same piece, with its poses held for longer.
  const long = structuredClone(quay) as PieceDraft;
  for (const pose of Object.values(long.poses)) pose.hold *= 300 / length;
  const heap = (): Promise<number> =>
    page.evaluate(() => (performance as unknown as { memory: { usedJSHeapSize: number } }).memory.usedJSHeapSize);
  const before = await heap();
  const { seconds } = await make('mp4', long as Piece, { width: '640', height: '640', fps: '30' });
  console.log(
    `\nA piece of ${pieceDuration(long as Piece).toFixed(0)} s as MP4 of 640 × 640: heap of the page ${((await heap()) / before).toFixed(2)} times that before (${((await heap()) / 1e6).toFixed(0)} MB), ${(pieceDuration(long as Piece) / seconds).toFixed(2)} s of film per second of work`,
  );

  const shown = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await shown.goto(`${server.url}/piece/demo-quay-mark/output`);
  await shown.getByTestId('download-svg').waitFor();
  // As text: the runner would put its own names into a function.
  const rate = (): Promise<number> =>
    shown.evaluate<number>(`new Promise((resolve) => {
      let frames = 0;
      const begun = performance.now();
      requestAnimationFrame(function tick() {
        frames++;
        if (performance.now() - begun < 3000) requestAnimationFrame(tick);
        else resolve((1000 * frames) / (performance.now() - begun));
      });
    })`);
  await shown.getByRole('button', { name: 'Play', exact: true }).click();
  const idle = await rate();
  await shown.getByRole('button', { name: 'MP4', exact: true }).click();
  await shown.getByRole('textbox', { name: 'Width', exact: true }).fill('1080');
  await shown.getByRole('textbox', { name: 'Width', exact: true }).press('Enter');
  for (let i = 0; i < 4; i++) await shown.getByRole('button', { name: 'Make and prove' }).click();
  const busy = await rate();
  console.log(
    `\nFrames a second while playing: ${busy.toFixed(0)} with four videos in the queue, ${idle.toFixed(0)} without (wanted: at least 30)`,
  );
} finally {
  await browser.close();
  await server.dispose();
}
