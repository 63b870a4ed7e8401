import { type Contour, type Nesting, nestingOf, type Outline } from '../outline';
import { OTHER_WEIGHTS, WEIGHTS, type Weights } from './alignment';
import { type ContourFit, fitContours, SAMPLING, type Sampling, SPARSE_SAMPLING } from './contour-pair';
import { fitThrough } from './fixed-fit';
import type { DirectionChoice, FixedPair, Joining, MatchOptions, PairMatch, PlacePair } from './match';
import { originPairs } from './origins';
import { type Run, runContour, runShare, runsBackwards, shareOnRun } from './run-contour';
import { keepingSampler } from './samples';
import { symmetricFits } from './symmetry';

/** Two contours that may become each other, before it is known how. */
export interface PairSpec {
  readonly a: number;
  readonly b: number;
  readonly joiningA?: Joining;
  readonly joiningB?: Joining;
}

/** Where more contours than this meet as many, each is a small part of the picture and is looked at with fewer samples. */
const MANY_CONTOURS = 150;

/** Of so many ways to do one pair all are looked at closely; of more, as many as look best with so few samples. */
const MOST_WAYS = 3;
/** So many matches of each other opinion are worth a look. */
const OTHERS_EACH = 4;
const FIRST_LOOK: Sampling = { coarse: 18, fine: 40 };

/** How closely, and by what, it is looked at how two contours fit. */
interface Look {
  readonly sampling: Sampling;
  readonly weights: Weights;
}

/** Finds how contours of two outlines fit together; what was found once is kept. Neither outline is altered. */
export class Matcher {
  readonly nestingA: readonly Nesting[];
  readonly nestingB: readonly Nesting[];
  private readonly look: Look;
  private readonly known = new Map<string, readonly PairMatch[]>();
  private readonly runs = new Map<string, Run>();
  private readonly sample = keepingSampler();

  constructor(
    readonly a: Outline,
    readonly b: Outline,
    readonly options: MatchOptions,
  ) {
    this.nestingA = nestingOf(a);
    this.nestingB = nestingOf(b);
    const many = Math.min(a.contours.length, b.contours.length) > MANY_CONTOURS;
    this.look = { sampling: many ? SPARSE_SAMPLING : SAMPLING, weights: WEIGHTS };
  }

  /** The matches of a pair worth a look, the cheapest first; at least one. */
  fits(spec: PairSpec): readonly PairMatch[] {
    const key = JSON.stringify(spec);
    let found = this.known.get(key);
    if (!found) {
      found = this.find(spec);
      this.known.set(key, found);
    }
    return found;
  }

  /** Matches by other opinions of what belongs together, for a pair whose own are no good; none where points were copied, which say it themselves. */
  others(spec: PairSpec): readonly PairMatch[] {
    const key = `others ${JSON.stringify(spec)}`;
    let found = this.known.get(key);
    if (!found) {
      const own = this.fits(spec);
      found = own.some(({ byOrigin }) => byOrigin)
        ? []
        : OTHER_WEIGHTS.flatMap((weights) => this.find(spec, { ...this.look, weights }).slice(0, OTHERS_EACH));
      this.known.set(key, found);
    }
    return found;
  }

  /** Of many ways to do one pair those that promise most by a first look with fewer samples, in their order. */
  promising(specs: readonly PairSpec[]): readonly PairSpec[] {
    if (specs.length <= MOST_WAYS) return specs;
    const looked = specs.map((spec) => ({
      spec,
      cost: this.find(spec, { ...this.look, sampling: FIRST_LOOK })[0]?.cost ?? Infinity,
    }));
    const kept = new Set([...looked].sort((p, q) => p.cost - q.cost).slice(0, MOST_WAYS));
    return looked.filter((each) => kept.has(each)).map(({ spec }) => spec);
  }

  private find(spec: PairSpec, look: Look = this.look): PairMatch[] {
    const ca = this.a.contours[spec.a];
    const cb = this.b.contours[spec.b];
    const direction = directionOf(this.options, spec.a);
    const backwardsA = runsBackwards(ca, this.nestingA[spec.a].hole);
    const aligned = runsBackwards(cb, this.nestingB[spec.b].hole);
    const followed = (this.options.followed ?? []).filter(
      ({ contourA, contourB }) => contourA === spec.a && contourB === spec.b,
    );
    const origins = joined(spec)
      ? []
      : [...followed.map(({ shareA, shareB }) => ({ a: shareA, b: shareB })), ...originPairs(ca, cb)];
    let ways: boolean[];
    if (direction !== 'auto') ways = [(direction === 'reversed') !== backwardsA];
    else if (ca.closed && cb.closed) ways = [aligned];
    else ways = [false, true];
    const own = ownPairs(this.options, spec);
    const out = ways.flatMap((reversedB) => this.run(spec, backwardsA, reversedB, own, origins, look));
    // Do the places that must be met follow each other the other way round only? Then that way is meant.
    if (out.length === 0 && direction === 'auto' && own.length + followed.length > 0)
      out.push(...this.run(spec, backwardsA, !ways[0], own, followed.length > 0 ? origins : [], look));
    if (out.length === 0) {
      const without = ways.flatMap((reversedB) => this.run(spec, backwardsA, reversedB, [], [], look));
      out.push(...without.map((match) => (own.length > 0 ? { ...match, unmet: true } : match)));
    }
    return out.sort((p, q) => p.cost - q.cost);
  }

