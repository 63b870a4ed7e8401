import {
  CanvasTarget,
  type CompiledPiece,
  type Context2D,
  cssText,
  drawFrame,
  type Frame,
  prepareFrame,
  type StillBox,
  sampleFrame,
} from '@core';
import type { RasterSettings } from './raster-settings';

export type PaintSettings = Omit<RasterSettings, 'times'>;

/** A canvas off the page. */
export function canvasOf(width: number, height: number): OffscreenCanvasRenderingContext2D {
  const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true });
  if (!context)
    throw new Error(`This browser cannot paint a picture of ${width} × ${height} px. Choose a smaller one.`);
  return context;
}

/**
 * Paints the frames of a piece as pictures, one after another on the same canvas. The piece's canvas, or a box of it, is fitted into the picture and centred;
 * the background reaches to the picture's edges.
 */
export class FramePainter {
  readonly context: OffscreenCanvasRenderingContext2D;
  private readonly frame: Frame;
  private readonly target: CanvasTarget;
  private readonly sums: Float64Array | null;

  constructor(
    private readonly compiled: CompiledPiece,
    private readonly settings: PaintSettings,
    private readonly box: StillBox = { x: 0, y: 0, width: compiled.width, height: compiled.height },
  ) {
    const { width, height, shutter } = settings;
    this.context = canvasOf(width, height);
    this.frame = prepareFrame(compiled);
    this.target = new CanvasTarget(
      this.context as unknown as Context2D,
      (w, h) => canvasOf(w, h) as unknown as Context2D,
    );
    this.sums = shutter.samples > 1 ? new Float64Array(4 * width * height) : null;
  }

  get canvas(): OffscreenCanvas {
    return this.context.canvas;
  }

  /** Paints the picture at a time in s of the run. */
  paint(seconds: number): void {
    const { shutter, rate } = this.settings;
    if (!this.sums) {
      this.paintMoment(seconds);
      return;
    }
    // The shutter opens and closes evenly about the frame's own moment, so that a frame lies where it lies without blur.
    const open = (shutter.share * rate.den) / rate.num;
    this.sums.fill(0);
    for (let i = 0; i < shutter.samples; i++) {
      this.paintMoment(seconds + open * ((i + 0.5) / shutter.samples - 0.5));
      this.add(this.sums);
    }
    this.putMean(this.sums, shutter.samples);
  }

  /** The picture as it was painted last. */
  pixels(): ImageData {
    return this.context.getImageData(0, 0, this.canvas.width, this.canvas.height);
  }

  private paintMoment(seconds: number): void {
    const { context, compiled, box, frame } = this;
    const { width, height } = this.canvas;
    sampleFrame(compiled, seconds, frame);
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.clearRect(0, 0, width, height);
    const ground = this.groundColour();
    if (ground) {
      context.fillStyle = ground;
      context.fillRect(0, 0, width, height);
    }
    const scale = Math.min(width / box.width, height / box.height);
    const [left, top] = [(width - scale * box.width) / 2, (height - scale * box.height) / 2];
    context.save();
    context.beginPath();
    context.rect(left, top, scale * box.width, scale * box.height);
    context.clip();
    this.target.setView(scale, left - scale * box.x, top - scale * box.y);
    drawFrame(frame, this.target);
    context.restore();
  }

  private groundColour(): string | null {
    const { ground } = this.settings;
    if (ground === 'none') return null;
    if (ground !== 'piece') return ground.colour;
    const c = this.frame.ground;
    return c ? cssText(c[0], c[1], c[2], c[3]) : this.compiled.background;
  }

  /** Adds the picture, colours by their alpha. */
  private add(sums: Float64Array): void {
    const { data } = this.pixels();
    for (let i = 0; i < data.length; i += 4) {
      const alpha = data[i + 3];
      sums[i] += data[i] * alpha;
      sums[i + 1] += data[i + 1] * alpha;
      sums[i + 2] += data[i + 2] * alpha;
      sums[i + 3] += alpha;
    }
  }

  private putMean(sums: Float64Array, samples: number): void {
    const image = this.context.createImageData(this.canvas.width, this.canvas.height);
    const { data } = image;
    for (let i = 0; i < data.length; i += 4) {
      const alpha = sums[i + 3];
      if (!(alpha > 0)) continue;
      data[i] = sums[i] / alpha;
      data[i + 1] = sums[i + 1] / alpha;
      data[i + 2] = sums[i + 2] / alpha;
      data[i + 3] = alpha / samples;
    }
    this.context.putImageData(image, 0, 0);
  }
}
