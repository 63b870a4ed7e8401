import { areaCentre, type Outline } from '../outline';
import { rankAssignments } from './contour-pairs';
import { cutSolid } from './cut-contour';
import { automaticCut } from './cuts';
import type { CutPart, Joining } from './match';
import type { Matcher, PairSpec } from './matcher';
import { holeAgainst } from './run-contour';
import { slitChoices } from './slits';

/** The most holes joined to one solid. */
const MOST_SLITS = 3;
/** The most parts cut from one solid. */
const MOST_PARTS = 4;

/** One answer to the question which contour becomes which. */
export interface Pairing {
  /** The ways to match each pair; several if the place of a slit is open. */
  readonly slots: readonly (readonly PairSpec[])[];
  readonly unpairedB: readonly number[];
  readonly unpairedA: readonly number[];
  /** How much more the assignment costs than the best one. */
  readonly extra: number;
  /** Is it a last resort, for when the others are not good enough? */
  readonly lastResort?: boolean;
}

/**
 * The ways worth a look to pair the contours of two outlines. These are the best assignments, each with unpaired holes left to themselves or
 * joined to their solid by a slit, and with unpaired solids coming and going or cut from another.
 */
export function pairingsOf(matcher: Matcher): Pairing[] {
  const { a, b, nestingA, nestingB, options } = matcher;
  const assignments = rankAssignments(a, nestingA, b, nestingB, options.pairs);
  const unpaired = new Set(options.pairs?.filter(([i, j]) => i < 0 || j < 0).map(([i, j]) => `${i} ${j}`));
  // A contour with a chosen wipe gets no slit or cut.
  for (const { side, contour } of options.wipes ?? []) unpaired.add(side === 'a' ? `${contour} -1` : `-1 ${contour}`);
  const least = assignments[0]?.cost ?? 0;
  const out: Pairing[] = [];
  for (const { pairs, cost } of assignments) {
    const specs = pairs.map((pair) => specOf(matcher, pair));
    const plain = without(a, b, specs);
    const holesA = plain.unpairedA.filter((i) => nestingA[i].hole && !unpaired.has(`${i} -1`));
    const holesB = plain.unpairedB.filter((j) => nestingB[j].hole && !unpaired.has(`-1 ${j}`));
    const slitSlots = specs.map((spec) => {
      const mineA = holesA.filter((i) => nestingA[i].parent === spec.a);
      const mineB = holesB.filter((j) => nestingB[j].parent === spec.b);
      const ways = slitSpecs(a, b, spec, mineA, mineB);
      return ways.length > 0 ? ways : [spec];
    });
    const extra = cost - least;
    const cuts = cutSpecs(matcher, specs, plain, unpaired);
    const slitted = slitSlots.some((ways) => ways[0].joiningA || ways[0].joiningB);
    if (slitted)
      out.push({
        slots: slitSlots,
        ...without(
          a,
          b,
          slitSlots.map(([way]) => way),
        ),
        extra,
      });
    if (cuts) {
      out.push({ slots: cuts.map((spec) => [spec]), ...without(a, b, cuts), extra });
      if (slitted) {
        const slots = cuts.map((spec) => {
          const k = specs.findIndex((other) => other.a === spec.a && other.b === spec.b);
          return k >= 0 && !spec.joiningA && !spec.joiningB ? slitSlots[k] : [spec];
        });
        out.push({
          slots,
          ...without(
            a,
            b,
            slots.map(([way]) => way),
          ),
          extra,
        });
      }
    }
    // A drawn line means that a cut is wanted.
    if (cuts && (options.cuts?.a?.length || options.cuts?.b?.length)) continue;
    out.push({ slots: specs.map((spec) => [spec]), ...plain, extra });
    // A hole that would leave its solid on the way disappears, and a new one appears.
    const owned = new Set(options.pairs?.map(([i, j]) => `${i} ${j}`));
    const solids = specs.filter(
      (spec) => !nestingA[spec.a].hole || !nestingB[spec.b].hole || owned.has(`${spec.a} ${spec.b}`),
    );
    if (solids.length < specs.length)
      out.push({ slots: solids.map((spec) => [spec]), ...without(a, b, solids), extra, lastResort: true });
  }
  return out;
}

/** A plain pair, with an open contour closed by its chord where that is chosen. */
function specOf({ a, b, options }: Matcher, [i, j]: readonly [number, number]): PairSpec {
  const chord = options.opening === 'chord' && a.contours[i].closed !== b.contours[j].closed;
  if (!chord) return { a: i, b: j };
  return a.contours[i].closed ? { a: i, b: j, joiningB: { chord } } : { a: i, b: j, joiningA: { chord } };
}

/** The contours that no pair uses. */
function without(a: Outline, b: Outline, specs: readonly PairSpec[]): { unpairedA: number[]; unpairedB: number[] } {
  const holesOf = (joining: Joining | undefined): readonly number[] => [
    ...(joining?.slits?.map(({ hole }) => hole) ?? []),
    ...(joining?.cut?.holes ?? []),
  ];
  const takenA = new Set(specs.flatMap((spec) => [spec.a, ...holesOf(spec.joiningA)]));
  const takenB = new Set(specs.flatMap((spec) => [spec.b, ...holesOf(spec.joiningB)]));
  return {
    unpairedA: a.contours.map((_, i) => i).filter((i) => !takenA.has(i)),
    unpairedB: b.contours.map((_, i) => i).filter((i) => !takenB.has(i)),
  };
}

