import { type CompiledPiece, drawFrame, type Frame, type FramePart, prepareFrame, sampleFrame } from '@core';

/** Where a piece's canvas lies on a picture: CSS px of its top left corner, and CSS px for each px of the piece. */
export interface View {
  readonly x: number;
  readonly y: number;
  readonly zoom: number;
}

/**
 * Paints a compiled piece at any time onto a 2D context; used by the canvas, by thumbnails and by raster outputs. Holds the memory for one
 * frame and allocates nothing while painting.
 */
export class Stage {
  private compiled: CompiledPiece | null = null;
  private frame: Frame | null = null;
  private readonly overrides = new Map<string, readonly FramePart[]>();
  /** Thins figures out on the canvas while drawing; outputs do not use it. */
  fade: ((figureId: string) => number) | undefined;

  get piece(): CompiledPiece | null {
    return this.compiled;
  }

  show(compiled: CompiledPiece | null): void {
    this.compiled = compiled;
    this.frame = compiled && prepareFrame(compiled);
  }

  /** Shows a figure as a gesture has it, until the overrides are cleared. */
  override(figureId: string, parts: readonly FramePart[]): void {
    this.overrides.set(figureId, parts);
  }

  clearOverrides(): void {
    this.overrides.clear();
  }

  overridden(figureId: string): readonly FramePart[] | undefined {
    return this.overrides.get(figureId);
  }

  /** Clears the context and paints the picture at `seconds`; `density` is device px for each CSS px. */
  paint(
    context: CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D,
    seconds: number,
    view: View,
    density: number,
  ): void {
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.clearRect(0, 0, context.canvas.width, context.canvas.height);
    if (!this.compiled || !this.frame) return;
    const k = view.zoom * density;
    context.setTransform(k, 0, 0, k, view.x * density, view.y * density);
    const { width, height, background } = this.compiled;
    if (background) {
      context.fillStyle = background;
      context.fillRect(0, 0, width, height);
    }
    context.save();
    context.beginPath();
    context.rect(0, 0, width, height);
    context.clip();
    const frame = sampleFrame(this.compiled, seconds, this.frame);
    if (this.overrides.size > 0)
      for (const figure of frame.figures) figure.parts = this.overrides.get(figure.id) ?? figure.parts;
    drawFrame(frame, context, this.fade);
    context.restore();
  }
}
