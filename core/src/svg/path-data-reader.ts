import { CoreError } from '../errors';
import { COORDINATE_LIMIT } from '../num';
import { type Contour, ContourBuilder, type Outline } from '../outline';
import { arcToCubics } from './arc';

/** An outline with more cubics than this is refused: no morph of it would be seen as one. */
export const SEGMENT_LIMIT = 20_000;

/**
 * Reads path data by the whole grammar of SVG 2, chapter 9.3: relative and absolute commands, implicit repeats, smooth curves,
 * quadratics (raised to cubics exactly), arcs (by the implementation notes), compact arc flags. Sub-paths without any segment are
 * left out; a closed one of zero length stays, because round caps draw it.
 *
 * @returns contours in px, y down, in file order, filled nonzero.
 * @throws CoreError 'path-data' naming the character, 'number-range', 'too-many-segments'.
 */
export function readPathData(d: string): Outline {
  return { contours: new PathDataReader(d).read(), fillRule: 'nonzero' };
}

const COMMANDS = 'MmZzLlHhVvCcSsQqTtAa';
const WHITE = ' \t\n\r\f';

class PathDataReader {
  private at = 0;
  private contours: Contour[] = [];
  private builder: ContourBuilder | null = null;
  private segments = 0;
  private afterCommand = false;
  private x = 0;
  private y = 0;
  private startX = 0;
  private startY = 0;
  private handleX = 0;
  private handleY = 0;
  /** Which kind of curve came before: smooth commands reflect its last handle. */
  private before: 'cubic' | 'quadratic' | 'other' = 'other';

  constructor(private readonly d: string) {}

  read(): Contour[] {
    this.skipWhite();
    // Empty data and 'none' draw nothing.
    if (this.at >= this.d.length || this.d.trim() === 'none') return [];
    if (this.peek() !== 'M' && this.peek() !== 'm') this.fail('a move command (M or m) at the start');
    while (this.at < this.d.length) {
      const command = this.peek();
      if (!COMMANDS.includes(command)) this.fail('a path command (one of M Z L H V C S Q T A)');
      this.at++;
      this.skipWhite();
      this.afterCommand = true;
      this.run(command);
    }
    this.finish(false);
    return this.contours;
  }

  private run(command: string): void {
    const upper = command.toUpperCase();
    const relative = command !== upper;
    if (upper === 'Z') {
      this.close();
      return;
    }
    let first = true;
    do {
      const ox = relative ? this.x : 0;
      const oy = relative ? this.y : 0;
      switch (upper) {
        case 'M': {
          const [x, y] = this.numbers(2);
          if (first) this.move(ox + x, oy + y);
          else this.line(ox + x, oy + y);
          break;
        }
        case 'L': {
          const [x, y] = this.numbers(2);
          this.line(ox + x, oy + y);
          break;
        }
        case 'H':
          this.line(ox + this.number(), this.y);
          break;
        case 'V':
          this.line(this.x, oy + this.number());
          break;
        case 'C': {
          const n = this.numbers(6);
          this.cubic(ox + n[0], oy + n[1], ox + n[2], oy + n[3], ox + n[4], oy + n[5]);
          break;
        }
        case 'S': {
          const n = this.numbers(4);
          const smooth = this.before === 'cubic';
          const hx = smooth ? 2 * this.x - this.handleX : this.x;
          const hy = smooth ? 2 * this.y - this.handleY : this.y;
          this.cubic(hx, hy, ox + n[0], oy + n[1], ox + n[2], oy + n[3]);
          break;
        }
        case 'Q': {
          const n = this.numbers(4);
          this.quadratic(ox + n[0], oy + n[1], ox + n[2], oy + n[3]);
          break;
        }
        case 'T': {
          const n = this.numbers(2);
          const smooth = this.before === 'quadratic';
          const hx = smooth ? 2 * this.x - this.handleX : this.x;
          const hy = smooth ? 2 * this.y - this.handleY : this.y;
          this.quadratic(hx, hy, ox + n[0], oy + n[1]);
          break;
        }
        case 'A': {
          const [rx, ry, angle] = this.numbers(3);
          const large = this.flag();
          const sweep = this.flag();
          const [x, y] = this.numbers(2);
          this.arc(rx, ry, angle, large, sweep, ox + x, oy + y);
          break;
        }
      }
      first = false;
    } while (this.argumentFollows());
  }

  private move(x: number, y: number): void {
    this.finish(false);
    this.x = this.startX = x;
    this.y = this.startY = y;
    this.before = 'other';
  }

  private open(): ContourBuilder {
    this.builder ??= new ContourBuilder(this.x, this.y);
    if (++this.segments > SEGMENT_LIMIT) {
      throw new CoreError(
        'too-many-segments',
        `Expected at most ${SEGMENT_LIMIT.toLocaleString('en')} path segments in one outline; this path has more (reached at character ${this.at + 1}).`,
        `character ${this.at + 1}`,
      );
    }
    return this.builder;
  }

