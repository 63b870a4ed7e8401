/** Bytes are handed to the browser in portions of this size: it may keep them outside of memory. */
const PORTION = 8 * 1024 * 1024;

/** Collects a file as it is written, so that memory does not grow with its length. Bytes that were written may be written over. */
export class BlobSink {
  private readonly blobs: Blob[] = [];
  private open: Uint8Array<ArrayBuffer>[] = [];
  private openBytes = 0;
  private length = 0;
  private readonly patches: { readonly position: number; readonly data: Uint8Array<ArrayBuffer> }[] = [];

  get size(): number {
    return this.length;
  }

  /** Adds at the end, or writes over what is there from a position on. The bytes are copied. */
  write(data: Uint8Array, position = this.length): void {
    const copy = new Uint8Array(data);
    const over = Math.min(copy.length, Math.max(0, this.length - position));
    if (over > 0) this.patches.push({ position, data: copy.subarray(0, over) });
    if (position > this.length) this.append(new Uint8Array(position - this.length));
    if (over < copy.length) this.append(copy.subarray(over));
  }

  private append(data: Uint8Array<ArrayBuffer>): void {
    this.open.push(data);
    this.openBytes += data.length;
    this.length += data.length;
    if (this.openBytes < PORTION) return;
    this.blobs.push(new Blob(this.open));
    this.open = [];
    this.openBytes = 0;
  }

  /** The whole file. */
  blob(type: string): Blob {
    let whole = new Blob([...this.blobs, ...this.open], { type });
    for (const { position, data } of this.patches)
      whole = new Blob([whole.slice(0, position), data, whole.slice(position + data.length)], { type });
    return whole;
  }
}
