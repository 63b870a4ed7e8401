import { type ArrivalForm, applyPlacementRules, type PlacementRule, setPlacementRule } from '@core';
import { X } from 'lucide-react';
import { useState } from 'react';
import { useAppStore, useOpenPiece } from '../../context';
import { type Arrangement, mendGapsOf } from '../../editor';
import { CENTRE_OPTIONS, FIT_OPTIONS, fitTarget } from '../../panels';
import { changePiece, remember, sessionActions, useAppDispatch, useAppSelector } from '../../state';
import { IconButton } from '../../ui';
import { ArrivalDialog } from './ArrivalDialog';
import './arrival.scss';

const labelOf = <T extends string>(options: readonly { value: T; label: string }[], value: T): string =>
  options.find((option) => option.value === value)?.label ?? value;

const FORM_WORDS: Record<ArrivalForm, (n: number) => string> = {
  poses: (n) => (n === 1 ? 'One pose arrived' : `${n} poses arrived, one after another`),
  figures: (n) => `${n} figures arrived`,
  parts: () => 'One pose arrived',
  united: () => 'One united outline arrived',
};

/** Tells how arriving shapes were placed, and lets that be changed; never in the way. */
export function ArrivalBar() {
  const { arrivals, editor } = useOpenPiece();
  const arrival = useAppSelector((state) => state.session.arrival);
  const piece = useAppSelector((state) => state.document.piece);
  const dispatch = useAppDispatch();
  const store = useAppStore();
  const [changing, setChanging] = useState(false);
  const present = arrival?.poseIds.filter((id) => piece?.poses[id]) ?? [];
  if (!arrival || !piece || present.length === 0) return null;
  const { rule, form } = arrival;
  // The first pose of a figure has none before it: alone it is fitted to the canvas.
  const isFirst = present.length === 1 && piece.figures[arrival.figureId]?.poses[0] === present[0];
  const target = fitTarget(isFirst && rule.to === 'previous' ? { ...rule, to: 'canvas' } : rule);
  const byRule = present.some((id) => piece.poses[id].placement.rule !== null);
  const setRule = (next: PlacementRule): void => {
    remember('placementRule', next);
    dispatch(
      changePiece('Place what arrived', (draft) => {
        for (const id of present) {
          const figure = Object.values(draft.figures).find(({ poses }) => poses.includes(id));
          if (!figure) continue;
          setPlacementRule(draft, figure.id, id, next);
          applyPlacementRules(draft, figure.id);
        }
      }),
    );
    dispatch(sessionActions.arrived({ ...arrival, rule: next }));
  };
  const rearrange = (next: Arrangement): void => {
    remember('placementRule', next.rule);
    void arrivals.rearrange(next).then(() => editor.viewport.fit());
  };
  return (
    <div className="arrival" role="status" data-testid="arrival">
      <span>
        {FORM_WORDS[form](present.length)}
        {byRule &&
          `: centred ${labelOf(CENTRE_OPTIONS, rule.centre)}, ${labelOf(FIT_OPTIONS, rule.fit)}${
            rule.fit === 'none' ? '' : ` as ${target}`
          }`}
        .
      </span>
      <button type="button" className="btn btn-link p-0" onClick={() => setChanging(true)}>
        change
      </button>
      {arrival.gaps > 0 && (
        <button
          type="button"
          className="btn btn-link p-0"
          title="Outlines that look closed, or whose ends nearly touch, are closed and joined in the middle of their gaps"
          onClick={() => {
            mendGapsOf(store, present);
            dispatch(sessionActions.arrived({ ...arrival, gaps: 0 }));
          }}
        >
          {arrival.gaps === 1 ? 'Close 1 small gap' : `Close ${arrival.gaps} small gaps`}
        </button>
      )}
      {arrival.notes.length > 0 && (
        <details>
          <summary>
            {arrival.notes.length === 1
              ? '1 thing was changed on import'
              : `${arrival.notes.length} things were changed on import`}
          </summary>
          <ul>
            {arrival.notes.map((note) => (
              <li key={note}>{note}</li>
            ))}
          </ul>
        </details>
      )}
      <IconButton icon={X} label="Close" onClick={() => dispatch(sessionActions.arrived(null))} />
      {changing && (
        <ArrivalDialog
          piece={piece}
          arrival={arrival}
          last={arrivals.last}
          canRearrange={arrivals.canRearrange()}
          onRule={setRule}
          onRearrange={rearrange}
          onClose={() => setChanging(false)}
        />
      )}
    </div>
  );
}
