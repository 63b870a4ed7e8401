import { adjustableContours, SHAPE_KINDS, type ShapeKind, shapeInBox, writePathData } from '@core';
import {
  ChevronDown,
  Ellipsis,
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
import { type CommandId, commandById, drawsNow, shapeKindName, TOOL_TABLE } from '../../editor';
import {
  type DrawsAs,
  drawingActions,
  selectPiece,
  TOOLS,
  type ToolId,
  useAppDispatch,
  useAppSelector,
} from '../../state';
import { keysText } from '../piece/keys-text';
import { DrawingAids, useReferenceChooser } from './DrawingAids';
import { useFoldLevel } from './use-fold-level';

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
  { value: 'figure', label: 'A new figure' },
  { value: 'pose', label: 'The next pose' },
  { value: 'part', label: 'A part of the pose' },
  { value: 'contour', label: 'A contour of the part' },
];
const PICTURE_HINT = 'A picture to trace (PNG, JPEG, WebP or SVG)';
const hintOf = (id: ToolId): string =>
  `${TOOL_TABLE[id].label} (${keysText(commandById(`tool-${id}` as CommandId).keys[0])})`;
/** However narrow it is, so many tools stay in sight. */
const LEAST_TOOLS = 3;

/** The tools, what drawing makes, and what helps to draw. */
export function ToolRow() {
  const dispatch = useAppDispatch();
  const drawing = useAppSelector((state) => state.drawing);
  const piece = useAppSelector(selectPiece);
  const targets = useTargets();
  const { choose, chooser } = useReferenceChooser();
  const rowRef = useRef<HTMLDivElement>(null);
  // First what helps goes into the menu, then tool by tool from the end.
  const level = useFoldLevel(rowRef, 1 + TOOLS.length - LEAST_TOOLS);
  if (!piece) return null;
  const shown = level < 2 ? TOOLS.length : TOOLS.length - (level - 1);
  const draws = drawing.tool === 'draw' || drawing.tool === 'shape' || drawing.tool === 'text';
  const possible = drawsNow(drawing.once ?? drawing.drawsAs, targets);
  return (
    <>
      <div ref={rowRef} className="tool-row" role="toolbar" aria-label="Tools">
        {TOOLS.slice(0, shown).map((id) => {
          const Icon = ICONS[id];
          return (
            <button
              key={id}
              type="button"
              className={`tool ${drawing.tool === id ? 'chosen' : ''}`}
              aria-pressed={drawing.tool === id}
              title={hintOf(id)}
              onClick={() => dispatch(drawingActions.toolChosen(id))}
            >
              <Icon size={16} aria-hidden="true" />
              <span>{TOOL_TABLE[id].word}</span>
            </button>
          );
        })}
        <span className="tool-aids">
          {chooser}
          {level === 0 && (
            <>
              <button type="button" className="tool" title={PICTURE_HINT} onClick={choose}>
                <ImagePlus size={16} aria-hidden="true" />
                <span>Picture</span>
              </button>
              <Dropdown align="end" autoClose="outside">
                <Dropdown.Toggle variant="link" className="tool" title="Rulers, grid, guides and snapping">
                  <Grid3x3 size={16} aria-hidden="true" />
                  <span>Aids</span>
                  <ChevronDown size={13} aria-hidden="true" />
                </Dropdown.Toggle>
                <Dropdown.Menu className="tool-menu">
                  <DrawingAids />
                </Dropdown.Menu>
              </Dropdown>
            </>
          )}
          {level > 0 && (
            <Dropdown align="end" autoClose="outside">
              <Dropdown.Toggle variant="link" className="tool" title="What finds no room beside the tools">
                <Ellipsis size={16} aria-hidden="true" />
                <span>More</span>
              </Dropdown.Toggle>
              <Dropdown.Menu className="tool-menu">
                {TOOLS.slice(shown).map((id) => {
                  const Icon = ICONS[id];
                  return (
                    <Dropdown.Item
                      key={id}
                      active={drawing.tool === id}
                      title={hintOf(id)}
                      onClick={() => dispatch(drawingActions.toolChosen(id))}
                    >
                      <Icon size={15} aria-hidden="true" /> {TOOL_TABLE[id].word}
                    </Dropdown.Item>
                  );
                })}
                <Dropdown.Item title={PICTURE_HINT} onClick={choose}>
                  <ImagePlus size={15} aria-hidden="true" /> Picture
                </Dropdown.Item>
                <Dropdown.Divider />
                <DrawingAids />
              </Dropdown.Menu>
            </Dropdown>
          )}
        </span>
      </div>
      {draws && (
        <div className="tool-options" role="group" aria-label="What is drawn">
          {drawing.tool === 'shape' && <ShapeChoice kind={drawing.shapeKind} />}
          <label className="tool-draws">
            becomes
            <select
              className="form-select form-select-sm"
              aria-label="New drawings become"
              value={possible}
              onChange={(event) =>
                dispatch(drawingActions.changed({ drawsAs: event.target.value as DrawsAs, once: null }))
              }
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
    </>
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
          aria-label={shapeKindName(each)}
          title={shapeKindName(each)}
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
