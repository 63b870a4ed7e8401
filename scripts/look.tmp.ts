import { chromium } from '@playwright/test';
import { TestServer } from '../e2e/support/server';

const server = new TestServer();
await server.start({ demo: true });
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--headless', '--no-sandbox', '--disable-gpu'],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
page.on('console', (m) => m.type() === 'error' && console.log('CONSOLE', m.text()));
page.on('pageerror', (e) => console.log('PAGEERROR', e.message));
const take = async (name: string) => void (await page.screenshot({ path: `/tmp/shots/${name}.png` }));
const script = process.argv[2];
await (await import(script)).default({ page, server, take });
await browser.close();
await server.dispose();
