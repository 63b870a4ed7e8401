const MB = 1024 * 1024;
/** Drawings longer than this are refused before they are read; tables and animations in JSON may be longer. */
const MOST_BYTES = 8 * MB;
const MOST_TABLE_BYTES = 40 * MB;

/** Refuses a file by its size alone. Throws an error that says what was expected and what came, in MB. */
export function checkFileSize({ name, size }: { readonly name: string; readonly size: number }): void {
  const most = /\.(json|csv)$/i.test(name) ? MOST_TABLE_BYTES : MOST_BYTES;
  if (size > most)
    throw new Error(`Expected a file of at most ${most / MB} MB; this one has ${(size / MB).toFixed(1)} MB.`);
}
