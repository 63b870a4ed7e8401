import { describe, expect, test } from '@jest/globals';
import { matchOutlines, type PairMatch, prepareMatcher, runContour, writtenShare } from '../match';
import { outlineOfContours, polygonContour } from '../outline';
import { readPathData } from '../svg';
import { realIcons } from '../testing/icons';
import { outlineDistance } from '../testing/outline-distance';
import { evaluate, followProgress } from './evaluate';
import { measureHealth } from './health';
import { type HealthFigures, VERDICTS, type WorstMoment } from './health-figures';
import { healthSentence } from './health-sentence';
import { Judge } from './judge';
import { meetings } from './meetings';
import { withOvershoot } from './overshoot';
import { METHODS } from './plan';
import { inBetweenOutline } from './plan-outline';
import { planShift } from './plan-shift';
import { Ranker, rankAlternatives } from './rank';

const ARROW = readPathData('M10 40L60 40L60 15L95 50L60 85L60 60L10 60Z');
const STAR = readPathData('M50 2L61 38L98 38L68 59L79 95L50 73L21 95L32 59L2 38L39 38Z');
const SQUARE = readPathData('M0 0H100V100H0Z');
const RING = readPathData('M0 0H100V100H0ZM30 30V70H70V30Z');
const TWO_BARS = readPathData('M5 10H25V90H5ZM75 10H95V90H75Z');
const DISC = readPathData('M50 5A45 45 0 1 1 50 95A45 45 0 1 1 50 5Z');

/** Outlines of real icons by their names. */
const iconsNamed = (...names: string[]) => {
  const icons = realIcons(4_000, 1);
  return names.map((name) => readPathData(icons.find((icon) => icon.name === name)?.d ?? ''));
};

describe('where nothing that is found at first is healthy', () => {
  test('place, direction or evenness may count for more in what belongs together', () => {
    const [from, to] = iconsNamed('arrow-left-up-long-fill', 'disc-line');
    const [best] = rankAlternatives(from, to);
    expect(measureHealth(best.plan).verdict).toBe('good');
    const matcher = prepareMatcher(from, to, {});
    const spec = { a: best.match.pairs[0].a, b: best.match.pairs[0].b };
    const sameMap = ({ map }: PairMatch): boolean => String(map.a) === String(best.match.pairs[0].map.a);
    expect(matcher.fits(spec).some(sameMap)).toBe(false);
    expect(matcher.others(spec).some(sameMap)).toBe(true);
    // From where it starts it is found again: that is what taking it from a list comes down to.
    const { startA, startB, reversedA, reversedB, method } = best.match.pairs[0];
    const shareA = writtenShare(runContour(from, 0, undefined, reversedA, false), startA);
    const shareB = writtenShare(runContour(to, 0, undefined, reversedB, false), startB);
    const [again] = rankAlternatives(from, to, { method, starts: [{ contourA: 0, contourB: 0, shareA, shareB }] });
    expect(measureHealth(again.plan).verdict).toBe('good');
  });

  test('all pairs may be rounded, or travel, alike', () => {
    const [from, to] = iconsNamed('chat-3-line', 'file-shield-fill');
    const [best] = rankAlternatives(from, to);
    expect(measureHealth(best.plan).verdict).toBe('good');
    expect(best.match.pairs.map(({ smoothing }) => smoothing)).toEqual([18, 18]);
  });

  test('what is handed over is no more than otherwise, the healthiest first, each another one', () => {
    const [from, to] = iconsNamed('chat-3-line', 'file-shield-fill');
    const found = rankAlternatives(from, to);
    expect(found.length).toBeLessThanOrEqual(8);
    const verdicts = found.map(({ plan }) => VERDICTS.indexOf(measureHealth(plan).verdict));
    expect(verdicts[0]).toBe(VERDICTS.indexOf('good'));
    expect([...verdicts].sort((p, q) => p - q)).toEqual(verdicts);
    expect(new Set(found.map(({ plan }) => String(evaluate(plan, 0.5)))).size).toBe(found.length);
    // Nor where nothing that is tried is healthy.
    const [button, headset] = iconsNamed('shut-down-fill', 'customer-service-fill');
    const hard = rankAlternatives(button, headset);
    expect(hard.map(({ plan }) => measureHealth(plan).verdict)).not.toContain('good');
    expect(hard).toHaveLength(8);
  });
});

