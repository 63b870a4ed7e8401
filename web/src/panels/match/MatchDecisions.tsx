import { DECISION_NAMES, isDecided, LIMITS, limitIn, type Piece, type PoseShiftPlan, type Shift } from '@core';
import { Link2Off, Plus, X } from 'lucide-react';
import {
  addTie,
  backToAutomatic,
  type Decision,
  type MatchEditing,
  type MatchView,
  placeNear,
  removeCut,
  removeTie,
  setEven,
  setMethod,
  setSmoothing,
} from '../../editor';
import type { AppStore } from '../../state';
import { ActionButton, Choice, IconButton, NumberField } from '../../ui';
import { methodsOf } from '../methods';
import { ChoiceDecision } from './ChoiceDecision';
import { ContourDecisions } from './ContourDecisions';
import { Decided } from './Decided';
import { DirectionDecision } from './DirectionDecision';
import { comesOrGoes, opensOrCloses, pointsText } from './planned-contours';

const DEFAULT_SMOOTHING = 8;
const DEFAULT_EVEN = 48;

/** All decisions about one match, each with whose it is and the way back. */
export function MatchDecisions({
  editing,
  store,
  piece,
  shift,
  plan,
  lit,
}: {
  readonly editing: MatchEditing;
  readonly store: AppStore;
  readonly piece: Piece;
  readonly shift: Shift;
  readonly plan: PoseShiftPlan | undefined;
  readonly lit: MatchView['lit'];
}) {
  const { match } = shift;
  const back = (decision: Decision) => (): void => backToAutomatic(store, shift.id, decision);
  const soft = Math.max(
    0,
    ...(plan?.parts.flatMap(({ plan: p }) => p.contours.map(({ smoothing }) => smoothing)) ?? []),
  );
  const endError = plan?.health.endError ?? 0;
  const methods = methodsOf(piece, shift);
  const method = (
    <Decided title="Method" own={shift.method !== 'auto'} onBack={back('method')}>
      <Choice
        label="Paths of points"
        value={shift.method}
        options={methods}
        onChange={(method) =>
          setMethod(store, shift.id, method, methods.find(({ value }) => value === method)?.label ?? '')
        }
      />
    </Decided>
  );
  if (plan?.reasons.some(({ code }) => code === 'by-points'))
    return (
      <>
        {method}
        <p className="details-note">
          While points go by their numbers, directions, start points, ties, pairs and touch-ups have no say. They are
          kept for the other methods.
        </p>
      </>
    );
  return (
    <>
      <DirectionDecision store={store} piece={piece} shift={shift} plan={plan} onBack={back('direction')} />
      <Decided title="Start point" own={match.starts.length > 0} onBack={back('starts')}>
        <p className="details-note">
          {match.starts.length > 0
            ? `Set by you on ${match.starts.length === 1 ? 'one contour' : `${match.starts.length} contours`}.`
            : 'Where both outlines fit best. Drag the arrowed points to change it.'}
        </p>
      </Decided>
      <Decided title="Ties" own={match.ties.length > 0} onBack={back('ties')}>
        {match.ties.length > 0 && (
          <ul className="match-list">
            {match.ties.map((tie, i) => (
              <li key={tie.id}>
                <span>Tie {i + 1}</span>
                <IconButton
                  icon={Link2Off}
                  label={`Remove tie ${i + 1}`}
                  onClick={() => removeTie(store, shift.id, tie.id)}
                />
              </li>
            ))}
          </ul>
        )}
        <ActionButton
          icon={Plus}
          label="Add a tie"
          hint="Between those there are, where the match has it now; move it by its handles"
          onClick={() => addFarTie(editing, store, shift)}
        />
      </Decided>
      <ContourDecisions
        editing={editing}
        lit={lit}
        store={store}
        piece={piece}
        shift={shift}
        plan={plan}
        onBack={back('pairs')}
      />
      {(match.opening !== 'auto' || opensOrCloses(piece, plan)) && (
        <ChoiceDecision title="Open and closed" name="opening" store={store} shift={shift} />
      )}
      {(match.unpairedOrder !== 'auto' || comesOrGoes(plan)) && (
        <ChoiceDecision title="Appearing and vanishing" name="unpairedOrder" store={store} shift={shift} />
      )}
      {match.cuts.length > 0 && (
        <Decided title="Split" own onBack={back('cuts')}>
          <ul className="match-list">
            {match.cuts.map((cut, i) => (
              <li key={cut.id}>
                <span>Line {i + 1}, drawn by you</span>
                <IconButton icon={X} label={`Remove cut ${i + 1}`} onClick={() => removeCut(store, shift.id, cut.id)} />
              </li>
            ))}
          </ul>
        </Decided>
      )}
      {method}
      <Decided title="In-between" own={match.smoothing !== null} onBack={back('smoothing')}>
        {match.smoothing === null ? (
          <>
            <p className="details-note">
              {soft > 0
                ? `Smoothed by ${Math.round((100 * soft) / LIMITS.smoothing.max)} %, because it would fold otherwise.`
                : 'Not smoothed.'}
            </p>
            <ActionButton
              label="Smooth the in-between"
              hint="Details melt away and new ones grow"
              onClick={() => setSmoothing(store, shift.id, soft || DEFAULT_SMOOTHING)}
            />
          </>
        ) : (
          <NumberField
            label="Smoothness of the in-between"
            value={Math.round((100 * match.smoothing) / LIMITS.smoothing.max)}
            unit="%"
            limit={limitIn(LIMITS.smoothing, 100 / LIMITS.smoothing.max)}
            step={5}
            digits={0}
            onChange={(percent) => setSmoothing(store, shift.id, +((LIMITS.smoothing.max * percent) / 100).toFixed(2))}
          />
        )}
      </Decided>
      <Decided title="Points" own={match.even !== null} onBack={back('even')}>
        <p className="details-note numbers">{pointsText(plan)}</p>
        {match.even === null ? (
          <ActionButton
            label="Space points evenly"
            hint="The same number on each contour. The distance from the outline is shown."
            onClick={() => setEven(store, shift.id, DEFAULT_EVEN)}
          />
        ) : (
          <NumberField
            label="Points per contour"
            value={match.even}
            limit={LIMITS.pointsPerContour}
            also={plan ? `at most ${endError < 0.005 ? '0.01' : endError.toFixed(2)} px off the outline` : undefined}
            onChange={(even) => setEven(store, shift.id, even)}
          />
        )}
      </Decided>
      {match.points.length > 0 && (
        <Decided title="Added points" own onBack={back('points')}>
          <p className="details-note">{match.points.length} added by you.</p>
        </Decided>
      )}
      {match.touchUps.length > 0 && (
        <Decided title="Touch-ups" own onBack={back('touchUps')}>
          <ul className="match-list">
            {match.touchUps.map((touchUp) => (
              <li key={touchUp.id}>
                <button
                  type="button"
                  className="btn btn-link quiet"
                  onClick={() => editing.setProgress(touchUp.progress)}
                >
                  At {Math.round(100 * touchUp.progress)} %, {touchUp.points.length}{' '}
                  {touchUp.points.length === 1 ? 'point' : 'points'}
                </button>
              </li>
            ))}
          </ul>
        </Decided>
      )}
    </>
  );
}

