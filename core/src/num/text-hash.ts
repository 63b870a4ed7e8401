/** Where the hash begins that was published. */
const BASIS = 0x811c9dc5;

/** A text as a number of 32 bits (FNV-1a: Fowler, Noll and Vo, 1991). From another `basis` it is another number: two say more than one. */
export function textHash(text: string, basis = BASIS): number {
  let hash = basis;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  return hash >>> 0;
}