describe('ranked alternatives', () => {
  test('what is asked again is answered as at first, whatever was asked between', () => {
    const [from, to] = iconsNamed('chat-3-line', 'file-shield-fill');
    const ranker = new Ranker(prepareMatcher(from, to, {}), {});
    const answer = (atLeast: number, wider: boolean): string[] =>
      ranker
        .judge(ranker.chooser({ atLeast, wider }))
        .map(({ score, plan }) => `${score} ${evaluate(plan, 0.5).join(' ')}`);
    const first = answer(1, false);
    const far = answer(12, true);
    expect(far).not.toEqual(first);
    expect(answer(1, false)).toEqual(first);
    expect(answer(12, true)).toEqual(far);
    expect(ranker.rank().map(({ score }) => score)).toEqual(rankAlternatives(from, to).map(({ score }) => score));
  });

  test('the best comes first, and each is what planning its match anew gives', () => {
    const found = rankAlternatives(ARROW, STAR, { atLeast: 8 });
    expect(found.length).toBeGreaterThan(3);
    const scores = found.map(({ score }) => score);
    expect([...scores].sort((p, q) => p - q)).toEqual(scores);
    for (const { match, plan } of found) {
      const again = planShift(ARROW, STAR, match);
      for (const p of [0.25, 0.6])
        expect(
          outlineDistance(inBetweenOutline(again, evaluate(again, p)), inBetweenOutline(plan, evaluate(plan, p))),
        ).toBeLessThan(0.01);
    }
  });

  test('a healthy way goes before one that scores better and is not healthy', () => {
    const icons = realIcons(120, 11);
    const outline = (name: string) => readPathData(icons.find((icon) => icon.name === name)?.d ?? '');
    const [first, ...others] = rankAlternatives(outline('signal-cellular-1-line'), outline('arrow-right-fill'));
    expect(measureHealth(first.plan).sound).toBe(true);
    expect(others.some(({ score }) => score < first.score)).toBe(true);
    const order = others.map(({ plan }) => (measureHealth(plan).sound ? 0 : 1));
    expect([...order].sort((p, q) => p - q)).toEqual(order);
  });

  test('asked for more, the winner stays the winner', () => {
    for (const { d } of realIcons(6, 13)) {
      const icon = readPathData(d);
      const [quick] = rankAlternatives(icon, STAR);
      const [slow] = rankAlternatives(icon, STAR, { atLeast: 6 });
      expect(slow.score).toBeLessThanOrEqual(quick.score + 1e-9);
    }
  });

  test('asked for variety, the best pairing goes last by each method alike, in each order of what comes and goes', () => {
    const [from, to] = iconsNamed('divide-fill', 'tablet-fill');
    const plain = rankAlternatives(from, to, { atLeast: 12 });
    const varied = rankAlternatives(from, to, { atLeast: 12, varied: true });
    const look = ({ plan }: (typeof varied)[number]): string => String(evaluate(plan, 0.5));
    expect(varied.slice(0, plain.length).map(look)).toEqual(plain.map(look));
    const more = varied.slice(plain.length);
    const same = ({ match }: (typeof varied)[number]): number[][] => match.pairs.map(({ a, b }) => [a, b]);
    for (const each of more) expect(same(each)).toEqual(same(plain[0]));
    expect(more.map(({ match }) => [...new Set(match.pairs.map(({ method }) => method))])).toEqual(
      METHODS.flatMap((method) => [[method], [method], [method]]),
    );
    expect(new Set(more.map(({ match }) => JSON.stringify(match.timing))).size).toBe(3);
    expect(
      rankAlternatives(from, to, { atLeast: 12, varied: true, method: 'turning' })
        .slice(-3)
        .map(({ match }) => match.pairs[0].method),
    ).toEqual(['turning', 'turning', 'turning']);
    // Nothing comes or goes: one of each method.
    const [one, three] = [false, true].map((varied) => rankAlternatives(SQUARE, STAR, { atLeast: 12, varied }));
    expect(three.slice(one.length).map(({ match }) => match.pairs[0].method)).toEqual([...METHODS]);
  });

  test('a method that was asked for is the only one; the reason says whose choice it is', () => {
    for (const method of METHODS) {
      const found = rankAlternatives(ARROW, STAR, { method, smoothing: 0, atLeast: 4 });
      expect(new Set(found.flatMap(({ match }) => match.pairs.map((pair) => pair.method)))).toEqual(new Set([method]));
      expect(found[0].match.reasons.map(({ code }) => code)).toContain('method-own');
    }
  });

  test('smoothing that was asked for is kept; without it nothing that does not fold is softened', () => {
    const [own] = rankAlternatives(ARROW, STAR, { smoothing: 9 });
    expect(own.match.pairs[0].smoothing).toBe(9);
    expect(own.match.reasons.find(({ code }) => code === 'softened')?.text).toContain('your choice');
    const [free] = rankAlternatives(ARROW, STAR);
    expect(free.match.pairs[0].smoothing).toBe(0);
  });

  test('where everything folds the middle is rounded until it does not', () => {
    // A comb against a comb that lies across it.
    const teeth = (turned: boolean): number[] =>
      Array.from({ length: 8 }, (_, k) => [
        [4 + 12 * k, 5],
        [9 + 12 * k, 5],
        [9 + 12 * k, 90],
        [16 + 12 * k, 90],
      ])
        .flat()
        .concat([
          [100, 98],
          [4, 98],
        ])
        .flatMap(([x, y]) => (turned ? [y, 104 - x] : [x, y]));
    const [a, b] = [
      outlineOfContours([polygonContour(teeth(false))]),
      outlineOfContours([polygonContour(teeth(true))]),
    ];
    const [hard] = rankAlternatives(a, b, { method: 'straight', smoothing: 0 });
    const [best] = rankAlternatives(a, b);
    const folds = (plan: typeof best.plan): number => measureHealth(plan).folds;
    expect(folds(hard.plan)).toBeGreaterThan(0);
    expect(folds(best.plan)).toBe(0);
    expect(best.match.pairs[0].smoothing).toBeGreaterThan(0);
    expect(best.match.reasons.some(({ code }) => code === 'softened')).toBe(true);
    expect(best.score).toBeLessThan(hard.score);
  });

  test('progress rises and never passes the whole', () => {
    const told: number[] = [];
    rankAlternatives(RING, TWO_BARS, {}, (share) => told.push(share));
    expect(told.length).toBeGreaterThan(0);
    expect([...told].sort((p, q) => p - q)).toEqual(told);
    for (const share of told) expect(share > 0 && share < 1).toBe(true);
  });

  test('a disc becomes two bars by a cut rather than by a bar out of nothing, and back', () => {
    const [there] = rankAlternatives(DISC, TWO_BARS);
    expect(there.match.pairs.map(({ joiningA }) => joiningA?.cut?.part)).toEqual([0, 1]);
    expect(there.match.unpairedB).toEqual([]);
    const [back] = rankAlternatives(TWO_BARS, DISC);
    expect(back.match.pairs.every(({ joiningB }) => joiningB?.cut)).toBe(true);
  });

  test('judging twice looks at other moments, and finds nothing where all is well', () => {
    const [{ plan }] = rankAlternatives(SQUARE, DISC);
    const judge = new Judge(plan);
    expect(judge.firstLook()).toEqual({ penalty: 0, folds: false });
    expect(judge.secondLook()).toEqual({ penalty: 0, folds: false });
  });
});

