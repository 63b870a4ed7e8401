import { addLane, type Figure, LANE_PROPERTIES, type LaneProperty, lanesOf, type Piece } from '@core';
import { ChevronDown, ChevronRight, Trash2 } from 'lucide-react';
import { useEffect, useLayoutEffect, useRef, useState, useSyncExternalStore } from 'react';
import { useAppStore, useEditor } from '../../context';
import { chooseFigure, workedStop } from '../../editor';
import { RAIL_PADDING } from '../../rail';
import { changePiece, chosenFigure, type KeyRef, selectSelection, useAppDispatch, useAppSelector } from '../../state';
import { IconButton } from '../../ui';
import { freshId } from '../../workers';
import { LaneRow } from './LaneRow';
import { scrubLanes } from './lane-gestures';
import { LANE_WORDS } from './lane-words';
import { PosesRow } from './PosesRow';

/** The lanes of all figures against the time of the rail: both are scrolled and zoomed together. */
export function LaneSheet({ piece }: { readonly piece: Piece }) {
  const editor = useEditor();
  const { timeView } = editor;
  const scale = useSyncExternalStore(timeView.onScale, timeView.scaleNow);
  const selection = useAppSelector(selectSelection);
  const keys = useAppSelector((state) => state.session.keys);
  const sheet = useRef<HTMLDivElement>(null);
  const bead = useRef<HTMLDivElement>(null);
  const chosen = chosenFigure(piece, selection)?.id;
  const x = (seconds: number): number => RAIL_PADDING + seconds * scale;

  // Scrolling and the bead are written at the display's rate, outside React.
  useLayoutEffect(() => {
    const place = (): void => {
      sheet.current?.style.setProperty('--lane-scroll', `${-timeView.scroll}px`);
      const at = RAIL_PADDING + editor.clock.seconds * timeView.scale - timeView.scroll;
      if (bead.current) bead.current.style.transform = `translateX(${at}px)`;
    };
    place();
    const stops = [timeView.onScroll(place), timeView.onScale(place), editor.clock.onMove(place)];
    return () => {
      for (const stop of stops) stop();
    };
  }, [editor, timeView]);
  useEffect(() => {
    const box = sheet.current;
    if (!box) return;
    const turned = (event: WheelEvent): void => {
      if (event.ctrlKey || event.metaKey) {
        event.preventDefault();
        timeView.zoomBy(Math.exp(-event.deltaY * 0.004), event.clientX - box.getBoundingClientRect().left);
      } else if (event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY)) {
        event.preventDefault();
        timeView.scrollBy(event.deltaX + event.deltaY);
      }
    };
    box.addEventListener('wheel', turned, { passive: false });
    return () => box.removeEventListener('wheel', turned);
  }, [timeView]);

  const timeAt = (clientX: number): number => {
    const left = sheet.current?.getBoundingClientRect().left ?? 0;
    return scale > 0 ? (clientX - left + timeView.scroll - RAIL_PADDING) / scale : 0;
  };
  return (
    <section className="lane-sheet" aria-label="Lanes" ref={sheet}>
      <div
        className="lane-rows"
        onPointerDown={(event) => {
          if (event.button === 0 && !(event.target as Element).closest('button, select, .lane-title, .lane-label'))
            scrubLanes(editor, event, timeAt);
        }}
      >
        {[...piece.figureOrder].reverse().map((id) => (
          <FigureLanes
            key={id}
            piece={piece}
            figure={piece.figures[id]}
            scale={scale}
            width={timeView.width}
            x={x}
            keys={keys}
            isChosen={id === chosen}
          />
        ))}
      </div>
      <div ref={bead} className="lane-bead" aria-hidden="true" />
    </section>
  );
}

function FigureLanes({
  piece,
  figure,
  scale,
  width,
  x,
  keys,
  isChosen,
}: {
  readonly piece: Piece;
  readonly figure: Figure;
  readonly scale: number;
  readonly width: number;
  readonly x: (seconds: number) => number;
  readonly keys: readonly KeyRef[];
  readonly isChosen: boolean;
}) {
  const store = useAppStore();
  const editor = useEditor();
  const dispatch = useAppDispatch();
  const [folded, setFolded] = useState(false);
  const lanes = lanesOf(piece, figure.id);
  const missing = LANE_PROPERTIES.filter((property) => !lanes.some((lane) => lane.property === property));
  const ordered = LANE_PROPERTIES.flatMap((property) => lanes.filter((lane) => lane.property === property));
  const choose = (): void =>
    chooseFigure(
      store,
      figure.id,
      workedStop(piece, figure, store.getState().session.selection, editor.clock.seconds),
      'alone',
    );
  return (
    <div className={`lane-figure ${isChosen ? 'chosen' : ''}`} role="group" aria-label={`Lanes of ${figure.name}`}>
      <div className="lane-title">
        <IconButton
          icon={folded ? ChevronRight : ChevronDown}
          label={folded ? `Show the lanes of ${figure.name}` : `Fold the lanes of ${figure.name}`}
          disabled={ordered.length === 0}
          onClick={() => setFolded(!folded)}
        />
        <button type="button" className="lane-name" aria-pressed={isChosen} onClick={choose}>
          {figure.name}
        </button>
        {missing.length > 0 && figure.poses.length > 0 && (
          <select
            className="lane-add"
            aria-label={`Add a lane to ${figure.name}`}
            value=""
            onChange={(event) => {
              const property = event.target.value as LaneProperty;
              setFolded(false);
              dispatch(
                changePiece(`Add a lane: ${LANE_WORDS[property].label}`, (draft) =>
                  addLane(draft, figure.id, property, freshId),
                ),
              );
            }}
          >
            <option value="" disabled>
              + lane
            </option>
            {missing.map((property) => (
              <option key={property} value={property}>
                {LANE_WORDS[property].label}
              </option>
            ))}
          </select>
        )}
      </div>
      <div className="lane-line">
        <div className="lane-track">
          <PosesRow piece={piece} figure={figure} width={width} x={x} />
        </div>
      </div>
      {!folded &&
        ordered.map((lane) => {
          const words = LANE_WORDS[lane.property];
          return (
            <div key={lane.id} className="lane-line">
              <div className="lane-label">
                <span>
                  {words.label} <small>{words.unit}</small>
                </span>
                <IconButton
                  icon={Trash2}
                  label={`Remove the lane ${words.label} of ${figure.name}`}
                  onClick={() =>
                    dispatch(changePiece(`Remove the lane ${words.label}`, (draft) => void delete draft.lanes[lane.id]))
                  }
                />
              </div>
              <div className="lane-track">
                <LaneRow piece={piece} figure={figure} lane={lane} width={width} scale={scale} x={x} chosen={keys} />
              </div>
            </div>
          );
        })}
    </div>
  );
}
