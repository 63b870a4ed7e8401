import type { FormId } from '@core';
import { unzipSync } from 'fflate';
import { canvasOf } from '../raster/frame-painter';

/** A file of pictures, read back. */
export interface ReadPictures {
  readonly width: number;
  readonly height: number;
  /** Pictures that are shown, one after another; a GIF may show one for several frames. */
  readonly count: number;
  /** When each is first shown, and when the last has been shown, s; null where the file does not say. */
  readonly starts: readonly number[] | null;
  readonly duration: number | null;
  /** How often it is played, 0 without end; null where the file does not say. */
  readonly plays: number | null;
  /** The codec, as it is called; null where there is none. */
  readonly codec: string | null;
  /** The picture with an index. */
  picture(index: number): Promise<ImageData>;
  close(): void;
}

/** Reads a file of pictures back, by decoders of the browser. */
export function readPictures(form: FormId, blob: Blob): Promise<ReadPictures> {
  switch (form) {
    case 'still-png':
      return readStill(blob);
    case 'png-sequence':
      return readSequence(blob);
    case 'sprite-sheet':
      return readSheet(blob);
    case 'apng':
      return readAnimated(blob, 'image/png');
    case 'gif':
      return readAnimated(blob, 'image/gif');
    default:
      return readVideo(blob);
  }
}

type Drawable = ImageBitmap | VideoFrame;
const sizeOf = (source: Drawable): [number, number] =>
  'displayWidth' in source ? [source.displayWidth, source.displayHeight] : [source.width, source.height];

function pixelsOf(source: Drawable, x = 0, y = 0, [w, h]: [number, number] = sizeOf(source)): ImageData {
  const context = canvasOf(w, h);
  context.drawImage(source, x, y, w, h, 0, 0, w, h);
  source.close();
  return context.getImageData(0, 0, w, h);
}

const nothing = (): void => {};
const PLAIN = { starts: null, duration: null, plays: null, codec: null };

async function readStill(blob: Blob): Promise<ReadPictures> {
  const { width, height } = await sizeOfBitmap(blob);
  return {
    ...PLAIN,
    width,
    height,
    count: 1,
    picture: async () => pixelsOf(await createImageBitmap(blob)),
    close: nothing,
  };
}

async function sizeOfBitmap(blob: Blob): Promise<{ width: number; height: number }> {
  const bitmap = await createImageBitmap(blob);
  const { width, height } = bitmap;
  bitmap.close();
  return { width, height };
}

const png = (bytes: Uint8Array): Blob => new Blob([new Uint8Array(bytes)], { type: 'image/png' });

async function readSequence(blob: Blob): Promise<ReadPictures> {
  const bytes = new Uint8Array(await blob.arrayBuffer());
  const names: string[] = [];
  unzipSync(bytes, {
    filter: ({ name }) => {
      names.push(name);
      return false;
    },
  });
  names.sort();
  const file = (name: string): Uint8Array => unzipSync(bytes, { filter: (entry) => entry.name === name })[name];
  const { width, height } = await sizeOfBitmap(png(file(names[0])));
  return {
    ...PLAIN,
    width,
    height,
    count: names.length,
    picture: async (index) => pixelsOf(await createImageBitmap(png(file(names[index])))),
    close: nothing,
  };
}

interface SheetFrame {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly time: number;
  readonly duration: number;
}

async function readSheet(blob: Blob): Promise<ReadPictures> {
  const files = unzipSync(new Uint8Array(await blob.arrayBuffer()));
  const about = JSON.parse(new TextDecoder().decode(files['sheet.json'])) as { loops: boolean; frames: SheetFrame[] };
  const [first] = about.frames;
  const sum = about.frames.reduce((all, { duration }) => all + duration, 0);
  return {
    ...PLAIN,
    width: first.width,
    height: first.height,
    count: about.frames.length,
    starts: about.frames.map(({ time }) => time - first.time),
    duration: sum,
    plays: about.loops ? 0 : 1,
    async picture(index) {
      const { x, y, width, height } = about.frames[index];
      return pixelsOf(await createImageBitmap(png(files['sheet.png'])), x, y, [width, height]);
    },
    close: nothing,
  };
}

async function readAnimated(blob: Blob, type: string): Promise<ReadPictures> {
  const data = await blob.arrayBuffer();
  // Decoders tell times in whole milliseconds; an APNG has them as fractions.
  const delays = type === 'image/png' ? delaysOfApng(new Uint8Array(data)) : null;
  const decoder = new ImageDecoder({ data, type, preferAnimation: true });
  await decoder.tracks.ready;
  await decoder.completed;
  const track = decoder.tracks.selectedTrack;
  if (!track) throw new Error('The file has no pictures.');
  const starts: number[] = [];
  let time = 0;
  let size: [number, number] = [0, 0];
  for (let i = 0; i < track.frameCount; i++) {
    const { image } = await decoder.decode({ frameIndex: i });
    size = sizeOf(image);
    starts.push(time);
    time += delays?.[i] ?? (image.duration ?? 0) / 1e6;
    image.close();
  }
  return {
    width: size[0],
    height: size[1],
    count: track.frameCount,
    starts,
    duration: time,
    plays: track.repetitionCount === Number.POSITIVE_INFINITY ? 0 : track.repetitionCount + 1,
    codec: null,
    picture: async (index) => pixelsOf((await decoder.decode({ frameIndex: index })).image),
    close: () => decoder.close(),
  };
}

/** How long each picture of an animated PNG is shown, s: what its frame control chunks say. */
function delaysOfApng(bytes: Uint8Array): number[] {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const delays: number[] = [];
  for (let at = 8; at + 12 <= bytes.length; at += 12 + view.getUint32(at))
    if (view.getUint32(at + 4) === FRAME_CONTROL)
      delays.push(view.getUint16(at + 28) / (view.getUint16(at + 30) || 100));
  return delays;
}
/** The type fcTL of a chunk, as a number. */
const FRAME_CONTROL = 0x6663544c;

async function readVideo(blob: Blob): Promise<ReadPictures> {
  const { ALL_FORMATS, BlobSource, Input, VideoSampleSink } = await import('mediabunny');
  const input = new Input({ formats: ALL_FORMATS, source: new BlobSource(blob) });
  const track = await input.getPrimaryVideoTrack();
  if (!track) throw new Error('The file has no video.');
  const starts: number[] = [];
  const sink = new VideoSampleSink(track);
  const { packetCount, averagePacketRate } = await track.computePacketStats();
  for (let k = 0; k < packetCount; k++) starts.push(k / averagePacketRate);
  const duration = await input.computeDuration();
  return {
    width: await track.getDisplayWidth(),
    height: await track.getDisplayHeight(),
    count: packetCount,
    starts,
    duration,
    plays: null,
    codec: await track.getCodec(),
    async picture(index) {
      const sample = await sink.getSample((index + 0.5) * (duration / packetCount));
      if (!sample) throw new Error(`Frame ${index} cannot be decoded.`);
      const frame = sample.toVideoFrame();
      sample.close();
      return pixelsOf(frame);
    },
    close: () => input.dispose(),
  };
}
