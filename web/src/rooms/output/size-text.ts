/** A size in words: bytes, KB or MB. */
export const sizeText = (bytes: number): string =>
  bytes < 10_000
    ? `${Math.round(bytes)} bytes`
    : bytes < 1024 * 1024
      ? `${(bytes / 1024).toFixed(1)} KB`
      : `${(bytes / 1024 / 1024).toFixed(1)} MB`;
