import { MOST_FILE_BYTES } from '@core';

const MB = 1024 * 1024;

/** Refuses a file that no reader would take before it is read, with an error that says what was expected and what came; the readers have limits of their own. */
export function checkFileSize({ size }: { readonly size: number }): void {
  if (size > MOST_FILE_BYTES)
    throw new Error(
      `Expected a file of at most ${MOST_FILE_BYTES / MB} MB; this one has ${(size / MB).toFixed(1)} MB.`,
    );
}
