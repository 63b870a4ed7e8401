import { type Figure, type Piece, railTimeline } from '@core';
import { useAppStore, useEditor } from '../context';
import { chooseFigure, workedStop } from '../editor';
import { selectSelection, useAppSelector } from '../state';
import { RAIL, type RailLayout, timeToX } from './layout';

/** As many letters as fit beside the end of the strips. */
const shortName = (name: string): string => (name.length > 14 ? `${name.slice(0, 13)}…` : name);
/** So many strips find room under the ruler; for more the rail is scrolled down. */
const STRIPS_IN_SIGHT = 3;

/** The height that strips need, CSS px: of all, and of those in sight at once. */
export function stripsHeight(
  piece: Piece,
  figure: Figure | undefined,
): { readonly all: number; readonly seen: number } {
  const count = piece.figureOrder.filter((id) => id !== figure?.id).length;
  return { all: RAIL.strip * count, seen: RAIL.strip * Math.min(STRIPS_IN_SIGHT, count) };
}

/** The other figures as thin strips: a level bar for each hold, a line for each shift, so that poses can be aligned. A press chooses one. */
export function OtherFigures({
  piece,
  figure,
  layout,
}: {
  readonly piece: Piece;
  readonly figure: Figure | undefined;
  readonly layout: RailLayout;
}) {
  const store = useAppStore();
  const editor = useEditor();
  const selection = useAppSelector(selectSelection);
  if (!(layout.scale > 0)) return null;
  const others = [...piece.figureOrder].reverse().filter((id) => id !== figure?.id);
  return others.map((id, i) => {
    const other = piece.figures[id];
    const { stops, spans } = railTimeline(piece, other);
    const y = RAIL.height + RAIL.strip * (i + 0.5) - 2;
    const choose = (): void =>
      chooseFigure(store, id, workedStop(piece, other, selection, editor.clock.seconds), 'alone');
    return (
      <g
        key={id}
        className="rail-strip"
        role="button"
        tabIndex={0}
        aria-label={`Choose ${other.name}`}
        onClick={choose}
        onKeyDown={(event) => {
          if (event.key !== 'Enter' && event.key !== ' ') return;
          event.preventDefault();
          event.stopPropagation();
          choose();
        }}
      >
        <title>{other.name}</title>
        <rect className="rail-strip-reach" x={0} y={y - RAIL.strip / 2} width="100%" height={RAIL.strip} />
        {spans.map(({ shift, start, end }) => (
          <line key={shift.id} x1={timeToX(layout, start)} x2={timeToX(layout, end)} y1={y} y2={y} />
        ))}
        {stops.map(({ poseId, start, hold }, k) => (
          <rect
            // biome-ignore lint/suspicious/noArrayIndexKey: a pose may stand at several stops
            key={`${poseId}${k}`}
            className="rail-strip-bar"
            x={timeToX(layout, start)}
            y={y - 2.5}
            width={Math.max(3, hold * layout.scale)}
            height={5}
            rx={2}
          />
        ))}
        <text data-at="right" y={y + 3.5}>
          {shortName(other.name)}
        </text>
      </g>
    );
  });
}
