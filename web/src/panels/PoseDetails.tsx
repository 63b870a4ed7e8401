import {
  applyPlacementRules,
  type CENTRE_RULES,
  type FIT_RULES,
  hexText,
  isClosedRail,
  moveStop,
  type Piece,
  type PlacementRule,
  readColour,
  setPlacementRule,
  stopsOf,
} from '@core';
import { ArrowLeft, ArrowRight, CopyPlus, Trash2 } from 'lucide-react';
import { PoseImage } from '../canvas/PoseImage';
import { posePicture } from '../canvas/pose-picture';
import { useEditor } from '../context';
import { commandById, rememberRule } from '../editor';
import { changePiece, type Recipe, type selectedPose, sessionActions, useAppDispatch } from '../state';
import { ColourField, IconButton, NumberField, SelectField, TextField } from '../ui';
import { freshId } from '../workers';
import { framesText } from './frames-text';

export const CENTRE_OPTIONS = [
  { value: 'area', label: 'by area' },
  { value: 'box', label: 'by box' },
  { value: 'none', label: 'as in the file' },
] as const satisfies readonly { value: (typeof CENTRE_RULES)[number]; label: string }[];
export const FIT_OPTIONS = [
  { value: 'longest', label: 'longest side as first pose' },
  { value: 'area', label: 'area as first pose' },
  { value: 'none', label: 'as in the file' },
] as const satisfies readonly { value: (typeof FIT_RULES)[number]; label: string }[];
const FIRST_FIT_OPTIONS = [
  { value: 'longest', label: '60 % of the canvas' },
  { value: 'area', label: 'area of that square' },
  { value: 'none', label: 'as in the file' },
] as const;

/** What can be set on a pose: name, hold, place and size, paint. */
export function PoseDetails({
  piece,
  found,
}: {
  readonly piece: Piece;
  readonly found: NonNullable<ReturnType<typeof selectedPose>>;
}) {
  const dispatch = useAppDispatch();
  const editor = useEditor();
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
    rememberRule(rule);
    change(`Place ${pose.name}`, (draft) => setPlacementRule(draft, figure.id, pose.id, rule));
  };
  const moveTo = (part: { x?: number; y?: number; scale?: number }): void =>
    change(`Place ${pose.name}`, (draft) => {
      Object.assign(draft.poses[pose.id].placement, part, { rule: null });
      applyPlacementRules(draft, figure.id);
    });
  const rule = placement.rule;
  const isFirst = figure.poses[0] === pose.id;
  const context = { editor, openRoom: () => {}, saveNow: () => {} };
  return (
    <>
      <header className="details-head">
        <h2>Pose</h2>
        <div className="details-pair">
          <span className="details-thumb">
            <PoseImage picture={posePicture(piece, pose)} size={34} />
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
          <SelectField
            label="Centred"
            value={rule.centre}
            options={CENTRE_OPTIONS}
            onChange={(centre) => setRule({ ...rule, centre })}
          />
          <SelectField
            label="Size"
            value={rule.fit}
            options={isFirst ? FIRST_FIT_OPTIONS : FIT_OPTIONS}
            onChange={(fit) => setRule({ ...rule, fit })}
          />
          <p className="details-note">This rule stays alive until you move the pose by hand.</p>
        </>
      ) : (
        <p className="details-note">
          Moved by hand.{' '}
          <button
            type="button"
            className="btn btn-link p-0 align-baseline"
            onClick={() => setRule({ centre: 'area', fit: 'longest', to: 'first' })}
          >
            Place by rule again
          </button>
        </p>
      )}
      <NumberField label="X" value={placement.x} unit="px" digits={2} onChange={(x) => moveTo({ x })} />
      <NumberField label="Y" value={placement.y} unit="px" digits={2} onChange={(y) => moveTo({ y })} />
      <NumberField
        label="Scale"
        value={placement.scale * 100}
        unit="%"
        min={0}
        max={1e6}
        digits={2}
        onChange={(percent) => moveTo({ scale: percent / 100 })}
      />
      <h3>Paint</h3>
      {pose.parts.map((id) => {
        const part = piece.parts[id];
        const colour = part.fill ?? part.stroke?.colour ?? '#000000';
        const read = readColour(colour);
        return (
          <ColourField
            key={id}
            label={part.name}
            value={colour}
            hex={read ? hexText(read) : '#000000'}
            onChange={(value) => {
              if (!readColour(value)) {
                dispatch(
                  sessionActions.told({
                    tone: 'error',
                    text: `Expected a CSS colour such as #c23f23 or oklch(0.6 0.2 30); found “${value.slice(0, 40)}”. The colour stays as it was.`,
                  }),
                );
                return;
              }
              change(`Paint ${part.name}`, (draft) => {
                const target = draft.parts[id];
                if (part.fill !== null) target.fill = value;
                else if (target.stroke) target.stroke.colour = value;
              });
            }}
          />
        );
      })}
    </>
  );
}
