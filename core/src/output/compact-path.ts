/** A run of cubics in a flat array of numbers: 3n + 1 points from index `at` on. */
export interface PathRun {
  readonly at: number;
  readonly segments: number;
  readonly closed: boolean;
}

/** Handles of a line may be this many units of the last decimal off its thirds. */
const LINE_UNITS = 1.5;
/** A handle that mirrors the one before may be off by so many units of the last decimal. */
const MIRROR_UNITS = 1;

/**
 * Path data of several states of the same runs, with the same commands in all of them, so that any two interpolate command by command. Each
 * segment is written as whatever is shortest over all states, relative or absolute. As a line, level or upright line where it is one in every
 * state, and without its first handle where that mirrors the handle before (SVG 2, section 9.3). Positions are rounded to `digits` decimals, and
 * relative ones are differences of rounded positions, so that errors do not add up.
 */
export function compactPaths(runs: readonly PathRun[], states: readonly Float64Array[], digits: number): string[] {
  const factor = 10 ** digits;
  const units = states.map((state) => Float64Array.from(state, (v) => Math.round(v * factor) + 0));
  const writer = new StateWriter(units.length, digits);
  for (const run of runs) writeRun(run, units, writer);
  return writer.texts;
}

/** The text of each state, written in step. */
class StateWriter {
  readonly texts: string[];
  private readonly x: Float64Array;
  private readonly y: Float64Array;
  private last = '';

  constructor(
    private readonly count: number,
    private readonly digits: number,
  ) {
    this.texts = Array.from({ length: count }, () => '');
    this.x = new Float64Array(count);
    this.y = new Float64Array(count);
  }

  /** Adds a command with the given absolute coordinates (x and y in turn; one axis for h and v), and moves to (x, y), both in units. */
  add(
    letter: 'M' | 'L' | 'H' | 'V' | 'C' | 'S',
    coordinates: (state: number) => readonly number[],
    end: (state: number) => readonly [number, number],
  ): void {
    const absolute: string[] = [];
    const relative: string[] = [];
    for (let k = 0; k < this.count; k++) {
      const all = coordinates(k);
      const from = letter === 'H' ? [this.x[k]] : letter === 'V' ? [this.y[k]] : [this.x[k], this.y[k]];
      absolute.push(numbersText(all, this.digits));
      relative.push(
        numbersText(
          all.map((v, i) => v - from[i % from.length]),
          this.digits,
        ),
      );
    }
    const small = letter.toLowerCase();
    const cost = (texts: readonly string[], name: string): number =>
      texts.reduce((sum, text) => sum + text.length + (name === this.last ? Number(needsGap(text)) : 1), 0);
    const shorter = cost(relative, small) <= cost(absolute, letter);
    const [name, texts] = shorter ? [small, relative] : [letter, absolute];
    for (let k = 0; k < this.count; k++) {
      this.texts[k] += name === this.last ? (needsGap(texts[k]) ? ` ${texts[k]}` : texts[k]) : name + texts[k];
      [this.x[k], this.y[k]] = end(k);
    }
    // What follows a move without a letter would be a line.
    this.last = letter === 'M' ? '' : name;
  }

  close(starts: (state: number) => readonly [number, number]): void {
    for (let k = 0; k < this.count; k++) {
      this.texts[k] += 'z';
      [this.x[k], this.y[k]] = starts(k);
    }
    this.last = '';
  }
}

const needsGap = (text: string): boolean => text[0] !== '-';

function writeRun({ at, segments, closed }: PathRun, states: readonly Float64Array[], writer: StateWriter): void {
  const start = (k: number): [number, number] => [states[k][at], states[k][at + 1]];
  writer.add('M', start, start);
  const every = (test: (p: Float64Array) => boolean): boolean => states.every(test);
  const points = Array.from({ length: segments }, (_, i) => at + 6 * i).filter((i, n) => {
    // A segment without length in every state says nothing, unless there is no other.
    const isPoint = every((p) => [2, 3, 4, 5, 6, 7].every((k) => p[i + k] === p[i + (k % 2)]));
    return !isPoint || (n === 0 && segments === 1);
  });
  if (points.length === 0 && segments > 0) points.push(at);
  points.forEach((i, n) => {
    const end = (k: number): [number, number] => [states[k][i + 6], states[k][i + 7]];
    if (every((p) => isLine(p, i))) {
      // Closing draws the last line by itself.
      if (closed && n === points.length - 1 && n > 0) return;
      if (every((p) => p[i + 1] === p[i + 7])) writer.add('H', (k) => [states[k][i + 6]], end);
      else if (every((p) => p[i] === p[i + 6])) writer.add('V', (k) => [states[k][i + 7]], end);
      else writer.add('L', end, end);
      return;
    }
    const before = n > 0 ? points[n - 1] : -1;
    const from = before >= 0 && every((p) => mirrors(p, before, i)) && !every((p) => isLine(p, before)) ? 4 : 2;
    writer.add(from === 4 ? 'S' : 'C', (k) => [...states[k].subarray(i + from, i + 8)], end);
  });
  if (closed) writer.close(start);
}

/** Do the handles lie at the thirds of a straight line? */
function isLine(p: Float64Array, i: number): boolean {
  for (let axis = 0; axis < 2; axis++) {
    const from = p[i + axis];
    const way = p[i + 6 + axis] - from;
    if (Math.abs(p[i + 2 + axis] - from - way / 3) > LINE_UNITS) return false;
    if (Math.abs(p[i + 4 + axis] - from - (way * 2) / 3) > LINE_UNITS) return false;
  }
  return true;
}

/** Is the first handle of segment `i` the last one of `before`, mirrored at the anchor between them? */
function mirrors(p: Float64Array, before: number, i: number): boolean {
  for (let axis = 0; axis < 2; axis++)
    if (Math.abs(p[i + 2 + axis] - (2 * p[i + axis] - p[before + 4 + axis])) > MIRROR_UNITS) return false;
  return true;
}

/** Numbers given in units of the last decimal, with as few characters as path data needs. */
function numbersText(units: readonly number[], digits: number): string {
  let text = '';
  let dotted = false;
  for (const value of units) {
    const part = unitText(value, digits);
    const joined = text === '' || part[0] === '-' || (part[0] === '.' && dotted);
    text += joined ? part : ` ${part}`;
    dotted = part.includes('.');
  }
  return text;
}

function unitText(units: number, digits: number): string {
  const sign = units < 0 ? '-' : '';
  const whole = String(Math.abs(units)).padStart(digits + 1, '0');
  const cut = whole.length - digits;
  const fraction = whole.slice(cut).replace(/0+$/, '');
  const head = whole.slice(0, cut).replace(/^0+(?=\d)/, '');
  if (fraction === '') return head === '0' ? '0' : sign + head;
  return `${sign}${head === '0' ? '' : head}.${fraction}`;
}
