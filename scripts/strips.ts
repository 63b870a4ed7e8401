// Writes docs/strips.svg: twelve pairs of shapes drawn for this project, each as a strip of in-betweens, all decisions automatic.
import fs from 'node:fs';
import { evaluate, inBetweenPathData, measureHealth, rankAlternatives, readPathData } from '../core/src/index';

const SHAPES = {
  wave: 'M5 78C12 40 36 18 62 24C82 29 92 44 90 58C78 48 64 52 64 64C64 72 72 78 82 78Z',
  sail: 'M52 6C66 26 82 50 86 78H18C34 58 46 34 52 6Z',
  lantern: 'M38 8H62V18L78 34V78L68 92H32L22 78V34L38 18Z',
  drop: 'M50 6C64 30 82 46 82 64A32 32 0 0 1 18 64C18 46 36 30 50 6Z',
  ticket: 'M8 26H92V42A8 8 0 0 0 92 58V74H8V58A8 8 0 0 0 8 42Z',
  seal: 'M50 6L60 16L74 12L79 26L93 31L88 45L96 57L84 65L84 80L69 80L60 92L50 84L40 92L31 80L16 80L16 65L4 57L12 45L7 31L21 26L26 12L40 16Z',
  star: 'M50 2L61 38L98 38L68 59L79 95L50 73L21 95L32 59L2 38L39 38Z',
  arrow: 'M10 40H58V14L95 50L58 86V60H10Z',
  gear: 'M43 5H57L60 18L71 23L82 15L92 25L84 36L88 46L98 50L88 56L84 66L92 77L82 87L71 79L60 83L57 96H43L40 83L29 79L18 87L8 77L16 66L12 56L2 50L12 46L16 36L8 25L18 15L29 23L40 18Z',
  heart: 'M50 90C20 68 6 50 6 32C6 16 18 8 29 8C39 8 46 14 50 22C54 14 61 8 71 8C82 8 94 16 94 32C94 50 80 68 50 90Z',
  anchor:
    'M44 8H56V22H72V34H56V78C68 76 76 68 78 58L70 60L84 42L96 60L89 58C86 78 70 92 50 94C30 92 14 78 11 58L4 60L16 42L30 60L22 58C24 68 32 76 44 78V34H28V22H44Z',
  ring: 'M50 5A45 45 0 0 1 50 95A45 45 0 0 1 50 5ZM50 27A23 23 0 0 0 50 73A23 23 0 0 0 50 27Z',
  bay: 'M88 26A44 44 0 1 0 88 74L71 61A23 23 0 1 1 71 39Z',
  bars: 'M6 10H34V90H6ZM66 10H94V90H66Z',
  disc: 'M50 5A45 45 0 0 1 50 95A45 45 0 0 1 50 5Z',
  bee: 'M12 6H56C76 6 84 16 84 28C84 38 78 45 70 48C82 52 90 60 90 71C90 86 78 94 58 94H12ZM34 24V40H52C58 40 61 36 61 32C61 27 58 24 52 24ZM34 58V76H54C62 76 66 72 66 67C66 62 62 58 54 58Z',
  eight:
    'M50 4C72 4 86 14 86 28C86 38 80 45 70 49C83 53 91 61 91 72C91 87 74 96 50 96C26 96 9 87 9 72C9 61 17 53 30 49C20 45 14 38 14 28C14 14 28 4 50 4ZM50 20C40 20 34 24 34 30C34 37 40 41 50 41C60 41 66 37 66 30C66 24 60 20 50 20ZM50 57C38 57 31 62 31 69C31 76 38 80 50 80C62 80 69 76 69 69C69 62 62 57 50 57Z',
  plus: 'M38 8H62V38H92V62H62V92H38V62H8V38H38Z',
} as const;
const PAIRS: readonly [keyof typeof SHAPES, keyof typeof SHAPES][] = [
  ['wave', 'sail'],
  ['sail', 'lantern'],
  ['ticket', 'seal'],
  ['drop', 'heart'],
  ['arrow', 'star'],
  ['ring', 'bay'],
  ['bee', 'eight'],
  ['disc', 'bars'],
  ['heart', 'anchor'],
  ['plus', 'ring'],
  ['star', 'gear'],
  ['lantern', 'wave'],
];
const FRAMES = 11;
const CELL = 112;

let body = '';
PAIRS.forEach(([from, to], row) => {
  const [{ plan }] = rankAlternatives(readPathData(SHAPES[from]), readPathData(SHAPES[to]));
  console.log(`${from} to ${to}: ${measureHealth(plan).sentence}`);
  for (let k = 0; k < FRAMES; k++) {
    const fill = k === 0 ? '#7d2a63' : k === FRAMES - 1 ? '#2147b5' : '#23201b';
    body += `<path transform="translate(${k * CELL + 6} ${row * CELL + 6})" fill="${fill}" d="${inBetweenPathData(plan, evaluate(plan, k / (FRAMES - 1)), 1)}"/>\n`;
  }
});
const [width, height] = [FRAMES * CELL, PAIRS.length * CELL];
fs.writeFileSync(
  'docs/strips.svg',
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}">\n<rect width="${width}" height="${height}" fill="#fffdf8"/>\n${body}</svg>\n`,
);
