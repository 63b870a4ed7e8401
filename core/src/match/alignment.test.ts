import { describe, expect, test } from '@jest/globals';
import { seededRandom } from '../num';
import { type Contour, ellipseContour, polygonContour } from '../outline';
import { OTHER_WEIGHTS, SampleAligner, WEIGHTS, type Weights } from './alignment';
import { type ContourSamples, keepingSampler, type Sampler, sampleContour } from './samples';

const random = seededRandom(12);
const polygon = (corners: number, closed = true): Contour => {
  const points: number[] = [];
  for (let i = 0; i < corners; i++) {
    const angle = (2 * Math.PI * i) / corners;
    const radius = 30 + 40 * random();
    points.push(radius * Math.cos(angle), radius * Math.sin(angle));
  }
  return polygonContour(points, closed);
};

const STEPS = [
  [1, 1],
  [2, 1],
  [3, 1],
  [4, 1],
  [1, 2],
  [1, 3],
  [1, 4],
  [2, 3],
  [3, 2],
];

/** The cheapest way by trying all of them, from the written cost: slow and without tables. */
function cheapest(a: ContourSamples, b: ContourSamples, i0: number, j0: number, weights: Weights): number {
  const { position: place, tangent: direction, bend, stretch, corner } = weights;
  const share = (s: ContourSamples, start: number, k: number): number => {
    if (k === s.count) return 1;
    const ahead = s.share[(start + k) % s.share.length] - s.share[start];
    return ahead < 0 ? ahead + 1 : ahead;
  };
  const node = (i: number, j: number): number => {
    const p = (i0 + i) % a.share.length;
    const q = (j0 + j) % b.share.length;
    const position = (a.x[p] - b.x[q]) ** 2 + (a.y[p] - b.y[q]) ** 2;
    const tangent = 1 - (a.tx[p] * b.tx[q] + a.ty[p] * b.ty[q]);
    return place * position + direction * tangent + bend * (a.bend[p] - b.bend[q]) ** 2;
  };
  const turn = (s: ContourSamples, start: number, k: number): number => s.turn[(start + k) % s.share.length];
  const known = new Map<string, number>();
  const to = (i: number, j: number): number => {
    if (i === 0 && j === 0) return 0;
    if (i <= 0 || j <= 0 || Math.abs(share(a, i0, i) - share(b, j0, j)) > 0.3) return Infinity;
    const key = `${i} ${j}`;
    const seen = known.get(key);
    if (seen !== undefined) return seen;
    let best = Infinity;
    for (const [di, dj] of STEPS) {
      const before = to(i - di, j - dj);
      if (before === Infinity) continue;
      const dsA = share(a, i0, i) - share(a, i0, i - di);
      const dsB = share(b, j0, j) - share(b, j0, j - dj);
      let corners = Math.abs(turn(a, i0, i) - turn(b, j0, j));
      for (let k = 1; k < di; k++) corners += Math.abs(turn(a, i0, i - k));
      for (let k = 1; k < dj; k++) corners += Math.abs(turn(b, j0, j - k));
      const mean = (node(i, j) + node(i - di, j - dj)) / 2;
      const cost = (mean * (dsA + dsB)) / 2 + (stretch * (dsA - dsB) ** 2) / (dsA + dsB) + (corner * corners) / Math.PI;
      best = Math.min(best, before + cost);
    }
    known.set(key, best);
    return best;
  };
  return to(a.count, b.count);
}

