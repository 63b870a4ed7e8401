import type { Easing } from '../../easing';
import { CoreError } from '../../errors';
import type { Shift } from '../records';
import { emptyPiece, newFigure, newPose, newShift } from '../records';
import { checkPiece } from './check-piece';

/**
 * Checks anything as an easing, as a piece would have it.
 * @throws CoreError 'piece-invalid', with what was expected and what came
 */
export function checkEasing(data: unknown): Easing {
  const shift: Shift = { ...newShift('s', 'a', 'b'), easing: data as Easing };
  const piece = checkPiece({
    ...structuredClone(emptyPiece('easing', 'Easing')),
    figureOrder: ['f'],
    figures: { f: { ...newFigure('f', 'Figure'), poses: ['a', 'b'], rail: ['s'] } },
    poses: { a: newPose('a', 'A', []), b: newPose('b', 'B', []) },
    shifts: { s: shift },
  });
  const { easing } = piece.shifts.s;
  if (!easing) throw new CoreError('piece-invalid', 'Expected an easing; found none.', '/easing');
  return easing;
}
