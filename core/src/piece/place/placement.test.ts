import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { areaCentre, enclosingCircle, outlineBox, transformOutline } from '../../outline';
import { countedIds, drawnPose, pieceOf } from '../../testing/pieces';
import { multiply, rotation, scaling, translation } from '../../vec';
import { type PieceDraft, setPlacementRule } from '../edit/edit';
import { AS_DRAWN, emptyPiece } from '../records/defaults';
import { outlineOfPart, placementMatrix } from '../records/geometry';
import type { Piece, Placement } from '../records/records';
import { mapPlacement, placeByRule } from './placement';

const SQUARE = 'M0 0H10V10H0Z';
const L_SHAPE = 'M0 0H60V20H20V80H0Z';
const draftOf = (...ds: string[]): PieceDraft => structuredClone(pieceOf(ds)) as PieceDraft;
const placed = (piece: Piece, pose: string) =>
  transformOutline(
    outlineOfPart(piece.parts[piece.poses[pose].parts[0]]),
    placementMatrix(piece.poses[pose].placement),
  );

describe('placements', () => {
  test('mapping a placement is mapping what it places, for moves, turns, mirrors and scaling along the axes', () => {
    const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    fc.assert(
      fc.property(
        number(-50, 50),
        number(0.2, 3),
        number(0.2, 3),
        fc.boolean(),
        number(-200, 200),
        number(-3, 3),
        number(0.3, 2),
        fc.boolean(),
        (x, sx, sy, flip, turn, angle, k, mirror) => {
          const before: Placement = { x, y: -x, scaleX: flip ? -sx : sx, scaleY: sy, rotation: turn, rule: null };
          const map = multiply(translation(4, -9), multiply(rotation(angle), scaling(mirror ? -k : k, k)));
          const wanted = multiply(map, placementMatrix(before));
          placementMatrix(mapPlacement(before, map)).forEach((v, i) => {
            expect(v).toBeCloseTo(wanted[i], 6);
          });
        },
      ),
      { seed: 8, numRuns: 200 },
    );
  });

  test('centring by area, box and enclosing circle put three different middles on the target', () => {
    const { parts } = drawnPose(L_SHAPE, countedIds());
    const canvas = emptyPiece('x', 'X').canvas;
    const outline = outlineOfPart(parts[0]);
    const middle = (placement: Placement, of: { x: number; y: number }): number[] => {
      const [a, b, c, d, e, f] = placementMatrix(placement);
      return [a * of.x + c * of.y + e, b * of.x + d * of.y + f];
    };
    const box = outlineBox(outline);
    const middles = {
      area: areaCentre(outline),
      box: { x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2 },
      circle: enclosingCircle(outline),
    };
    for (const centre of ['area', 'box', 'circle'] as const) {
      const at = placeByRule({ centre, fit: 'longest', to: 'canvas' }, parts, canvas);
      middle(at, middles[centre]).forEach((v) => {
        expect(v).toBeCloseTo(320, 6);
      });
    }
    expect(Math.hypot(middles.area.x - middles.circle.x, middles.area.y - middles.circle.y)).toBeGreaterThan(5);
  });

  test('by eye lies between area and longest side: a thin star is made larger than by its box, smaller than by its area', () => {
    const star = drawnPose('M50 0L58 42L100 50L58 58L50 100L42 58L0 50L42 42Z', countedIds()).parts;
    const disc = drawnPose('M0 0H100V100H0Z', countedIds()).parts;
    const canvas = emptyPiece('x', 'X').canvas;
    const scale = (fit: 'longest' | 'area' | 'eye'): number =>
      placeByRule({ centre: 'area', fit, to: 'previous' }, star, canvas, { parts: disc, placement: AS_DRAWN }).scaleX;
    expect(scale('longest')).toBeCloseTo(1, 9);
    expect(scale('eye')).toBeGreaterThan(scale('longest'));
    expect(scale('eye')).toBeLessThan(scale('area'));
  });

  test('turned and mirrored poses keep their rule and stay centred', () => {
    const draft = draftOf(SQUARE, L_SHAPE);
    const id = draft.figures.f.poses[1];
    draft.poses[id].placement.rotation = 30;
    draft.poses[id].placement.scaleX *= -1;
    setPlacementRule(draft, 'f', id, { centre: 'box', fit: 'longest', to: 'previous' });
    const { placement } = (draft as Piece).poses[id];
    expect([placement.rotation, Math.sign(placement.scaleX), Math.sign(placement.scaleY)]).toEqual([30, -1, 1]);
    const box = outlineBox(placed(draft as Piece, id));
    expect([(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2].map((v) => +v.toFixed(6))).toEqual([320, 320]);
  });

  test('into a box: wholly inside it, touching two sides', () => {
    const { parts } = drawnPose(L_SHAPE, countedIds());
    const at = placeByRule(
      { centre: 'box', fit: 'longest', to: 'box', box: [100, 50, 30, 80] },
      parts,
      emptyPiece('x', 'X').canvas,
    );
    const box = outlineBox(transformOutline(outlineOfPart(parts[0]), placementMatrix(at)));
    expect([box.minX, box.maxX].map((v) => +v.toFixed(6))).toEqual([100, 130]);
    expect(box.minY).toBeGreaterThanOrEqual(50);
    expect(box.maxY).toBeLessThanOrEqual(130);
  });
});
