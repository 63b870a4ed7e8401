import { seededRandom } from '../num';

const SNIPPETS = [
  '<',
  '>',
  '"',
  '&',
  ';',
  '/>',
  '<g>',
  '</g>',
  'NaN',
  '1e309',
  '-',
  '.',
  '%',
  'Z',
  'M',
  'A1 1 0 0 1 ',
  '<use href="#a"/>',
  ' transform="scale(0)"',
  ' transform="rotate(1e9)"',
  ' style="fill:url(#a)"',
  '\u0000',
  '<![CDATA[',
  '<!--',
  '1e7',
  '0',
  '99999999',
] as const;

/** Numbers at and beyond the edges of what a drawing may hold. */
const NUMBERS = [
  '0',
  '-0',
  '1e-9',
  '1e7',
  '-1e7',
  '9999999',
  '1e8',
  '1e309',
  '.',
  '-50',
  '3.25e2',
  '100001',
  '1e-4',
] as const;

/**
 * A copy of a text that is spoiled in one to three places, the same for the same seed: mostly numbers exchanged for others, sometimes bits cut out, said twice,
 * moved or put in.
 */
export function mutateText(original: string, seed: number): string {
  const random = seededRandom(seed);
  const upTo = (n: number): number => Math.floor(random() * n);
  let text = original;
  for (let left = 1 + upTo(3); left > 0; left--) {
    const numbers = [...text.matchAll(/(?<=[\s"',a-z])-?\d+\.?\d*/gi)];
    if (numbers.length > 0 && random() < 0.75) {
      const { 0: old, index } = numbers[upTo(numbers.length)];
      text = text.slice(0, index) + NUMBERS[upTo(NUMBERS.length)] + text.slice(index + old.length);
      continue;
    }
    const at = upTo(text.length);
    const end = Math.min(text.length, at + 1 + upTo(12));
    const bit = text.slice(at, end);
    const kind = upTo(5);
    if (kind === 0) text = text.slice(0, at) + text.slice(end);
    else if (kind === 1) text = text.slice(0, end) + bit + text.slice(end);
    else if (kind === 2) text = text.slice(0, at) + SNIPPETS[upTo(SNIPPETS.length)] + text.slice(at);
    else if (kind === 3) text = text.slice(0, at) + String(upTo(2_000) / 10 - 50) + text.slice(end);
    else {
      const there = upTo(text.length);
      text = text.slice(0, there) + bit + text.slice(there);
    }
  }
  return text;
}
