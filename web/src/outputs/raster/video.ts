import { CoreError, type FormId, type OutputField, type OutputOptions } from '@core';
import type { StreamTargetChunk, VideoCodec, VideoSampleInit, VideoSampleSource, VideoSource } from 'mediabunny';
import type { OutputForm } from '../output-form';
import { AvcEncoder, avcConfig } from './avc';
import { BlobSink } from './blob-sink';
import { FramePainter } from './frame-painter';
import { frameFields, type RasterSettings, rasterSettings } from './raster-settings';
import { i420aSize, i420Size, VIDEO_COLOURS, writeI420, writeI420A } from './yuv';

const fieldsOf = (transparent: boolean): readonly OutputField[] => [
  ...frameFields({ transparent, fps: '', mostFps: 120 }),
  {
    kind: 'number',
    key: 'loops',
    label: 'Plays',
    hint: 'How often it is played within the file',
    unit: 'times',
    least: 1,
    most: 100,
    whole: true,
    otherwise: '1',
  },
  {
    kind: 'choice',
    key: 'quality',
    label: 'Quality',
    answers: [
      { value: 'medium', label: 'Good', hint: 'For pages and chat' },
      { value: 'high', label: 'High' },
      { value: 'very-high', label: 'Highest', hint: 'For going on working with it' },
    ],
    otherwise: 'high',
  },
  {
    kind: 'choice',
    key: 'mode',
    label: 'Bits a second',
    answers: [
      { value: 'variable', label: 'As needed', hint: 'The same quality all the way' },
      { value: 'constant', label: 'Constant', hint: 'The same size all the way, as some broadcasters ask for' },
    ],
    otherwise: 'variable',
  },
  {
    kind: 'switch',
    key: 'keys',
    label: 'Every frame a key frame',
    hint: 'Larger, and quick to go through in an editing program',
    otherwise: 'no',
  },
];

interface VideoKind {
  readonly id: Extract<FormId, 'mp4' | 'webm'>;
  readonly label: string;
  readonly about: string;
  readonly type: string;
  /** Can it be seen through? */
  readonly transparent: boolean;
  readonly codecs: readonly { readonly value: VideoCodec; readonly label: string }[];
}

type Bunny = typeof import('mediabunny');

/** How far apart key frames are, s, where not every frame is one. */
const KEY_FRAMES_S = 2;

/** Bits for each pixel, and how many a second at least. */
const BITS = {
  medium: { each: 0.12, least: 400_000 },
  high: { each: 0.25, least: 1_000_000 },
  'very-high': { each: 0.6, least: 3_000_000 },
} as const;

const bitrateOf = (level: keyof typeof BITS, pixelsASecond: number): number =>
  Math.round(Math.max(BITS[level].least, BITS[level].each * pixelsASecond));

