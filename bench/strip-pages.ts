// Pages of strips with the verdicts beside them, to be looked at: tsx bench/strip-pages.ts FOLDER [seed] [how many]. Strips stand by how bad they are said to be.
import fs from 'node:fs';
import path from 'node:path';
import { evaluate, inBetweenPathData, measureHealth, rankAlternatives, readPathData } from '../core/src/index';
import { LISTS, pairLists } from './pair-lists';

const [, , folder = 'strips', seed = '11', count = '300'] = process.argv;
const FRAMES = 9;
const CELL = 44;
const COLUMNS = 3;
const ROWS = 15;

const lists = pairLists(Number(seed), Math.ceil(Number(count) / LISTS.length));
const strips = LISTS.flatMap((list) => lists[list].map((pair) => ({ list, ...pair }))).map(({ list, a, b }) => {
  const [{ plan }] = rankAlternatives(readPathData(a), readPathData(b));
  const { verdict, sentence, areaDip, evenDip } = measureHealth(plan);
  const scale = (CELL - 8) / 100;
  const frames = Array.from({ length: FRAMES }, (_, k) => {
    const d = inBetweenPathData(plan, evaluate(plan, k / (FRAMES - 1)), 1);
    const paint = list === 'open' ? 'fill="none" stroke="#000" stroke-width="6"' : `fill-rule="${plan.fillRule}"`;
    return `<path transform="translate(${k * CELL + 4} 4) scale(${scale})" ${paint} d="${d}"/>`;
  });
  return {
    verdict,
    text: `${list}, ${Math.round(100 * areaDip)} %, ${Math.round(100 * evenDip)} %: ${sentence}`,
    frames: frames.join(''),
  };
});
const order = ['broken', 'look', 'good'];
strips.sort((p, q) => order.indexOf(p.verdict) - order.indexOf(q.verdict));
fs.mkdirSync(folder, { recursive: true });
const escaped = (text: string): string => text.replace(/&/g, '&amp;').replace(/</g, '&lt;');
for (let page = 0; page * COLUMNS * ROWS < strips.length; page++) {
  const body = strips.slice(page * COLUMNS * ROWS, (page + 1) * COLUMNS * ROWS).map(({ verdict, text, frames }, i) => {
    const [x, y] = [(i % COLUMNS) * (FRAMES * CELL + 24), Math.floor(i / COLUMNS) * (CELL + 18)];
    return `<g transform="translate(${x + 8} ${y + 4})">${frames}<text y="${CELL + 8}" font-size="9">${verdict} (${escaped(text).slice(0, 88)}</text></g>`;
  });
  const [width, height] = [COLUMNS * (FRAMES * CELL + 24), ROWS * (CELL + 18) + 10];
  fs.writeFileSync(
    path.join(folder, `page-${page + 1}.svg`),
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" font-family="sans-serif"><rect width="100%" height="100%" fill="#fff"/>${body.join('\n')}</svg>`,
  );
}
console.log(
  order.map((verdict) => `${verdict}: ${strips.filter((strip) => strip.verdict === verdict).length}`).join(', '),
);
