import { fileURLToPath } from 'node:url';
import { checkPiece, type Piece, type PieceDraft, PROPERTIES, pieceDuration } from '@core';
import { expect, type Page, test } from '@playwright/test';
import { build } from 'vite';
import { pieceBetween } from '../core/src/testing/pieces';
import { DEMO_PIECES } from '../server/src/demo/pieces';
import { LANE_CASES } from './support/lane-cases';
import { PAIRS } from './support/pair-cases';
import type { Loaded } from './support/picture-page';
import { type Case, ROWS } from './support/property-cases';

const SIZE = 240;
/** Moments of the one second that each case takes; none at its exact middle, where choices change. */
const TIMES: readonly number[] = [0.04, 0.3, 0.47, 0.72, 0.97];
/** What a file is played by: a browser, the browser after another program made the file smaller, and two other players of Lottie. */
const PLAYERS = [
  'animated-svg',
  'css',
  'lottie',
  'lottie, in lottie-web',
  'animated-svg, optimised',
  'css, optimised',
] as const;
/** It fades each shape of a layer by itself and has no dashes on gradients, so it plays single properties and the examples only. */
const ON_CANVAS = 'lottie, in lottie-web on canvas';
type Player = (typeof PLAYERS)[number] | typeof ON_CANVAS;
/**
 * Where what plays Lottie paints edges in its own way: ends of what is drawn lie where it measures them, and what is seen inside something is put
 * together before it is cut out, so that a paint below does not shine through at the edge.
 */
const OTHER_EDGES: Readonly<Record<string, number>> = {
  drawn: 0.015,
  'several contours and gradients drawn in part, moved': 0.02,
  'motion inside a clip that stands': 0.01,
};

/** What was seen of each case: its name, what the program's own proof says, and the largest share of pixels by which the player differs. */
let seen: { name: string; proof: string; share: number }[] = [];

let script = '';
test.beforeAll(async () => {
  const built = await build({
    configFile: false,
    logLevel: 'error',
    resolve: { alias: { '@core': fileURLToPath(new URL('../core/src/index.ts', import.meta.url)) } },
    build: {
      write: false,
      minify: false,
      lib: {
        entry: fileURLToPath(new URL('support/picture-page.ts', import.meta.url)),
        formats: ['iife'],
        name: 'picture',
      },
    },
  });
  const [first] = Array.isArray(built) ? built : [built];
  if (!('output' in first)) throw new Error('Nothing was built.');
  script = first.output[0].type === 'chunk' ? first.output[0].code : '';
});

/** Compares the two pictures at some moments; null is a piece that the form refuses. */
async function compare(
  page: Page,
  { piece, proof, refused }: Shown,
  { times = TIMES, room = 0.005 }: Pick<Case, 'times' | 'room'>,
): Promise<void> {
  if (refused.length > 0) {
    seen.push({ name: piece.name, proof, share: 0 });
    return;
  }
  const { width, height } = piece.canvas;
  let share = 0;
  for (const seconds of times) {
    const shot = await page
      .evaluate((t) => (window as unknown as { showAt(t: number): void }).showAt(t), seconds)
      .then(() => page.screenshot({ clip: { x: 0, y: 0, width: 2 * width, height } }));
    const { inked, different } = await page.evaluate(
      async ([base64, size]) => {
        const bytes = Uint8Array.from(atob(base64 as string), (c) => c.charCodeAt(0));
        const bitmap = await createImageBitmap(new Blob([bytes], { type: 'image/png' }));
        const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
        const context = canvas.getContext('2d') as OffscreenCanvasRenderingContext2D;
        context.drawImage(bitmap, 0, 0);
        const [w, h] = size as [number, number];
        const a = context.getImageData(0, 0, w, h).data;
        const b = context.getImageData(w, 0, w, h).data;
        let [inked, different] = [0, 0];
        for (let i = 0; i < a.length; i += 4) {
          const off = Math.max(...[0, 1, 2].map((k) => Math.abs(a[i + k] - b[i + k])));
          const ink = Math.max(...[0, 1, 2].map((k) => 255 - Math.min(a[i + k], b[i + k])));
          if (ink > 8) inked++;
          if (off > 32) different++;
        }
        return { inked, different };
      },
      [shot.toString('base64'), [width, height]] as const,
    );
    share = Math.max(share, different / Math.max(1, inked));
    expect.soft([piece.name, seconds, inked > 300]).toEqual([piece.name, seconds, true]);
    expect
      .soft([piece.name, seconds, different <= room * inked ? 'agree' : `${different} of ${inked} differ`])
      .toEqual([piece.name, seconds, 'agree']);
  }
  seen.push({ name: piece.name, proof, share });
}

const roomed = (player: Player, name: string, { times, room }: Case): Pick<Case, 'times' | 'room'> => ({
  // The form that all others come from is looked at more often, and what was made smaller less often: it is the same file.
  ...(times
    ? { times: player.endsWith('optimised') ? times.slice(0, 1) : times }
    : player !== 'animated-svg' && { times: player.endsWith('optimised') ? [0.47] : [0.3, 0.47, 0.97] }),
  ...(room !== undefined && { room }),
  ...(player.startsWith('lottie') && name in OTHER_EDGES && { room: OTHER_EDGES[name] }),
});

/** A piece in the page beside its file. */
interface Shown extends Loaded {
  readonly piece: Piece;
}

async function load(page: Page, player: Player, name: string, { from, to, options, also }: Case): Promise<Shown> {
  const draft = structuredClone(pieceBetween(from, to, options)) as PieceDraft;
  Object.assign(draft.canvas, { width: SIZE, height: SIZE });
  draft.name = name;
  also?.(draft);
  return show(page, player, draft as Piece);
}