describe('progress beyond the ends', () => {
  test('is followed as far as no in-between folds: all of it for a square that grows, less where points would meet', () => {
    const grown = rankAlternatives(SQUARE, readPathData('M-10 -10H110V110H-10Z'))[0].plan;
    expect(grown.overshoot).toEqual({ below: 0.3, above: 0.3 });
    // The notch closes at 1: a little beyond, its sides would cross.
    const open = readPathData('M0 20L40 0V60H60V0L100 20V100H0Z');
    const shut = readPathData('M0 20L49.5 0V60H50.5V0L100 20V100H0Z');
    const plan = withOvershoot(planShift(open, shut, rankAlternatives(open, shut)[0].match, 'straight'));
    expect(plan.overshoot.above).toBeLessThan(0.1);
    expect(plan.overshoot.below).toBe(0.3);
  });

  test('is compressed towards the limit: steadily, without a jump, never past it', () => {
    const overshoot = { below: 0.1, above: 0.25 };
    let before = -Infinity;
    for (let p = -2; p <= 3; p += 0.01) {
      const followed = followProgress(p, overshoot);
      expect(followed).toBeGreaterThan(before);
      expect(followed).toBeGreaterThan(-0.1);
      expect(followed).toBeLessThan(1.25);
      before = followed;
    }
    expect(followProgress(0.37, overshoot)).toBe(0.37);
    // The slope at the end is that of the way itself.
    expect((followProgress(1 + 1e-6, overshoot) - 1) / 1e-6).toBeCloseTo(1, 4);
    expect(followProgress(1.4, { below: 0, above: 0 })).toBe(1);
  });
});