/** Ties a place of the first outline, by order between those that are tied, to where the match has it now. */
function addFarTie(editing: MatchEditing, store: AppStore, shift: Shift): void {
  const plan = editing.shown;
  const part = plan?.parts.find((other) => other.a && other.b);
  const contour = part?.plan.contours.find(({ role }) => role === 'pair');
  if (!part || !contour || contour.a === undefined || contour.b === undefined) return;
  const partA = editing.parts('a').find((other) => other.part.id === part.a);
  const partB = editing.parts('b').find((other) => other.part.id === part.b);
  if (!partA || !partB) return;
  // Half-way between the ties there are, by points of the shift.
  const k = Math.floor(contour.segments * ((shift.match.ties.length + 1) / (shift.match.ties.length + 2)));
  const i = contour.at + 6 * k;
  const near = (side: typeof partA, index: number, numbers: Float64Array) =>
    placeNear([side], numbers[i], numbers[i + 1], Infinity, 0.002, side.part.contours[index].id);
  const pa = near(partA, contour.a, part.plan.from);
  const pb = near(partB, contour.b, part.plan.to);
  if (pa && pb) addTie(store, shift.id, { a: pa.place, b: pb.place });
}

/** Has the user decided anything about the match? */
export const hasOwn = (shift: Shift): boolean =>
  shift.method !== 'auto' || DECISION_NAMES.some((name) => isDecided(shift.match, name));
