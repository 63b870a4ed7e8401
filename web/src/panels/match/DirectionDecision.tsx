import type { ContourDirection, Piece, PoseShiftPlan, Shift } from '@core';
import { setContourDirection } from '../../editor';
import type { AppStore } from '../../state';
import { SelectField } from '../../ui';
import { ChoiceField } from './ChoiceDecision';
import { Decided } from './Decided';
import { pairedContours } from './planned-contours';

/** Which way the second outline is run; where several contours have a partner, also for each of them. */
export function DirectionDecision({
  store,
  piece,
  shift,
  plan,
  onBack,
}: {
  readonly store: AppStore;
  readonly piece: Piece;
  readonly shift: Shift;
  readonly plan: PoseShiftPlan | undefined;
  readonly onBack: () => void;
}) {
  const { direction, directions } = shift.match;
  const order = piece.poses[shift.from].parts.flatMap((id) => piece.parts[id].contours.map((contour) => contour.id));
  const pairs = [...pairedContours(piece, plan)].sort(([p], [q]) => order.indexOf(p) - order.indexOf(q));
  return (
    <Decided title="Direction" own={direction !== 'auto' || directions.length > 0} onBack={onBack}>
      <ChoiceField title="Direction" name="direction" store={store} shift={shift} />
      {pairs.length > 1 &&
        pairs.map(([contour, reversed]) => {
          const own = directions.find((other) => other.contour === contour)?.direction;
          const all = direction === 'auto' ? 'Automatic' : 'As above';
          return (
            <SelectField
              key={contour}
              label={`Contour ${order.indexOf(contour) + 1}`}
              value={own ?? 'all'}
              options={[
                { value: 'all', label: own ? all : `${all}: ${reversed ? 'reversed' : 'as drawn'}` },
                { value: 'same', label: 'As drawn' },
                { value: 'reversed', label: 'Reversed' },
              ]}
              onChange={(value) =>
                setContourDirection(
                  store,
                  shift.id,
                  contour,
                  value === 'all' ? null : (value as ContourDirection['direction']),
                )
              }
            />
          );
        })}
    </Decided>
  );
}
