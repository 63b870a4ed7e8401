import { describe, expect, test } from '@jest/globals';
import { PICTURES } from '../testing/pictures';
import { pictureSize } from './picture-size';
import { readUpload } from './read-upload';

const bytesOf = (kind: keyof typeof PICTURES): Buffer => Buffer.from(PICTURES[kind], 'base64');

describe('the size that a picture’s header tells', () => {
  test.each(Object.keys(PICTURES) as (keyof typeof PICTURES)[])('of %s it is that of the picture', (kind) => {
    expect(pictureSize(bytesOf(kind))).toEqual([12, 8]);
  });

  test('of WebP without loss, and plain, it is where their formats have it', () => {
    const webp = (chunk: string, fill: (bytes: Buffer) => void): Buffer => {
      const bytes = Buffer.alloc(40);
      bytes.write('RIFF', 0, 'latin1');
      bytes.write(`WEBP${chunk}`, 8, 'latin1');
      fill(bytes);
      return bytes;
    };
    // VP8L: 14 bits each, less one; VP8: 14 bits each after the start code.
    expect(pictureSize(webp('VP8L', (bytes) => bytes.writeUInt32LE(36 | (20 << 14), 21)))).toEqual([37, 21]);
    const plain = webp('VP8 ', (bytes) => {
      bytes.writeUInt16LE(37, 26);
      bytes.writeUInt16LE(21, 28);
    });
    expect(pictureSize(plain)).toEqual([37, 21]);
  });

  test('anything else has none', () => {
    for (const bytes of ['GIF89a and nothing else that is known here', '', 'RIFF    WEBPABCD                    '])
      expect(pictureSize(Buffer.from(bytes))).toBeUndefined();
    expect(pictureSize(Buffer.from([0xff, 0xd8, 0xff, 0xc0]))).toBeUndefined();
    expect(pictureSize(Buffer.from([0xff, 0xd8, 0x00, 0xc0, 0, 0, 0, 0, 0, 0, 0, 0]))).toBeUndefined();
  });

  test('a small file that would unpack to a huge picture is refused before it is decoded', async () => {
    const png = bytesOf('image/png');
    png.writeUInt32BE(60_000, 16);
    png.writeUInt32BE(60_000, 20);
    // Its checksum is wrong too: the size is looked at first.
    await expect(readUpload('image/png', png)).rejects.toThrow(
      'Expected a picture of at most 40 megapixels; this one has 60000 × 60000 px.',
    );
  });
});
