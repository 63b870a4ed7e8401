/** A gradient of the target, made ready for one painting. */
export interface TargetGradient {
  addColorStop(at: number, colour: string): void;
}

/** How a layer is laid over what is under it. */
export interface Layer {
  /** 0 to 1. */
  readonly opacity: number;
  /** Standard deviation of a blur of all of it, px of the picture; left out: none. */
  readonly softness?: number;
  /** over: as paint; inside: leaves of what is under it only what the layer covers. */
  readonly mode: 'over' | 'inside';
}

/** What a picture is drawn on: the part of a 2D canvas context that is needed, and layers. */
export interface DrawTarget {
  fillStyle: unknown;
  strokeStyle: unknown;
  lineWidth: number;
  lineCap: string;
  lineJoin: string;
  miterLimit: number;
  lineDashOffset: number;
  globalAlpha: number;
  save(): void;
  restore(): void;
  translate(x: number, y: number): void;
  rotate(angle: number): void;
  scale(x: number, y: number): void;
  /** Puts a map before the one there is, as a canvas context does. */
  transform(a: number, b: number, c: number, d: number, e: number, f: number): void;
  beginPath(): void;
  moveTo(x: number, y: number): void;
  bezierCurveTo(x1: number, y1: number, x2: number, y2: number, x: number, y: number): void;
  closePath(): void;
  fill(rule?: 'nonzero' | 'evenodd'): void;
  stroke(): void;
  clip(rule?: 'nonzero' | 'evenodd'): void;
  setLineDash(lengths: Iterable<number>): void;
  createLinearGradient(x0: number, y0: number, x1: number, y1: number): TargetGradient;
  createRadialGradient(x0: number, y0: number, r0: number, x1: number, y1: number, r1: number): TargetGradient;
  /** What is drawn from here on is put together first, and laid over what is there as one picture by `endLayer`. Layers may nest. */
  beginLayer(layer: Layer): void;
  endLayer(): void;
}
