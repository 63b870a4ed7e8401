import type { Figure, Piece } from '@core';
import {
  type Announcements,
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  type Modifier,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import {
  ChevronDown,
  ChevronRight,
  ChevronsDown,
  ChevronsUp,
  ChevronUp,
  CopyPlus,
  Eye,
  EyeOff,
  GripVertical,
  Group,
  Image,
  Layers2,
  Lock,
  LockOpen,
  Trash2,
  Ungroup,
} from 'lucide-react';
import { type KeyboardEventHandler, type PointerEventHandler, type ReactNode, useState } from 'react';
import { PoseThumb } from '../../canvas/PoseThumb';
import { useAppStore, useEditor } from '../../context';
import {
  type ChoosingHow,
  changeFigure,
  chooseFigure,
  choosingHow,
  chosenAfter,
  chosenFigures,
  duplicateChosenFigures,
  groupChosen,
  poseSeen,
  removeChosenFigures,
  restack,
  workedStop,
} from '../../editor';
import { changePiece, drawingActions, selectPiece, useAppDispatch, useAppSelector } from '../../state';
import { IconButton, RangeField, Tabs, TextField } from '../../ui';
import { DrawerColumn } from './DrawerColumn';

const COLUMN_TABS = [
  { id: 'figures', label: 'Figures' },
  { id: 'drawer', label: 'Drawer' },
] as const;

/** The left column: figures in stacking order, the topmost first, or the drawer of shapes kept for reuse. */
export function FigureList() {
  const dispatch = useAppDispatch();
  const piece = useAppSelector(selectPiece);
  const column = useAppSelector((state) => state.drawing.column);
  if (!piece) return null;
  return (
    <aside className="figure-column" aria-label="Figures and drawer">
      <Tabs
        label="Left column"
        tabs={COLUMN_TABS}
        chosen={column}
        onChoose={(next) => dispatch(drawingActions.changed({ column: next }))}
        panelClass="figure-panel"
      >
        {column === 'drawer' ? <DrawerColumn /> : <Figures piece={piece} />}
      </Tabs>
    </aside>
  );
}

/** Rows move up and down only. */
const upright: Modifier = ({ transform }) => ({ ...transform, x: 0 });

/** What a screen reader says while a figure is moved. */
function announcementsFor({ figures, figureOrder }: Piece): Announcements {
  const name = (id: string | number): string => figures[id]?.name ?? 'the figure';
  const place = (id: string | number): string => `place ${figureOrder.length - figureOrder.indexOf(String(id))}`;
  return {
    onDragStart: ({ active }) => `${name(active.id)} taken from ${place(active.id)}.`,
    onDragOver: ({ active, over }) => (over ? `${name(active.id)} is over ${place(over.id)}.` : undefined),
    onDragEnd: ({ active, over }) =>
      over ? `${name(active.id)} put at ${place(over.id)}.` : `${name(active.id)} put back.`,
    onDragCancel: ({ active }) => `${name(active.id)} put back.`,
  };
}

function Figures({ piece }: { readonly piece: Piece }) {
  const store = useAppStore();
  const chosen = useAppSelector((state) => chosenFigures(state).join(' '));
  const ids = chosen === '' ? [] : chosen.split(' ');
  const order = [...piece.figureOrder].reverse();
  const sensors = useSensors(
    // A press that hardly moves is a click.
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const dropped = ({ active, over }: DragEndEvent): void => {
    if (!over || active.id === over.id) return;
    const moved = arrayMove(order, order.indexOf(String(active.id)), order.indexOf(String(over.id)));
    store.dispatch(changePiece('Stacking order', (draft) => void (draft.figureOrder = [...moved].reverse())));
  };
  return (
    <>
      <div className="figure-rows" role="group" aria-label="Figures, the topmost first">
        {order.length === 0 && (
          <p className="figure-none">Figures that you draw or drop are listed here, the topmost first.</p>
        )}
        <DndContext
          sensors={sensors}
          collisionDetection={closestCenter}
          modifiers={[upright]}
          accessibility={{ announcements: announcementsFor(piece) }}
          onDragEnd={dropped}
        >
          <SortableContext items={order} strategy={verticalListSortingStrategy}>
            {order.map((id, i) => {
              const figure = piece.figures[id];
              const above = i > 0 ? piece.figures[order[i - 1]] : undefined;
              const headed = figure.group && figure.group !== above?.group ? piece.groups[figure.group] : undefined;
              return (
                <FigureRow key={id} piece={piece} figure={figure} chosen={ids.includes(id)}>
                  {headed && (
                    <div className="figure-group">
                      <Group size={13} aria-hidden="true" />
                      <TextField
                        label="Name of the group"
                        hideLabel
                        live
                        value={headed.name}
                        onChange={(name) =>
                          store.dispatch(
                            changePiece('Rename the group', (draft) => void (draft.groups[headed.id].name = name)),
                          )
                        }
                      />
                    </div>
                  )}
                </FigureRow>
              );
            })}
          </SortableContext>
        </DndContext>
        <References piece={piece} />
      </div>
      <div className="figure-foot" role="toolbar" aria-label="Stacking and groups">
        <IconButton
          icon={ChevronsUp}
          label="To the top"
          disabled={ids.length === 0}
          onClick={() => restack(store, 'top')}
        />
        <IconButton icon={ChevronUp} label="Up" disabled={ids.length === 0} onClick={() => restack(store, 'up')} />
        <IconButton
          icon={ChevronDown}
          label="Down"
          disabled={ids.length === 0}
          onClick={() => restack(store, 'down')}
        />
        <IconButton
          icon={ChevronsDown}
          label="To the bottom"
          disabled={ids.length === 0}
          onClick={() => restack(store, 'bottom')}
        />
        {ids.some((id) => piece.figures[id].group) ? (
          <IconButton icon={Ungroup} label="Ungroup" onClick={() => groupChosen(store, false)} />
        ) : (
          <IconButton
            icon={Group}
            label="Group"
            keys="G"
            disabled={ids.length < 2}
            onClick={() => groupChosen(store, true)}
          />
        )}
        <IconButton
          icon={CopyPlus}
          label="Duplicate figures"
          disabled={ids.length === 0}
          onClick={() => duplicateChosenFigures(store)}
        />
        <IconButton
          icon={Trash2}
          label="Remove figures"
          disabled={ids.length === 0}
          onClick={() => removeChosenFigures(store)}
        />
      </div>
    </>
  );
}

function FigureRow({
  piece,
  figure,
  chosen,
  children,
}: {
  readonly piece: Piece;
  readonly figure: Figure;
  readonly chosen: boolean;
  /** What stands over the row. */
  readonly children?: ReactNode;
}) {
  const store = useAppStore();
  const editor = useEditor();
  const dispatch = useAppDispatch();
  const [open, setOpen] = useState(false);
  const [renamed, setRenamed] = useState(false);
  const selection = useAppSelector((state) => state.session.selection);
  const parts = useAppSelector((state) => state.drawing.parts);
  const stop = workedStop(piece, figure, selection, editor.clock.seconds);
  const shown = Math.min(stop, figure.poses.length - 1);
  const pose = piece.poses[figure.poses[shown]];
  const choose = (how: ChoosingHow): void => chooseFigure(store, figure.id, stop, how);
  const flag = (name: string, change: Partial<Figure>) => (): void =>
    changeFigure(store, figure.id, `${name} ${figure.name}`, change as never);
  const { setNodeRef, setActivatorNodeRef, attributes, listeners, transform, transition, isDragging } = useSortable({
    id: figure.id,
  });
  return (
    <div
      ref={setNodeRef}
      className={`figure-entry ${isDragging ? 'dragged' : ''}`}
      style={{ transform: CSS.Translate.toString(transform), transition }}
    >
      {children}
      <div
        className={`figure-row ${chosen ? 'chosen' : ''}`}
        onPointerDown={listeners?.onPointerDown as PointerEventHandler | undefined}
      >
        <button
          ref={setActivatorNodeRef}
          type="button"
          className="figure-grip"
          title="Drag to another place in the stack; by keyboard Space, then the arrow keys"
          {...attributes}
          aria-label={`Move ${figure.name}`}
          onKeyDown={listeners?.onKeyDown as KeyboardEventHandler | undefined}
        >
          <GripVertical size={12} aria-hidden="true" />
        </button>
        <button
          type="button"
          className="figure-fold"
          aria-expanded={open}
          aria-label={`Parts of ${figure.name}`}
          disabled={!pose || pose.parts.length < 2}
          onClick={() => setOpen(!open)}
        >
          {open ? <ChevronDown size={13} /> : <ChevronRight size={13} />}
        </button>
        {renamed ? (
          <TextField
            label={`Name of ${figure.name}`}
            hideLabel
            asked
            live
            className="figure-rename"
            value={figure.name}
            onChange={(name) => changeFigure(store, figure.id, `Rename ${figure.name}`, { name })}
            onLeave={() => setRenamed(false)}
          />
        ) : (
          <button
            type="button"
            className="figure-choose"
            aria-pressed={chosen}
            aria-label={`Figure ${figure.name}${figure.clip ? `, seen inside ${piece.figures[figure.clip]?.name}` : ''}`}
            title={figure.clip ? `Seen inside ${piece.figures[figure.clip]?.name}` : undefined}
            onClick={(event) => choose(choosingHow(event))}
            onDoubleClick={() => setRenamed(true)}
            onKeyDown={(event) => {
              if (event.key !== 'F2') return;
              event.stopPropagation();
              setRenamed(true);
            }}
          >
            <span className="figure-thumb">
              {pose && <PoseThumb piece={piece} pose={pose} seen={poseSeen(piece, figure, shown)} size={22} />}
            </span>
            <span className="figure-name">{figure.name}</span>
            {figure.clip && <Layers2 size={12} aria-hidden="true" />}
          </button>
        )}
        <span className="figure-flags">
          <IconButton
            icon={figure.hidden ? EyeOff : Eye}
            label={
              figure.hidden
                ? `Show ${figure.name}`
                : figure.seeThrough
                  ? `Hide ${figure.name}`
                  : `Make ${figure.name} see-through`
            }
            pressed={figure.hidden || figure.seeThrough}
            onClick={
              figure.hidden
                ? flag('Show', { hidden: false, seeThrough: false })
                : figure.seeThrough
                  ? flag('Hide', { hidden: true, seeThrough: false })
                  : flag('See through', { seeThrough: true })
            }
          />
          <IconButton
            icon={figure.locked ? Lock : LockOpen}
            label={figure.locked ? `Unlock ${figure.name}` : `Lock ${figure.name}`}
            pressed={figure.locked}
            onClick={flag(figure.locked ? 'Unlock' : 'Lock', { locked: !figure.locked })}
          />
        </span>
      </div>
      {open && pose && (
        <ul className="figure-parts">
          {[...pose.parts].reverse().map((id) => (
            <li key={id}>
              <button
                type="button"
                className={parts.includes(id) ? 'chosen' : ''}
                aria-pressed={parts.includes(id)}
                onClick={(event) => {
                  if (!chosen) choose('alone');
                  const own = parts.filter((part) => pose.parts.includes(part));
                  dispatch(drawingActions.partsChosen(chosenAfter(pose.parts, own, id, choosingHow(event))));
                }}
              >
                {piece.parts[id].name}
              </button>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

/** Pictures to trace, under the figures. */
function References({ piece }: { readonly piece: Piece }) {
  const store = useAppStore();
  if (piece.references.length === 0) return null;
  return (
    <div className="figure-references">
      <h3>Reference pictures</h3>
      {piece.references.map((picture) => {
        const change = (name: string, next: Partial<typeof picture>): void =>
          void store.dispatch(
            changePiece(name, (draft) => {
              const found = draft.references.find(({ id }) => id === picture.id);
              if (found) Object.assign(found, next);
            }),
          );
        const resize = (width: number): void => {
          const height = picture.width > 0 ? (picture.height * width) / picture.width : picture.height;
          change('Size of the picture', { width, height });
        };
        return (
          <div key={picture.id} className="figure-reference">
            <div className="figure-row">
              <Image size={14} aria-hidden="true" />
              <span className="figure-name" title={picture.name}>
                {picture.name}
              </span>
              <span className="figure-flags">
                <IconButton
                  icon={picture.shown ? Eye : EyeOff}
                  label={picture.shown ? `Hide ${picture.name}` : `Show ${picture.name}`}
                  onClick={() =>
                    change(picture.shown ? 'Hide the picture' : 'Show the picture', { shown: !picture.shown })
                  }
                />
                <IconButton
                  icon={picture.locked ? Lock : LockOpen}
                  label={picture.locked ? `Unlock ${picture.name}` : `Lock ${picture.name}`}
                  pressed={picture.locked}
                  onClick={() => change('Lock the picture', { locked: !picture.locked })}
                />
                <IconButton
                  icon={Trash2}
                  label={`Remove ${picture.name}`}
                  onClick={() =>
                    store.dispatch(
                      changePiece('Remove the picture', (draft) => {
                        draft.references = draft.references.filter(({ id }) => id !== picture.id);
                      }),
                    )
                  }
                />
              </span>
            </div>
            <label className="figure-dim">
              <span>Dimmed</span>
              <RangeField
                label={`How strongly ${picture.name} shows, %`}
                min={5}
                max={100}
                value={Math.round(picture.opacity * 100)}
                onChange={(percent) => change('Dim the picture', { opacity: percent / 100 })}
              />
              <input
                type="number"
                className="form-control form-control-sm"
                aria-label={`Width of ${picture.name}, px`}
                min={1}
                value={Math.round(picture.width)}
                onChange={(event) => Number(event.target.value) > 0 && resize(Number(event.target.value))}
              />
            </label>
          </div>
        );
      })}
    </div>
  );
}
