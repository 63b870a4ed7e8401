const ALPHABET = 'abcdefghijklmnopqrstuvwxyz0123456789';

/** A random id of twelve letters and digits behind a prefix. */
export function freshId(prefix: string): string {
  const bytes = crypto.getRandomValues(new Uint8Array(12));
  let id = `${prefix}-`;
  for (const byte of bytes) id += ALPHABET[byte % ALPHABET.length];
  return id;
}
