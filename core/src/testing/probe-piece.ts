import { drawFrame, planAndCompile, prepareFrame, sampleFrame } from '../frame';
import type { DrawTarget, Layer, TargetGradient } from '../paint';
import { type Piece, pieceDuration } from '../piece';

const FRAMES = 21;

/** A drawing target that draws nothing and remembers the first number that was not one. */
class FiniteTarget implements DrawTarget {
  bad: string | undefined;
  fillStyle: unknown = '';
  strokeStyle: unknown = '';
  lineWidth = 1;
  lineCap = '';
  lineJoin = '';
  miterLimit = 10;
  lineDashOffset = 0;
  globalAlpha = 1;
  private look = (name: string, numbers: readonly number[]): void => {
    if (!numbers.every(Number.isFinite)) this.bad ??= `${name}(${numbers.join(', ')})`;
  };
  private state = (): void =>
    this.look('state', [this.lineWidth, this.miterLimit, this.lineDashOffset, this.globalAlpha]);
  save = (): void => {};
  restore = (): void => {};
  translate = (...numbers: number[]): void => this.look('translate', numbers);
  rotate = (angle: number): void => this.look('rotate', [angle]);
  scale = (...numbers: number[]): void => this.look('scale', numbers);
  transform = (...numbers: number[]): void => this.look('transform', numbers);
  beginPath = (): void => {};
  moveTo = (...numbers: number[]): void => this.look('moveTo', numbers);
  bezierCurveTo = (...numbers: number[]): void => this.look('bezierCurveTo', numbers);
  closePath = (): void => {};
  fill = (): void => this.state();
  stroke = (): void => this.state();
  clip = (): void => {};
  setLineDash = (lengths: Iterable<number>): void => this.look('setLineDash', [...lengths]);
  createLinearGradient = (...numbers: number[]): TargetGradient => this.gradient(numbers);
  createRadialGradient = (...numbers: number[]): TargetGradient => this.gradient(numbers);
  beginLayer = ({ opacity }: Layer): void => this.look('layer', [opacity]);
  endLayer = (): void => {};

  private gradient(numbers: readonly number[]): TargetGradient {
    this.look('gradient', numbers);
    return { addColorStop: (at) => this.look('stop', [at]) };
  }
}

/** Plans a piece, draws 21 frames of it, and tells the first number that is not finite; undefined when all are. */
export function badNumberOf(piece: Piece): string | undefined {
  const compiled = planAndCompile(piece);
  const frame = prepareFrame(compiled);
  const target = new FiniteTarget();
  const duration = pieceDuration(piece);
  for (let i = 0; i < FRAMES; i++) drawFrame(sampleFrame(compiled, (duration * i) / (FRAMES - 1), frame), target);
  return Number.isFinite(duration) ? target.bad : `duration ${duration}`;
}