/** Loads a graphics library that plays Lottie files by itself. */
async function loadGraphics(page: Page): Promise<void> {
  const folder = fileURLToPath(new URL('../node_modules/canvaskit-wasm/bin/full/', import.meta.url));
  await page.route('**/canvaskit.wasm', (route) =>
    route.fulfill({ path: `${folder}canvaskit.wasm`, headers: { 'access-control-allow-origin': '*' } }),
  );
  await page.addScriptTag({ path: `${folder}canvaskit.js` });
  await page.evaluate(async () => {
    const { CanvasKitInit } = window as unknown as { CanvasKitInit(options: unknown): Promise<unknown> };
    Object.assign(window, {
      graphics: await CanvasKitInit({ locateFile: () => 'http://graphics.test/canvaskit.wasm' }),
    });
  });
}

/** Paints a piece, and plays a file of it, side by side. */
async function show(page: Page, player: Player, piece: Piece): Promise<Shown> {
  const { width, height } = piece.canvas;
  await page.setViewportSize({ width: 2 * width, height });
  if (!(await page.evaluate(() => 'loadPiece' in window))) {
    await page.setContent(
      '<style>body{margin:0;display:flex;background:#fff}svg,canvas{display:block;flex:none}</style><body></body>',
    );
    await page.addScriptTag({ content: script });
    if (player === 'lottie') await loadGraphics(page);
    if (player.startsWith('lottie, '))
      await page.addScriptTag({
        path: fileURLToPath(new URL('../node_modules/lottie-web/build/player/lottie.js', import.meta.url)),
      });
  }
  const loaded = await page.evaluate(
    ([each, id]) => (window as unknown as { loadPiece(piece: unknown, player: unknown): Loaded }).loadPiece(each, id),
    [piece, player] as const,
  );
  return { ...loaded, piece };
}

/** Prints what was seen, and expects the program's own proof to hold too. */
function told(player: Player): void {
  const rows = seen.map(
    ({ name, proof, share }) => `${name.padEnd(60)} proof ${proof.padEnd(12)} player ${(100 * share).toFixed(2)} %`,
  );
  process.stdout.write(`${player}\n${rows.join('\n')}\n`);
  expect(seen.filter(({ proof }) => proof.endsWith('fails'))).toEqual([]);
  seen = [];
}

for (const player of [...PLAYERS, ON_CANVAS] as const) {
  test(`${player}: every row of the table of properties looks the same on the canvas and in the file`, async ({
    page,
  }) => {
    // The table decides which cases there are.
    for (const id of Object.keys(PROPERTIES) as (keyof typeof PROPERTIES)[])
      if (player !== ON_CANVAS || id !== 'opacity')
        await compare(page, await load(page, player, id, ROWS[id]), roomed(player, id, ROWS[id]));
    told(player);
  });

  // What was made smaller is the same file as before: it is looked at less often.
  const shares = player.endsWith('optimised') || player === ON_CANVAS ? [0.26, 0.93] : [0.07, 0.26, 0.48, 0.69, 0.93];
  test(`${player}: the file of each demo piece shows what the canvas shows, at ${shares.length} moments of what it plays`, async ({
    page,
  }) => {
    for (const make of DEMO_PIECES) {
      const piece = checkPiece(make());
      const shown = await show(page, player, piece);
      expect([piece.name, shown.refused]).toEqual([piece.name, []]);
      // What is played again after the beginning is looked at too.
      const length = 1.4 * pieceDuration(piece);
      await compare(page, shown, { times: shares.map((share) => share * length) });
    }
    told(player);
  });
}

for (const player of PLAYERS) {
  test(`${player}: rows that touch each other do too: clips, opacity, gradients, dashes, unpaired contours, overshoot`, async ({
    page,
  }) => {
    for (const [name, each] of Object.entries(PAIRS))
      await compare(page, await load(page, player, name, each), roomed(player, name, each));
    told(player);
  });

  test(`${player}: so do lanes of all kinds, what follows, drifts and pulses, motion paths, and all ways of playing`, async ({
    page,
  }) => {
    for (const [name, each] of Object.entries(LANE_CASES))
      await compare(page, await load(page, player, name, each), roomed(player, name, each));
    told(player);
  });
}

test('a half-opaque red area under a blue stroke: the figure is faded as one, on both sides', async ({ page }) => {
  await load(page, 'animated-svg', 'opacity', ROWS.opacity);
  await page.evaluate(() => (window as unknown as { showAt(t: number): void }).showAt(0.5));
  const shot = (await page.screenshot({ clip: { x: 0, y: 0, width: 2 * SIZE, height: SIZE } })).toString('base64');
  const pixels = await page.evaluate(
    async ([base64, size]) => {
      const bytes = Uint8Array.from(atob(base64 as string), (c) => c.charCodeAt(0));
      const bitmap = await createImageBitmap(new Blob([bytes], { type: 'image/png' }));
      const context = new OffscreenCanvas(bitmap.width, bitmap.height).getContext(
        '2d',
      ) as OffscreenCanvasRenderingContext2D;
      context.drawImage(bitmap, 0, 0);
      // The middle of the area, and the inner half of the stroke, where it lies over the area.
      return [0, size as number].flatMap((left) =>
        [120, 57].map((x) => [...context.getImageData(left + x, 120, 1, 1).data.slice(0, 3)]),
      );
    },
    [shot, SIZE] as const,
  );
  for (const [area, stroke] of [pixels.slice(0, 2), pixels.slice(2)]) {
    for (const [pixel, wanted] of [
      [area, [255, 127, 127]],
      [stroke, [127, 127, 255]],
    ] as const)
      pixel.forEach((v, k) => expect(Math.abs(v - wanted[k])).toBeLessThanOrEqual(2));
  }
});
