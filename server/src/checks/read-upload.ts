import { crc32, inflateSync } from 'node:zlib';
import { CoreError, readFont, readSvg } from '@core';
import type { CanvasKit, Image } from 'canvaskit-wasm';
import { pictureSize } from './picture-size';

/** What may be uploaded and is read to its end before it is taken. */
export type UploadKind = 'image/png' | 'image/jpeg' | 'image/webp' | 'image/svg+xml' | 'drawing' | 'font';

/** Pictures with more pixels are refused before they are decoded: 40 megapixels take 160 MB. */
const MOST_PIXELS = 40e6;

/**
 * Reads an upload to its end: pictures are decoded, fonts are parsed and a letter is drawn, drawings are read as shapes, and an SVG picture must at
 * least be a sound document.
 * @throws Error with what was expected and what came
 */
export async function readUpload(kind: UploadKind, bytes: Uint8Array): Promise<void> {
  switch (kind) {
    case 'drawing':
      readSvg(new TextDecoder().decode(bytes));
      return;
    case 'image/svg+xml':
      readSvgPicture(bytes);
      return;
    case 'font':
      readFontToItsEnd(bytes);
      return;
    default: {
      const buffer = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
      checkSize(pictureSize(buffer));
      checkEnd(kind, buffer);
      await decode(bytes);
    }
  }
}

/** A picture to trace may show what cannot become an outline, such as pictures and text. */
function readSvgPicture(bytes: Uint8Array): void {
  try {
    readSvg(new TextDecoder().decode(bytes));
  } catch (error) {
    if (!(error instanceof CoreError) || error.code !== 'svg-no-outline') throw error;
  }
}

const LETTERS = [...'AagnO08&'];

function readFontToItsEnd(bytes: Uint8Array): void {
  if (!tablesAreWhole(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength)))
    throw new Error('Expected a whole font; this file is cut off or damaged.');
  const font = readFont(new Uint8Array(bytes).buffer);
  // Outlines are read when they are first asked for.
  for (const letter of LETTERS) font.glyph(letter);
}

/**
 * Do all tables of the directory lie inside the file, and are those of a WOFF as long as it says when they are unpacked? (OpenType 1.9, "Table
 * Directory"; WOFF File Format 1.0, section 4.)
 */
function tablesAreWhole(bytes: Buffer): boolean {
  const packed = bytes.toString('latin1', 0, 4) === 'wOFF';
  const count = bytes.readUInt16BE(packed ? 12 : 4);
  const [start, step] = packed ? [44, 20] : [12, 16];
  if (bytes.length < start + step * count) return false;
  return Array.from({ length: count }, (_, i) => start + step * i).every((at) => {
    const offset = bytes.readUInt32BE(at + (packed ? 4 : 8));
    const length = bytes.readUInt32BE(at + (packed ? 8 : 12));
    if (offset + length > bytes.length) return false;
    if (!packed) return true;
    const whole = bytes.readUInt32BE(at + 12);
    return length === whole || inflateSync(bytes.subarray(offset, offset + length)).length === whole;
  });
}

/** The decoder shows a picture that was cut off as far as it goes; it is taken only when it is whole. */
function checkEnd(kind: UploadKind, bytes: Buffer): void {
  const whole =
    kind === 'image/png' ? pngIsWhole(bytes) : kind === 'image/jpeg' ? jpegIsWhole(bytes) : webpIsWhole(bytes);
  if (!whole) throw new Error('Expected a whole picture; this file is cut off or damaged.');
}

/** Chunks with their checksums up to IEND (PNG Specification, third edition, section 5). */
function pngIsWhole(bytes: Buffer): boolean {
  for (let at = 8; at + 12 <= bytes.length; ) {
    const length = bytes.readUInt32BE(at);
    const end = at + 8 + length;
    if (end + 4 > bytes.length || crc32(bytes.subarray(at + 4, end)) !== bytes.readUInt32BE(end)) return false;
    if (bytes.toString('latin1', at + 4, at + 8) === 'IEND') return true;
    at = end + 4;
  }
  return false;
}

/** An end-of-image marker (ITU-T T.81, table B.1), after which there may be something else. */
const jpegIsWhole = (bytes: Buffer): boolean => bytes.lastIndexOf(Buffer.from([0xff, 0xd9])) > bytes.length / 2;

/** The length that the RIFF header tells (WebP Container Specification). */
const webpIsWhole = (bytes: Buffer): boolean => bytes.length >= 12 && bytes.readUInt32LE(4) + 8 <= bytes.length;

/** A small file may unpack to a picture of any size: its header says so. */
function checkSize(size: readonly [width: number, height: number] | undefined): void {
  if (size && size[0] * size[1] > MOST_PIXELS)
    throw new Error(`Expected a picture of at most 40 megapixels; this one has ${size[0]} × ${size[1]} px.`);
}

let started: Promise<CanvasKit> | undefined;

/** The decoder, loaded when it is first needed; in Node it finds its own WebAssembly file. */
function decoder(): Promise<CanvasKit> {
  started ??= import('canvaskit-wasm').then(({ default: init }) => init());
  return started;
}

async function decode(bytes: Uint8Array): Promise<void> {
  const kit = await decoder();
  const image: Image | null = kit.MakeImageFromEncoded(bytes);
  if (!image) throw new Error('Expected a picture; its data cannot be decoded.');
  try {
    const [width, height] = [image.width(), image.height()];
    checkSize([width, height]);
    const pixels = image.readPixels(0, 0, {
      width,
      height,
      colorType: kit.ColorType.RGBA_8888,
      alphaType: kit.AlphaType.Unpremul,
      colorSpace: kit.ColorSpace.SRGB,
    });
    if (!pixels) throw new Error('Expected a picture; its data cannot be decoded to the end.');
  } finally {
    image.delete();
  }
}
