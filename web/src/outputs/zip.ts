import { Zip, ZipDeflate, ZipPassThrough } from 'fflate';
import { BlobSink } from './raster/blob-sink';

/** Puts files into a ZIP, one at a time: none but the one at hand is in memory. */
export class ZipWriter {
  private readonly sink = new BlobSink();
  private readonly zip: Zip;
  private failure: Error | null = null;

  constructor() {
    this.zip = new Zip((error, data) => {
      if (error) this.failure = error;
      else this.sink.write(data);
    });
  }

  /** Adds a file; `packed` is one that is compressed already. */
  add(name: string, data: Uint8Array, packed: boolean): void {
    const entry = packed ? new ZipPassThrough(name) : new ZipDeflate(name, { level: 6 });
    // The time is always the same: so are the bytes.
    entry.mtime = new Date(1980, 0, 1);
    this.zip.add(entry);
    entry.push(data, true);
    if (this.failure) throw this.failure;
  }

  end(): Blob {
    this.zip.end();
    if (this.failure) throw this.failure;
    return this.sink.blob('application/zip');
  }
}