  private line(x: number, y: number): void {
    this.open().lineTo(x, y);
    this.x = x;
    this.y = y;
    this.before = 'other';
  }

  private cubic(x1: number, y1: number, x2: number, y2: number, x: number, y: number): void {
    this.open().cubicTo(x1, y1, x2, y2, x, y);
    this.handleX = x2;
    this.handleY = y2;
    this.x = x;
    this.y = y;
    this.before = 'cubic';
  }

  private quadratic(hx: number, hy: number, x: number, y: number): void {
    const k = 2 / 3;
    this.open().cubicTo(
      this.x + k * (hx - this.x),
      this.y + k * (hy - this.y),
      x + k * (hx - x),
      y + k * (hy - y),
      x,
      y,
    );
    this.handleX = hx;
    this.handleY = hy;
    this.x = x;
    this.y = y;
    this.before = 'quadratic';
  }

  private arc(rx: number, ry: number, angle: number, large: boolean, sweep: boolean, x: number, y: number): void {
    const cubics = arcToCubics(this.x, this.y, rx, ry, (angle * Math.PI) / 180, large, sweep, x, y);
    if (cubics === 'line') this.open().lineTo(x, y);
    else
      for (let i = 0; i < cubics.length; i += 6) {
        this.open().cubicTo(cubics[i], cubics[i + 1], cubics[i + 2], cubics[i + 3], cubics[i + 4], cubics[i + 5]);
      }
    this.x = x;
    this.y = y;
    this.before = 'other';
  }

  private close(): void {
    // 'M0 0Z': a closed sub-path of zero length is kept, for its caps.
    this.builder ??= new ContourBuilder(this.x, this.y);
    this.finish(true);
    this.x = this.startX;
    this.y = this.startY;
    this.before = 'other';
  }

  private finish(closed: boolean): void {
    if (this.builder && (closed || this.builder.segments > 0)) this.contours.push(this.builder.finish(closed));
    this.builder = null;
  }

  private peek(): string {
    return this.d[this.at];
  }

  private skipWhite(): void {
    while (this.at < this.d.length && WHITE.includes(this.d[this.at])) this.at++;
  }

  private skipSeparator(): void {
    this.skipWhite();
    if (this.peek() === ',') {
      this.at++;
      this.skipWhite();
    }
  }

  /** Does another argument of the same command follow? Looks ahead only. */
  private argumentFollows(): boolean {
    const mark = this.at;
    this.skipSeparator();
    const c = this.peek();
    this.at = mark;
    if (c !== undefined && (isDigit(c) || c === '.' || c === '-' || c === '+')) return true;
    this.skipWhite();
    return false;
  }

  /** Steps to the next argument: over white space and at most one comma, which may not stand behind the command itself. */
  private beginArgument(): void {
    if (this.afterCommand) this.afterCommand = false;
    else this.skipSeparator();
  }

  private numbers(count: number): number[] {
    const out: number[] = [];
    for (let i = 0; i < count; i++) out.push(this.number());
    return out;
  }

  private number(): number {
    this.beginArgument();
    const start = this.at;
    const { d } = this;
    if (d[this.at] === '+' || d[this.at] === '-') this.at++;
    const whole = this.digits();
    let part = 0;
    if (d[this.at] === '.' && (whole > 0 || isDigit(d[this.at + 1]))) {
      this.at++;
      part = this.digits();
    }
    if (whole + part === 0) {
      this.at = start;
      this.fail('a number');
    }
    if (d[this.at] === 'e' || d[this.at] === 'E') {
      const mark = this.at++;
      if (d[this.at] === '+' || d[this.at] === '-') this.at++;
      if (this.digits() === 0) this.at = mark;
    }
    const value = Number(d.slice(start, this.at));
    if (!(Math.abs(value) <= COORDINATE_LIMIT)) {
      throw new CoreError(
        'number-range',
        `Expected numbers between ±${COORDINATE_LIMIT.toLocaleString('en')} px; found ${d.slice(start, Math.min(this.at, start + 24))} at character ${start + 1}.`,
        `character ${start + 1}`,
      );
    }
    return value;
  }

  private digits(): number {
    const start = this.at;
    while (isDigit(this.d[this.at])) this.at++;
    return this.at - start;
  }

  private flag(): boolean {
    this.beginArgument();
    const c = this.peek();
    if (c !== '0' && c !== '1') this.fail('an arc flag (0 or 1)');
    this.at++;
    return c === '1';
  }

  private fail(expected: string): never {
    const found = this.at < this.d.length ? `'${this.d[this.at]}'` : 'the end of the data';
    throw new CoreError(
      'path-data',
      `Path data: expected ${expected} at character ${this.at + 1}, found ${found}.`,
      `character ${this.at + 1}`,
    );
  }
}

const isDigit = (c: string | undefined): boolean => c !== undefined && c >= '0' && c <= '9';
