import { expect, test } from '@jest/globals';
import { textHash } from './text-hash';

// Worked values of FNV-1a, 32 bits, from its authors' test vectors: "", "a" and "foobar" (from memory).
test.each([
  ['', 0x811c9dc5],
  ['a', 0xe40c292c],
  ['foobar', 0xbf9cf968],
])('the hash of “%s” is the published one', (text, hash) => {
  expect(textHash(text)).toBe(hash);
});

test('from another basis it is another number', () => {
  expect(textHash('foobar', 1)).not.toBe(textHash('foobar'));
});
