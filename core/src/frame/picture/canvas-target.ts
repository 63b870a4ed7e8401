import type { DrawTarget, Layer } from '../../paint';

/** The part of a 2D canvas context that pictures are painted with, on a page or in a worker. */
export interface Context2D extends Omit<DrawTarget, 'beginLayer' | 'endLayer'> {
  readonly canvas: { width: number; height: number };
  globalCompositeOperation: string;
  filter: string;
  setTransform(a: number, b: number, c: number, d: number, e: number, f: number): void;
  getTransform(): { a: number; b: number; c: number; d: number; e: number; f: number };
  clearRect(x: number, y: number, width: number, height: number): void;
  fillRect(x: number, y: number, width: number, height: number): void;
  rect(x: number, y: number, width: number, height: number): void;
  drawImage(image: unknown, x: number, y: number): void;
}

/** A canvas that nobody sees; undefined where its context cannot be had. */
export type MakeCanvas = (width: number, height: number) => Context2D | undefined;

/**
 * Draws on a canvas context. Layers are canvases of their own, of the same size and under the same map, made when first needed and used again.
 */
export class CanvasTarget implements DrawTarget {
  private context: Context2D;
  /** What is under the layers that are open, the lowest first. */
  private readonly under: Context2D[] = [];
  private readonly open: Layer[] = [];
  private readonly spare: Context2D[] = [];

  constructor(
    base: Context2D,
    private readonly makeCanvas: MakeCanvas,
  ) {
    this.context = base;
  }

  /** The context that is drawn on now: the base, or the topmost layer's. */
  get surface(): Context2D {
    return this.context;
  }

  /** Where px of the picture lie in those of the canvas: scaled, then moved. To be set before anything is drawn. */
  setView(scale: number, x: number, y: number): void {
    this.context.setTransform(scale, 0, 0, scale, x, y);
  }

  beginLayer(layer: Layer): void {
    const { width, height } = this.context.canvas;
    const depth = this.under.length;
    let next = this.spare[depth];
    if (!next) {
      const made = this.makeCanvas(width, height);
      // Without a canvas to put it together on, it is painted straight: thinner where things overlap, but there.
      next = made ?? this.context;
      if (made) this.spare[depth] = made;
    }
    this.under.push(this.context);
    this.open.push(layer);
    if (next === this.context) return;
    if (next.canvas.width !== width || next.canvas.height !== height) {
      next.canvas.width = width;
      next.canvas.height = height;
    } else {
      next.setTransform(1, 0, 0, 1, 0, 0);
      next.clearRect(0, 0, width, height);
    }
    const { a, b, c, d, e, f } = this.context.getTransform();
    next.setTransform(a, b, c, d, e, f);
    this.context = next;
  }

  endLayer(): void {
    const under = this.under.pop();
    const layer = this.open.pop();
    if (!under || !layer) throw new Error('Invariant broken: a layer is ended that was not begun.');
    const made = this.context;
    this.context = under;
    if (made === under) return;
    const scale = layer.softness ? scaleOf(under) : 1;
    under.save();
    under.setTransform(1, 0, 0, 1, 0, 0);
    under.globalAlpha = layer.opacity;
    if (layer.softness) under.filter = `blur(${layer.softness * scale}px)`;
    under.globalCompositeOperation = layer.mode === 'inside' ? 'destination-in' : 'source-over';
    under.drawImage(made.canvas, 0, 0);
    under.restore();
  }

  /** Draws something in one colour, as opaque as it is itself, within a picture of a width and height. */
  tinted(colour: string, opacity: number, width: number, height: number, draw: () => void): void {
    const under = this.context;
    this.beginLayer({ opacity, mode: 'over' });
    draw();
    // Without a canvas of its own it stays in its own colours: else all that lies under it would be tinted too.
    if (this.context !== under) {
      this.context.save();
      this.context.globalCompositeOperation = 'source-in';
      this.context.fillStyle = colour;
      this.context.fillRect(0, 0, width, height);
      this.context.restore();
    }
    this.endLayer();
  }

  set fillStyle(style: unknown) {
    this.context.fillStyle = style;
  }
  set strokeStyle(style: unknown) {
    this.context.strokeStyle = style;
  }
  set lineWidth(width: number) {
    this.context.lineWidth = width;
  }
  set lineCap(cap: string) {
    this.context.lineCap = cap;
  }
  set lineJoin(join: string) {
    this.context.lineJoin = join;
  }
  set miterLimit(limit: number) {
    this.context.miterLimit = limit;
  }
  set lineDashOffset(offset: number) {
    this.context.lineDashOffset = offset;
  }
  set globalAlpha(alpha: number) {
    this.context.globalAlpha = alpha;
  }
  save(): void {
    this.context.save();
  }
  restore(): void {
    this.context.restore();
  }
  translate(x: number, y: number): void {
    this.context.translate(x, y);
  }
  rotate(angle: number): void {
    this.context.rotate(angle);
  }
  transform(a: number, b: number, c: number, d: number, e: number, f: number): void {
    this.context.transform(a, b, c, d, e, f);
  }
  scale(x: number, y: number): void {
    this.context.scale(x, y);
  }
  beginPath(): void {
    this.context.beginPath();
  }
  moveTo(x: number, y: number): void {
    this.context.moveTo(x, y);
  }
  bezierCurveTo(x1: number, y1: number, x2: number, y2: number, x: number, y: number): void {
    this.context.bezierCurveTo(x1, y1, x2, y2, x, y);
  }
  closePath(): void {
    this.context.closePath();
  }
  fill(rule?: 'nonzero' | 'evenodd'): void {
    this.context.fill(rule);
  }
  stroke(): void {
    this.context.stroke();
  }
  clip(rule?: 'nonzero' | 'evenodd'): void {
    this.context.clip(rule);
  }
  setLineDash(lengths: Iterable<number>): void {
    this.context.setLineDash(lengths);
  }
  createLinearGradient(x0: number, y0: number, x1: number, y1: number) {
    return this.context.createLinearGradient(x0, y0, x1, y1);
  }
  createRadialGradient(x0: number, y0: number, r0: number, x1: number, y1: number, r1: number) {
    return this.context.createRadialGradient(x0, y0, r0, x1, y1, r1);
  }
}

/** Px of the canvas for each px of the picture. */
function scaleOf(context: Context2D): number {
  const { a, b } = context.getTransform();
  return Math.hypot(a, b);
}
