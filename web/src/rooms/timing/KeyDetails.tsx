import {
  addWindUp,
  changeKey,
  figureOfLane,
  isColourLane,
  isShapeNumber,
  type LaneRecord,
  limitIn,
  type Piece,
  removeKeySet,
  type StopName,
  stopNamed,
  stopsOf,
  timedKeys,
} from '@core';
import { Trash2 } from 'lucide-react';
import { useAppStore } from '../../context';
import { removeChosenKeys } from '../../editor';
import { CheckedColour, EasingEditor } from '../../panels';
import { changePiece, type KeyRef, sessionActions, useAppDispatch } from '../../state';
import { ActionButton, Choice, IconButton, NumberField } from '../../ui';
import { freshId } from '../../workers';
import { isEven } from './lane-graph';
import { colourOfValue, laneWords, nearestThatCanBe, valueOfColour } from './lane-words';
import { PathFields } from './PathFields';

/** What can be set on chosen keys: their values, when a free one stands, and how the way to the next goes. What is set goes to all. */
export function KeyDetails({ piece, keys }: { readonly piece: Piece; readonly keys: readonly KeyRef[] }) {
  const dispatch = useAppDispatch();
  const store = useAppStore();
  const [first] = keys;
  const lane: LaneRecord | undefined = piece.lanes[first.lane];
  const key = lane?.keys.find(({ id }) => id === first.key);
  if (!lane || !key) return null;
  const figure = figureOfLane(piece, lane);
  const colour = isColourLane(lane.property);
  const words = laneWords(lane.property);
  const timed = timedKeys(piece, figure, lane);
  const at = timed.findIndex((each) => each.key.id === key.id);
  const next = timed[at + 1];
  const differs = next?.key.value.some((v, i) => v !== key.value[i]);
  const change = (name: string, made: Parameters<typeof changeKey>[3], property?: string): void =>
    void dispatch(
      changePiece(name, (draft) => {
        for (const ref of keys)
          if (!property || piece.lanes[ref.lane]?.property === property)
            changeKey(draft, ref.lane, ref.key ?? '', made);
      }),
    );
  /** Numbers of a shape that go together can be set one by one, though they are alike. */
  const together = isShapeNumber(lane.property) && words.parts.length > 1;
  const fieldOf = (i: number) => ({
    value: key.value[i] * words.factor,
    unit: words.unit,
    digits: words.digits && words.digits + 1,
    limit: limitIn(
      {
        min: nearestThatCanBe(lane.property, i, Number.NEGATIVE_INFINITY),
        max: nearestThatCanBe(lane.property, i, Number.POSITIVE_INFINITY),
      },
      words.factor,
    ),
  });
  /** Sets one number of the key, or all. */
  const setNumber = (typed: number, only?: number): void =>
    change(
      `Key of ${words.label}`,
      { value: key.value.map((v, k) => (only === undefined || k === only ? typed / words.factor : v)) },
      lane.property,
    );
  const stopOf = (name: StopName | null): number =>
    figure && name ? stopNamed(figure, stopsOf(piece, figure), name) : -1;
  const stop = stopOf(key.stop);
  /** Has its stop a key of its own already? On the canvas there is no stop. */
  const bound = !figure || lane.keys.some((other) => other.after === null && stopOf(other.stop) === stop);
  const pose = key.stop && piece.poses[key.stop.pose];
  const place = `${pose?.name ?? 'a pose that is gone'} (pose ${stop + 1})`;
  return (
    <aside className="details" aria-label="Details">
      <div className="details-body">
        <header className="details-head">
          <h2>{keys.length === 1 ? `Key of ${words.label}` : `${keys.length} keys`}</h2>
          <div className="details-actions">
            <IconButton
              icon={Trash2}
              label={keys.length === 1 ? 'Remove the key' : 'Remove the keys'}
              onClick={() => {
                removeChosenKeys(store);
              }}
            />
          </div>
        </header>
        <p className="details-note">
          {figure
            ? `${figure.name}, ${key.after === null ? `constant while ${place} is held` : `timed from the start of ${place}`}`
            : 'The canvas'}
        </p>
        {colour && (
          <CheckedColour
            label="Colour"
            value={colourOfValue(key.value)}
            onChange={(css) => {
              const value = valueOfColour(css);
              if (value) change(`Colour of ${words.label}`, { value }, lane.property);
            }}
          />
        )}
        {together && isEven(lane) && <NumberField {...fieldOf(0)} label="All" onChange={(typed) => setNumber(typed)} />}
        {(colour ? [] : words.parts).map((part, i) => (
          <NumberField
            key={part}
            {...fieldOf(i)}
            label={part}
            onChange={(typed) => setNumber(typed, isEven(lane) && !together ? undefined : i)}
          />
        ))}
        {key.after !== null && (
          <NumberField
            label={figure ? 'After' : 'At'}
            value={key.after}
            unit="s"
            step={piece.canvas.rate.den / piece.canvas.rate.num}
            digits={3}
            onChange={(after) => change(`Move a key of ${words.label}`, { after }, lane.property)}
          />
        )}
        {keys.length === 1 && key.after === null && (
          <p className="details-note">Detach the key to place it inside the hold.</p>
        )}
        {keys.length === 1 && key.after === null && (
          <ActionButton
            label="Detach from the pose"
            hint="It is then at one moment, not all through the hold"
            onClick={() => change(`Detach a key of ${words.label}`, { after: 0 })}
          />
        )}
        {keys.length === 1 && key.after !== null && !bound && (
          <ActionButton
            label="Attach to the pose"
            hint={`Constant while ${place} is held`}
            onClick={() => change(`Attach a key of ${words.label}`, { after: null })}
          />
        )}
        {key.set && (
          <p className="details-note">
            It is one key of a wind-up and its overshoot.{' '}
            <button
              type="button"
              className="btn btn-link p-0 align-baseline"
              onClick={() => {
                dispatch(changePiece('Remove wind-up and overshoot', (draft) => removeKeySet(draft, key.set ?? '')));
                dispatch(sessionActions.keysChosen([]));
              }}
            >
              Remove both keys
            </button>
          </p>
        )}
        {lane.property === 'position' && keys.length === 1 && (
          <PathFields piece={piece} lane={lane} timed={timed} at={at} />
        )}
        <h3>To the next key</h3>
        {next ? (
          <>
            <Choice
              label="Easing to the next key"
              value={key.easing ? 'own' : 'shift'}
              options={[
                { value: 'shift', label: 'Of the shift', hint: 'The easing of the shift between the two keys' },
                { value: 'own', label: 'Own' },
              ]}
              onChange={(how) =>
                change('Easing of a key', { easing: how === 'own' ? structuredClone(timed[at].easing) : null })
              }
            />
            {figure && differs && !colour && !key.set && !next.key.set && (
              <ActionButton
                label="Wind up and settle"
                hint="A little back before it moves, a little too far before it settles"
                onClick={() =>
                  dispatch(changePiece('Wind up and settle', (draft) => addWindUp(draft, lane.id, key.id, freshId)))
                }
              />
            )}
            {key.easing && (
              <EasingEditor
                easing={key.easing}
                seconds={Math.max(0.1, next.from - timed[at].until)}
                onChange={(easing, name) => change(name, { easing })}
              />
            )}
          </>
        ) : (
          <p className="details-note">This is the last key: its value is held from here on.</p>
        )}
      </div>
    </aside>
  );
}
