import { fileURLToPath } from 'node:url';
import { checkPiece, type Piece, type PieceDraft, PROPERTIES, pieceDuration } from '@core';
import { expect, type Page, test } from '@playwright/test';
import { pieceBetween } from '../core/src/testing/pieces';
import { DEMO_PIECES } from '../server/src/demo/pieces';
import { builtScript } from './support/built-script';
import { LANE_CASES } from './support/lane-cases';
import { PAIRS } from './support/pair-cases';
import type { Loaded } from './support/picture-page';
import { type Case, ROWS } from './support/property-cases';

const SIZE = 240;
/** Moments of the one second that each case takes: near its beginning, on its way, near its end; none at its exact middle, where choices change. */
const TIMES: readonly number[] = [0.04, 0.47, 0.72, 0.97];
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
/** Pictures that stand side by side: the painted one first. */
const COLUMNS = 4;
/**
 * Where what plays Lottie paints edges in its own way: ends of what is drawn lie where it measures them, and what is seen inside something is put
 * together before it is cut out, so that a paint below does not shine through at the edge.
 */
const OTHER_EDGES: Readonly<Record<string, number>> = {
  drawn: 0.015,
  'several contours and gradients drawn in part, moved': 0.02,
  'motion inside a clip that stands': 0.01,
};

/** The browser paints what CSS moves in layers of its own: leaning ones have softer edges, in the same places. */
const SOFTER_EDGES: Readonly<Record<string, number>> = { skew: 0.025 };

/** What was seen of each case: its name, by what it was played, what the program's own proof says, and the largest share of pixels that differ. */
interface Seen {
  readonly name: string;
  readonly player: Player;
  readonly proof: string;
  share: number;
}
let seen: Seen[] = [];

// Files show a still picture where motion is to be reduced: here they play.
test.use({ contextOptions: { reducedMotion: 'no-preference' } });

let script = '';
test.beforeAll(async () => {
  script = await builtScript('picture-page.ts');
});

/** Where the picture of a number stands. */
const placeOf = (n: number, width: number, height: number): { x: number; y: number } => ({
  x: (n % COLUMNS) * width,
  y: Math.floor(n / COLUMNS) * height,
});

/** Compares what all players show with the painted picture, at some moments. A form that refuses the piece has nothing to show. */
async function compare(
  page: Page,
  piece: Piece,
  players: readonly Player[],
  { times = TIMES, room: usual = 0.005 }: Pick<Case, 'times' | 'room'>,
): Promise<void> {
  const loaded = await show(page, piece, players);
  const { width, height } = piece.canvas;
  const rows = players.map((player, n): Seen => ({ name: piece.name, player, proof: loaded[n].proof, share: 0 }));
  seen.push(...rows);
  for (const seconds of times) {
    await page.evaluate((t) => (window as unknown as { showAt(t: number): void }).showAt(t), seconds);
    const shot = await page.screenshot();
    const places = [0, ...players.map((_, n) => n + 1)].map((n) => placeOf(n, width, height));
    const counts = await page.evaluate(
      async ([base64, [w, h], at]) => {
        const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
        const bitmap = await createImageBitmap(new Blob([bytes], { type: 'image/png' }));
        const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
        const context = canvas.getContext('2d') as OffscreenCanvasRenderingContext2D;
        context.drawImage(bitmap, 0, 0);
        const [a, ...others] = at.map(({ x, y }) => context.getImageData(x, y, w, h).data);
        return others.map((b) => {
          let [inked, different] = [0, 0];
          for (let i = 0; i < a.length; i += 4) {
            let [off, ink] = [0, 0];
            for (let k = i; k < i + 3; k++) {
              off = Math.max(off, Math.abs(a[k] - b[k]));
              ink = Math.max(ink, 255 - Math.min(a[k], b[k]));
            }
            if (ink > 8) inked++;
            if (off > 32) different++;
          }
          return { inked, different };
        });
      },
      [shot.toString('base64'), [width, height], places] as const,
    );
    counts.forEach(({ inked, different }, n) => {
      if (loaded[n].refused.length > 0) return;
      const player = players[n];
      const others = player.startsWith('lottie') ? OTHER_EDGES : player.startsWith('css') ? SOFTER_EDGES : {};
      const room = others[piece.name] ?? usual;
      rows[n].share = Math.max(rows[n].share, different / Math.max(1, inked));
      const where = [player, piece.name, seconds];
      expect.soft([...where, inked > 300]).toEqual([...where, true]);
      expect
        .soft([...where, different <= room * inked ? 'agree' : `${different} of ${inked} differ`])
        .toEqual([...where, 'agree']);
    });
  }
}

