import { type Easing, LIMITS, type Piece, retimeSome, secondsOf, stopsOf } from '@core';
import { ArrowLeftRight, CopyPlus, Scissors, Trash2, TriangleAlert } from 'lucide-react';
import { useAppStore, useEditor, usePlanStatuses } from '../context';
import { commandById, holdChosen, setChosenShifts } from '../editor';
import { changePiece, type RailChoice } from '../state';
import { Choice, IconButton, NumberField } from '../ui';
import { EasingEditor } from './easing/EasingEditor';
import { framesText } from './frames-text';
import { METHOD_CHOICES } from './methods';

/** The value that all have, or null. */
function common<T>(values: readonly T[]): T | null {
  const [first] = values;
  return values.every((value) => JSON.stringify(value) === JSON.stringify(first)) ? (first ?? null) : null;
}

const counted = (count: number, one: string): string => `${count} ${one}${count === 1 ? '' : 's'}`;

/** What can be set on several poses and shifts of a rail at once. */
export function SeveralDetails({ piece, choice }: { readonly piece: Piece; readonly choice: RailChoice }) {
  const store = useAppStore();
  const editor = useEditor();
  const statuses = usePlanStatuses();
  const { figure, stops } = choice;
  const ids = stopsOf(piece, figure);
  const poses = [...new Set(stops.map((stop) => ids[stop]))].map((id) => piece.poses[id]);
  const shifts = choice.shifts.map((id) => piece.shifts[id]);
  const hold = common(poses.map((pose) => pose.hold));
  const duration = common(shifts.map((shift) => shift.duration));
  const easing = common<Easing>(shifts.map((shift) => shift.easing));
  const together = secondsOf(piece, figure, stops, choice.shifts);
  const context = { editor, openRoom: () => {}, saveNow: () => {} };
  const unsound = shifts.filter(({ id }) => {
    const verdict = statuses.get(id)?.plan?.health.verdict;
    return verdict !== undefined && verdict !== 'good';
  }).length;
  const what = [
    ...(poses.length > 0 ? [counted(poses.length, 'pose')] : []),
    ...(shifts.length > 0 ? [counted(shifts.length, 'shift')] : []),
  ].join(' and ');
  return (
    <>
      <header className="details-head">
        <h2>{what}</h2>
        {poses.length > 0 && (
          <span className="details-actions">
            <IconButton
              icon={ArrowLeftRight}
              label="Reverse: run from the first to the last of them the other way"
              disabled={stops.length < 2}
              onClick={() => commandById('reverse').run(context)}
            />
            <IconButton
              icon={Scissors}
              label="Cut out: copy the poses and remove them"
              onClick={() => document.execCommand('cut')}
            />
            <IconButton icon={CopyPlus} label="Duplicate poses" onClick={() => commandById('duplicate').run(context)} />
            <IconButton icon={Trash2} label="Remove poses" onClick={() => commandById('remove').run(context)} />
          </span>
        )}
      </header>
      {poses.length > 0 && (
        <NumberField
          label="Hold"
          value={hold}
          unit="s"
          limit={LIMITS.seconds}
          step={0.05}
          also={hold === null ? undefined : framesText(piece, hold)}
          onChange={(seconds) => holdChosen(store, seconds)}
        />
      )}
      {together > 0 && (
        <NumberField
          label="Total time"
          value={together}
          unit="s"
          limit={LIMITS.runtime}
          step={0.1}
          digits={3}
          also={framesText(piece, together)}
          onChange={(seconds) =>
            store.dispatch(
              changePiece(`Last ${+seconds.toFixed(3)} s together`, (draft) =>
                retimeSome(draft, { poses: poses.map(({ id }) => id), shifts: choice.shifts }, seconds / together),
              ),
            )
          }
        />
      )}
      {shifts.length > 0 && (
        <>
          {unsound > 0 && (
            <p className="details-note">
              <TriangleAlert size={13} aria-hidden="true" /> {counted(unsound, 'shift')} of them need a look.
            </p>
          )}
          <NumberField
            label="Duration"
            value={duration}
            unit="s"
            limit={LIMITS.seconds}
            step={0.05}
            also={duration === null ? undefined : framesText(piece, duration)}
            onChange={(seconds) => setChosenShifts(store, `Duration ${seconds} s`, { duration: seconds })}
          />
          <Choice
            label="Method"
            value={common(shifts.map(({ method }) => method))}
            options={METHOD_CHOICES}
            onChange={(method) => setChosenShifts(store, 'Method', { method })}
          />
          <h3>Easing</h3>
          {easing === null && (
            <p className="details-note">They differ; the first one’s is shown. A change goes to all.</p>
          )}
          <EasingEditor
            easing={shifts[0].easing}
            seconds={shifts[0].duration}
            onChange={(next, name, seconds) =>
              setChosenShifts(store, name, { easing: next, ...(seconds !== undefined && { duration: seconds }) })
            }
          />
        </>
      )}
      <p className="details-note">
        ⇧ chooses a range, Ctrl single ones, and a box drawn beside the cards all that it touches.
      </p>
    </>
  );
}
