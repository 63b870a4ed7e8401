import {
  applyPlacementRules,
  frameCount,
  isClosedRail,
  type Piece,
  type Placement,
  pieceDuration,
  readColour,
  setClosedRail,
} from '@core';
import {
  changePiece,
  chosenFigure,
  type Recipe,
  selectSelection,
  sessionActions,
  useAppDispatch,
  useAppSelector,
} from '../state';
import { Choice, ColourField, NumberField, SelectField } from '../ui';
import { freshId } from '../workers';
import { colourText, pickedColour } from './picked-colour';

const RATES = ['60/1', '50/1', '30/1', '30000/1001', '25/1', '24/1', '24000/1001', '12/1'];
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
  const rates = RATES.includes(rate) ? RATES : [rate, ...RATES];
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
      <p className="details-note numbers">
        {figure ? `${+pieceDuration(piece).toFixed(3)} s, ${frameCount(piece)} frames` : 'Nothing plays yet.'}
      </p>
      <Choice
        label="At the end"
        value={piece.playback}
        options={[
          { value: 'loop', label: 'Start again' },
          { value: 'once', label: 'Stop' },
        ]}
        onChange={(playback) =>
          change(playback === 'loop' ? 'Loop' : 'Play once', (draft) => void (draft.playback = playback))
        }
      />
      {figure && figure.poses.length > 1 && (
        <Choice
          label="After the last pose"
          value={isClosedRail(piece, figure) ? 'back' : 'jump'}
          options={[
            { value: 'back', label: 'Back to first', hint: 'The loop closes without a jump' },
            { value: 'jump', label: 'Nothing' },
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
        min={1}
        max={16384}
        digits={0}
        step={10}
        onChange={(width) => setSize({ width })}
      />
      <NumberField
        label="Height"
        value={canvas.height}
        unit="px"
        min={1}
        max={16384}
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
          change(`Rate ${rateLabel(value)}`, (draft) => void (draft.canvas.rate = { num, den }));
        }}
      />
      <Choice
        label="Background"
        value={canvas.background === null ? 'none' : 'colour'}
        options={[
          { value: 'colour', label: 'Colour' },
          { value: 'none', label: 'Nothing' },
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
