import {
  APPEARANCES,
  type Appearance,
  appearanceOf,
  DEFAULT_RULE,
  isClosedRail,
  isTooShort,
  LIMITS,
  limitIn,
  moveStop,
  type Piece,
  type PlacementRule,
  readingTime,
  setAppearance,
  setPlacementRule,
  stopsOf,
} from '@core';
import { ArrowLeft, ArrowRight, CopyPlus, Trash2 } from 'lucide-react';
import { PoseThumb } from '../canvas/PoseThumb';
import { useEditor } from '../context';
import {
  commandById,
  motionValues,
  poseSeen,
  resetMotion,
  type ShownPose,
  scalePoseTo,
  setMotion,
  shownBox,
  shownPose,
  turnPoseTo,
} from '../editor';
import {
  changePiece,
  drawingActions,
  type Recipe,
  remember,
  type selectedPose,
  sessionActions,
  useAppDispatch,
  useAppSelector,
} from '../state';
import { IconButton, NumberField, SelectField, TextField } from '../ui';
import { freshId } from '../workers';
import { framesText } from './frames-text';
import { RuleFields } from './RuleFields';

/** What can be set on a pose: name, hold, place and size. */
export function PoseDetails({
  piece,
  found,
}: {
  readonly piece: Piece;
  readonly found: NonNullable<ReturnType<typeof selectedPose>>;
}) {
  const dispatch = useAppDispatch();
  const editor = useEditor();
  const renames = useAppSelector((state) => state.drawing.renames);
  const { pose, figure, stop } = found;
  const stops = stopsOf(piece, figure);
  const last = isClosedRail(piece, figure) ? stops.length - 2 : stops.length - 1;
  const { placement } = pose;
  const change = (name: string, recipe: Recipe): void => void dispatch(changePiece(name, recipe));
  const move = (to: number): void => {
    change(`Move ${pose.name}`, (draft) => moveStop(draft, figure.id, stop, to, freshId));
    dispatch(sessionActions.selected({ kind: 'stop', figureId: figure.id, stop: to }));
  };
  const setRule = (rule: PlacementRule): void => {
    remember('placementRule', rule);
    change(`Place ${pose.name}`, (draft) => setPlacementRule(draft, figure.id, pose.id, rule));
  };
  const rule = placement.rule;
  const reading = readingTime(piece, pose);
  const shown = shownPose(piece, figure, { kind: 'stop', figureId: figure.id, stop }, 0);
  const context = { editor, openRoom: () => {}, saveNow: () => {} };
  return (
    <>
      <header className="details-head">
        <h2>Pose</h2>
        <div className="details-pair">
          <span className="details-thumb">
            <PoseThumb piece={piece} pose={pose} seen={poseSeen(piece, figure, stop)} size={34} />
          </span>
          <span className="details-actions">
            <IconButton
              icon={ArrowLeft}
              label="Earlier"
              disabled={stop === 0 || stop > last}
              onClick={() => move(stop - 1)}
            />
            <IconButton icon={ArrowRight} label="Later" disabled={stop >= last} onClick={() => move(stop + 1)} />
            <IconButton icon={CopyPlus} label="Duplicate pose" onClick={() => commandById('duplicate').run(context)} />
            <IconButton icon={Trash2} label="Remove pose" onClick={() => commandById('remove').run(context)} />
          </span>
        </div>
      </header>
      <TextField
        label="Name"
        value={pose.name}
        asked={renames === pose.id}
        onLeave={() => renames && dispatch(drawingActions.changed({ renames: null }))}
        onChange={(name) => change(`Rename ${pose.name}`, (draft) => void (draft.poses[pose.id].name = name))}
      />
      <NumberField
        label="Hold"
        value={pose.hold}
        unit="s"
        limit={LIMITS.seconds}
        step={0.05}
        also={framesText(piece, pose.hold)}
        onChange={(hold) => change(`Hold ${pose.name} ${hold} s`, (draft) => void (draft.poses[pose.id].hold = hold))}
      />
      {isTooShort(piece, pose) && (
        <p className="details-note" data-testid="too-short">
          {reading.characters > 0 ? `${reading.characters} characters need` : 'A sign needs'} about {reading.seconds} s
          to be read.{' '}
          <button
            type="button"
            className="btn btn-link p-0 align-baseline"
            onClick={() =>
              change(`Hold ${pose.name} ${reading.seconds} s`, (draft) => {
                draft.poses[pose.id].hold = reading.seconds;
              })
            }
          >
            Hold it so long
          </button>
        </p>
      )}
      <h3>Place</h3>
      {rule ? (
        <RuleFields piece={piece} figureId={figure.id} rule={rule} onChange={setRule} />
      ) : (
        <p className="details-note">
          It is where it was drawn.{' '}
          <button type="button" className="btn btn-link p-0 align-baseline" onClick={() => setRule(DEFAULT_RULE)}>
            Place by a rule
          </button>
        </p>
      )}
      {shown && <PlaceFields shown={shown} />}
      <h3>{figure.name} in time</h3>
      <NumberField
        label="Starts at"
        value={figure.start}
        unit="s"
        limit={LIMITS.seconds}
        step={0.05}
        digits={3}
        also={framesText(piece, figure.start)}
        onChange={(start) =>
          change(`Start ${figure.name} at ${start} s`, (draft) => void (draft.figures[figure.id].start = start))
        }
      />
      {(['appears', 'disappears'] as const).map((side) => (
        <SelectField
          key={side}
          label={side === 'appears' ? 'Appears' : 'Disappears'}
          value={appearanceOf(piece, figure.id, side)}
          options={APPEARANCES.map((value) => ({ value, label: APPEARANCE_WORDS[side][value] }))}
          onChange={(how) =>
            change(`${figure.name} ${side}: ${APPEARANCE_WORDS[side][how].toLowerCase()}`, (draft) =>
              setAppearance(draft, figure.id, side, how, APPEARING_SECONDS, freshId),
            )
          }
        />
      ))}
    </>
  );
}

