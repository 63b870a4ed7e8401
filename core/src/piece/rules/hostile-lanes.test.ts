import { describe, expect, test } from '@jest/globals';
import { LaneBook, planAndCompile, prepareFrame, sampleFrame } from '../../frame';
import { seededRandom } from '../../num';
import { countedIds, pieceOf } from '../../testing/pieces';
import type { PieceDraft } from '../edit/edit';
import { addFreeKey, addLane, keepLanes, setLaneAtStop } from '../edit/edit-lanes';
import { FIGURE_LANES, neutralOf } from '../records/lane-values';
import type { LaneProperty, LaneRecord, Piece } from '../records/records';
import { checkPiece } from './check-piece';

const newId = countedIds();
/** Two poses held for 0.8 s with a shift of 0.6 s; a lane of turn from 0 to 90°. */
function turned(): PieceDraft {
  const draft = structuredClone(pieceOf(['M0 0H10V10H0Z', 'M5 0L10 5L5 10L0 5Z'])) as PieceDraft;
  draft.playback = 'once';
  draft.figures.f.middle = [5, 5];
  setLaneAtStop(draft, 'f', 'turn', 1, [90], newId);
  return draft;
}
const checked = (draft: PieceDraft): Piece => checkPiece(JSON.parse(JSON.stringify(draft)));
const laneOf = (draft: PieceDraft) => Object.values(draft.lanes)[0];
const follow = (property: LaneProperty, figure: string | null = 'f'): NonNullable<LaneRecord['follow']> => ({
  figure,
  property,
  axis: null,
  factor: 1,
  offset: 0,
  delay: 0,
  colour: 'same',
});
const turnAt = (piece: Piece, seconds: number): number => {
  const compiled = planAndCompile(piece);
  return sampleFrame(compiled, seconds, prepareFrame(compiled)).figures[0].motion?.turn[0] ?? Number.NaN;
};

describe('lanes of files from anywhere', () => {
  test.each<[string, RegExp, (draft: PieceDraft) => void]>([
    ['a value that is no number', /value\/0 must be number/, (d) => void (laneOf(d).keys[0].value = ['1' as never])],
    ['a value beyond all canvases', /value\/0 must be <=/, (d) => void (laneOf(d).keys[0].value = [1e300])],
    ['a negative duration', /duration must be >= 0/, (d) => void (d.shifts[d.figures.f.rail[0]].duration = -1)],
    ['an opacity of 2', /from 0 to 1, for opacity/, (d) => setLaneAtStop(d, 'f', 'opacity', 1, [2], newId)],
    ['a stroke of −1 px', /be 0 or more/, (d) => setLaneAtStop(d, 'f', 'strokeWidth', 1, [-1], newId)],
    ['a drawn part from −0.5', /from 0 to 1, for drawn/, (d) => setLaneAtStop(d, 'f', 'drawn', 1, [-0.5, 1, 0], newId)],
    ['a background of a figure', /be of a figure/, (d) => void (laneOf(d).property = 'background')],
    ['a turn of the canvas', /be background, for the canvas/, (d) => void (laneOf(d).figure = null)],
    ['a key without a stop', /name a stop of the figure/, (d) => void (laneOf(d).keys[0].stop = null)],
    [
      'a follow of nobody',
      /follow\/figure must name a figure/,
      (d) => void (laneOf(d).follow = follow('turn', 'gone')),
    ],
    ['a follow of itself', /not lead back/, (d) => void (laneOf(d).follow = follow('turn'))],
    ['a turn that follows a colour', /same kind as turn/, (d) => void (laneOf(d).follow = follow('fill'))],
    ['a turn that follows two numbers', /same kind as turn/, (d) => void (laneOf(d).follow = follow('position'))],
    [
      'a pulse of no time',
      /period must be >=/,
      (d) => {
        laneOf(d).pulse = { shape: 'saw', period: 0, from: 0, until: null, amount: [1] };
      },
    ],
    [
      'a pulse of too few numbers',
      /2 numbers for position/,
      (d) => {
        const lane = addLane(d, 'f', 'position', newId) ?? '';
        d.lanes[lane].pulse = { shape: 'saw', period: 1, from: 0, until: null, amount: [1] };
      },
    ],
    [
      'a drift of colours',
      /be left out for colours/,
      (d) => {
        const lane = addLane(d, 'f', 'fill', newId) ?? '';
        d.lanes[lane].drift = { amount: [0.1], speed: 1, seed: 1 };
      },
    ],
    [
      'more keys than there can be',
      /must NOT have more than 10000/,
      (d) => {
        const [key] = laneOf(d).keys;
        laneOf(d).keys = Array.from({ length: 10_001 }, (_, i) => ({ ...key, id: `k${i}`, after: i / 100 }));
      },
    ],
    [
      'a handle that is no pair',
      /path\/out must NOT have fewer/,
      (d) => {
        laneOf(d).keys[0].path = { out: [1] as never };
      },
    ],
    [
      'a stretch of a stop without a name',
      /stretch/,
      (d) => {
        d.stretch = { from: { at: { figure: 'f' } as never, after: 0 }, until: { at: null, after: 1 } };
      },
    ],
  ])('%s is refused with what was expected and where', (_name, message, spoil) => {
    const draft = turned();
    spoil(draft);
    expect(() => checked(draft)).toThrow(message);
  });

  test('a shift of 0 s is a cut, a key before the beginning counts from there, two keys at one time are a jump', () => {
    const draft = turned();
    draft.shifts[draft.figures.f.rail[0]].duration = 0;
    expect([0.79, 0.81].map((t) => turnAt(checked(draft), t))).toEqual([0, 90]);
    const early = turned();
    addFreeKey(early, laneOf(early).id, 0, [-40], newId);
    laneOf(early).keys[2].after = -1;
    expect(turnAt(checked(early), 0)).toBe(0);
    const jump = turned();
    for (const value of [20, 50]) addFreeKey(jump, laneOf(jump).id, 1, [value], newId);
    for (const key of laneOf(jump).keys) key.easing = { kind: 'linear' };
    expect([0.999, 1.001].map((t) => Math.round(turnAt(checked(jump), t)))).toEqual([20, 50]);
  });

  test('10,000 keys are taken, and a moment is found among them', () => {
    const draft = turned();
    const [key] = laneOf(draft).keys;
    laneOf(draft).keys = Array.from({ length: 10_000 }, (_, i) => ({
      ...key,
      id: `k${i}`,
      after: i / 10_000,
      value: [i],
      easing: { kind: 'linear' as const },
    }));
    expect(turnAt(checked(draft), 0.5)).toBeCloseTo(5000, 6);
  });

  test('a spring that would never settle swings as long as springs may, and ends at its value all the same', () => {
    const draft = turned();
    const [shift] = draft.figures.f.rail;
    const physics = { mass: 1, stiffness: 400, damping: 0.0001, speed: 0 };
    draft.shifts[shift].easing = { kind: 'spring', bounce: 0.5, physics };
    const piece = checked(draft);
    const lane = new LaneBook(piece).lane('f', 'turn');
    const out = new Float64Array(1);
    const turns = Array.from({ length: 5000 }, (_, k) => {
      lane?.sample(0.8 + (0.6 * k) / 5000, out);
      return out[0];
    });
    expect(turns.every((turn) => turn >= -90 && turn <= 180)).toBe(true);
    expect(turns.some((turn) => turn > 150)).toBe(true);
    expect(turnAt(piece, 1.4)).toBe(90);
  });

  test('what followed a figure that is gone keeps its keys, and goes where it had none', () => {
    const draft = turned();
    draft.lanes.free = { id: 'free', figure: 'f', property: 'opacity', keys: [], follow: follow('opacity', 'gone') };
    laneOf(draft).follow = follow('turn', 'gone');
    const changed = keepLanes(draft as Piece, draft as Piece);
    expect([changed.get('free'), changed.get(laneOf(draft).id)?.keys.length]).toEqual([null, 2]);
    expect(changed.get(laneOf(draft).id)?.follow).toBeUndefined();
  });
});

