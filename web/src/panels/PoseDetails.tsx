import {
  applyPlacementRules,
  DEFAULT_RULE,
  isClosedRail,
  moveStop,
  type Piece,
  type Placement,
  type PlacementRule,
  setPlacementRule,
  stopsOf,
} from '@core';
import { ArrowLeft, ArrowRight, CopyPlus, Trash2 } from 'lucide-react';
import { PoseThumb } from '../canvas/PoseThumb';
import { useEditor } from '../context';
import { commandById, scalePoseTo, turnPoseTo } from '../editor';
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
import { IconButton, NumberField, TextField } from '../ui';
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
  const moveTo = (part: Partial<Omit<Placement, 'rule'>>): void =>
    change(`Place ${pose.name}`, (draft) => {
      Object.assign(draft.poses[pose.id].placement, part, { rule: null });
      applyPlacementRules(draft, figure.id);
    });
  const rule = placement.rule;
  const context = { editor, openRoom: () => {}, saveNow: () => {} };
  return (
    <>
      <header className="details-head">
        <h2>Pose</h2>
        <div className="details-pair">
          <span className="details-thumb">
            <PoseThumb piece={piece} pose={pose} size={34} />
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
        min={0}
        max={3600}
        step={0.05}
        also={framesText(piece, pose.hold)}
        onChange={(hold) => change(`Hold ${pose.name} ${hold} s`, (draft) => void (draft.poses[pose.id].hold = hold))}
      />
      <h3>Place</h3>
      {rule ? (
        <>
          <RuleFields piece={piece} figureId={figure.id} rule={rule} onChange={setRule} />
          <p className="details-note">This rule stays alive until you move the pose by hand.</p>
        </>
      ) : (
        <p className="details-note">
          Moved by hand.{' '}
          <button type="button" className="btn btn-link p-0 align-baseline" onClick={() => setRule(DEFAULT_RULE)}>
            Place by rule again
          </button>
        </p>
      )}
      <NumberField label="X" value={placement.x} unit="px" digits={2} onChange={(x) => moveTo({ x })} />
      <NumberField label="Y" value={placement.y} unit="px" digits={2} onChange={(y) => moveTo({ y })} />
      <NumberField
        label="Scale"
        value={Math.abs(placement.scaleX) * 100}
        unit="%"
        min={0}
        max={1e6}
        digits={2}
        onChange={(percent) => scalePoseTo(editor.store, found, percent / 100)}
      />
      <NumberField
        label="Turn"
        value={placement.rotation}
        unit="°"
        digits={2}
        onChange={(degrees) => turnPoseTo(editor.store, found, degrees)}
      />
    </>
  );
}