/** Where a pose stands in all, and what of it was moved, turned and scaled by hand on top of its base placement. */
function PlaceFields({ shown }: { readonly shown: ShownPose }) {
  const { store } = useEditor();
  const { figure, pose, stop } = shown;
  const { scaleX, rotation } = pose.placement;
  const { position, turn, scale } = motionValues(shown);
  const box = shownBox(shown);
  const [x, y] = [(box.minX + box.maxX) / 2 || 0, (box.minY + box.maxY) / 2 || 0];
  const moveBy = (dx: number, dy: number): void =>
    setMotion(store, figure.id, stop, `Move ${pose.name}`, { position: [position[0] + dx, position[1] + dy] });
  const added = [
    (position[0] !== 0 || position[1] !== 0) && `${signed(position[0])}, ${signed(position[1])} px`,
    turn !== 0 && `${signed(turn)}°`,
    scale[0] !== 1 && `× ${rounded(Math.abs(scale[0]))}`,
    scale[1] !== scale[0] && `× ${rounded(Math.abs(scale[1]))} high`,
  ].filter(Boolean);
  return (
    <>
      <NumberField label="Middle X" value={x} unit="px" digits={2} onChange={(to) => moveBy(to - x, 0)} />
      <NumberField label="Middle Y" value={y} unit="px" digits={2} onChange={(to) => moveBy(0, to - y)} />
      <NumberField
        label="Scale"
        value={Math.abs(scaleX * scale[0]) * 100}
        unit="%"
        limit={limitIn({ ...LIMITS.scale, min: 0 }, 100)}
        digits={2}
        onChange={(percent) => scalePoseTo(store, shown, percent / 100)}
      />
      <NumberField
        label="Rotation"
        value={rotation + turn}
        unit="°"
        digits={2}
        onChange={(degrees) => turnPoseTo(store, shown, degrees)}
      />
      {added.length > 0 && (
        <p className="details-note" data-testid="added-motion">
          By hand, on top of that: {added.join('; ')}. It comes and goes with the shifts.{' '}
          <button
            type="button"
            className="btn btn-link p-0 align-baseline"
            onClick={() => resetMotion(store, figure.id, stop, `Take back what moved ${pose.name}`)}
          >
            Take it back
          </button>
        </p>
      )}
    </>
  );
}

/** How long fading and growing take at first, s. */
const APPEARING_SECONDS = 0.4;

const APPEARANCE_WORDS: Readonly<Record<'appears' | 'disappears', Readonly<Record<Appearance, string>>>> = {
  appears: { held: 'Is there before', once: 'At once', fading: 'Fading in', growing: 'Growing' },
  disappears: { held: 'Stays there', once: 'At once', fading: 'Fading out', growing: 'Shrinking' },
};

const rounded = (value: number): string => String(+value.toFixed(2)).replace('-', '−');
const signed = (value: number): string => (value < 0 ? '' : '+') + rounded(value);
