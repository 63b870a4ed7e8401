import { CoreError } from '../errors';
import type { Easing } from './easing';
import { easingPolyline } from './easing-polyline';
import { STEP_JUMPS, type StepsEasing } from './steps';

/** Largest error of progress in a `linear()`. */
export const CSS_LINEAR_ERROR = 2e-3;

/** CSS Easing 1, section 2.3: what the keywords stand for. */
const KEYWORDS: Readonly<Record<string, Easing>> = {
  linear: { kind: 'linear' },
  ease: { kind: 'cubic-bezier', x1: 0.25, y1: 0.1, x2: 0.25, y2: 1 },
  'ease-in': { kind: 'cubic-bezier', x1: 0.42, y1: 0, x2: 1, y2: 1 },
  'ease-out': { kind: 'cubic-bezier', x1: 0, y1: 0, x2: 0.58, y2: 1 },
  'ease-in-out': { kind: 'cubic-bezier', x1: 0.42, y1: 0, x2: 0.58, y2: 1 },
  'step-start': { kind: 'steps', count: 1, jump: 'start' },
  'step-end': { kind: 'steps', count: 1, jump: 'end' },
};

const text = (value: number, digits: number): string => String(+value.toFixed(digits));

/** An easing as an `<easing-function>` of CSS Easing 2: exact where CSS has it, else `linear()` within 0.002 of progress. */
export function writeCssEasing(easing: Easing): string {
  switch (easing.kind) {
    case 'linear':
      return 'linear';
    case 'cubic-bezier':
      return `cubic-bezier(${[easing.x1, easing.y1, easing.x2, easing.y2].map((v) => text(v, 4)).join(', ')})`;
    case 'steps':
      return `steps(${easing.count}, jump-${easing.jump})`;
    case 'hold':
      return `steps(1, jump-${easing.until})`;
    default:
      return `linear(${easingPolyline(easing, CSS_LINEAR_ERROR)
        .map(([time, progress]) => `${text(progress, 4)} ${text(100 * time, 3)}%`)
        .join(', ')})`;
  }
}

/**
 * Reads an `<easing-function>` of CSS Easing 2: keywords, `cubic-bezier()`, `steps()` and `linear()`.
 * @throws CoreError 'easing-syntax' that says what was expected and what came
 */
export function readCssEasing(source: string): Easing {
  const trimmed = source.trim().replace(/;$/, '').toLowerCase();
  if (Object.hasOwn(KEYWORDS, trimmed)) return KEYWORDS[trimmed];
  const [, name, inner] = /^([a-z-]+)\(([^()]{0,20000})\)$/.exec(trimmed) ?? [];
  const parts = (inner ?? '').split(',').map((part) => part.trim());
  if (name === 'cubic-bezier') return readBezier(parts, source);
  if (name === 'steps') return readSteps(parts, source);
  if (name === 'linear') return readLinear(parts, source);
  throw refusal('ease, ease-in, ease-out, ease-in-out, linear, cubic-bezier(), steps() or linear()', source);
}

const refusal = (expected: string, came: string): CoreError =>
  new CoreError('easing-syntax', `Expected ${expected}; found “${came.trim().slice(0, 40)}”.`);

function numberOf(part: string, expected: string): number {
  if (!/^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/.test(part)) throw refusal(expected, part);
  return Number(part);
}

function readBezier(parts: readonly string[], source: string): Easing {
  if (parts.length !== 4) throw refusal('four numbers in cubic-bezier()', source);
  const [x1, y1, x2, y2] = parts.map((part) => numberOf(part, 'a number in cubic-bezier()'));
  if (![x1, x2].every((x) => x >= 0 && x <= 1)) throw refusal('times from 0 to 1 in cubic-bezier()', source);
  if (![y1, y2].every((y) => Math.abs(y) <= 10)) throw refusal('values from −10 to 10 in cubic-bezier()', source);
  return { kind: 'cubic-bezier', x1, y1, x2, y2 };
}

function readSteps([first, jump = 'jump-end', ...rest]: readonly string[], source: string): Easing {
  const count = numberOf(first, 'a number of steps');
  const said = jump === 'start' || jump === 'end' ? jump : jump.replace(/^jump-/, '');
  if (rest.length > 0 || !(STEP_JUMPS as readonly string[]).includes(said))
    throw refusal('jump-start, jump-end, jump-none or jump-both in steps()', source);
  const least = said === 'none' ? 2 : 1;
  if (!(Number.isInteger(count) && count >= least && count <= 1000))
    throw refusal(`${least} to 1,000 whole steps`, source);
  return { kind: 'steps', count, jump: said as StepsEasing['jump'] };
}

/** Stops with their times as CSS Easing 2, section 2.2.1, finds them: missing ones lie evenly between the others, none before the one before it. */
function readLinear(parts: readonly string[], source: string): Easing {
  const stops: { progress: number; time: number | undefined }[] = [];
  for (const part of parts) {
    const words = part.split(/\s+/).filter(Boolean);
    const progress = words.filter((word) => !word.endsWith('%'));
    const times = words
      .filter((word) => word.endsWith('%'))
      .map((word) => numberOf(word.slice(0, -1), 'a time in %') / 100);
    if (progress.length !== 1 || times.length > 2) throw refusal('a number and up to two times in linear()', part);
    const value = numberOf(progress[0], 'a number in linear()');
    stops.push({ progress: value, time: times[0] });
    if (times.length === 2) stops.push({ progress: value, time: times[1] });
  }
  if (stops.length < 2 || stops.length > 100) throw refusal('2 to 100 points in linear()', source);
  stops[0].time ??= 0;
  stops[stops.length - 1].time ??= Math.max(1, ...stops.map(({ time }) => time ?? 0));
  let largest = Number.NEGATIVE_INFINITY;
  for (const stop of stops)
    if (stop.time !== undefined) {
      stop.time = Math.max(stop.time, largest);
      largest = stop.time;
    }
  stops.forEach((stop, i) => {
    if (stop.time !== undefined) return;
    const next = stops.findIndex((other, k) => k > i && other.time !== undefined);
    const before = stops[i - 1].time as number;
    stop.time = before + ((stops[next].time as number) - before) / (next - i + 1);
  });
  const at = stops as { progress: number; time: number }[];
  const [first, last] = [at[0], at[at.length - 1]];
  if (first.time !== 0 || first.progress !== 0 || last.time !== 1 || last.progress !== 1)
    throw refusal('linear() that leads from 0 at 0 % to 1 at 100 %', source);
  const points = [0, 0];
  for (let i = 1; i < at.length; i++) {
    const [p, q] = [at[i - 1], at[i]];
    for (const share of [1 / 3, 2 / 3])
      points.push(p.time + (q.time - p.time) * share, p.progress + (q.progress - p.progress) * share);
    points.push(q.time, q.progress);
  }
  return { kind: 'curve', points };
}
