import { DECISIONS, LIMITS, type Piece, type Shift } from '@core';
import { ArrowRight } from 'lucide-react';
import { PoseThumb } from '../canvas/PoseThumb';
import { useAppStore, usePlanStatuses } from '../context';
import { setChoice, shiftSeen } from '../editor';
import { changePiece, type Recipe, useAppDispatch } from '../state';
import { Choice, NumberField, VERDICT } from '../ui';
import { EasingEditor } from './easing/EasingEditor';
import { framesText } from './frames-text';

/** What can be set on a shift: how long, how eased, in which direction; and how healthy it is. */
export function ShiftDetails({ piece, shift }: { readonly piece: Piece; readonly shift: Shift }) {
  const dispatch = useAppDispatch();
  const store = useAppStore();
  const status = usePlanStatuses().get(shift.id);
  const from = piece.poses[shift.from];
  const to = piece.poses[shift.to];
  const seen = shiftSeen(piece, shift);
  const change = (name: string, recipe: (draft: Parameters<Recipe>[0]['shifts'][string]) => void): void =>
    void dispatch(changePiece(name, (draft) => recipe(draft.shifts[shift.id])));
  const health = status?.plan?.health;
  const Verdict = health && VERDICT[health.verdict].icon;
  return (
    <>
      <header className="details-head">
        <h2>Shift</h2>
        <div className="details-pair">
          <span className="details-thumb plum">
            <PoseThumb piece={piece} pose={from} seen={seen.from} size={34} />
          </span>
          <ArrowRight size={16} aria-hidden="true" />
          <span className="details-thumb cobalt">
            <PoseThumb piece={piece} pose={to} seen={seen.to} size={34} />
          </span>
          <span className="details-names">
            {from.name} to {to.name}
          </span>
        </div>
      </header>
      <div className={`details-health ${health?.verdict ?? ''}`} role="status">
        {status?.failed ? (
          <>The match failed: {status.failed}</>
        ) : health && Verdict ? (
          <>
            <Verdict size={15} aria-hidden="true" />
            <span>
              <strong>{VERDICT[health.verdict].text}.</strong> {health.sentence}
            </span>
          </>
        ) : (
          <>Being matched …</>
        )}
      </div>
      <NumberField
        label="Duration"
        value={shift.duration}
        unit="s"
        limit={LIMITS.seconds}
        step={0.05}
        also={framesText(piece, shift.duration)}
        onChange={(duration) => change(`Duration ${duration} s`, (draft) => void (draft.duration = duration))}
      />
      <Choice
        label="Direction"
        value={shift.match.direction}
        options={DECISIONS.direction.answers ?? []}
        onChange={(direction) => setChoice(store, shift.id, 'Direction', 'direction', direction)}
      />
      <ul className="details-reasons">
        {status?.plan?.reasons.map((reason) => (
          <li key={reason.text}>{reason.text}</li>
        ))}
      </ul>
      <h3>Easing</h3>
      <EasingEditor
        easing={shift.easing}
        seconds={shift.duration}
        onChange={(easing, name, seconds) =>
          change(name, (draft) => {
            draft.easing = { ...easing } as typeof draft.easing;
            if (seconds !== undefined) draft.duration = Math.round(seconds * 1000) / 1000;
          })
        }
      />
      <Choice
        label="Colours blend"
        value={shift.blend}
        options={[
          { value: 'oklab', label: 'By eye (OKLab)', hint: 'Steps look the same size to the eye' },
          { value: 'srgb', label: 'sRGB', hint: 'As CSS and most players do' },
        ]}
        onChange={(blend) => change('Blend colours', (draft) => void (draft.blend = blend))}
      />
    </>
  );
}
