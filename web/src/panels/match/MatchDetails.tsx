import type { Piece, Shift } from '@core';
import { ArrowRight, RotateCcw } from 'lucide-react';
import { lazy, Suspense, useState } from 'react';
import { PoseThumb } from '../../canvas/PoseThumb';
import { usePlanProgress, usePlanStatuses } from '../../context';
import { backToAutomatic, type MatchEditing, type MatchView, shiftSeen } from '../../editor';
import type { AppStore } from '../../state';
import { ActionButton, Tabs, VERDICT } from '../../ui';
import { MatchAlternatives } from './MatchAlternatives';
import { hasOwn, MatchDecisions } from './MatchDecisions';
import '../details.scss';
import './match-details.scss';

/** Charts come with a package of their own, when they are first looked at. */
const MatchCharts = lazy(() => import('./MatchCharts'));

const TABS = [
  { id: 'decisions', label: 'Decisions' },
  { id: 'alternatives', label: 'Alternatives' },
  { id: 'charts', label: 'Charts' },
] as const;

/** The column of the Match room: how healthy the shift is, why it was matched so, and all that steers it. */
export function MatchDetails({
  editing,
  store,
  piece,
  shift,
  view,
}: {
  readonly editing: MatchEditing;
  readonly store: AppStore;
  readonly piece: Piece;
  readonly shift: Shift;
  readonly view: MatchView;
}) {
  const [tab, setTab] = useState<(typeof TABS)[number]['id']>('decisions');
  const { failed } = usePlanStatuses().get(shift.id) ?? {};
  const { health, reasons } = view.tried ?? view.plan ?? {};
  const Verdict = health && VERDICT[health.verdict].icon;
  const from = piece.poses[shift.from];
  const to = piece.poses[shift.to];
  const seen = shiftSeen(piece, shift);
  const worst = health?.worst;
  return (
    <aside className="details match-details" aria-label="Details">
      <Tabs label="Details of the match" tabs={TABS} chosen={tab} onChoose={setTab} panelClass="details-body">
        <div className="details-pair match-pair">
          <span className="details-thumb plum">
            <PoseThumb piece={piece} pose={from} seen={seen.from} size={30} />
          </span>
          <ArrowRight size={14} aria-hidden="true" />
          <span className="details-thumb cobalt">
            <PoseThumb piece={piece} pose={to} seen={seen.to} size={30} />
          </span>
          <span className="details-names">
            {from.name} to {to.name}
          </span>
        </div>
        <div className={`details-health ${health?.verdict ?? ''}`} role="status" data-testid="match-health">
          {failed ? (
            <>The match failed: {failed}</>
          ) : health && Verdict ? (
            <>
              <Verdict size={15} aria-hidden="true" />
              <span>
                <strong>{VERDICT[health.verdict].text}.</strong> {health.sentence}
                {worst && (
                  <button
                    type="button"
                    className="btn btn-link quiet match-worst"
                    onClick={() => editing.setProgress(worst.progress)}
                  >
                    Show {Math.round(100 * worst.progress)} %
                  </button>
                )}
                {view.pending && <Matching shiftId={shift.id} />}
              </span>
            </>
          ) : (
            <Matching shiftId={shift.id} />
          )}
        </div>
        {tab === 'decisions' ? (
          <>
            <ul className="details-reasons">
              {reasons?.map((reason) => (
                <li key={reason.text} className={reason.code === 'choice-lost' ? 'lost' : ''}>
                  {reason.text}
                </li>
              ))}
            </ul>
            <MatchDecisions
              lit={view.lit}
              editing={editing}
              store={store}
              piece={piece}
              shift={shift}
              plan={view.plan}
            />
            {hasOwn(shift) && (
              <ActionButton
                icon={RotateCcw}
                label="Reset all"
                onClick={() => backToAutomatic(store, shift.id, 'all')}
              />
            )}
          </>
        ) : tab === 'charts' ? (
          <Suspense fallback={<p className="details-note">Drawing the charts …</p>}>
            <MatchCharts health={health} />
          </Suspense>
        ) : (
          <MatchAlternatives editing={editing} store={store} shift={shift} plan={view.plan} />
        )}
      </Tabs>
    </aside>
  );
}

/** How far the plan is; renders by itself, whatever else there is in the column. */
function Matching({ shiftId }: { readonly shiftId: string }) {
  const progress = usePlanProgress(shiftId);
  return <> {progress === undefined ? 'Being matched …' : `Being matched: ${Math.round(100 * progress)} %`}</>;
}
