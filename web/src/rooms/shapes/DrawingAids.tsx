import { LIMITS, within } from '@core';
import { useRef } from 'react';
import { Dropdown } from 'react-bootstrap';
import {
  changePiece,
  drawingActions,
  type Recipe,
  type SnapChoices,
  selectPiece,
  useAppDispatch,
  useAppSelector,
} from '../../state';
import { REFERENCE_TYPES, useReferenceFile } from './use-reference-file';

const SNAPS: readonly { key: keyof SnapChoices; label: string }[] = [
  { key: 'points', label: 'Points' },
  { key: 'outlines', label: 'Outlines' },
  { key: 'centres', label: 'Middles and edges' },
  { key: 'guides', label: 'Guides' },
  { key: 'grid', label: 'Grid' },
];

/** What helps to draw, as entries of a menu: what is shown, and what is snapped to. */
export function DrawingAids() {
  const dispatch = useAppDispatch();
  const drawing = useAppSelector((state) => state.drawing);
  const piece = useAppSelector(selectPiece);
  if (!piece) return null;
  const { aids } = piece;
  const change = (name: string, recipe: Recipe): void => void dispatch(changePiece(name, recipe));
  return (
    <>
      <Dropdown.Header>Show</Dropdown.Header>
      <Check
        label="Rulers and guides"
        on={drawing.rulers}
        onChange={(rulers) => dispatch(drawingActions.changed({ rulers }))}
      />
      <Check
        label="Grid"
        on={aids.grid.shown}
        onChange={(shown) => change('Grid', (draft) => void (draft.aids.grid.shown = shown))}
      />
      <Check
        label="Thirds"
        on={aids.thirds}
        onChange={(on) => change('Thirds', (draft) => void (draft.aids.thirds = on))}
      />
      <Check
        label="Safe area"
        on={aids.safeArea}
        onChange={(on) => change('Safe area', (draft) => void (draft.aids.safeArea = on))}
      />
      <label className="tool-grid">
        Grid step
        <input
          type="number"
          className="form-control form-control-sm"
          min={LIMITS.grid.min}
          max={LIMITS.grid.max}
          value={aids.grid.size}
          onChange={(event) => {
            const size = Number(event.target.value);
            if (size === within(LIMITS.grid, size)) change('Grid', (draft) => void (draft.aids.grid.size = size));
          }}
        />
        px
      </label>
      <Dropdown.Divider />
      <Dropdown.Header>Snap to</Dropdown.Header>
      {SNAPS.map(({ key, label }) => (
        <Check
          key={key}
          label={label}
          on={drawing.snap[key]}
          onChange={(on) => dispatch(drawingActions.snapChanged({ [key]: on }))}
        />
      ))}
      <Dropdown.Divider />
      <Check
        label="Points that lie on each other move together"
        on={drawing.together}
        onChange={(together) => dispatch(drawingActions.changed({ together }))}
      />
    </>
  );
}

/** The chooser of a picture to trace, and what opens it. */
export function useReferenceChooser() {
  const ref = useRef<HTMLInputElement>(null);
  const take = useReferenceFile();
  return {
    choose: () => ref.current?.click(),
    chooser: (
      <input
        ref={ref}
        type="file"
        hidden
        accept={REFERENCE_TYPES}
        data-testid="reference-chooser"
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          if (file) take(file);
          event.target.value = '';
        }}
      />
    ),
  };
}

function Check({
  label,
  on,
  onChange,
}: {
  readonly label: string;
  readonly on: boolean;
  readonly onChange: (on: boolean) => void;
}) {
  return (
    <label className="tool-check">
      <input
        type="checkbox"
        className="form-check-input"
        checked={on}
        onChange={(event) => onChange(event.target.checked)}
      />
      {label}
    </label>
  );
}
