type Size = readonly [width: number, height: number];

/**
 * The size that a picture's header tells, px, without decoding anything: PNG (Specification, third edition, 11.2.1), JPEG (ITU-T T.81, B.2.2) and WebP (Container
 * Specification, VP8X, VP8L; RFC 6386, 9.1).
 *
 * @returns undefined where there is no such header
 */
export function pictureSize(bytes: Buffer): Size | undefined {
  if (bytes.length >= 24 && bytes.toString('latin1', 12, 16) === 'IHDR')
    return [bytes.readUInt32BE(16), bytes.readUInt32BE(20)];
  if (bytes.length >= 4 && bytes.readUInt16BE(0) === 0xffd8) return jpegSize(bytes);
  if (bytes.length >= 30 && bytes.toString('latin1', 8, 12) === 'WEBP') return webpSize(bytes);
  return undefined;
}

/** The size in the first start-of-frame segment: of those from C0 to CF, C4, C8 and CC are something else. */
function jpegSize(bytes: Buffer): Size | undefined {
  for (let at = 2; at + 9 < bytes.length; ) {
    if (bytes[at] !== 0xff) return undefined;
    const marker = bytes[at + 1];
    // Fill bytes, and markers without a length.
    if (marker === 0xff || marker === 0x01 || (marker >= 0xd0 && marker <= 0xd8)) {
      at += marker === 0xff ? 1 : 2;
      continue;
    }
    if (marker >= 0xc0 && marker <= 0xcf && marker !== 0xc4 && marker !== 0xc8 && marker !== 0xcc)
      return [bytes.readUInt16BE(at + 7), bytes.readUInt16BE(at + 5)];
    at += 2 + bytes.readUInt16BE(at + 2);
  }
  return undefined;
}

function webpSize(bytes: Buffer): Size | undefined {
  switch (bytes.toString('latin1', 12, 16)) {
    case 'VP8X':
      return [1 + bytes.readUIntLE(24, 3), 1 + bytes.readUIntLE(27, 3)];
    case 'VP8L': {
      const bits = bytes.readUInt32LE(21);
      return [1 + (bits & 0x3fff), 1 + ((bits >>> 14) & 0x3fff)];
    }
    case 'VP8 ':
      return [bytes.readUInt16LE(26) & 0x3fff, bytes.readUInt16LE(28) & 0x3fff];
    default:
      return undefined;
  }
}
