import { cssText } from '../../paint';
import type { CompiledPiece, MotionSample } from '../lanes';
import { CanvasTarget, type Context2D, type MakeCanvas } from './canvas-target';
import { drawFrame } from './draw';
import { type Frame, type FramePart, prepareFrame, sampleFrame } from './sample';

/** Where the canvas lies on a picture: its top left corner in CSS px, and the scale in CSS px per px of the piece. */
export interface View {
  readonly x: number;
  readonly y: number;
  readonly zoom: number;
}

/** Another moment, shown faintly. */
export interface Ghost {
  readonly seconds: number;
  /** 0 to 1. */
  readonly opacity: number;
  /** Paints everything in this colour; left out: in its own colours. */
  readonly tint?: string;
}

/** What replaces a figure's own parts and motion. */
export interface Override {
  readonly parts: readonly FramePart[];
  readonly motion: MotionSample | null;
}

/**
 * Paints a compiled piece at any time onto a 2D context, on the page or in a worker. Canvas, thumbnails and raster outputs all use it.
 * Holds the memory for one frame and allocates nothing of its own while painting.
 */
export class Stage {
  private compiled: CompiledPiece | null = null;
  private frame: Frame | null = null;
  private target: { readonly context: Context2D; readonly target: CanvasTarget } | null = null;
  private readonly overrides = new Map<string, Override>();
  /** Makes figures see-through in the editor; outputs do not use it. */
  fade: ((figureId: string) => number) | undefined;

  /** `makeCanvas` creates the canvases for compositing layers. */
  constructor(private readonly makeCanvas: MakeCanvas) {}

  get piece(): CompiledPiece | null {
    return this.compiled;
  }

  show(compiled: CompiledPiece | null): void {
    this.compiled = compiled;
    this.frame = compiled && prepareFrame(compiled);
  }

  /** Shows a figure as a gesture changes it, with its motion, until the overrides are cleared. */
  override(figureId: string, parts: readonly FramePart[], motion: MotionSample | null): void {
    this.overrides.set(figureId, { parts, motion });
  }

  clearOverrides(): void {
    this.overrides.clear();
  }

  overridden(figureId: string): Override | undefined {
    return this.overrides.get(figureId);
  }

  /**
   * Clears the context and paints the picture at `seconds`; `density` is device px per CSS px. `ghosts` are other moments painted beneath it, faintest
   * first.
   */
  paint(context: Context2D, seconds: number, view: View, density: number, ghosts: readonly Ghost[] = []): void {
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.clearRect(0, 0, context.canvas.width, context.canvas.height);
    if (!this.compiled || !this.frame) return;
    const target = this.targetOn(context);
    target.setView(view.zoom * density, view.x * density, view.y * density);
    const { width, height, background } = this.compiled;
    const ground = this.compiled.ground ? sampleFrame(this.compiled, seconds, this.frame).ground : null;
    if (ground || background) {
      context.fillStyle = ground ? cssText(ground[0], ground[1], ground[2], ground[3]) : background;
      context.fillRect(0, 0, width, height);
    }
    context.save();
    context.beginPath();
    context.rect(0, 0, width, height);
    context.clip();
    for (const { seconds: other, opacity, tint } of ghosts) {
      const frame = sampleFrame(this.compiled, other, this.frame);
      if (tint) target.tinted(tint, opacity, width, height, () => drawFrame(frame, target));
      else drawFrame(frame, target, () => opacity);
    }
    const { figures } = sampleFrame(this.compiled, seconds, this.frame);
    if (this.overrides.size > 0) drawFrame(this.overriddenFrame(figures), target, this.fade);
    else drawFrame(this.frame, target, this.fade);
    context.restore();
  }

  private overriddenFrame(figures: Frame['figures']): Pick<Frame, 'figures'> {
    return {
      figures: figures.map((figure) => {
        const override = this.overrides.get(figure.id);
        return override ? { ...figure, ...override } : figure;
      }),
    };
  }

  private targetOn(context: Context2D): CanvasTarget {
    if (this.target?.context !== context) this.target = { context, target: new CanvasTarget(context, this.makeCanvas) };
    return this.target.target;
  }
}
