import fs from 'node:fs';

import { checkPiece } from '@core';
import { test } from '@playwright/test';
import { DEMO_PIECES } from '../server/src/demo/pieces';
import { builtScript } from './support/built-script';
import { InnerServer } from './support/server';
test.use({ bypassCSP: true });
const server = new InnerServer();
let script = '';
test.beforeAll(async () => { await server.start(); script = await builtScript('outputs-page.ts'); });
test.afterAll(() => server.dispose());
test('probe', async ({ page }) => {
  page.on('console', (m) => console.log(m.text()));
  await page.goto(`${server.url}/site/`);
  await page.addScriptTag({ content: script });
  const piece = checkPiece(DEMO_PIECES[Number(process.env.N ?? 0)]());
  for (const [form, options] of JSON.parse(process.env.JOBS as string)) {
    const r: any = await page.evaluate(([f, p, o]) => (window as any).makeAndProve(f, p, o), [form, piece, options] as const);
    console.log(form, JSON.stringify(options), r.size, r.note, r.holds, r.seconds, JSON.stringify(r.lines.map((l: any) => [l.what, l.found, l.holds])));
    fs.writeFileSync(`/tmp/dbg/out.${form}`, Buffer.from(r.base64, 'base64'));
  }
});
