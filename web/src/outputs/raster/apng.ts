/** What a PNG begins with. */
const SIGNATURE = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a];

/** A chunk of a PNG. */
interface Chunk {
  readonly type: string;
  readonly data: Uint8Array;
}

/** Where the number of frames stands in the file, after the signature and IHDR: it is known at the end only. */
const CONTROL_AT = 8 + 12 + 13;

/**
 * Puts pictures together as an animated PNG (PNG Specification, Third Edition, sections 4.9 and 11.3.6). The pictures are compressed by the browser; here only
 * their chunks are put in order, one picture at a time, so that no more than one is in memory. Pictures after the first may be a part of it.
 */
export class ApngWriter {
  private sequence = 0;
  private frames = 0;

  /**
   * @param plays how often it is played; 0: without end
   * @param write takes the file's bytes in order, or at a position that was written before
   */
  constructor(
    private readonly plays: number,
    private readonly write: (bytes: Uint8Array, position?: number) => void,
  ) {}

  /** Adds a picture at a place of the first one, shown for `delay` s as a fraction; `over`: laid over what is there, else in its place. */
  add(
    png: Uint8Array,
    { x, y, over }: { readonly x: number; readonly y: number; readonly over: boolean },
    delay: { readonly num: number; readonly den: number },
  ): void {
    const chunks = chunksOf(png);
    const header = chunks.find(({ type }) => type === 'IHDR');
    if (!header) throw new Error('Expected a PNG from the browser; found something else.');
    const first = this.frames === 0;
    if (first) {
      this.write(Uint8Array.from(SIGNATURE));
      this.write(chunk('IHDR', header.data));
      this.write(this.control());
    }
    this.frames++;
    const size = new DataView(header.data.buffer, header.data.byteOffset);
    this.write(
      chunk(
        'fcTL',
        bytes(26, (view) => {
          view.setUint32(0, this.sequence++);
          view.setUint32(4, size.getUint32(0));
          view.setUint32(8, size.getUint32(4));
          view.setUint32(12, x);
          view.setUint32(16, y);
          view.setUint16(20, delay.num);
          view.setUint16(22, delay.den);
          // What is shown stays (0); the picture takes its place (0), or is laid over it (1).
          view.setUint8(25, over ? 1 : 0);
        }),
      ),
    );
    for (const { data } of chunks.filter(({ type }) => type === 'IDAT')) {
      if (first) this.write(chunk('IDAT', data));
      else {
        const numbered = new Uint8Array(4 + data.length);
        new DataView(numbered.buffer).setUint32(0, this.sequence++);
        numbered.set(data, 4);
        this.write(chunk('fdAT', numbered));
      }
    }
  }

  end(): void {
    this.write(chunk('IEND', new Uint8Array(0)));
    this.write(this.control(), CONTROL_AT);
  }

  private control(): Uint8Array {
    return chunk(
      'acTL',
      bytes(8, (view) => {
        view.setUint32(0, this.frames);
        view.setUint32(4, this.plays);
      }),
    );
  }
}

function bytes(length: number, fill: (view: DataView) => void): Uint8Array {
  const data = new Uint8Array(length);
  fill(new DataView(data.buffer));
  return data;
}

function chunksOf(png: Uint8Array): Chunk[] {
  const view = new DataView(png.buffer, png.byteOffset, png.byteLength);
  const chunks: Chunk[] = [];
  for (let at = SIGNATURE.length; at + 12 <= png.length; ) {
    const length = view.getUint32(at);
    const type = String.fromCharCode(...png.subarray(at + 4, at + 8));
    chunks.push({ type, data: png.subarray(at + 8, at + 8 + length) });
    at += 12 + length;
  }
  return chunks;
}

function chunk(type: string, data: Uint8Array): Uint8Array {
  const out = new Uint8Array(12 + data.length);
  const view = new DataView(out.buffer);
  view.setUint32(0, data.length);
  for (let i = 0; i < 4; i++) out[4 + i] = type.charCodeAt(i);
  out.set(data, 8);
  view.setUint32(8 + data.length, crc(out.subarray(4, 8 + data.length)));
  return out;
}

/** CRC-32 of ISO 3309, as annex D of the specification has it. */
function crc(data: Uint8Array): number {
  let c = 0xffffffff;
  for (const byte of data) c = TABLE[(c ^ byte) & 0xff] ^ (c >>> 8);
  return (c ^ 0xffffffff) >>> 0;
}
const TABLE = Uint32Array.from({ length: 256 }, (_, n) => {
  let c = n;
  for (let k = 0; k < 8; k++) c = c & 1 ? 0xedb88320 ^ (c >>> 1) : c >>> 1;
  return c >>> 0;
});