describe('the alignment of two rows of samples', () => {
  test('costs what the cheapest of all ways costs, found the slow way', () => {
    for (let round = 0; round < 12; round++) {
      const closed = round % 3 !== 0;
      const a = sampleContour(polygon(5 + (round % 4), closed), 16);
      const b = sampleContour(polygon(4 + (round % 5), closed), 14);
      const j0 = closed ? round % b.count : 0;
      for (const weights of [WEIGHTS, ...OTHER_WEIGHTS]) {
        const found = new SampleAligner(a, b, weights).align(0, j0);
        const wanted = cheapest(a, b, 0, j0, weights);
        if (wanted === Infinity) expect(found).toBeUndefined();
        else expect(found?.cost).toBeCloseTo(wanted, 9);
      }
    }
  });

  test('the way goes on along both sides from the start to the end, by the allowed steps', () => {
    const a = sampleContour(polygon(7), 30);
    const b = sampleContour(ellipseContour(0, 0, 50, 30), 25);
    const found = new SampleAligner(a, b).align(0, 3);
    expect([found?.i[0], found?.j[0]]).toEqual([0, 0]);
    expect([found?.i.at(-1), found?.j.at(-1)]).toEqual([a.count, b.count]);
    for (let k = 1; k < (found?.i.length ?? 0); k++) {
      const step = [(found?.i[k] ?? 0) - (found?.i[k - 1] ?? 0), (found?.j[k] ?? 0) - (found?.j[k - 1] ?? 0)];
      expect(STEPS).toContainEqual(step);
    }
  });

  test('a limit that cannot be met gives nothing, one that can changes nothing', () => {
    const aligner = new SampleAligner(sampleContour(polygon(6), 30), sampleContour(polygon(6), 30));
    const free = aligner.align(0, 0);
    expect(aligner.align(0, 0, { limit: (free?.cost ?? 0) * 0.5 })).toBeUndefined();
    expect(aligner.align(0, 0, { limit: (free?.cost ?? 0) * 2 })?.cost).toBe(free?.cost);
  });
});

describe('samples', () => {
  test('what is kept of them is what is sampled anew: by contour, count, kind and origin', () => {
    const keep = keepingSampler();
    const contours = [polygonContour([0, 0, 90, 0, 40, 70]), ellipseContour(0, 0, 30, 50)];
    const asked = contours.flatMap((contour) =>
      [16, 40].flatMap((wanted): Parameters<Sampler>[] => [
        [contour, wanted],
        [contour, wanted, false],
        [contour, wanted, false, 0.3],
      ]),
    );
    const first = asked.map((each) => keep(...each));
    expect(first).toEqual(asked.map((each) => sampleContour(...each)));
    asked.forEach((each, i) => void expect(keep(...each)).toBe(first[i]));
    expect(new Set(first).size).toBe(asked.length);
  });

  test('lie at every anchor, with its turning where it is a corner', () => {
    const square = sampleContour(polygonContour([0, 0, 10, 0, 10, 10, 0, 10]), 96);
    const corners = [...square.turn].map((turn, i) => ({ turn, i })).filter(({ turn }) => turn !== 0);
    expect(corners).toHaveLength(4);
    for (const { turn } of corners) expect(turn).toBeCloseTo(Math.PI / 2, 9);
    expect(corners.map(({ i }) => square.share[i])).toEqual([0, 0.25, 0.5, 0.75]);
  });

  test('a smooth outline has no corners, and its bends add up to one turn', () => {
    const circle = sampleContour(ellipseContour(3, 4, 20, 20), 100);
    expect(circle.turn.every((turn) => turn === 0)).toBe(true);
    // Each chord spans 2 % of the length, so it turns by 2 % of a full turn.
    for (const bend of circle.bend) expect(bend).toBeCloseTo(0.02 * 2 * Math.PI, 2);
  });

  test('positions are relative to the centroid and the mean radius: place and size do not count', () => {
    const small = sampleContour(ellipseContour(0, 0, 2, 1), 60);
    const large = sampleContour(ellipseContour(500, -300, 200, 100), 60);
    small.x.forEach((x, i) => expect(x).toBeCloseTo(large.x[i], 6));
    small.ty.forEach((ty, i) => expect(ty).toBeCloseTo(large.ty[i], 6));
  });

  test('corners keep their turning when the outline is moved and scaled, whatever rounding does', () => {
    for (let round = 0; round < 60; round++) {
      const points = Array.from({ length: 14 }, () => random() * 100);
      const k = 0.3 + 3 * random();
      const plain = sampleContour(polygonContour(points), 96);
      const moved = sampleContour(polygonContour(points.map((v, i) => v * k + (i % 2 === 0 ? 41.7 : -13.3))), 96);
      expect(moved.count).toBe(plain.count);
      plain.turn.forEach((turn, i) => expect(moved.turn[i]).toBeCloseTo(turn, 6));
    }
  });

  test('very many anchors are sampled evenly instead', () => {
    const many = sampleContour(polygon(400), 96);
    expect(many.count).toBe(96);
    expect(many.share[1] - many.share[0]).toBeCloseTo(1 / 96, 12);
  });
});
