import { CoreError, type FormId, type OutputField } from '@core';
import type { StreamTargetChunk, VideoCodec } from 'mediabunny';
import type { OutputForm } from '../output-form';
import { BlobSink } from './blob-sink';
import { FramePainter } from './frame-painter';
import { frameFields, rasterSettings } from './raster-settings';
import { i420Size, VIDEO_COLOURS, writeI420 } from './yuv';

const FIELDS: readonly OutputField[] = [
  ...frameFields({ transparent: false, fps: '', mostFps: 120 }),
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
      { value: 'medium', label: 'good', hint: 'For pages and chat' },
      { value: 'high', label: 'high' },
      { value: 'very-high', label: 'highest', hint: 'For going on working with it' },
    ],
    otherwise: 'high',
  },
  {
    kind: 'choice',
    key: 'mode',
    label: 'Bits a second',
    answers: [
      { value: 'variable', label: 'as needed', hint: 'The same quality all the way' },
      { value: 'constant', label: 'constant', hint: 'The same size all the way, as some broadcasters ask for' },
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
  readonly codecs: readonly { readonly value: VideoCodec; readonly label: string }[];
}

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

function videoForm({ id, label, about, type, codecs }: VideoKind): OutputForm {
  const choice: OutputField[] =
    codecs.length > 1
      ? [{ kind: 'choice', key: 'codec', label: 'Codec', answers: codecs, otherwise: codecs[0].value }]
      : [];
  return {
    id,
    label,
    about,
    extension: id,
    type,
    fields: [...FIELDS, ...choice],
    async make({ piece, compiled }, options, tell, signal) {
      // Loaded where somebody asks for it.
      const {
        canEncodeVideo,
        Mp4OutputFormat,
        Output,
        Quality,
        StreamTarget,
        VideoSample,
        VideoSampleSource,
        WebMOutputFormat,
      } = await import('mediabunny');
      const settings = rasterSettings(piece, compiled, options, { video: true, loops: Number(options.loops) });
      const { width, height, times, rate } = settings;
      const codec = (options.codec ?? codecs[0].value) as VideoCodec;
      const level = options.quality as keyof typeof BITS;
      const constant = options.mode === 'constant' && { bitrateMode: 'constant' as const };
      // H.264 is asked for bits: by a level alone its encoder leaves small pictures too few of them.
      const quality = new Quality(
        codec === 'avc'
          ? { bitrate: bitrateOf(level, (width * height * rate.num) / rate.den), ...constant }
          : { quality: level, ...(constant && { ...constant, preferBitrate: true }) },
      );
      if (typeof VideoEncoder === 'undefined' || !(await canEncodeVideo(codec, { width, height, quality })))
        throw new CoreError(
          'output-refused',
          `This browser has no encoder for ${label} (${codec}) of ${width} × ${height} px. Choose another form or a smaller size.`,
        );
      const painter = new FramePainter(compiled, settings);
      const sink = new BlobSink();
      const target = new StreamTarget(
        new WritableStream<StreamTargetChunk>({ write: ({ data, position }) => sink.write(data, position) }),
      );
      const output = new Output({
        format: id === 'mp4' ? new Mp4OutputFormat({ fastStart: false }) : new WebMOutputFormat(),
        target,
      });
      const source = new VideoSampleSource({ codec, quality, keyFrameInterval: KEY_FRAMES_S });
      output.addVideoTrack(source, { frameRate: rate.num / rate.den });
      output.setMetadataTags({ title: piece.name });
      const planes = new Uint8Array(i420Size(width, height));
      await output.start();
      try {
        for (const [k, seconds] of times.entries()) {
          signal.throwIfAborted();
          painter.paint(seconds);
          const at = (frame: number): number => (frame * rate.den) / rate.num;
          const sample = new VideoSample(writeI420(painter.pixels().data, width, height, planes), {
            format: 'I420',
            codedWidth: width,
            codedHeight: height,
            timestamp: at(k),
            duration: at(k + 1) - at(k),
            colorSpace: VIDEO_COLOURS,
          });
          await source.add(sample, options.keys === 'yes' ? { keyFrame: true } : {});
          sample.close();
          tell((k + 1) / times.length);
        }
        await output.finalize();
      } catch (error) {
        await output.cancel();
        throw error;
      }
      return { blob: sink.blob(type) };
    },
  };
}

export const mp4 = videoForm({
  id: 'mp4',
  label: 'MP4',
  about: 'Video in H.264: plays on every device and in every editing program. No transparency.',
  type: 'video/mp4',
  codecs: [{ value: 'avc', label: 'H.264' }],
});

export const webm = videoForm({
  id: 'webm',
  label: 'WebM',
  about: 'Video in VP9 or AV1 for pages: smaller than MP4 at the same quality. No transparency.',
  type: 'video/webm',
  codecs: [
    { value: 'vp9', label: 'VP9' },
    { value: 'av1', label: 'AV1' },
  ],
});
