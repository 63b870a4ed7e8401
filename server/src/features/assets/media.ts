import { ApiError } from '../../errors';

/** What may be stored beside pieces, with the bytes that each kind begins with. */
export const MEDIA_TYPES = {
  'image/png': (head: Buffer) => head.subarray(0, 8).equals(Buffer.from('89504e470d0a1a0a', 'hex')),
  'image/jpeg': (head: Buffer) => head.subarray(0, 3).equals(Buffer.from('ffd8ff', 'hex')),
  'image/webp': (head: Buffer) => head.toString('latin1', 0, 4) === 'RIFF' && head.toString('latin1', 8, 12) === 'WEBP',
  'image/svg+xml': (head: Buffer) => /<svg[\s>]/i.test(head.toString('utf8')),
  'font/ttf': (head: Buffer) => head.readUInt32BE(0) === 0x00010000 || head.toString('latin1', 0, 4) === 'true',
  'font/otf': (head: Buffer) => head.toString('latin1', 0, 4) === 'OTTO',
  'font/woff': (head: Buffer) => head.toString('latin1', 0, 4) === 'wOFF',
} as const;
export type MediaType = keyof typeof MEDIA_TYPES;

const HEAD_BYTES = 64 * 1024;

/** The media type of an upload by what it is declared to be and its first bytes. @throws ApiError 'media-type' when it is none of ours, or the bytes are of another kind */
export function mediaTypeOf(declared: string | undefined, bytes: Buffer): MediaType {
  const type = (declared ?? '').split(';')[0].trim().toLowerCase();
  const known = Object.keys(MEDIA_TYPES).join(', ');
  if (!Object.hasOwn(MEDIA_TYPES, type))
    throw new ApiError('media-type', `Expected one of ${known}; found “${type.slice(0, 60) || 'none'}”.`);
  if (bytes.length < 12 || !MEDIA_TYPES[type as MediaType](bytes.subarray(0, HEAD_BYTES)))
    throw new ApiError(
      'asset-invalid',
      `Expected a file of type ${type}; its first bytes say that it is something else.`,
    );
  return type as MediaType;
}