/** A pair with the unpaired holes of one side joined to it, once for each slit worth a try. */
function slitSpecs(
  a: Outline,
  b: Outline,
  spec: PairSpec,
  holesA: readonly number[],
  holesB: readonly number[],
): PairSpec[] {
  const few = (holes: readonly number[]): boolean => holes.length > 0 && holes.length <= MOST_SLITS;
  if (few(holesA) && holesB.length === 0)
    return slitChoices(a, spec.a, holesA).map((slits) => ({ ...spec, joiningA: { slits } }));
  if (few(holesB) && holesA.length === 0)
    return slitChoices(b, spec.b, holesB).map((slits) => ({ ...spec, joiningB: { slits } }));
  return [];
}

/** The pairs in which solids without a partner are cut from the nearest solid that has one; undefined if there is nothing to cut. */
function cutSpecs(
  matcher: Matcher,
  specs: readonly PairSpec[],
  left: { unpairedA: readonly number[]; unpairedB: readonly number[] },
  unpaired: ReadonlySet<string>,
): PairSpec[] | undefined {
  const { a, b, nestingA, nestingB, options } = matcher;
  const holed = (nesting: Matcher['nestingA'], i: number): boolean => nesting.some(({ parent }) => parent === i);
  const holesOf = (nesting: Matcher['nestingA'], i: number): number[] =>
    nesting.flatMap(({ parent, hole }, k) => (hole && parent === i ? [k] : []));
  const solid = (outline: Outline, nesting: Matcher['nestingA'], i: number): boolean =>
    outline.contours[i].closed && !nesting[i].hole;
  const born = left.unpairedB.filter((j) => solid(b, nestingB, j) && !holed(nestingB, j) && !unpaired.has(`-1 ${j}`));
  const dying = left.unpairedA.filter((i) => solid(a, nestingA, i) && !holed(nestingA, i) && !unpaired.has(`${i} -1`));
  if (born.length === 0 && dying.length === 0) return undefined;
  const centre = (outline: Outline, i: number) => areaCentre({ contours: [outline.contours[i]], fillRule: 'nonzero' });
  const nearest = (side: 'a' | 'b', at: { x: number; y: number }): number => {
    let best = -1;
    let least = Infinity;
    specs.forEach((spec, k) => {
      const [own, nesting] = side === 'a' ? [a, nestingA] : [b, nestingB];
      if (!solid(own, nesting, spec[side]) || holesOf(nesting, spec[side]).length > MOST_SLITS) return;
      // The cut opens its holes, so they must not have partners of their own.
      const taken = (k: number): boolean => specs.some((other) => other[side] === k);
      if (holesOf(nesting, spec[side]).some(taken)) return;
      // Measured to where the solid goes, since the new part comes from there.
      const there = side === 'a' ? centre(b, spec.b) : centre(a, spec.a);
      const distance = Math.hypot(there.x - at.x, there.y - at.y);
      if (distance < least) [least, best] = [distance, k];
    });
    return best;
  };
  const groups = new Map<number, { born: number[]; dying: number[] }>();
  const group = (k: number) => {
    let found = groups.get(k);
    if (!found) groups.set(k, (found = { born: [], dying: [] }));
    return found;
  };
  for (const j of born) {
    const k = nearest('a', centre(b, j));
    if (k >= 0) group(k).born.push(j);
  }
  for (const i of dying) {
    const k = nearest('b', centre(a, i));
    if (k >= 0) group(k).dying.push(i);
  }
  let any = false;
  const out = specs.flatMap((spec, k): PairSpec[] => {
    const mine = groups.get(k);
    if (!mine || (mine.born.length > 0 && mine.dying.length > 0)) return [spec];
    if (mine.born.length > 0) {
      const targets = [spec.b, ...mine.born];
      const parts = dividedInto(a, spec.a, b, targets, holesOf(nestingA, spec.a), options.cuts?.a);
      if (!parts) return [spec];
      any = true;
      return parts.map(({ joining, target }) => ({ a: spec.a, b: target, joiningA: joining }));
    }
    const targets = [spec.a, ...mine.dying];
    const parts = dividedInto(b, spec.b, a, targets, holesOf(nestingB, spec.b), options.cuts?.b);
    if (!parts) return [spec];
    any = true;
    return parts.map(({ joining, target }) => ({ a: target, b: spec.b, joiningB: joining }));
  });
  return any ? out : undefined;
}

function dividedInto(
  outline: Outline,
  index: number,
  others: Outline,
  targets: readonly number[],
  holes: readonly number[],
  drawn: CutPart['lines'] | undefined,
): { joining: Joining; target: number }[] | undefined {
  if (targets.length > MOST_PARTS) return undefined;
  const solid = outline.contours[index];
  const rings = [solid, ...holes.map((i) => holeAgainst(solid, outline.contours[i]))].map((contour) => ({
    contour,
    bridges: [],
  }));
  const shapes = targets.map((i) => others.contours[i]);
  const joining = (lines: CutPart['lines'], part: number): Joining => ({
    cut: holes.length > 0 ? { lines, part, holes } : { lines, part },
  });
  // If there are too many lines, the last are left out.
  for (let n = drawn?.length ?? 0; drawn && n > 0; n--) {
    const lines = n === drawn.length ? drawn : drawn.slice(0, n);
    const parts = cutSolid(rings, lines);
    if (parts.length === targets.length && parts.every((part) => part.length === 1)) {
      const [x0, y0, x1, y1] = lines[0];
      const centres = shapes.map((c) => areaCentre({ contours: [c], fillRule: 'nonzero' }));
      const along = (i: number): number => (x1 - x0) * (centres[i].y - y0) - (y1 - y0) * (centres[i].x - x0);
      const order = targets.map((_, i) => i).sort((p, q) => along(p) - along(q));
      return order.map((i, part) => ({ joining: joining(lines, part), target: targets[i] }));
    }
  }
  const cut = automaticCut(rings, shapes);
  return cut?.order.map((i, part) => ({ joining: joining(cut.lines, part), target: targets[i] }));
}
