import fs from 'node:fs';
import path from 'node:path';
import { applyClips, placementMatrix, poseFromSvg, readSvg, writeStillSvg } from '../core/src/index';
import { expect, test } from './support/fixtures';
import { shareOfDifferentPixels } from './support/pixels';

const PX = 512;
const OF_EACH = 50;
/**
 * Chromium draws a path with its exact or with its sampled anti-aliasing depending on how many points it has, so two shapes that are joined
 * into one part may come out with other grey levels on the same edge. Icons that differ for that reason must agree when both are drawn four
 * times as large and averaged; no more than this many may need it, and they are printed.
 */
const SMOOTHING_EXCEPTIONS = 8;
const FINER = 4;

/** Evenly chosen icons of a package, in the order of their names. */
function iconsOf(folder: string, count: number, fits: (svg: string) => boolean): { name: string; svg: string }[] {
  const files: string[] = [];
  const walk = (at: string): void => {
    for (const entry of fs.readdirSync(at, { withFileTypes: true }).sort((p, q) => (p.name < q.name ? -1 : 1))) {
      const file = path.join(at, entry.name);
      if (entry.isDirectory()) walk(file);
      else if (entry.name.endsWith('.svg')) files.push(file);
    }
  };
  walk(folder);
  const all = files
    .map((file) => ({ name: path.basename(file), svg: fs.readFileSync(file, 'utf8') }))
    .filter(({ svg }) => fits(svg));
  return Array.from({ length: count }, (_, i) => all[Math.floor((i * all.length) / count)]);
}

/** The icon as it is read, becomes a pose and is written out again, in its own size. */
function throughTheProgram(svg: string): string {
  const reading = applyClips(readSvg(svg), null);
  let n = 0;
  const { pose, parts } = poseFromSvg(reading, 'Icon', (prefix) => `${prefix}${++n}`);
  expect(placementMatrix({ ...pose.placement, x: 0, y: 0 })).toHaveLength(6);
  return writeStillSvg(
    [{ placement: { x: 0, y: 0, scaleX: 1, scaleY: 1, rotation: 0, rule: null }, parts }],
    { x: 0, y: 0, width: reading.width, height: reading.height },
    { digits: 4 },
  );
}

// Filled icons of remixicon (Apache 2.0), line icons of feather (MIT); both packages are there for tests only.
test('100 real icons, filled and line, taken in and written out again look the same at 512 px', async ({ page }) => {
  test.setTimeout(480_000);
  const filled = iconsOf('node_modules/remixicon/icons', OF_EACH, () => true);
  const lines = iconsOf('node_modules/feather-icons/dist/icons', OF_EACH, (svg) => svg.includes('stroke='));
  const icons = [...filled, ...lines];
  expect(icons).toHaveLength(2 * OF_EACH);
  const sized = (svg: string, px: number): string =>
    svg.replace(
      /<svg([^>]*)>/,
      (_whole, attributes: string) =>
        `<svg${attributes.replace(/\s(width|height)="[^"]*"/g, '')} width="${px}" height="${px}">`,
    );
  /** Both in one picture, side by side. */
  const compare = async (svg: string, scale: number): Promise<number> => {
    const px = PX * scale;
    await page.setViewportSize({ width: 2 * px, height: px });
    const both = `${sized(svg, px)}${sized(throughTheProgram(svg), px)}`;
    await page.setContent(`<!doctype html><body style="margin:0;display:flex;background:#fff;color:#000">${both}`);
    const { share, inked } = await shareOfDifferentPixels(page, await page.screenshot(), null, 32, scale);
    expect(inked).toBeGreaterThan(100);
    return share;
  };
  const exceptions: string[] = [];
  const off: string[] = [];
  for (const { name, svg } of icons) {
    const share = await compare(svg, 1);
    if (share <= 0.005) continue;
    const finer = await compare(svg, FINER);
    const text = `${name}: ${(share * 100).toFixed(2)} % at 512 px, ${(finer * 100).toFixed(2)} % averaged from ${PX * FINER} px`;
    (finer <= 0.005 ? exceptions : off).push(text);
  }
  process.stdout.write(
    `Icons that differ by their anti-aliasing only (${exceptions.length} of ${icons.length}):\n  ${exceptions.join('\n  ')}\n`,
  );
  expect(off).toEqual([]);
  expect(exceptions.length).toBeLessThanOrEqual(SMOOTHING_EXCEPTIONS);
});
