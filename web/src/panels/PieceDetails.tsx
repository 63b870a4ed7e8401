import {
  applyPlacementRules,
  frameCount,
  isClosedRail,
  LIMITS,
  type Piece,
  type Placement,
  pieceDuration,
  RATES,
  type Rate,
  readColour,
  readRate,
  retime,
  setClosedRail,
  setRate,
  snapToFrames,
} from '@core';
import { useState } from 'react';
import {
  changePiece,
  chosenFigure,
  type Recipe,
  selectSelection,
  sessionActions,
  useAppDispatch,
  useAppSelector,
} from '../state';
import { ActionButton, Choice, ColourField, NumberField, SelectField, TextField } from '../ui';
import { freshId } from '../workers';
import { PlaybackFields } from './PlaybackFields';
import { colourText, pickedColour } from './picked-colour';

const RATE_VALUES = RATES.map(({ num, den }) => `${num}/${den}`);
const rateLabel = (rate: string): string => {
  const [num, den] = rate.split('/').map(Number);
  return `${+(num / den).toFixed(3)} fps`;
};

/** What belongs to the whole piece. */
export function PieceDetails({ piece }: { readonly piece: Piece }) {
  const dispatch = useAppDispatch();
  const selection = useAppSelector(selectSelection);
  const figure = chosenFigure(piece, selection);
  const change = (name: string, recipe: Recipe): void => void dispatch(changePiece(name, recipe));
  const { canvas } = piece;
  const rate = `${canvas.rate.num}/${canvas.rate.den}`;
  const rates = RATE_VALUES.includes(rate) ? RATE_VALUES : [rate, ...RATE_VALUES];
  const [keeps, setKeeps] = useState<'seconds' | 'frames'>('seconds');
  const takeRate = (next: Rate): void =>
    change(`Rate ${rateLabel(`${next.num}/${next.den}`)}`, (draft) => setRate(draft, next, keeps));
  const length = pieceDuration(piece);
  const setSize = (size: { width?: number; height?: number }): void =>
    change('Canvas size', (draft) => {
      const before = { ...draft.canvas };
      Object.assign(draft.canvas, size);
      const dx = (draft.canvas.width - before.width) / 2;
      const dy = (draft.canvas.height - before.height) / 2;
      // Poses without a rule keep their distance from the middle.
      for (const pose of Object.values(draft.poses)) {
        if (pose.placement.rule === null)
          pose.placement = {
            ...pose.placement,
            x: pose.placement.x + dx,
            y: pose.placement.y + dy,
          } as typeof pose.placement & Placement;
      }
      for (const figure of Object.values(draft.figures)) {
        // What they turn about goes along.
        if (figure.pivot) figure.pivot = [figure.pivot[0] + dx, figure.pivot[1] + dy];
        if (figure.middle) figure.middle = [figure.middle[0] + dx, figure.middle[1] + dy];
        applyPlacementRules(draft, figure.id);
      }
    });
  return (
    <>
      <header className="details-head">
        <h2>Piece</h2>
      </header>
      {length > 0 ? (
        <NumberField
          label="Length"
          value={length}
          unit="s"
          limit={LIMITS.runtime}
          step={0.1}
          digits={3}
          also={`${frameCount(piece)} fr`}
          onChange={(seconds) => change(`Length ${+seconds.toFixed(3)} s`, (draft) => retime(draft, seconds / length))}
        />
      ) : (
        <p className="details-note">Nothing plays yet.</p>
      )}
      <PlaybackFields piece={piece} />
      {figure && figure.poses.length > 1 && (
        <Choice
          label="After the last pose"
          value={isClosedRail(piece, figure) ? 'back' : 'jump'}
          options={[
            { value: 'back', label: 'Return to the first', hint: 'The loop closes without a jump' },
            { value: 'jump', label: 'Stop there' },
          ]}
          onChange={(value) =>
            change(value === 'back' ? 'Close the loop' : 'Open the loop', (draft) =>
              setClosedRail(draft, figure.id, value === 'back', freshId),
            )
          }
        />
      )}
      <h3>Canvas</h3>
      <NumberField
        label="Width"
        value={canvas.width}
        unit="px"
        limit={LIMITS.canvasSide}
        digits={0}
        step={10}
        onChange={(width) => setSize({ width })}
      />
      <NumberField
        label="Height"
        value={canvas.height}
        unit="px"
        limit={LIMITS.canvasSide}
        digits={0}
        step={10}
        onChange={(height) => setSize({ height })}
      />
      <SelectField
        label="Rate"
        value={rate}
        options={rates.map((value) => ({ value, label: rateLabel(value) }))}
        onChange={(value) => {
          const [num, den] = value.split('/').map(Number);
          takeRate({ num, den });
        }}
      />
      <TextField
        label="Other rate (fps)"
        value={canvas.rate.den === 1 ? String(canvas.rate.num) : rate}
        onChange={(typed) => {
          const own = readRate(typed);
          if (own) takeRate(own);
          else
            dispatch(
              sessionActions.told({
                tone: 'error',
                text: `Expected frames per second up to ${LIMITS.rate.max}, as 18 or 24000/1001; found “${typed.slice(0, 40)}”. The rate stays as it was.`,
              }),
            );
        }}
      />
      <Choice
        label="When the rate changes, keep"
        value={keeps}
        options={[
          { value: 'seconds', label: 'Seconds' },
          { value: 'frames', label: 'Frame numbers', hint: 'Everything gets longer or shorter' },
        ]}
        onChange={setKeeps}
      />
      {length > 0 && (
        <div className="details-actions">
          <ActionButton
            label="Round all times to frames"
            hint="Rounds all holds and shifts to whole frames"
            onClick={() => change('Round all times to frames', snapToFrames)}
          />
        </div>
      )}
      <Choice
        label="Background"
        value={canvas.background === null ? 'none' : 'colour'}
        options={[
          { value: 'colour', label: 'Colour' },
          { value: 'none', label: 'Transparent' },
        ]}
        onChange={(value) =>
          change('Background', (draft) => void (draft.canvas.background = value === 'none' ? null : '#ffffff'))
        }
      />
      {canvas.background !== null && (
        <ColourField
          label="Colour"
          value={canvas.background}
          picked={pickedColour(canvas.background)}
          toText={colourText}
          onChange={(value) => {
            if (readColour(value)) change('Background', (draft) => void (draft.canvas.background = value));
            else
              dispatch(
                sessionActions.told({
                  tone: 'error',
                  text: `Expected a CSS colour; found “${value.slice(0, 40)}”. The background stays as it was.`,
                }),
              );
          }}
        />
      )}
    </>
  );
}
