/** What was drawn with one stroke, fill or text, in px of the canvas rounded to a hundredth. */
export interface Mark {
  readonly kind: 'stroke' | 'fill' | 'text' | 'rect';
  readonly style: string;
  readonly width: number;
  readonly alpha: number;
  readonly dash: readonly number[];
  /** Subpaths, each as the places that it goes through. */
  readonly paths: readonly (readonly (readonly [number, number])[])[];
  readonly closed: number;
  /** Centres and radii of circles. */
  readonly arcs: readonly (readonly [number, number, number])[];
  readonly text?: string;
}

const round = (v: number): number => +v.toFixed(2) + 0;

/** A path, as far as painting code in tests makes one. */
export class PaperPath {
  paths: [number, number][][] = [];
  arcs: [number, number, number][] = [];
  closed = 0;

  moveTo(x: number, y: number): void {
    this.paths.push([[round(x), round(y)]]);
  }
  lineTo(x: number, y: number): void {
    this.paths.at(-1)?.push([round(x), round(y)]);
  }
  bezierCurveTo(_ax: number, _ay: number, _bx: number, _by: number, x: number, y: number): void {
    this.lineTo(x, y);
  }
  closePath(): void {
    this.closed++;
  }
  arc(x: number, y: number, radius: number): void {
    this.arcs.push([round(x), round(y), radius]);
  }
  rect(x: number, y: number, width: number, height: number): void {
    this.moveTo(x, y);
    this.lineTo(x + width, y + height);
  }
}

/** A 2D context that paints nothing and remembers everything: for tests of painting code. */
export class Paper {
  strokeStyle = '';
  fillStyle = '';
  lineWidth = 1;
  globalAlpha = 1;
  font = '';
  textAlign = '';
  textBaseline = '';
  lineJoin = '';
  transform: readonly number[] = [];
  cleared = 0;
  readonly marks: Mark[] = [];
  readonly canvas: { width: number; height: number };
  private dash: readonly number[] = [];
  private path = new PaperPath();

  constructor(width = 640, height = 480) {
    this.canvas = { width, height };
  }

  get context(): CanvasRenderingContext2D {
    return this as unknown as CanvasRenderingContext2D;
  }
  get strokes(): Mark[] {
    return this.marks.filter(({ kind }) => kind === 'stroke');
  }
  get fills(): string[] {
    return this.marks.filter(({ kind }) => kind === 'fill').map(({ style }) => style);
  }
  get texts(): string[] {
    return this.marks.flatMap(({ text }) => text ?? []);
  }

  beginPath(): void {
    this.path = new PaperPath();
  }
  moveTo(x: number, y: number): void {
    this.path.moveTo(x, y);
  }
  lineTo(x: number, y: number): void {
    this.path.lineTo(x, y);
  }
  bezierCurveTo(ax: number, ay: number, bx: number, by: number, x: number, y: number): void {
    this.path.bezierCurveTo(ax, ay, bx, by, x, y);
  }
  closePath(): void {
    this.path.closePath();
  }
  arc(x: number, y: number, radius: number): void {
    this.path.arc(x, y, radius);
  }
  rect(x: number, y: number, width: number, height: number): void {
    this.path.rect(x, y, width, height);
  }
  setLineDash(dash: number[]): void {
    this.dash = dash;
  }
  setTransform(...numbers: number[]): void {
    this.transform = numbers;
  }
  clearRect(): void {
    this.cleared++;
  }
  save(): void {}
  restore(): void {}
  translate(): void {}
  rotate(): void {}
  stroke(path: PaperPath = this.path): void {
    this.mark('stroke', this.strokeStyle, path);
  }
  fill(path: PaperPath | CanvasFillRule = this.path): void {
    this.mark('fill', this.fillStyle, typeof path === 'string' ? this.path : path);
  }
  strokeRect(x: number, y: number, width: number, height: number): void {
    this.box('stroke', this.strokeStyle, x, y, width, height);
  }
  fillRect(x: number, y: number, width: number, height: number): void {
    this.box('rect', this.fillStyle, x, y, width, height);
  }
  fillText(text: string, x: number, y: number): void {
    const path = new PaperPath();
    path.moveTo(x, y);
    this.mark('text', this.fillStyle, path, text);
  }

  private box(kind: Mark['kind'], style: string, x: number, y: number, width: number, height: number): void {
    const path = new PaperPath();
    path.rect(x, y, width, height);
    this.mark(kind, style, path);
  }
  private mark(kind: Mark['kind'], style: string, { paths, arcs, closed }: PaperPath, text?: string): void {
    this.marks.push({
      kind,
      style,
      width: this.lineWidth,
      alpha: this.globalAlpha,
      dash: this.dash,
      paths: paths.map((path) => [...path]),
      closed,
      arcs: [...arcs],
      ...(text !== undefined && { text }),
    });
  }
}

/** Colours by their names, so that a test says which one it expects. */
export const PEN_COLOURS = { accent: 'accent', ink: 'ink', paper: 'paper', line: 'line', cobalt: 'cobalt' } as const;
