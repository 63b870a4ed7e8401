import { describe, expect, test } from '@jest/globals';
import { clampChroma, oklch, rgb as toRgb } from 'culori';
import { seededRandom } from '../../num';
import {
  addFreeKey,
  addLane,
  checkPiece,
  type Follow,
  type LaneProperty,
  type LaneRecord,
  type Piece,
  type PieceDraft,
  pieceDuration,
  setLaneAtStop,
} from '../../piece';
import { countedIds, pieceOf } from '../../testing/pieces';
import { frameAt } from '../picture/frame-at';
import { prepareFrame, runTime, sampleFrame } from '../picture/sample';
import { LaneBook } from './lane-book';
import { planAndCompile } from './plan-and-compile';

const SQUARE = 'M0 0H10V10H0Z';
const DIAMOND = 'M5 0L10 5L5 10L0 5Z';
const newId = countedIds();

/** Two figures of two poses each, 2.2 s with even shifts from 0.8 to 1.4 s; red becomes blue. */
function two(): PieceDraft {
  const draft = structuredClone(pieceOf([SQUARE, DIAMOND])) as PieceDraft;
  const other = JSON.parse(JSON.stringify(draft).replaceAll(/"(f|[pqcas]\d+)"/g, '"g$1"')) as PieceDraft;
  for (const table of ['figures', 'poses', 'parts', 'shifts'] as const) Object.assign(draft[table], other[table]);
  draft.figureOrder.push(...other.figureOrder);
  for (const shift of Object.values(draft.shifts)) shift.easing = { kind: 'linear' };
  for (const id of ['f', 'gf'])
    draft.figures[id].poses.forEach((pose, i) => {
      draft.parts[draft.poses[pose].parts[0]].fill = i === 0 ? '#ff0000' : '#0000ff';
    });
  draft.playback = 'once';
  return draft;
}
const FOLLOW: Follow = {
  figure: 'f',
  property: 'position',
  axis: null,
  factor: 1,
  offset: 0,
  delay: 0,
  colour: 'same',
};
const put = (draft: PieceDraft, figure: string | null, property: LaneProperty, made: Partial<LaneRecord>): void => {
  const id = `${figure}-${property}`;
  draft.lanes[id] = structuredClone({ id, figure, property, keys: [], ...made }) as PieceDraft['lanes'][string];
};
const at = (draft: PieceDraft, figure: string | null, property: LaneProperty, seconds: number): number[] => {
  const lane = new LaneBook(checkPiece(JSON.parse(JSON.stringify(draft)))).lane(figure, property);
  const out = new Float64Array(lane?.size ?? 0);
  lane?.sample(seconds, out);
  return [...out];
};

describe('what follows', () => {
  test('takes all numbers or one, times a factor, plus an offset, later; keys of its own add', () => {
    const draft = two();
    setLaneAtStop(draft, 'f', 'position', 1, [60, -30], newId);
    put(draft, 'gf', 'position', { follow: FOLLOW });
    expect(at(draft, 'gf', 'position', 1.1)).toEqual([expect.closeTo(30, 9), expect.closeTo(-15, 9)]);
    put(draft, 'gf', 'turn', { follow: { ...FOLLOW, axis: 1, factor: 2, offset: 5 } });
    expect(at(draft, 'gf', 'turn', 2)).toEqual([expect.closeTo(-55, 9)]);
    put(draft, 'gf', 'position', { follow: { ...FOLLOW, delay: 0.3 } });
    expect(at(draft, 'gf', 'position', 1.4)).toEqual([expect.closeTo(30, 9), expect.closeTo(-15, 9)]);
    setLaneAtStop(draft, 'gf', 'position', 0, [1000, 0], newId);
    expect(at(draft, 'gf', 'position', 0)).toEqual([1000, 0]);
    // What lies on top of nothing adds its difference from nothing: twice as large follows as twice as large.
    setLaneAtStop(draft, 'f', 'scale', 1, [2, 2], newId);
    put(draft, 'gf', 'scale', { follow: { ...FOLLOW, property: 'scale' } });
    expect(at(draft, 'gf', 'scale', 2)).toEqual([2, 2]);
  });
  test('in a loop, what is later at the beginning is what was at the end', () => {
    const draft = two();
    draft.playback = 'loop';
    setLaneAtStop(draft, 'f', 'position', 1, [60, -30], newId);
    put(draft, 'gf', 'position', { follow: { ...FOLLOW, delay: 0.3 } });
    expect(at(draft, 'gf', 'position', 0.1)).toEqual([60, -30]);
  });
  test('a colour follows what the other is painted with while it changes, and can be complementary', () => {
    const draft = two();
    put(draft, null, 'background', { follow: { ...FOLLOW, property: 'fill', colour: 'complementary' } });
    const [r, g, b, alpha] = at(draft, null, 'background', 0);
    // Red at its own lightness and the opposite hue, in as much chroma as sRGB has there, by culori.
    const red = oklch('red');
    const wanted = toRgb(
      clampChroma({ mode: 'oklch', l: red?.l ?? 0, c: red?.c ?? 0, h: (red?.h ?? 0) + 180 }, 'oklch'),
    );
    expect([r - (wanted?.r ?? 0), g - (wanted?.g ?? 0), b - (wanted?.b ?? 0)].every((v) => Math.abs(v) < 0.01)).toBe(
      true,
    );
    expect(alpha).toBe(1);
    expect(at(draft, null, 'background', 2.2)).not.toEqual([r, g, b, alpha]);
    const frame = frameAt(checkPiece(JSON.parse(JSON.stringify(draft))), 0);
    expect([...(frame.ground ?? [])]).toEqual([r, g, b, alpha]);
  });
});

