import type { EncodedPacket } from 'mediabunny';

/** Of a level (Rec. ITU-T H.264, table A-1, from memory): how many macroblocks of 16 × 16 px a second, and in a frame; its two digits in the name of the codec. */
const LEVELS: readonly (readonly [aSecond: number, inFrame: number, digits: string])[] = [
  [40_500, 1_620, '1e'],
  [108_000, 3_600, '1f'],
  [245_760, 8_192, '28'],
  [522_240, 8_704, '2a'],
  [589_824, 22_080, '32'],
  [983_040, 36_864, '33'],
  [2_073_600, 36_864, '34'],
  [4_177_920, 139_264, '3c'],
  [8_355_840, 139_264, '3d'],
  [16_711_680, 139_264, '3e'],
];

export interface AvcSettings {
  readonly width: number;
  readonly height: number;
  /** Frames per second. */
  readonly rate: number;
  /** Bits per second. */
  readonly bitrate: number;
  readonly constant: boolean;
}

/** What the browser's encoder of H.264 is told, in the high profile and the lowest level that is large enough; null where it has none for it. */
export async function avcConfig({
  width,
  height,
  rate,
  bitrate,
  constant,
}: AvcSettings): Promise<VideoEncoderConfig | null> {
  if (typeof VideoEncoder === 'undefined') return null;
  const blocks = Math.ceil(width / 16) * Math.ceil(height / 16);
  for (const [aSecond, inFrame, digits] of LEVELS) {
    if (blocks > inFrame || blocks * rate > aSecond) continue;
    const config: VideoEncoderConfig = {
      codec: `avc1.6400${digits}`,
      width,
      height,
      bitrate,
      bitrateMode: constant ? 'constant' : 'variable',
      framerate: rate,
      latencyMode: 'quality',
      avc: { format: 'avc' },
    };
    const { supported } = await VideoEncoder.isConfigSupported(config);
    if (supported) return config;
  }
  return null;
}

/** Frames that wait to be encoded, at most. */
const MOST_WAITING = 4;

/**
 * Encodes frames in H.264 with true colours from the first on. Left to itself the browser's encoder begins coarsely, whatever bits it is given, and flat areas keep
 * that until the next key frame: they are off by 2 to 4 of 255 for two seconds. So the first picture is encoded twice, as a key frame each time, and the first of
 * them is thrown away.
 */
export class AvcEncoder {
  private readonly encoder: VideoEncoder;
  private begun = false;
  private thrownAway = false;
  private meta: EncodedVideoChunkMetadata | undefined;
  private failed: Error | null = null;
  private readonly done: EncodedVideoChunk[] = [];

  /** @param take gets packets in order, the first with what is known of all */
  constructor(
    config: VideoEncoderConfig,
    private readonly packetOf: (chunk: EncodedVideoChunk) => EncodedPacket,
    private readonly take: (packet: EncodedPacket, meta: EncodedVideoChunkMetadata | undefined) => Promise<void>,
  ) {
    this.encoder = new VideoEncoder({
      output: (chunk, meta) => {
        if (meta?.decoderConfig) this.meta = meta;
        if (this.thrownAway) this.done.push(chunk);
        this.thrownAway = true;
      },
      error: (error) => {
        this.failed = error;
      },
    });
    this.encoder.configure(config);
  }

  /** Encodes a frame, and closes it. */
  async add(frame: VideoFrame, keyFrame: boolean): Promise<void> {
    if (!this.begun) this.encoder.encode(frame, { keyFrame: true });
    this.encoder.encode(frame, { keyFrame: keyFrame || !this.begun });
    this.begun = true;
    frame.close();
    while (this.encoder.encodeQueueSize > MOST_WAITING && !this.failed)
      await new Promise((resolve) => this.encoder.addEventListener('dequeue', resolve, { once: true }));
    await this.hand();
  }

  /** Waits for all that is on its way. */
  async end(): Promise<void> {
    await this.encoder.flush();
    await this.hand();
    this.close();
  }

  close(): void {
    if (this.encoder.state !== 'closed') this.encoder.close();
  }

  private async hand(): Promise<void> {
    if (this.failed) throw this.failed;
    for (const chunk of this.done.splice(0)) {
      await this.take(this.packetOf(chunk), this.meta);
      this.meta = undefined;
    }
  }
}
