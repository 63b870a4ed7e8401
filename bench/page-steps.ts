// The longest tasks of the page itself, in the browser, while drawings of 4,900 circles are dropped: tsx bench/page-steps.ts after a build. What
// bench/many-shapes.ts cannot see is in it: rendering thumbnails, styles, layout and painting.
import { ServerProcess } from '../e2e/support/server';
import { WatchedPage } from './long-tasks';

const COUNT = 4_900;
const drawing = (paint: (i: number) => string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 700 700">${Array.from({ length: COUNT }, (_, i) => `<circle cx="${5 + 10 * (i % 70)}" cy="${5 + 10 * Math.floor(i / 70)}" r="4" fill="${paint(i)}"/>`).join('')}</svg>`;

const server = new ServerProcess();
await server.start();
const watched = await WatchedPage.open();
const { page } = watched;
try {
  for (const [name, paint] of [
    ['one paint', () => 'teal'],
    ['paints in turn', (i: number) => (i % 2 ? 'teal' : 'plum')],
  ] as const) {
    await page.goto(server.url);
    await page.getByRole('button', { name: 'New piece' }).first().click();
    await page.getByRole('region', { name: 'Canvas' }).waitFor();
    for (const which of ['first', 'second']) {
      await watched.forget();
      await page.evaluate(
        ([svg, file]) => {
          const data = new DataTransfer();
          data.items.add(new File([svg], `${file}.svg`, { type: 'image/svg+xml' }));
          document
            .querySelector('.canvas-pane')
            ?.dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true }));
        },
        [drawing(paint), which],
      );
      await page.waitForTimeout(9_000);
      const tasks = await watched.longTasks();
      console.log(`${COUNT} circles, ${name}, the ${which}: tasks over 50 ms: ${tasks.join(', ') || 'none'}`);
    }
  }
} finally {
  await watched.close();
  await server.dispose();
}
