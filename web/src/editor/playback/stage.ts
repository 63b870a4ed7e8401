import { type CompiledPiece, drawFrame, type Frame, prepareFrame, sampleFrame } from '@core';

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

  get piece(): CompiledPiece | null {
    return this.compiled;
  }

  show(compiled: CompiledPiece | null): void {
    this.compiled = compiled;
    this.frame = compiled && prepareFrame(compiled);
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
    drawFrame(sampleFrame(this.compiled, seconds, this.frame), context);
    context.restore();
  }
}