describe('cycles of what follows', () => {
  test('are always found, in chains of any length, and named; chains without one pass', () => {
    const random = seededRandom(5);
    const properties = ['position', 'turn', 'scale', 'opacity', 'softness'] as const;
    let found = 0;
    for (let round = 0; round < 200; round++) {
      const draft = two();
      const lanes = ['f', 'gf'].flatMap((figure) => properties.map((property) => ({ figure, property })));
      const next = new Map<number, number>();
      lanes.forEach(({ figure, property }, i) => {
        if (random() < 0.4) return;
        const j = Math.floor(random() * lanes.length);
        if (j === i) return;
        next.set(i, j);
        put(draft, figure, property, { follow: { ...FOLLOW, ...lanes[j], axis: 0 } });
      });
      const circular = lanes.some((_, i) => {
        let [k, steps] = [next.get(i), 0];
        while (k !== undefined && k !== i && steps++ < lanes.length) k = next.get(k);
        return k === i;
      });
      const check = (): Piece => checkPiece(JSON.parse(JSON.stringify(draft)));
      if (circular) {
        found++;
        expect(check).toThrow(/not lead back to the lane itself; found .* → /);
      } else expect(check).not.toThrow();
    }
    expect(found).toBeGreaterThan(30);
  });
  test('a lane that would follow itself is refused with its name', () => {
    const draft = two();
    put(draft, 'f', 'position', { follow: FOLLOW });
    expect(() => checkPiece(JSON.parse(JSON.stringify(draft)))).toThrow(/position of Figure → position of Figure/);
  });
});

describe('drift and pulse', () => {
  test('are functions of time: the same however a moment is reached', () => {
    const draft = two();
    put(draft, 'f', 'position', {
      drift: { amount: [10, 20], speed: 2, seed: 4 },
      pulse: { shape: 'saw', period: 0.25, from: 2 / 3, until: null, amount: [12, 0] },
    });
    const compiled = planAndCompile(checkPiece(JSON.parse(JSON.stringify(draft))));
    const played = Array.from({ length: 120 }, (_, n) => n);
    const read = (frames: readonly number[]): Map<number, string> => {
      const frame = prepareFrame(compiled);
      return new Map(
        frames.map((n) => [n, String([...(sampleFrame(compiled, n / 60, frame).figures[0].motion?.position ?? [])])]),
      );
    };
    const random = seededRandom(9);
    const shuffled = [...played].sort(() => random() - 0.5);
    const [first, second] = [read(played), read(shuffled)];
    for (const n of played) expect(second.get(n)).toBe(first.get(n));
  });
  test('a saw-tooth every 15 frames from frame 40 on comes back at once each time', () => {
    const draft = two();
    put(draft, 'f', 'turn', { pulse: { shape: 'saw', period: 15 / 60, from: 40 / 60, until: null, amount: [30] } });
    const value = (n: number): number => +at(draft, 'f', 'turn', n / 60)[0].toFixed(6);
    expect([0, 39, 40, 41, 54, 55, 69, 70, 85].map(value)).toEqual([0, 0, 0, 2, 28, 0, 28, 0, 0]);
  });
  test('the numbers of a lane drift each by itself', () => {
    const draft = two();
    put(draft, 'f', 'position', { drift: { amount: [10, 10], speed: 1.3, seed: 4 } });
    const [x, y] = at(draft, 'f', 'position', 0.55);
    expect(Math.abs(x - y)).toBeGreaterThan(0.1);
  });
  test('drift closes a loop: its end is its beginning', () => {
    const draft = two();
    draft.playback = 'loop';
    put(draft, 'f', 'position', { drift: { amount: [10, 20], speed: 1.3, seed: 4 } });
    const end = pieceDuration(draft as Piece);
    const [a, b] = [at(draft, 'f', 'position', 1e-6), at(draft, 'f', 'position', end - 1e-6)];
    expect(Math.hypot(a[0] - b[0], a[1] - b[1])).toBeLessThan(1e-3);
  });
});

