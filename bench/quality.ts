import {
  endOutline,
  type Health,
  measureHealth,
  nearestOnContour,
  type Outline,
  rankAlternatives,
  readPathData,
} from '../core/src/index';
import { LISTS, type ListName, type Pair, pairLists } from './pair-lists';
import { plainPlan } from './plain-method';

/** Outlines of the lists are drawn in a box of this size, to which the figures relate. */
const BOX = 100;
/** Share of good pairs that is wanted, in %; those of several contours should be free of crossings in 60 %. */
const WANTED: Readonly<Record<ListName, number>> = { single: 97, glyphs: 98, multi: 97, dense: 97, open: 98 };
const LEAST_END_ERROR = 0.01;

const percent = (part: number, of: number): string => ((100 * part) / of).toFixed(1).padStart(5);
const quantile = (values: number[], q: number): number =>
  [...values].sort((a, b) => a - b)[Math.floor(q * (values.length - 1))] ?? 0;

/** How far the ends of a plan are from the outlines: their anchors to each other's curves, px. */
function endError(outline: Outline, end: Outline): number {
  const oneWay = (p: Outline, q: Outline): number => {
    let most = 0;
    for (const contour of p.contours)
      for (let i = 0; i < contour.points.length; i += 6) {
        const [x, y] = [contour.points[i], contour.points[i + 1]];
        most = Math.max(most, Math.min(...q.contours.map((c) => nearestOnContour(c, x, y)?.distance ?? Infinity)));
      }
    return most;
  };
  return Math.max(oneWay(outline, end), oneWay(end, outline));
}

interface Row {
  readonly health: Health;
  readonly end: number;
  readonly setup: number;
  readonly segments: number;
}

function measured({ a, b }: Pair): { ours: Row; plain: { good: boolean; forgiven: boolean } } {
  const [first, second] = [readPathData(a), readPathData(b)];
  const begun = performance.now();
  const [{ plan }] = rankAlternatives(first, second);
  const setup = performance.now() - begun;
  const anchors = (o: Outline): number => o.contours.reduce((n, c) => n + (c.points.length / 2 - 1) / 3, 0);
  const ours = {
    health: measureHealth(plan, BOX),
    end: Math.max(endError(first, endOutline(plan, 'first')), endError(second, endOutline(plan, 'second'))),
    setup,
    segments: plan.contours.reduce((n, { segments }) => n + segments, 0) / (anchors(first) + anchors(second)),
  };
  const plain = plainPlan(first, second);
  const forgiven = measureHealth({ ...plain, endError: 0 }, BOX).sound;
  return { ours, plain: { good: forgiven && plain.endError <= LEAST_END_ERROR, forgiven } };
}

/** Prints, for one seed, the share of good pairs of each list beside that of the plain method, and what the good ones cost. */
export function printQuality(seed: number, count: number): void {
  const lists = pairLists(seed, count);
  console.log(`\nSeed ${seed}, ${count} pairs a list; good pairs in %, all decisions automatic`);
  console.log(
    'list     plain (ends forgiven)   ours   wanted   free of crossings   kink ≤ 3° of good   segments / anchors   set-up ms',
  );
  for (const name of LISTS) {
    const rows = lists[name].map(measured);
    const good = rows.filter(({ ours }) => ours.health.sound && ours.end <= LEAST_END_ERROR);
    const plain = rows.filter((row) => row.plain.good).length;
    const forgiven = rows.filter((row) => row.plain.forgiven).length;
    const calm = good.filter(({ ours }) => ours.health.kink <= 3).length;
    const free = rows.filter(({ ours }) => ours.health.crossings === 0).length;
    const times = rows.map(({ ours }) => ours.setup);
    console.log(
      `${name.padEnd(8)} ${percent(plain, rows.length)} (${percent(forgiven, rows.length)})           ${percent(good.length, rows.length)}   ${String(WANTED[name]).padStart(6)}   ${percent(free, rows.length).padStart(17)}   ${percent(calm, good.length).padStart(17)}   ${quantile(
        rows.map(({ ours }) => ours.segments),
        0.5,
      )
        .toFixed(2)
        .padStart(16)}   ${quantile(times, 0.5).toFixed(0)}, 95th percentile ${quantile(times, 0.95).toFixed(0)}`,
    );
  }
}
