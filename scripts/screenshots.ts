// npm run screenshots: starts the built application with the demo data and takes the pictures of docs/screenshots anew.
import { chromium } from '@playwright/test';
import { TestServer } from '../e2e/support/server';

const FOLDER = 'docs/screenshots';
const server = new TestServer();
await server.start({ demo: true });
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--headless', '--no-sandbox', '--disable-gpu'],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
const take = async (name: string): Promise<void> => void (await page.screenshot({ path: `${FOLDER}/${name}.png` }));

await page.goto(server.url);
await page.waitForTimeout(2200);
await take('shelf');
await page.getByRole('button', { name: 'New piece' }).click();
await page.getByRole('region', { name: 'Canvas' }).waitFor();
await take('empty-piece');
await page.goto(`${server.url}/piece/demo-quay-mark/shapes`);
await page.waitForTimeout(1200);
await page.getByRole('button', { name: /^Shift Sail to Lantern/ }).focus();
await page.keyboard.press('Enter');
for (let i = 0; i < 17; i++) await page.keyboard.press('Shift+ArrowRight');
await page.locator('.details').hover();
await take('shift');
await page.goto(`${server.url}/piece/demo-boarding-button/shapes`);
await page.waitForTimeout(1200);
await page.getByRole('button', { name: /^Pose 2/ }).click();
await take('pose');
await page.getByRole('link', { name: 'Output' }).click();
await page.getByTestId('download-svg').waitFor();
await page.waitForTimeout(600);
await take('output');
await page.getByRole('link', { name: 'Shapes' }).click();
await page.getByRole('button', { name: 'Dark theme' }).click();
await page.waitForTimeout(400);
await take('dark');
await browser.close();
await server.dispose();