function videoForm({ id, label, about, type, transparent, codecs }: VideoKind): OutputForm {
  const choice: OutputField[] =
    codecs.length > 1
      ? [{ kind: 'choice', key: 'codec', label: 'Codec', answers: codecs, otherwise: codecs[0].value }]
      : [];
  /** How frames are encoded. @throws CoreError 'output-refused' where no encoder takes them */
  async function encodingOf({ width, height, rate, ground }: RasterSettings, options: OutputOptions) {
    const codec = (options.codec ?? codecs[0].value) as VideoCodec;
    const clear = ground === 'none';
    if (clear && codec !== 'vp9')
      throw new CoreError(
        'output-refused',
        `${label} can be seen through in VP9 only. Choose that codec, or something behind the picture.`,
      );
    const level = options.quality as keyof typeof BITS;
    const constant = options.mode === 'constant';
    const fps = rate.num / rate.den;
    if (codec === 'avc') {
      const avc = await avcConfig({
        width,
        height,
        rate: fps,
        bitrate: bitrateOf(level, width * height * fps),
        constant,
      });
      if (avc) return { codec, avc, clear };
    } else {
      const { canEncodeVideo, Quality } = await import('mediabunny');
      const quality = new Quality({
        quality: level,
        ...(constant && { bitrateMode: 'constant' as const, preferBitrate: true }),
      });
      if (typeof VideoEncoder !== 'undefined' && (await canEncodeVideo(codec, { width, height, quality })))
        return { codec, quality, clear };
    }
    throw new CoreError(
      'output-refused',
      `This browser has no encoder for ${label} (${codecs.find(({ value }) => value === codec)?.label}) of ${width} × ${height} px at ${+fps.toFixed(3)} frames a second. Choose another form, a smaller size or fewer frames.`,
    );
  }
  return {
    id,
    label,
    about,
    extension: id,
    type,
    fields: [...fieldsOf(transparent), ...choice],
    async check({ piece, compiled }, options) {
      await encodingOf(rasterSettings(id, piece, compiled, options), options);
    },
    async make({ piece, compiled }, options, tell, signal) {
      const settings = rasterSettings(id, piece, compiled, options);
      const { width, height, times, rate } = settings;
      const encoding = await encodingOf(settings, options);
      const { codec, clear } = encoding;
      // Loaded where somebody asks for it.
      const bunny = await import('mediabunny');
      const painter = new FramePainter(compiled, settings);
      const sink = new BlobSink();
      const target = new bunny.StreamTarget(
        new WritableStream<StreamTargetChunk>({ write: ({ data, position }) => sink.write(data, position) }),
      );
      const output = new bunny.Output({
        format: id === 'mp4' ? new bunny.Mp4OutputFormat({ fastStart: false }) : new bunny.WebMOutputFormat(),
        target,
      });
      const source = encoding.avc
        ? avcSource(encoding.avc, bunny)
        : sampleSource(
            new bunny.VideoSampleSource({
              codec,
              quality: encoding.quality,
              keyFrameInterval: KEY_FRAMES_S,
              ...(clear && { alpha: 'keep' as const }),
            }),
            bunny,
          );
      output.addVideoTrack(source.track, { frameRate: rate.num / rate.den, ...(clear && { canBeTransparent: true }) });
      output.setMetadataTags({ title: piece.name });
      const planes = new Uint8Array(clear ? i420aSize(width, height) : i420Size(width, height));
      const write = clear ? writeI420A : writeI420;
      await output.start();
      try {
        for (const [k, seconds] of times.entries()) {
          signal.throwIfAborted();
          painter.paint(seconds);
          const at = (frame: number): number => (frame * rate.den) / rate.num;
          await source.add(
            write(painter.pixels().data, width, height, planes),
            {
              format: clear ? 'I420A' : 'I420',
              codedWidth: width,
              codedHeight: height,
              timestamp: at(k),
              duration: at(k + 1) - at(k),
              colorSpace: VIDEO_COLOURS,
            },
            options.keys === 'yes' || Math.floor(at(k) / KEY_FRAMES_S) > Math.floor(at(k - 1) / KEY_FRAMES_S),
          );
          tell((k + 1) / times.length);
        }
        await source.end();
        await output.finalize();
      } catch (error) {
        source.stop();
        await output.cancel();
        throw error;
      }
      return { blob: sink.blob(type) };
    },
  };
}

/** A frame of a video: its planes, and what they are; times in s. */
type FrameAbout = VideoSampleInit &
  Required<Pick<VideoSampleInit, 'format' | 'codedWidth' | 'codedHeight' | 'timestamp' | 'duration'>>;

/** What encodes frames and hands them to the file. */
interface FrameSource {
  readonly track: VideoSource;
  add(planes: Uint8Array<ArrayBuffer>, about: FrameAbout, keyFrame: boolean): Promise<void>;
  end(): Promise<void>;
  stop(): void;
}

/** Frames in a codec whose encoding is left to the packing library. */
const sampleSource = (track: VideoSampleSource, { VideoSample }: Bunny): FrameSource => ({
  track,
  async add(planes, about, keyFrame) {
    const sample = new VideoSample(planes, about);
    await track.add(sample, keyFrame ? { keyFrame } : {});
    sample.close();
  },
  end: async () => {},
  stop: () => {},
});

/** Microseconds, in which frames are told their times. */
const MICRO = 1e6;

/** Frames in H.264. */
function avcSource(config: VideoEncoderConfig, { EncodedPacket, EncodedVideoPacketSource }: Bunny): FrameSource {
  const track = new EncodedVideoPacketSource('avc');
  const encoder = new AvcEncoder(
    config,
    (chunk) => EncodedPacket.fromEncodedChunk(chunk),
    (packet, meta) => track.add(packet, meta),
  );
  return {
    track,
    add: (planes, { timestamp, duration, ...about }, keyFrame) =>
      encoder.add(
        new VideoFrame(planes, {
          ...about,
          timestamp: Math.round(MICRO * timestamp),
          duration: Math.round(MICRO * duration),
        } as VideoFrameBufferInit),
        keyFrame,
      ),
    end: () => encoder.end(),
    stop: () => encoder.close(),
  };
}

export const mp4 = videoForm({
  id: 'mp4',
  label: 'MP4',
  about: 'Video in H.264: plays on every device and in every editing program. No transparency.',
  type: 'video/mp4',
  transparent: false,
  codecs: [{ value: 'avc', label: 'H.264' }],
});

export const webm = videoForm({
  id: 'webm',
  label: 'WebM',
  about: 'Video in VP9 or AV1 for pages: smaller than MP4 at the same quality. VP9 can be seen through.',
  type: 'video/webm',
  transparent: true,
  codecs: [
    { value: 'vp9', label: 'VP9' },
    { value: 'av1', label: 'AV1' },
  ],
});