  private run(
    spec: PairSpec,
    reversedA: boolean,
    reversedB: boolean,
    own: readonly PlacePair[],
    origins: readonly FixedPair[],
    look: Look,
  ): PairMatch[] {
    const whole = origins.length > 0;
    const runA = this.runOf('a', spec.a, spec.joiningA, reversedA, whole);
    const runB = this.runOf('b', spec.b, spec.joiningB, reversedB, whole);
    const made = (fit: ContourFit, byOrigin: boolean): PairMatch => {
      const pair = { ...spec, reversedA, reversedB, byOrigin, points: [], ...fit };
      return { ...pair, points: pointsOn(runA, this.a, pair, this.options) };
    };
    const chosen = own.map((pair) => ({
      a: shareOnRun(runA, this.a.contours[spec.a], pair.shareA, spec.joiningA),
      b: shareOnRun(runB, this.b.contours[spec.b], pair.shareB, spec.joiningB),
    }));
    if (whole) {
      const linked = origins
        .map((pair) => ({ a: runShare(runA, pair.a), b: runShare(runB, pair.b) }))
        .filter((pair) => (!runA.contour.closed && !runB.contour.closed ? atEnd(pair.a) === atEnd(pair.b) : true));
      // What the designer says comes first; of the links those are kept that agree with it.
      const fit = fitThrough(runA.contour, runB.contour, agreeing(chosen, linked, runA, runB), true);
      if (fit) return [made(fit, true)];
      return own.length > 0 ? this.run(spec, reversedA, reversedB, own, [], look) : [];
    }
    if (chosen.length > 0) {
      const fit = fitThrough(runA.contour, runB.contour, chosen, false, look.weights);
      return fit ? [made(fit, false)] : [];
    }
    const free = fitContours(runA.contour, runB.contour, look.sampling, look.weights, this.sample);
    const closed = runA.contour.closed && runB.contour.closed;
    const symmetric =
      closed && !joined(spec) && look.weights === WEIGHTS ? symmetricFits(runA.contour, runB.contour) : [];
    return [...symmetric, ...free].map((fit) => made(fit, false));
  }

  private runOf(side: 'a' | 'b', index: number, joining: Joining | undefined, reversed: boolean, whole: boolean): Run {
    const key = `${side} ${index} ${reversed} ${whole} ${joining ? JSON.stringify(joining) : ''}`;
    let run = this.runs.get(key);
    if (!run) {
      run = runContour(this[side], index, joining, reversed, whole);
      this.runs.set(key, run);
    }
    return run;
  }
}

/** The direction that is asked for where a contour of A is the first of the pair. */
export const directionOf = ({ direction = 'auto', directions }: MatchOptions, a: number): DirectionChoice =>
  directions?.find(({ contourA }) => contourA === a)?.direction ?? direction;

/** An open line's ends meet each other anyway; an end cannot be tied to the middle. */
const atEnd = (share: number): boolean => share < 1e-6 || share > 1 - 1e-6;

const joined = (spec: PairSpec): boolean => spec.joiningA !== undefined || spec.joiningB !== undefined;

/** Places of a contour of A at which a point is wanted, as shares of it as it is written. */
function wantedPoints({ points = [], touchUps = [] }: MatchOptions, a: number): number[] {
  return [...points, ...touchUps.flatMap(({ moves }) => moves)]
    .filter(({ contourA }) => contourA === a)
    .map(({ shareA }) => shareA);
}

/** Shares of a pair's run of A, from its start, at which the options want a point. */
function pointsOn(
  run: Run,
  outline: Outline,
  { a, joiningA, startA }: Pick<PairMatch, 'a' | 'joiningA' | 'startA'>,
  options: MatchOptions,
): number[] {
  return wantedPoints(options, a)
    .map((share) => shareOnRun(run, outline.contours[a], share, joiningA))
    .map((share) => (run.contour.closed && share < startA ? share + 1 : share) - startA);
}

/** A pair that was found without touch-ups and added points, with the points that these want. */
export function withWantedPoints(outline: Outline, pair: PairMatch, options: MatchOptions): PairMatch {
  const run = runContour(outline, pair.a, pair.joiningA, pair.reversedA, pair.byOrigin);
  return { ...pair, points: pointsOn(run, outline, pair, options) };
}

/** The starts and ties that the options hold for a pair, start first. */
function ownPairs(options: MatchOptions, { a, b }: PairSpec): PlacePair[] {
  const mine = (pair: PlacePair): boolean => pair.contourA === a && pair.contourB === b;
  return [...(options.starts ?? []).filter(mine).slice(0, 1), ...(options.ties ?? []).filter(mine)];
}

/**
 * The chosen pairs, and of the links, in their order, those that keep the cyclic order with all taken before them. None of the links where most
 * of them do not: then they run the other way round.
 */
function agreeing(chosen: readonly FixedPair[], linked: readonly FixedPair[], a: Run, b: Run): FixedPair[] {
  const ahead = (share: number, from: number, contour: Contour): number =>
    contour.closed && share < from ? share - from + 1 : share - from;
  const [first = linked[0]] = chosen;
  const taken = [...chosen];
  const nodes = chosen.map((pair) => ({ a: ahead(pair.a, first.a, a.contour), b: ahead(pair.b, first.b, b.contour) }));
  for (const pair of linked) {
    const pa = ahead(pair.a, first.a, a.contour);
    const pb = ahead(pair.b, first.b, b.contour);
    if (!nodes.every((node) => Math.abs(pa - node.a) > 1e-6 && pa > node.a === pb > node.b && pb !== node.b)) continue;
    taken.push(pair);
    nodes.push({ a: pa, b: pb });
  }
  return taken.length - chosen.length < linked.length / 2 ? [...chosen] : taken;
}
