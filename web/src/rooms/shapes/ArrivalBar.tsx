import { type PlacementRule, setPlacementRule } from '@core';
import { X } from 'lucide-react';
import { useState } from 'react';
import { rememberRule } from '../../editor';
import { CENTRE_OPTIONS, FIT_OPTIONS } from '../../panels';
import { changePiece, sessionActions, useAppDispatch, useAppSelector } from '../../state';
import { IconButton, SelectField } from '../../ui';
import './arrival.scss';

const labelOf = <T extends string>(options: readonly { value: T; label: string }[], value: T): string =>
  options.find((option) => option.value === value)?.label ?? value;

/** Tells how arriving shapes were placed, and lets that be changed; never in the way. */
export function ArrivalBar() {
  const arrival = useAppSelector((state) => state.session.arrival);
  const piece = useAppSelector((state) => state.document.piece);
  const dispatch = useAppDispatch();
  const [changing, setChanging] = useState(false);
  const present = arrival?.poseIds.filter((id) => piece?.poses[id]) ?? [];
  if (!arrival || present.length === 0) return null;
  const { rule } = arrival;
  const setRule = (next: PlacementRule): void => {
    rememberRule(next);
    dispatch(
      changePiece('Place what arrived', (draft) => {
        for (const id of present) setPlacementRule(draft, arrival.figureId, id, next);
      }),
    );
    dispatch(sessionActions.arrived({ ...arrival, rule: next }));
  };
  return (
    <div className="arrival" role="status" data-testid="arrival">
      <span>
        {present.length === 1 ? 'One pose arrived' : `${present.length} poses arrived`}: centred{' '}
        {labelOf(CENTRE_OPTIONS, rule.centre)}, {labelOf(FIT_OPTIONS, rule.fit)}.
      </span>
      {changing ? (
        <>
          <SelectField
            label="Centred"
            value={rule.centre}
            options={CENTRE_OPTIONS}
            onChange={(centre) => setRule({ ...rule, centre })}
          />
          <SelectField
            label="Size"
            value={rule.fit}
            options={FIT_OPTIONS}
            onChange={(fit) => setRule({ ...rule, fit })}
          />
        </>
      ) : (
        <button type="button" className="btn btn-link p-0" onClick={() => setChanging(true)}>
          change
        </button>
      )}
      {arrival.notes.length > 0 && (
        <details>
          <summary>
            {arrival.notes.length === 1 ? '1 thing was left out' : `${arrival.notes.length} things were left out`}
          </summary>
          <ul>
            {arrival.notes.map((note) => (
              <li key={note}>{note}</li>
            ))}
          </ul>
        </details>
      )}
      <IconButton icon={X} label="Close" onClick={() => dispatch(sessionActions.arrived(null))} />
    </div>
  );
}
