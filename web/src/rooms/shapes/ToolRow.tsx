import { adjustableContours, SHAPE_KINDS, type ShapeKind, shapeInBox, writePathData } from '@core';
import {
  ChevronDown,
  Grid3x3,
  ImagePlus,
  type LucideIcon,
  MousePointer2,
  PencilLine,
  Pipette,
  Scissors,
  Shapes,
  Spline,
  Type,
} from 'lucide-react';
import { useRef } from 'react';
import { Dropdown } from 'react-bootstrap';
import { useTargets } from '../../context';
import { type CommandId, commandById, drawsNow, shapeName, TOOL_TABLE } from '../../editor';
import {
  changePiece,
  type DrawsAs,
  drawingActions,
  type Recipe,
  type SnapChoices,
  selectPiece,
  TOOLS,
  type ToolId,
  useAppDispatch,
  useAppSelector,
} from '../../state';
import { keysText } from '../piece/keys-text';
import { useReferenceFile } from './use-reference-file';

const ICONS: Readonly<Record<ToolId, LucideIcon>> = {
  select: MousePointer2,
  points: Spline,
  draw: PencilLine,
  shape: Shapes,
  text: Type,
  cut: Scissors,
  colour: Pipette,
};
const DRAWS: readonly { value: DrawsAs; label: string }[] = [
  { value: 'figure', label: 'a new figure' },
  { value: 'pose', label: 'the next pose' },
  { value: 'part', label: 'a part of the pose' },
  { value: 'contour', label: 'a contour of the part' },
];
const SNAPS: readonly { key: keyof SnapChoices; label: string }[] = [
  { key: 'points', label: 'Points' },
  { key: 'outlines', label: 'Outlines' },
  { key: 'centres', label: 'Middles and edges' },
  { key: 'guides', label: 'Guides' },
  { key: 'grid', label: 'Grid' },
];

/** The tools, what drawing makes, and what helps to draw. */
export function ToolRow() {
  const dispatch = useAppDispatch();
  const drawing = useAppSelector((state) => state.drawing);
  const piece = useAppSelector(selectPiece);
  const targets = useTargets();
  const pictureRef = useRef<HTMLInputElement>(null);
  const takeReference = useReferenceFile();
  if (!piece) return null;
  const { aids } = piece;
  const change = (name: string, recipe: Recipe): void => void dispatch(changePiece(name, recipe));
  const draws = drawing.tool === 'draw' || drawing.tool === 'shape' || drawing.tool === 'text';
  const possible = drawsNow(drawing.drawsAs, targets);
  return (
    <div className="tool-row" role="toolbar" aria-label="Tools">
      {TOOLS.map((id) => {
        const { label, word } = TOOL_TABLE[id];
        const Icon = ICONS[id];
        return (
          <button
            key={id}
            type="button"
            className={`tool ${drawing.tool === id ? 'chosen' : ''}`}
            aria-pressed={drawing.tool === id}
            title={`${label} (${keysText(commandById(`tool-${id}` as CommandId).keys[0])})`}
            onClick={() => dispatch(drawingActions.toolChosen(id))}
          >
            <Icon size={16} aria-hidden="true" />
            <span>{word}</span>
          </button>
        );
      })}
      {draws && (
        <div className="tool-options" role="group" aria-label="What is drawn">
          {drawing.tool === 'shape' && <ShapeChoice kind={drawing.shapeKind} />}
          <label className="tool-draws">
            makes
            <select
              className="form-select form-select-sm"
              aria-label="Drawing makes"
              value={possible}
              onChange={(event) => dispatch(drawingActions.changed({ drawsAs: event.target.value as DrawsAs }))}
            >
              {DRAWS.map(({ value, label }) => (
                <option key={value} value={value} disabled={value !== 'figure' && targets.length !== 1}>
                  {label}
                </option>
              ))}
            </select>
          </label>
          {drawing.tool === 'shape' && (
            <label className="tool-keep" title="Off: after each shape the selecting tool is at hand again">
              <input
                type="checkbox"
                className="form-check-input"
                checked={drawing.keepTool}
                onChange={(event) => dispatch(drawingActions.changed({ keepTool: event.target.checked }))}
              />
              stays at hand
            </label>
          )}
        </div>
      )}
      <span className="tool-aids">
        <button
          type="button"
          className="tool"
          title="A picture to trace (PNG, JPEG, WebP or SVG)"
          onClick={() => pictureRef.current?.click()}
        >
          <ImagePlus size={16} aria-hidden="true" />
          <span>Picture</span>
        </button>
        <input
          ref={pictureRef}
          type="file"
          hidden
          accept="image/png,image/jpeg,image/webp,image/svg+xml"
          data-testid="reference-chooser"
          onChange={(event) => {
            const [file] = event.target.files ?? [];
            if (file) takeReference(file);
            event.target.value = '';
          }}
        />
        <Dropdown align="end" autoClose="outside">
          <Dropdown.Toggle variant="link" className="tool" title="Rulers, grid, guides and snapping">
            <Grid3x3 size={16} aria-hidden="true" />
            <span>Aids</span>
            <ChevronDown size={13} aria-hidden="true" />
          </Dropdown.Toggle>
          <Dropdown.Menu className="tool-menu">
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
                min={1}
                max={1000}
                value={aids.grid.size}
                onChange={(event) => {
                  const size = Number(event.target.value);
                  if (size >= 0.1 && size <= 10_000) change('Grid', (draft) => void (draft.aids.grid.size = size));
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
          </Dropdown.Menu>
        </Dropdown>
      </span>
    </div>
  );
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

/** Which adjustable shape is drawn: each is shown as it is. */
function ShapeChoice({ kind }: { readonly kind: ShapeKind }) {
  const dispatch = useAppDispatch();
  return (
    <span className="tool-shapes" role="radiogroup" aria-label="Kind of shape">
      {SHAPE_KINDS.map((each) => (
        <button
          key={each}
          type="button"
          role="radio"
          aria-checked={each === kind}
          aria-label={shapeName(each)}
          title={shapeName(each)}
          className={each === kind ? 'chosen' : ''}
          onClick={() => dispatch(drawingActions.shapeChosen(each))}
        >
          <ShapeIcon kind={each} />
        </button>
      ))}
    </span>
  );
}

function ShapeIcon({ kind }: { readonly kind: ShapeKind }) {
  const wide = kind === 'rectangle' || kind === 'capsule' || kind === 'ellipse';
  const contours = adjustableContours(shapeInBox(kind, 2, wide ? 4.5 : 2, 18, wide ? 15.5 : 18, 3));
  const open = kind === 'line' || kind === 'arc';
  return (
    <svg viewBox="0 0 20 20" width="18" height="18" aria-hidden="true">
      <path
        d={writePathData({ contours, fillRule: 'nonzero' })}
        fill={open ? 'none' : 'currentColor'}
        stroke={open ? 'currentColor' : 'none'}
        strokeWidth="2"
        strokeLinecap="round"
      />
    </svg>
  );
}
