import { describe, expect, test } from '@jest/globals';
import { type PieceDraft, plainStroke } from '../../piece';
import { countedIds, drawnPose, pieceBetween } from '../../testing/pieces';
import { isEmptyBox } from '../../vec';
import { planAndCompile } from '../lanes/plan-and-compile';
import { paintedBox } from './painted-box';
import { prepareFrame, sampleFrame } from './sample';
import { stillPiece } from './still-piece';

const newId = countedIds();
const part = (d: string, change = {}) => ({ ...drawnPose(d, newId).parts[0], ...change });
const RING = 'M10 10H110V110H10ZM40 40V80H80V40Z';
const PLAIN = 'M20 0L120 60L20 120Z';

describe('a piece that stands still', () => {
  const compiled = planAndCompile(pieceBetween([part(RING)], [part(PLAIN, { fill: '#ff8000' })]));

  test.each([0, 0.2, 0.5, 0.83, 1])('shows at any time what the other shows at %d s, to the last digit', (seconds) => {
    const still = stillPiece(compiled, seconds);
    const [wanted] = sampleFrame(compiled, seconds, prepareFrame(compiled)).figures;
    for (const time of [0, 7]) {
      const [found] = sampleFrame(still, time, prepareFrame(still)).figures;
      expect([...found.parts[0].points]).toEqual([...wanted.parts[0].points]);
      expect([...(found.parts[0].fill?.colour ?? [])]).toEqual([...(wanted.parts[0].fill?.colour ?? [])]);
    }
    expect(still.duration).toBe(0);
  });

  test('slits are those of the outline that is nearer in time', () => {
    const plan = (c: typeof compiled) => c.figures[0].spans[0].parts[0].plan.contours[0];
    const { bridgesA, bridgesB } = plan(compiled);
    expect(bridgesA).not.toEqual(bridgesB);
    expect(plan(stillPiece(compiled, 0.2))).toMatchObject({ bridgesA, bridgesB: bridgesA });
    expect(plan(stillPiece(compiled, 0.8))).toMatchObject({ bridgesA: bridgesB, bridgesB });
  });

  test('contours that are not there at that time are left out', () => {
    const letterI = 'M50 0H60V10H50ZM50 30H60V110H50Z';
    const dotted = planAndCompile(pieceBetween([part(letterI)], [part('M20 30H90V100H20Z')]));
    const count = (seconds: number): number =>
      stillPiece(dotted, seconds).figures[0].spans[0].parts[0].plan.contours.length;
    expect([count(0.1), count(1)]).toEqual([2, 1]);
  });
});

describe('the box of what is seen', () => {
  const boxAt = (from: object, also?: (draft: PieceDraft) => void) => {
    const draft = structuredClone(
      pieceBetween([part('M20 30H60V50H20Z', from)], [part('M20 30H60V50H20Z', from)]),
    ) as PieceDraft;
    also?.(draft);
    const compiled = planAndCompile(draft as never);
    return paintedBox(sampleFrame(compiled, 0, prepareFrame(compiled)));
  };
  test('an area is as large as its outline; a line reaches out by half its width, mitres by more', () => {
    expect(boxAt({})).toEqual({ minX: 20, minY: 30, maxX: 60, maxY: 50 });
    const round = { stroke: { ...plainStroke('#000000', 10), join: 'round' } };
    expect(boxAt(round)).toEqual({ minX: 15, minY: 25, maxX: 65, maxY: 55 });
    const pointed = { stroke: { ...plainStroke('#000000', 10), join: 'miter' } };
    expect(boxAt(pointed).minX).toBeLessThan(15);
  });
  test('what is hidden or thin as nothing is not seen', () => {
    expect(isEmptyBox(boxAt({}, (draft) => void (draft.figures.f.hidden = true)))).toBe(true);
    expect(isEmptyBox(boxAt({}, (draft) => void (draft.figures.f.opacity = 0)))).toBe(true);
  });
});