describe('the sentence on a shift', () => {
  const GOOD: HealthFigures = {
    folds: 0,
    crossings: 0,
    areaDip: 1,
    evenDip: 1,
    swell: 1,
    perimeter: 1,
    excursion: 0,
    restlessness: 1,
    largestStep: 0.05,
    inverted: 0,
    kink: 0,
    endError: 0,
  };
  const BOX = Float64Array.of(0, 0, 90, 90);
  const told = (
    figures: Partial<HealthFigures>,
    worst?: WorstMoment,
    { several = false, open = false, coming = false } = {},
  ) => {
    const [name] = Object.keys(figures) as (keyof HealthFigures)[];
    const moments = new Map<keyof HealthFigures, WorstMoment>(worst ? [[name, worst]] : []);
    return healthSentence({ ...GOOD, ...figures }, moments, { several, open, coming }, BOX);
  };

  test.each([
    ['folds', 2, 'broken', 'folds over itself'],
    ['inverted', 0.02, 'broken', 'inside out'],
    ['areaDip', 0.53, 'broken', 'shrinks to 53 % of its area'],
    ['areaDip', 0.8, 'look', 'shrinks to 80 % of its area'],
    ['evenDip', 0.7, 'look', 'to 70 % of the area between both ends'],
    ['endError', 0.4, 'look', 'leaves the outline by up to 0.40 px'],
    ['perimeter', 1.4, 'broken', '40 % longer'],
    ['perimeter', 1.2, 'look', '20 % longer'],
    ['swell', 1.4, 'broken', 'swells to 140 %'],
    ['swell', 1.3, 'look', 'swells to 130 %'],
    ['excursion', 0.08, 'look', 'by 8 % of its size'],
    ['restlessness', 1.9, 'look', 'more jagged'],
    ['largestStep', 0.2, 'look', 'moves 20 % of the size at once'],
    ['crossings', 1, 'good', 'two contours pass over each other'],
  ] as const)('names %s with its moment', (figure, value, verdict, words) => {
    const { verdict: found, sentence, worst } = told({ [figure]: value }, { progress: 0.62 });
    expect(VERDICTS).toContain(found);
    expect(found).toBe(verdict);
    expect(sentence).toContain(words);
    if (figure !== 'endError') expect(sentence).toContain('at 62 %');
    expect(worst).toEqual({ progress: 0.62 });
  });

  test('says where, in words that one looks for', () => {
    const place = (x: number, y: number): string => told({ folds: 1 }, { progress: 0.5, x, y }).sentence;
    expect(place(10, 10)).toContain('at the top left');
    expect(place(80, 45)).toContain('at the right');
    expect(place(45, 85)).toContain('at the bottom.');
    expect(place(45, 45)).toContain('in the middle');
  });

  test('the worst is told first; several contours may move further and be more restless', () => {
    expect(told({ folds: 1, swell: 2, excursion: 1 }).sentence).toContain('folds');
    expect(told({ largestStep: 0.2 }, undefined, { several: true }).verdict).toBe('good');
    expect(told({ restlessness: 2 }, undefined, { several: true }).verdict).toBe('good');
    expect(told({ swell: 2 }, undefined, { open: true }).verdict).toBe('good');
    expect(told({ areaDip: 0.4 }, undefined, { open: true }).sentence).toContain('40 % of its length');
    expect(told({}).sentence).toBe('Good: no folds, and the area stays even.');
    expect(told({}, undefined, { open: true }).sentence).toBe('Good: no folds, and the length stays even.');
    // Where contours come and go more is expected, and it is said how much is missing.
    const coming = { coming: true };
    expect(told({ areaDip: 0.8 }, { progress: 0.5 }, coming)).toMatchObject({
      verdict: 'good',
      sentence: 'Good: no folds; while contours come and go the area is 80 % of the smaller end at 50 %.',
    });
    expect([0.7, 0.6].map((evenDip) => told({ evenDip }, undefined, coming).verdict)).toEqual(['good', 'look']);
    // What is missing goes before what passes over something else.
    expect(told({ areaDip: 0.8, crossings: 1 }, undefined, coming).sentence).toContain('80 % of the smaller end');
    expect(
      [0.86, 0.84, 0.74, 0.66, 0.64, 0.54].map((areaDip) => [
        told({ areaDip }).verdict,
        told({ areaDip }, undefined, coming).verdict,
      ]),
    ).toEqual([
      ['good', 'good'],
      ['look', 'good'],
      ['look', 'look'],
      ['look', 'look'],
      ['broken', 'look'],
      ['broken', 'broken'],
    ]);
  });
});

