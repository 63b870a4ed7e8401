import type { Easing } from '../../easing';
import { type Contour, outlineBox } from '../../outline';
import { AUTOMATIC_MATCH, type IdSource, SHORTEST_SECONDS } from '../../piece';
import { READING_COST, type ReadingBudget } from '../document/budget';
import { DrawnLines } from './drawn-lines';
import { fileTies } from './file-ties';
import { type OwnWay, ownWay, plainSample, segmentsIn, type WayChoices, withoutOutlines } from './own-ways';
import { isSame } from './sample';
import type { ShapeSample } from './shape-sample';
import type { Stop } from './stops';
import type { Unit } from './unit';

/** Where something stands, however a file builds what is seen there. */
interface Place {
  /** The stop at which it is reached, and the one from which it is left: indices. */
  readonly enter: number;
  readonly leave: number;
  readonly plain: ShapeSample;
}

/** A way of more steps than this, such as a spring or a bounce, stays as the file has it. */
const MOST_STEPS = 24;
/** So many curves of the file are tried for whole ways. */
const MOST_CURVES = 4;
/** Outlines that are nearer to each other than this are one, px: files round. */
const SAME_PX = 0.08;

/**
 * Stops as they may have been before a file was written. Where a file goes a way by several keys, because curves bend on it, and the program goes that way by
 * itself between its ends, the keys are taken away. And where a file builds one look in two ways, for what comes before and after, it is one look again.
 * Where a file that `loops` ends as it begins, its last stop has the sample of the first.
 */
export function ownStops(
  stops: readonly Stop[],
  { look, beside, segments }: Unit,
  { loops, budget, newId }: { readonly loops: boolean; readonly budget: ReadingBudget; readonly newId: IdSource },
): Stop[] {
  // Looking for slits and cuts holds every segment of an outline against every other.
  const looks = stops.reduce((sum, { sample }) => sum + segmentsIn(sample) ** 2, 0);
  if (!budget.take(READING_COST.pair * looks)) return [...stops];
  const places = placesOf(stops, (sample) => plainSample(sample, beside, newId));
  const curves: Easing[] = [];
  for (const { easing, still } of segments)
    if (!still && easing.kind === 'cubic-bezier' && curves.length < MOST_CURVES) curves.push(easing);
  const wayTo = (i: number): FoundWay | null => {
    const [from, to] = [places[i - 1], places[i]];
    const [begin, end] = [stops[from.leave], stops[to.enter]];
    const steps = stops.slice(from.leave + 1, to.enter + 1);
    if (steps.some(({ way }) => !way) || steps.length > MOST_STEPS || !isDivided([from, to], steps.length)) return null;
    const [start, until] = [begin.from + begin.hold, end.from];
    const at = (share: number): ShapeSample => look(start + share * (until - start));
    const keys = steps.map((stop) => (stop.from - start) / (until - start));
    const spaces = [...new Set(steps.flatMap(({ way }) => way?.space ?? []))];
    const tried = (choices: WayChoices): FoundWay | null => {
      const way = ownWay(from.plain, to.plain, at, { curves, spaces, choices, keys }, budget);
      return way && { ...way, choices };
    };
    const found = tried({});
    if (found) return found;
    const own = [from.plain.shapes, to.plain.shapes] as const;
    const ties = fileTies({ raw: [begin.sample.shapes, end.sample.shapes], own }, newId);
    return ties && tried({ method: 'straight', match: { ...AUTOMATIC_MATCH, smoothing: 0, ties } });
  };
  const ways: (FoundWay | null)[] = [];
  for (let i = 1; i < places.length; i++) {
    const isReturn =
      loops && i > 1 && i + 1 === places.length && ways[0] && stops[stops.length - 1].hold < SHORTEST_SECONDS;
    if (isReturn && looksSame(places[i].plain, places[0].plain)) places[i] = { ...places[i], plain: places[0].plain };
    ways.push(wayTo(i));
  }
  return places.flatMap(({ enter, leave, plain }, i): Stop[] => {
    const [before, after] = [ways[i - 1], ways[i]];
    const between = i > 0 && !before ? stops.slice(places[i - 1].leave + 1, enter) : [];
    if (!before && !after) return [...between, ...stops.slice(enter, leave + 1)];
    const [reached, left] = [stops[enter], stops[leave]];
    const hold = left.from + left.hold - reached.from;
    const whole: Stop = { sample: plain, from: reached.from, hold };
    if (before) {
      const stop = { ...whole, way: wayOf(before, stops[places[i - 1].leave], reached) };
      return after === null ? [stop, { sample: left.sample, from: left.from + left.hold, hold: 0 }] : [stop];
    }
    return i === 0 ? [whole] : [...between, { ...reached, hold: 0 }, whole];
  });
}

/** A way that the program goes by itself, and what is decided for it. */
interface FoundWay extends OwnWay {
  readonly choices: WayChoices;
}

const wayOf = ({ easing, space, choices }: FoundWay, left: Stop, reached: Stop): Stop['way'] => ({
  seconds: reached.from - (left.from + left.hold),
  easing,
  space,
  choices,
});

/** Does a file do more on a way than show its ends? */
const isDivided = (ends: readonly Place[], steps: number): boolean =>
  steps > 1 || ends.some(({ enter, leave }) => enter < leave);

/** Stops at which something stands, or jumps, put together where they look the same. */
function placesOf(stops: readonly Stop[], plainOf: (sample: ShapeSample) => ShapeSample): Place[] {
  const places: Place[] = [];
  for (let enter = 0; enter < stops.length; enter++) {
    const jumps = (i: number): boolean => i < stops.length && !stops[i].way;
    const stands = enter === 0 || enter === stops.length - 1 || stops[enter].hold > 0;
    if (!stands && !jumps(enter) && !jumps(enter + 1)) continue;
    let leave = enter;
    let plain = plainOf(stops[enter].sample);
    while (jumps(leave + 1)) {
      const next = plainOf(stops[leave + 1].sample);
      if (!looksSame(plain, next)) break;
      leave++;
      plain = next;
    }
    places.push({ enter, leave, plain });
    enter = leave;
  }
  return places;
}

/** Is one look another, wherever contours begin and whichever way they run? Curves are compared, not handles: those come back less exactly where a curve was split. */
function looksSame(p: ShapeSample, q: ShapeSample): boolean {
  if (p.shapes.length !== q.shapes.length || !isSame(withoutOutlines(p), withoutOutlines(q))) return false;
  return p.shapes.every(({ outline: { contours } }, i) => {
    const others = q.shapes[i].outline.contours;
    return (
      contours.length === others.length && contours.every((contour) => others.some((other) => isOne(contour, other)))
    );
  });
}

function isOne(contour: Contour, other: Contour): boolean {
  if (contour.closed !== other.closed) return false;
  const [box, around] = [contour, other].map((each) => outlineBox({ contours: [each], fillRule: 'nonzero' }));
  if (!(['minX', 'minY', 'maxX', 'maxY'] as const).every((side) => Math.abs(box[side] - around[side]) <= SAME_PX))
    return false;
  const [lines, others] = [contour, other].map((each) => new DrawnLines({ contours: [each], fillRule: 'nonzero' }));
  return lines.farthestFrom(others) <= SAME_PX && others.farthestFrom(lines) <= SAME_PX;
}
