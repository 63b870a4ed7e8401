import { describe, expect, test } from '@jest/globals';
import { seededRandom } from '../../num';
import { countedIds, pieceOf } from '../../testing/pieces';
import type { Piece } from '../records/records';
import { frameCount, pieceDuration, railTimeline } from '../time/rail';
import type { PieceDraft } from './edit';
import { addFreeKey, setLaneAtStop } from './edit-lanes';
import { RATES, readRate, retime, retimeSome, secondsOf, setRate, snapToFrames } from './retime';

const SQUARE = 'M0 0H10V10H0Z';
const draftOf = (): PieceDraft => structuredClone(pieceOf([SQUARE, 'M0 0H9V9Z', SQUARE])) as PieceDraft;

describe('retiming', () => {
  test('everything: keeps the order and the proportions, and free keys in their places', () => {
    const random = seededRandom(3);
    for (let i = 0; i < 40; i++) {
      const draft = draftOf();
      for (const pose of Object.values(draft.poses)) pose.hold = 0.1 + random() * 3;
      for (const shift of Object.values(draft.shifts)) shift.duration = 0.1 + random() * 3;
      const newId = countedIds();
      setLaneAtStop(draft, 'f', 'turn', 1, [90], newId);
      const [lane] = Object.keys(draft.lanes);
      const before = structuredClone(draft) as Piece;
      addFreeKey(draft, lane, pieceDuration(before) * random(), [5], newId);
      const share = (piece: PieceDraft): number => {
        const key = piece.lanes[lane].keys.at(-1);
        const { stops, duration } = railTimeline(piece as Piece, piece.figures.f as Piece['figures'][string]);
        return (stops.filter(({ poseId }) => poseId === key?.stop?.pose)[0].start + (key?.after ?? 0)) / duration;
      };
      const at = share(draft);
      const factor = 0.2 + random() * 4;
      retime(draft, factor);
      expect(pieceDuration(draft as Piece)).toBeCloseTo(pieceDuration(before) * factor, 4);
      expect(share(draft)).toBeCloseTo(at, 4);
      const starts = railTimeline(draft as Piece, draft.figures.f as Piece['figures'][string]).stops.map(
        ({ start }) => start / factor,
      );
      railTimeline(before, before.figures.f).stops.forEach(({ start }, k) => expect(starts[k]).toBeCloseTo(start, 4));
    }
  });
  test('some: the others stay as they are; together they last as long as was asked', () => {
    const draft = draftOf();
    const { poses, rail } = draft.figures.f;
    const piece = structuredClone(draft) as Piece;
    const before = secondsOf(piece, piece.figures.f, [0, 1], [rail[0]]);
    expect(before).toBeCloseTo(0.8 + 0.6 + 0.8, 9);
    retimeSome(draft, { poses: poses.slice(0, 2), shifts: [rail[0]] }, 3.3 / before);
    const after = structuredClone(draft) as Piece;
    expect(secondsOf(after, after.figures.f, [0, 1], [rail[0]])).toBeCloseTo(3.3, 5);
    expect([after.poses[poses[2]].hold, after.shifts[rail[1]].duration]).toEqual([0.8, 0.6]);
  });
  test('nothing is made so short that it cannot be stored; what takes no time goes on taking none', () => {
    const draft = draftOf();
    Object.values(draft.shifts)[0].duration = 0;
    retime(draft, 1e-9);
    expect(Object.values(draft.poses).map(({ hold }) => hold)).toEqual([1e-4, 1e-4, 1e-4]);
    expect(Object.values(draft.shifts)[0].duration).toBe(0);
  });
});

describe('rates', () => {
  test('another one keeps the seconds, or the frames', () => {
    const seconds = draftOf();
    setRate(seconds, { num: 12, den: 1 }, 'seconds');
    expect([pieceDuration(seconds as Piece), frameCount(seconds as Piece)]).toEqual([expect.closeTo(3.6, 9), 44]);
    const frames = draftOf();
    setRate(frames, { num: 12, den: 1 }, 'frames');
    expect([pieceDuration(frames as Piece), frameCount(frames as Piece)]).toEqual([expect.closeTo(18, 4), 216]);
    setRate(frames, { num: 60, den: 1 }, 'frames');
    expect(pieceDuration(frames as Piece)).toBeCloseTo(3.6, 4);
  });
  test('are exact fractions: 29.97 is 30000/1001, as colour television has it (SMPTE ST 170)', () => {
    expect(readRate('29.97')).toEqual({ num: 30_000, den: 1_001 });
    expect(readRate('23.976 fps')).toEqual({ num: 24_000, den: 1_001 });
    expect(readRate('24')).toEqual({ num: 24, den: 1 });
    expect(readRate('12.5')).toEqual({ num: 25, den: 2 });
    expect(readRate('60000/1001')).toEqual({ num: 60_000, den: 1_001 });
    expect(readRate('48/2')).toEqual({ num: 24, den: 1 });
    for (const none of ['', 'fast', '0', '-3', '1e9', '900', '1/0', '24/0.5']) expect(readRate(none)).toBeUndefined();
    expect(RATES.map(({ num, den }) => +(num / den).toFixed(3))).toEqual([12, 15, 23.976, 24, 25, 29.97, 30, 50, 60]);
  });
  test('times are rounded to whole frames, one at least', () => {
    const draft = draftOf();
    draft.canvas.rate = { num: 12, den: 1 };
    const [a, b, c] = draft.figures.f.poses;
    draft.poses[a].hold = 0.3;
    draft.poses[b].hold = 0.001;
    draft.poses[c].hold = 0;
    snapToFrames(draft);
    expect([a, b, c].map((id) => draft.poses[id].hold * 12)).toEqual([expect.closeTo(4, 4), expect.closeTo(1, 4), 0]);
  });
  test('what is later, drifts and pulses goes along', () => {
    const draft = structuredClone(pieceOf(['M0 0H1V1Z', 'M0 0H2V1Z'])) as PieceDraft;
    draft.lanes.l = {
      id: 'l',
      figure: 'f',
      property: 'turn',
      keys: [],
      follow: { figure: 'f', property: 'opacity', axis: null, factor: 1, offset: 0, delay: 0.4, colour: 'same' },
      drift: { amount: [5], speed: 2, seed: 1 },
      pulse: { shape: 'saw', period: 0.5, from: 1, until: 3, amount: [5] },
    };
    retime(draft, 2);
    const { follow, drift, pulse } = draft.lanes.l;
    expect([follow?.delay, drift?.speed, pulse?.period, pulse?.from, pulse?.until]).toEqual([0.8, 1, 1, 2, 6]);
  });
});
