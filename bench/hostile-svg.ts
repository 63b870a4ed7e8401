// How long small files that ask for much work take to be read or refused: tsx bench/hostile-svg.ts. Growth is the time of twice the size over that of once.
import { readSvg } from '../core/src/index';
import { hostileSvgs } from '../core/src/testing/hostile-svgs';

function timed(text: string): { ms: number; outcome: string } {
  const started = performance.now();
  let outcome = 'read';
  try {
    readSvg(text);
  } catch (error) {
    outcome = (error as { code?: string }).code ?? String(error);
  }
  return { ms: performance.now() - started, outcome };
}

const SIZE = Number(process.argv[2] ?? 100_000);
const larger = hostileSvgs(2 * SIZE);
for (const [name, text] of hostileSvgs(SIZE)) {
  const once = timed(text);
  const twice = timed(larger.get(name) ?? '');
  console.log(
    `${name.padEnd(42)} ${String(Math.round(text.length / 1000)).padStart(6)} kB ${once.ms.toFixed(0).padStart(7)} ms, twice the size ${(twice.ms / once.ms).toFixed(1).padStart(5)} times: ${once.outcome}`,
  );
}
