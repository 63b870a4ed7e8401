import type { DrawTarget, Layer, TargetGradient } from '../paint';

/** A drawing target that keeps what is drawn on it, in words, with the state that matters; path commands only where paths begin and close. */
export class RecordingTarget implements DrawTarget {
  readonly calls: string[] = [];
  fillStyle: unknown = '';
  strokeStyle: unknown = '';
  lineWidth = 1;
  lineCap = '';
  lineJoin = '';
  miterLimit = 10;
  lineDashOffset = 0;
  globalAlpha = 1;

  private say(name: string, ...what: readonly unknown[]): void {
    const words = what.map((v) => (typeof v === 'number' ? String(+v.toFixed(2)) : String(v)));
    this.calls.push([name, ...words].join(' ').trim());
  }
  private style = (style: unknown): string => (typeof style === 'string' ? style : 'gradient');

  save = (): void => this.say('save');
  restore = (): void => this.say('restore');
  translate = (x: number, y: number): void => this.say('translate', x, y);
  rotate = (angle: number): void => this.say('rotate', angle);
  scale = (x: number, y: number): void => this.say('scale', x, y);
  transform = (...map: number[]): void => this.say('transform', ...map);
  beginPath = (): void => this.say('begin');
  moveTo = (x: number, y: number): void => this.say('move', x, y);
  bezierCurveTo = (): void => {};
  closePath = (): void => this.say('close');
  fill = (rule = 'nonzero'): void => this.say('fill', rule, this.style(this.fillStyle), 'at', this.globalAlpha);
  stroke = (): void =>
    this.say('stroke', this.style(this.strokeStyle), this.lineWidth, this.lineCap, this.lineJoin, this.miterLimit);
  clip = (rule = 'nonzero'): void => this.say('clip', rule);
  setLineDash = (lengths: Iterable<number>): void => this.say('dash', [...lengths].join(','), this.lineDashOffset);
  createLinearGradient = (...numbers: number[]): TargetGradient => this.gradient('linear', numbers);
  createRadialGradient = (...numbers: number[]): TargetGradient => this.gradient('radial', numbers);
  beginLayer = ({ opacity, mode, softness }: Layer): void =>
    this.say('layer', mode, opacity, ...(softness ? ['soft', softness] : []));
  endLayer = (): void => this.say('laid');

  private gradient(kind: string, numbers: readonly number[]): TargetGradient {
    this.say(kind, ...numbers);
    return { addColorStop: (at, colour) => this.say('stop', at, colour) };
  }
}