describe('equal neighbouring keys', () => {
  test('never move, whatever their handles, easings and overshoot say: 200 seeded lanes of all properties', () => {
    const random = seededRandom(17);
    const properties: readonly LaneProperty[] = FIGURE_LANES;
    for (let i = 0; i < 200; i++) {
      const draft = turned();
      const property = properties[i % properties.length];
      const value = neutralOf(property).map(() => Math.round(random() * 1000) / 1000);
      draft.lanes = {};
      const lane = addLane(draft, 'f', property, newId) ?? '';
      draft.lanes[lane].keys = [];
      for (let k = 0; k < 4; k++) addFreeKey(draft, lane, random() * 2.2, value, newId);
      for (const key of draft.lanes[lane].keys) {
        key.easing = { kind: 'back', side: 'both', overshoot: 1 + 3 * random() };
        key.path = { in: [100 * random(), -50], out: [-80, 90 * random()] };
      }
      const made = new LaneBook(checked(draft)).lane('f', property);
      const out = new Float64Array(value.length);
      const seen = new Set(
        Array.from({ length: 50 }, () => {
          made?.sample(random() * 2.4 - 0.1, out);
          return String(out);
        }),
      );
      expect(seen.size).toBe(1);
    }
  });
  test('a hold without lanes that move is the very same picture throughout', () => {
    const draft = turned();
    const compiled = planAndCompile(checked(draft));
    const frame = prepareFrame(compiled);
    const picture = (seconds: number): string => {
      const [{ motion, parts, opacity }] = sampleFrame(compiled, seconds, frame).figures;
      return JSON.stringify([[...(motion?.turn ?? [])], [...opacity], parts.map(({ points }) => [...points])]);
    };
    for (const [from, until] of [
      [0, 0.8],
      [1.4, 2.2],
    ]) {
      const first = picture(from);
      for (let k = 1; k < 48; k++) expect(picture(from + ((until - from) * k) / 48)).toBe(first);
    }
  });
});
