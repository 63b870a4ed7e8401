import { type PoseAlternative, type PoseShiftPlan, type Shift, shiftInput } from '@core';
import { useEffect, useState } from 'react';
import { useEngines } from '../../context';
import { type MatchEditing, squareViewBox, takeAlternative } from '../../editor';
import type { AppStore } from '../../state';
import { VERDICT } from '../../ui';

/** Is it the one that was taken? */
const isTaken = ({ match: { taken } }: Shift, { choice }: PoseAlternative): boolean =>
  taken !== null && String(taken.look) === String(choice.taken.look);

/** Other ways to do the shift, each with its half-way picture; pressing one decides for it. */
export function MatchAlternatives({
  editing,
  store,
  shift,
  plan,
}: {
  readonly editing: MatchEditing;
  readonly store: AppStore;
  readonly shift: Shift;
  readonly plan: PoseShiftPlan | undefined;
}) {
  const engines = useEngines();
  const [found, setFound] = useState<readonly PoseAlternative[] | string | undefined>(undefined);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another plan means that something changed
  useEffect(() => {
    let left = false;
    const at = editing.current();
    if (!at) return;
    engines.alternatives.rankShift(shiftInput(at.piece, at.shift)).then(
      (list) => !left && setFound(list),
      (error: Error) => !left && setFound(error.message),
    );
    return () => {
      left = true;
      // What nobody waits for is not computed to its end.
      engines.alternatives.cancel();
    };
  }, [
    editing,
    engines,
    shift.match.direction,
    shift.match.directions,
    shift.match.ties,
    shift.match.pairs,
    shift.match.wipes,
    shift.match.opening,
    shift.match.unpairedOrder,
    shift.match.cuts,
    plan === undefined,
  ]);
  if (typeof found === 'string') return <p className="details-note">The alternatives could not be found: {found}</p>;
  if (!found) return <p className="details-note">Looking for alternatives …</p>;
  if (found.length === 0) return <p className="details-note">There is nothing to choose between.</p>;
  const box = plan ? squareViewBox(plan, 0.06) : '0 0 100 100';
  return (
    <>
      <p className="details-note">
        {found.length === 1
          ? 'All ways that were found look like this half-way.'
          : 'The half-way picture of each, the best first. Pressing one decides that the shift goes that way.'}
      </p>
      <ul className="match-alternatives">
        {found.map((alternative, i) => {
          const Mark = VERDICT[alternative.verdict].icon;
          return (
            <li key={alternative.halfWay}>
              <button
                type="button"
                title={alternative.sentence}
                aria-pressed={isTaken(shift, alternative)}
                aria-label={`Alternative ${i + 1}, ${alternative.choice.method}, ${alternative.choice.smoothing ? 'smoothed, ' : ''}${alternative.inOrder ? 'one after the other, ' : ''}${VERDICT[alternative.verdict].word}`}
                onClick={() => takeAlternative(store, shift.id, alternative.choice)}
              >
                <svg viewBox={box} aria-hidden="true">
                  <path d={alternative.halfWay} fillRule={alternative.fillRule} />
                </svg>
                <span className={alternative.verdict}>
                  <Mark size={13} aria-hidden="true" />
                  {alternative.choice.smoothing ? 'smoothed' : alternative.choice.method}
                  {alternative.inOrder && ', one after the other'}
                </span>
              </button>
            </li>
          );
        })}
      </ul>
    </>
  );
}
