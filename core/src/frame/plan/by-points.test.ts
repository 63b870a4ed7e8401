import { describe, expect, test } from '@jest/globals';
import { evaluate } from '../../morph';
import { outlineOfPart, type PieceDraft } from '../../piece';
import { inputBetween, pieceOf } from '../../testing/pieces';
import { shiftInput } from '../lanes/input-of-shift';
import { canGoByPoints } from './by-points';
import { planPoseShift } from './part-plans';

const SQUARE = 'M0 0H40V40H0Z';
/** The same square, begun at another corner and run the other way: a match would find that nothing has to move. */
const TURNED = 'M40 40V0H0V40Z';

function piece(...ds: string[]) {
  const draft = structuredClone(pieceOf(ds)) as PieceDraft;
  const [shift] = draft.figures.f.rail;
  draft.shifts[shift].method = 'points';
  for (const pose of Object.values(draft.poses))
    pose.placement = { ...pose.placement, x: 0, y: 0, scaleX: 1, scaleY: 1, rule: null };
  return { draft, shift: draft.shifts[shift] };
}

describe('a shift that goes point by point', () => {
  test('each point goes straight to the one with its number, whatever that looks like', () => {
    const { draft, shift } = piece(SQUARE, TURNED);
    const { parts, reasons } = planPoseShift(shiftInput(draft as never, shift as never));
    expect(reasons.map(({ code }) => code)).toEqual(['by-points']);
    const [a, b] = Object.values(draft.parts).map((part) => outlineOfPart(part as never).contours[0].points);
    for (const share of [0, 0.25, 0.5, 1, 1.2]) {
      const between = evaluate(parts[0].plan, share);
      for (const [i, v] of between.entries()) expect(v).toBeCloseTo(a[i] + (b[i] - a[i]) * share, 3);
    }
  });

  test('parts go by their order, though others would be nearer', () => {
    const { draft, shift } = piece(SQUARE, TURNED);
    const [from, to] = Object.values(draft.poses);
    const copy = (id: string, by: number): string => {
      const part = structuredClone(draft.parts[id]);
      part.id = `${id}-${by}`;
      part.contours = part.contours.map((contour) => ({
        ...contour,
        anchors: contour.anchors.map((anchor) => ({
          ...anchor,
          at: [anchor.at[0] + by, anchor.at[1]] as [number, number],
        })),
      }));
      draft.parts[part.id] = part;
      return part.id;
    };
    from.parts = [from.parts[0], copy(from.parts[0], 200)];
    to.parts = [copy(to.parts[0], 200), to.parts[0]];
    const { parts } = planPoseShift(shiftInput(draft as never, shift as never));
    expect(parts.map(({ a, b }) => [a, b])).toEqual([
      [from.parts[0], to.parts[0]],
      [from.parts[1], to.parts[1]],
    ]);
  });

  test('outlines that are not built alike are matched as else', () => {
    const { draft, shift } = piece(SQUARE, 'M0 0H40L20 40Z');
    expect(canGoByPoints(draft as never, shift as never)).toBe(false);
    const { reasons } = planPoseShift(shiftInput(draft as never, shift as never));
    expect(reasons.some(({ code }) => code === 'by-points')).toBe(false);
    const alike = piece(SQUARE, TURNED);
    expect(canGoByPoints(alike.draft as never, alike.shift as never)).toBe(true);
  });

  test('an open outline does not become a closed one point by point', () => {
    const part = (d: string) => Object.values(pieceOf([d]).parts);
    const placement = { x: 0, y: 0, scaleX: 1, scaleY: 1, rotation: 0, rule: null };
    const stroked = (d: string) => ({
      placement,
      parts: part(d).map((each) => ({ ...each, fill: null })),
    });
    const input = inputBetween(stroked('M0 0H40V40H0'), stroked('M0 0H40V40Z'), { method: 'points' });
    expect(planPoseShift(input).reasons.some(({ code }) => code === 'by-points')).toBe(false);
  });
});