function caseOf(name: string, { from, to, options, also }: Case): Piece {
  const draft = structuredClone(pieceBetween(from, to, options)) as PieceDraft;
  Object.assign(draft.canvas, { width: SIZE, height: SIZE });
  draft.name = name;
  also?.(draft);
  return draft as Piece;
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

/** Paints a piece, and plays files of it, side by side. */
async function show(page: Page, piece: Piece, players: readonly Player[]): Promise<readonly Loaded[]> {
  const { width, height } = piece.canvas;
  await page.setViewportSize({ width: COLUMNS * width, height: Math.ceil((1 + players.length) / COLUMNS) * height });
  if (!(await page.evaluate(() => 'loadPiece' in window))) {
    await page.setContent(
      '<style>body{margin:0;display:flex;flex-wrap:wrap;background:#fff}body>*{display:block;flex:none}</style><body></body>',
    );
    await page.addScriptTag({ content: script });
    await loadGraphics(page);
    await page.addScriptTag({
      path: fileURLToPath(new URL('../node_modules/lottie-web/build/player/lottie.js', import.meta.url)),
    });
  }
  return page.evaluate(
    ([each, ids]) =>
      (window as unknown as { loadPiece(piece: unknown, players: unknown): readonly Loaded[] }).loadPiece(each, ids),
    [piece, players] as const,
  );
}

/** Prints what was seen, and expects the program's own proof to hold too. */
function told(): void {
  const rows = seen.map(
    ({ name, player, proof, share }) =>
      `${player.padEnd(32)} ${name.padEnd(60)} proof ${proof.padEnd(12)} player ${(100 * share).toFixed(2)} %`,
  );
  process.stdout.write(`${rows.join('\n')}\n`);
  const failed = seen.filter(({ proof }) => proof.endsWith('fails'));
  seen = [];
  expect(failed).toEqual([]);
}

test.describe(() => {
  test.setTimeout(420_000);

  test('every row of the table of properties looks the same on the canvas and in every file, in every player', async ({
    page,
  }) => {
    // The table decides which cases there are.
    for (const id of Object.keys(PROPERTIES) as (keyof typeof PROPERTIES)[])
      await compare(page, caseOf(id, ROWS[id]), id === 'opacity' ? PLAYERS : [...PLAYERS, ON_CANVAS], ROWS[id]);
    told();
  });

  test('the files of each demo piece show what the canvas shows, at 5 moments of what they play', async ({ page }) => {
    for (const make of DEMO_PIECES) {
      const piece = checkPiece(make());
      // What is played again after the beginning is looked at too.
      const length = 1.4 * pieceDuration(piece);
      const times = [0.07, 0.26, 0.48, 0.69, 0.93].map((share) => share * length);
      await compare(page, piece, [...PLAYERS, ON_CANVAS], { times });
    }
    expect(seen.filter(({ proof }) => proof === 'refused')).toEqual([]);
    told();
  });

  for (const [what, cases] of [
    ['rows that touch each other do too: clips, opacity, gradients, dashes, unpaired contours, overshoot', PAIRS],
    ['so do lanes of all kinds, what follows, drifts and pulses, motion paths, and all ways of playing', LANE_CASES],
  ] as const)
    test(what, async ({ page }) => {
      for (const [name, each] of Object.entries<Case>(cases)) await compare(page, caseOf(name, each), PLAYERS, each);
      told();
    });
});

test('a half-opaque red area under a blue stroke: the figure is faded as one, on both sides', async ({ page }) => {
  await show(page, caseOf('opacity', ROWS.opacity), ['animated-svg']);
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
