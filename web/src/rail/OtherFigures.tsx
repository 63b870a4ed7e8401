import { type Figure, type Piece, railTimeline } from '@core';
import { Fragment } from 'react';
import { useAppStore, useEditor } from '../context';
import { chooseFigure, workedStop } from '../editor';
import { changePiece, selectSelection, useAppSelector } from '../state';
import type { RailGestureContext } from './gestures';
import { RAIL, type RailLayout, timeToX } from './layout';
import { dragStrip, startChange, stripY } from './strip-gestures';

/** As many letters as fit beside the end of the strips. */
const shortName = (name: string): string => (name.length > 14 ? `${name.slice(0, 13)}…` : name);
/** So many strips find room under the ruler; of more so many are in sight, with a part of the next, and the rail is scrolled down. */
const MOST_STRIPS = 4;
const STRIPS_IN_SIGHT = 3;

/** The height that strips need, CSS px: of all, and of those in sight at once. */
export function stripsHeight(
  piece: Piece,
  figure: Figure | undefined,
): { readonly all: number; readonly seen: number } {
  const count = piece.figureOrder.filter((id) => id !== figure?.id).length;
  return { all: RAIL.strip * count, seen: RAIL.strip * (count > MOST_STRIPS ? STRIPS_IN_SIGHT : count) };
}

/**
 * The other figures as thin strips: a level bar for each hold, a line for each shift, so that poses can be aligned. A press chooses one; dragged, or by arrow keys, it is
 * moved in time, and by the end of a bar its hold is changed.
 */
export function OtherFigures({
  piece,
  figure,
  layout,
  gesture,
}: {
  readonly piece: Piece;
  readonly figure: Figure | undefined;
  readonly layout: RailLayout;
  readonly gesture: () => RailGestureContext;
}) {
  const store = useAppStore();
  const editor = useEditor();
  const selection = useAppSelector(selectSelection);
  if (!(layout.scale > 0)) return null;
  const frame = piece.canvas.rate.den / piece.canvas.rate.num;
  const others = [...piece.figureOrder].reverse().filter((id) => id !== figure?.id);
  return others.map((id, i) => {
    const other = piece.figures[id];
    const { stops, spans } = railTimeline(piece, other);
    const y = stripY(i);
    const choose = (): void =>
      chooseFigure(store, id, workedStop(piece, other, selection, editor.clock.seconds), 'alone');
    const press = (event: React.PointerEvent, poseId?: string): void => {
      if (event.button !== 0) return;
      event.stopPropagation();
      dragStrip(gesture(), event, { figureId: id, poseId, choose });
    };
    const keyed = (event: React.KeyboardEvent): void => {
      const way = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0;
      if (way === 0 && event.key !== 'Enter' && event.key !== ' ') return;
      event.preventDefault();
      event.stopPropagation();
      if (way === 0) choose();
      else {
        const { name, recipe } = startChange(other, way * frame * (event.shiftKey ? 10 : 1));
        store.dispatch(changePiece(name, recipe));
      }
    };
    return (
      <g
        key={id}
        className="rail-strip"
        data-strip={id}
        role="button"
        tabIndex={0}
        aria-label={`Choose ${other.name}`}
        aria-description={`Begins at ${Math.round(other.start * 1000) / 1000} s. Arrow keys move it by a frame, with ⇧ by ten.`}
        onPointerDown={(event) => press(event)}
        // A click without a pointer, as aids for reading make it.
        onClick={(event) => event.detail === 0 && choose()}
        onKeyDown={keyed}
      >
        <title>{`${other.name}: press to choose it, drag to move it in time, drag the end of a bar for its hold`}</title>
        <rect className="rail-strip-reach" x={0} y={y - RAIL.strip / 2} width="100%" height={RAIL.strip} />
        {spans.map(({ shift, start, end }) => (
          <line key={shift.id} x1={timeToX(layout, start)} x2={timeToX(layout, end)} y1={y} y2={y} />
        ))}
        {stops.map(({ poseId, start, hold }, k) => {
          const [x, width] = [timeToX(layout, start), Math.max(3, hold * layout.scale)];
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: a pose may stand at several stops
            <Fragment key={`${poseId}${k}`}>
              <rect className="rail-strip-bar" x={x} y={y - 2.5} width={width} height={5} rx={2} />
              <rect
                className="rail-strip-edge"
                x={x + width - 4}
                y={y - RAIL.strip / 2}
                width={8}
                height={RAIL.strip}
                onPointerDown={(event) => press(event, poseId)}
              />
            </Fragment>
          );
        })}
        <text data-at="right" y={y + 3.5}>
          {shortName(other.name)}
        </text>
      </g>
    );
  });
}
