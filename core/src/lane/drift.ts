/** A number for each whole number and seed, evenly spread in −1..1 (a finaliser of 32-bit hashes: Appleby, MurmurHash3, public domain). */
function hash(n: number, seed: number): number {
  let h = Math.imul(n, 0x9e3779b1) ^ Math.imul(seed + 1, 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return ((h ^ (h >>> 16)) >>> 0) / 2147483648 - 1;
}

/** Slopes of both neighbours at the middle between them give at most this. */
const REACH = 0.5;

/**
 * Smooth noise in −1..1, nought at whole numbers: gradient noise in one dimension with a fade that has no corner in its second derivative (Perlin: Improving
 * noise, 2002). The same place and seed give the same number everywhere. `round`: after so many whole numbers it comes again.
 */
export function noiseAt(place: number, seed: number, round = 0): number {
  const cell = Math.floor(place);
  const x = place - cell;
  const wrapped = (n: number): number => (round > 0 ? ((n % round) + round) % round : n);
  const fade = x * x * x * (x * (6 * x - 15) + 10);
  const p = hash(wrapped(cell), seed) * x;
  const q = hash(wrapped(cell + 1), seed) * (x - 1);
  return (p + (q - p) * fade) / REACH;
}
