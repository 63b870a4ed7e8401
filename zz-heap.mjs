import { chromium } from '@playwright/test';
import fs from 'node:fs';
const base = process.argv[2];
const rounds = Number(process.argv[3] ?? 60);
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const cdp = await page.context().newCDPSession(page);
await cdp.send('HeapProfiler.enable');
await page.goto(base);
const gc = async () => { for (let i = 0; i < 3; i++) await cdp.send('HeapProfiler.collectGarbage'); };
const usage = async (k) => { await gc(); const { usedSize } = await cdp.send('Runtime.getHeapUsage'); const d = await cdp.send('Memory.getDOMCounters'); console.log(k, (usedSize / 1e6).toFixed(3), JSON.stringify(d)); };
const snap = async (name) => { const chunks = []; const on = (e) => chunks.push(e.chunk); cdp.on('HeapProfiler.addHeapSnapshotChunk', on); await cdp.send('HeapProfiler.takeHeapSnapshot', { reportProgress: false }); cdp.off('HeapProfiler.addHeapSnapshotChunk', on); fs.writeFileSync(name, chunks.join('')); };
for (let k = 0; k <= rounds; k++) {
  await page.getByRole('link', { name: /Quay Mark/ }).or(page.getByRole('button', { name: /Quay Mark/ })).first().click();
  await page.getByRole('button', { name: 'Play', exact: false }).first().waitFor();
  await page.waitForTimeout(400);
  await page.goBack();
  await page.getByText('Quay Mark').first().waitFor();
  await page.waitForTimeout(200);
  if (k % 10 === 0) await usage(k);
  if (k === 10) await snap('/tmp/h1.heapsnapshot');
  if (k === rounds) await snap('/tmp/h2.heapsnapshot');
}
await browser.close();