describe('contours that would cross on their way', () => {
  /** Which pairs of contours cross, at any of 19 moments. */
  const met = (a: string, b: string) => {
    const [{ plan, match }] = rankAlternatives(readPathData(a), readPathData(b));
    return { plan, match, crossing: meetings(plan).size };
  };
  const BLOCK = (x: number, y: number, w: number, h = w) => `M${x} ${y}h${w}v${h}h${-w}Z`;

  test('who meets whom is told by the contours, and at how many moments', () => {
    const [a, b] = [`${BLOCK(0, 40, 20)}${BLOCK(80, 0, 20, 100)}`, `${BLOCK(80, 40, 20)}${BLOCK(0, 0, 20, 100)}`];
    const straight = matchOutlines(readPathData(a), readPathData(b), {
      pairs: [
        [0, 0],
        [1, 1],
      ],
    });
    const found = meetings(planShift(readPathData(a), readPathData(b), straight));
    expect([...found.keys()]).toEqual(['0 1']);
    expect(found.get('0 1')).toBeGreaterThan(3);
    expect(found.get('0 1')).toBeLessThan(19);
  });

  test('a solid that comes with its hole grows with it about one point, and so does what lies in the hole', () => {
    const ring = 'M60 10h34v34h-34ZM64 14v26h26v-26Z';
    const { plan, crossing } = met(BLOCK(5, 60, 30), `${BLOCK(5, 60, 28)}${ring}${BLOCK(70, 20, 8)}`);
    const alone = plan.contours.filter(({ role }) => role === 'appears');
    const points = new Set(alone.map(({ at }) => `${plan.from[at]} ${plan.from[at + 1]}`));
    expect([alone.length, points.size, crossing]).toEqual([3, 1, 0]);
  });

  test('what is a mere point still crosses nothing, wherever it stands', () => {
    // At many places: which of them rounding scribbles at is not to be foreseen.
    const crossings = Array.from({ length: 40 }, (_, k) => {
      const disc = (r: number, sweep: 0 | 1): string =>
        `M${60.37 + 0.31 * k - r} 29.71a${r} ${r} 0 1 ${sweep} ${2 * r} 0a${r} ${r} 0 1 ${sweep} ${-2 * r} 0Z`;
      const b = `${BLOCK(5, 60, 28)}${disc(17.3, 1)}${disc(11.7, 0)}`;
      const alone = matchOutlines(readPathData(BLOCK(5, 60, 30)), readPathData(b), { pairs: [[0, 0]] });
      const plan = planShift(readPathData(BLOCK(5, 60, 30)), readPathData(b), alone);
      const contours = plan.contours.map((c) => (c.role === 'appears' ? { ...c, begin: 0.5 } : c));
      return meetings({ ...plan, contours }).size;
    });
    expect(crossings.filter((count) => count > 0)).toEqual([]);
  });

  test('of pairs in each other’s way one is parted, and goes while the other comes', () => {
    // Two bars that change sides past a small block between them, which goes across.
    const a = `${BLOCK(0, 0, 12, 100)}${BLOCK(44, 44, 12)}`;
    const b = `${BLOCK(88, 0, 12, 100)}${BLOCK(44, 50, 12)}`;
    const { match, crossing } = met(a, b);
    expect(crossing).toBe(0);
    expect([match.pairs.length, match.unpairedA, match.unpairedB]).toEqual([1, [1], [1]]);
    // And so does what was copied from the other.
    const named = (text: string, prefix: string, origins?: string) => {
      const { contours, fillRule } = readPathData(text);
      const ids = (p: string, c: number): string[] => [0, 1, 2, 3].map((k) => `${p}${c}-${k}`);
      return {
        contours: contours.map((contour, c) => ({
          ...contour,
          anchorIds: ids(prefix, c),
          ...(origins && { originIds: ids(origins, c) }),
        })),
        fillRule,
      };
    };
    const [copied] = rankAlternatives(named(a, 'a'), named(b, 'b', 'a'));
    expect(copied.match.pairs).toHaveLength(2);
    // Whom somebody tied together stays together.
    const ties = [{ contourA: 1, shareA: 0, contourB: 1, shareB: 0 }];
    const [tied] = rankAlternatives(readPathData(a), readPathData(b), { ties });
    expect(tied.match.pairs.map((pair) => [pair.a, pair.b])).toEqual([
      [0, 0],
      [1, 1],
    ]);
  });
});

test('what is lost is measured against an even change: nothing by a square that shrinks, much by a box that becomes six dots', () => {
  const box = readPathData('M8 8H92V92H8Z');
  const dots = readPathData(
    [
      [12, 12],
      [44, 12],
      [76, 12],
      [12, 76],
      [44, 76],
      [76, 76],
    ]
      .map(([x, y]) => `M${x} ${y}h14v14h-14Z`)
      .join(''),
  );
  const middle = readPathData('M44 44H56V56H44Z');
  const small = measureHealth(planShift(box, middle, matchOutlines(box, middle)));
  expect(small.evenDip).toBeGreaterThan(0.99);
  const many = measureHealth(rankAlternatives(box, dots)[0].plan);
  const halfWay = many.moments.map(
    ({ area, progress }) => area / ((1 - progress) * 84 + progress * Math.sqrt(6) * 14) ** 2,
  );
  expect(many.evenDip).toBeCloseTo(Math.min(...halfWay), 2);
  expect(many.evenDip).toBeLessThan(many.areaDip - 0.1);
});