describe('lanes in place of paint', () => {
  test('begin with what the figure has at each stop, and change nothing until they are changed', () => {
    const draft = two();
    addLane(draft, 'f', 'fill', newId);
    expect([0, 2].map((t) => at(draft, 'f', 'fill', t))).toEqual([
      [1, 0, 0, 1].map((v) => expect.closeTo(v, 6)),
      [0, 0, 1, 1].map((v) => expect.closeTo(v, 6)),
    ]);
    const piece = checkPiece(JSON.parse(JSON.stringify(draft)));
    const [figure] = frameAt(piece, 1.1).figures;
    const [own] = frameAt(checkPiece(JSON.parse(JSON.stringify(two()))), 1.1).figures;
    [...(figure.over?.fill?.colour ?? [])].forEach((v, i) =>
      expect(v).toBeCloseTo(own.parts[0].fill?.colour[i] ?? 0, 9),
    );
  });
  test('the background of the canvas has keys at times', () => {
    const draft = two();
    draft.canvas.background = '#ffffff';
    const lane = addLane(draft, null, 'background', newId) ?? '';
    addFreeKey(draft, lane, 1, [0, 0, 0, 1], newId);
    draft.lanes[lane].keys[0].easing = { kind: 'linear' };
    expect(at(draft, null, 'background', 0)).toEqual([1, 1, 1, 1].map((v) => expect.closeTo(v, 6)));
    expect(at(draft, null, 'background', 3)).toEqual([0, 0, 0, 1].map((v) => expect.closeTo(v, 6)));
  });
});

describe('turning along a path', () => {
  test('adds the direction to the turn, and stands as it arrived while it rests', () => {
    const draft = two();
    put(draft, 'f', 'position', {
      along: true,
      keys: [
        {
          id: 'a',
          stop: { pose: draft.figures.f.poses[0], shift: null },
          after: 0.2,
          value: [0, 0],
          easing: { kind: 'linear' },
        },
        {
          id: 'b',
          stop: { pose: draft.figures.f.poses[0], shift: null },
          after: 0.6,
          value: [0, 50],
          easing: { kind: 'linear' },
        },
        {
          id: 'c',
          stop: { pose: draft.figures.f.poses[0], shift: null },
          after: 0.8,
          value: [0, 50],
          easing: { kind: 'linear' },
        },
        {
          id: 'd',
          stop: { pose: draft.figures.f.poses[0], shift: null },
          after: 1,
          value: [-50, 50],
          easing: { kind: 'linear' },
        },
      ],
    });
    const compiled = planAndCompile(checkPiece(JSON.parse(JSON.stringify(draft))));
    const turn = (t: number): number =>
      sampleFrame(compiled, t, prepareFrame(compiled)).figures[0].motion?.turn[0] ?? Number.NaN;
    expect([0.4, 0.7, 0.9, 2].map((t) => +turn(t).toFixed(6))).toEqual([90, 90, 180, 180]);
  });
});

describe('ways of playing', () => {
  const run = { duration: 2, stretch: [0.5, 1.5] as const };
  test('there and back shows each end once, a stretch goes on from its beginning', () => {
    const back = (t: number) => +runTime({ ...run, playback: 'back' }, t).toFixed(9);
    expect([0, 1.5, 2, 2.5, 3.9, 4, 4.5].map(back)).toEqual([0, 1.5, 2, 1.5, 0.1, 0, 0.5]);
    const stretch = (t: number) => +runTime({ ...run, playback: 'stretch' }, t).toFixed(9);
    expect([0, 0.4, 1.49, 1.5, 1.9, 2.5, 12.75].map(stretch)).toEqual([0, 0.4, 1.49, 0.5, 0.9, 0.5, 0.75]);
  });
});
