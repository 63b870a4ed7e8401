import { checkPiece, type FormId, type Piece, type PieceDraft, pieceDuration } from '@core';
import { expect, type Page, test } from '@playwright/test';
import { DEMO_PIECES } from '../server/src/demo/pieces';
import { builtScript } from './support/built-script';
import { InnerServer } from './support/server';

// The page takes scripts from here; and video wants a page that came from somewhere safe.
test.use({ bypassCSP: true });

const server = new InnerServer();
let script = '';
test.beforeAll(async () => {
  await server.start();
  script = await builtScript('outputs-page.ts');
});
test.afterAll(() => server.dispose());

interface Result {
  readonly holds: boolean;
}
type Args = [form: FormId, piece: Piece, options: Record<string, string>, other?: Piece, others?: object];

async function ready(page: Page): Promise<(...args: Args) => Promise<Result>> {
  await page.goto(`${server.url}/site/`);
  await page.addScriptTag({ content: script });
  return (...args) =>
    page.evaluate(
      (all) => (window as unknown as { makeAndProve(...args: unknown[]): Promise<Result> }).makeAndProve(...all),
      args,
    );
}

/** At most 1 s at 240 px: enough to see whether a form is right. */
function quick(form: FormId, piece: Piece): Record<string, string> {
  const frames = ['png-sequence', 'sprite-sheet', 'apng', 'gif', 'mp4', 'webm'].includes(form);
  const until = Math.min(1, pieceDuration(piece)).toFixed(3);
  if (frames)
    return { width: '240', until, ...(form === 'sprite-sheet' || form === 'gif' ? { fps: '12' } : { fps: '24' }) };
  return form === 'still-png' ? { width: '240', at: '0.7' } : form === 'still-svg' ? { at: '0.7' } : {};
}

const RASTER = ['still-png', 'png-sequence', 'sprite-sheet', 'apng', 'gif', 'mp4', 'webm'] as const;

const quay = (): PieceDraft => structuredClone(checkPiece(DEMO_PIECES[DEMO_PIECES.length - 1]())) as PieceDraft;

test('a picture whose shapes were shifted, whose colours were swapped, or which lacks frames is noticed in every raster form', async ({
  page,
}) => {
  const makeAndProve = await ready(page);
  const piece = quay() as Piece;
  const shifted = quay();
  for (const part of Object.values(shifted.parts))
    for (const { anchors } of part.contours)
      for (const anchor of anchors)
        for (const key of ['at', 'in', 'out'] as const) {
          const place = anchor[key];
          if (place) anchor[key] = [place[0] + 9, place[1]];
        }
  const swapped = quay();
  const fills = [...new Set(Object.values(swapped.parts).map(({ fill }) => fill))].filter(
    (fill) => typeof fill === 'string',
  );
  for (const part of Object.values(swapped.parts))
    part.fill = part.fill === fills[0] ? fills[1] : part.fill === fills[1] ? fills[0] : part.fill;
  for (const form of RASTER) {
    const options = quick(form, piece);
    const holds = async (...more: [Piece?, object?]): Promise<boolean> =>
      (await makeAndProve(form, piece, options, ...more)).holds;
    expect([form, await holds()]).toEqual([form, true]);
    expect([form, 'shifted', await holds(shifted as Piece)]).toEqual([form, 'shifted', false]);
    expect([form, 'swapped', await holds(swapped as Piece)]).toEqual([form, 'swapped', false]);
    if (form !== 'still-png')
      expect([form, 'frames', await holds(undefined, { until: '0.75' })]).toEqual([form, 'frames', false]);
  }
});
