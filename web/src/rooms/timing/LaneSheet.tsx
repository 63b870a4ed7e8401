import {
  addLane,
  CANVAS_LANES,
  canHave,
  type Figure,
  fixMiddle,
  isAboutPivot,
  isShapeNumber,
  LANE_KIND_IDS,
  type LaneProperty,
  type LaneRecord,
  lanesOf,
  type Piece,
  propertiesOf,
  SHAPE_NUMBERS,
  shapeNumber,
} from '@core';
import { ChevronDown, ChevronRight, Trash2 } from 'lucide-react';
import { useEffect, useEffectEvent, useLayoutEffect, useRef, useState, useSyncExternalStore } from 'react';
import { useAppStore, useEditor } from '../../context';
import { chooseFigure, workedStop } from '../../editor';
import { RAIL_PADDING } from '../../rail';
import {
  changePiece,
  chosenFigure,
  type KeyRef,
  selectSelection,
  sessionActions,
  useAppDispatch,
  useAppSelector,
} from '../../state';
import { IconButton, ListOptions } from '../../ui';
import { freshId } from '../../workers';
import { LaneRow } from './LaneRow';
import { boxKeys, scrubLanes } from './lane-gestures';
import { laneWords } from './lane-words';
import { PosesRow } from './PosesRow';

/** The lanes of all figures against the time of the rail: both are scrolled and zoomed together. `onHeight` is told how high all of them are, px. */
export function LaneSheet({ piece, onHeight }: { readonly piece: Piece; readonly onHeight: (height: number) => void }) {
  const editor = useEditor();
  const { timeView } = editor;
  const scale = useSyncExternalStore(timeView.onScale, timeView.scaleNow);
  const selection = useAppSelector(selectSelection);
  const keys = useAppSelector((state) => state.session.keys);
  const sheet = useRef<HTMLDivElement>(null);
  const rows = useRef<HTMLDivElement>(null);
  const content = useRef<HTMLDivElement>(null);
  const frame = useRef<HTMLDivElement>(null);
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
  const tellHeight = useEffectEvent(onHeight);
  useEffect(() => {
    const box = content.current;
    if (!box) return;
    const observer = new ResizeObserver(() => tellHeight(box.offsetHeight));
    observer.observe(box);
    return () => observer.disconnect();
  }, []);
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
        ref={rows}
        className="lane-rows"
        onPointerDown={(event) => {
          if (event.button !== 0 || (event.target as Element).closest('button, select, .lane-title, .lane-label'))
            return;
          if (event.shiftKey && rows.current && frame.current) boxKeys(editor, rows.current, frame.current, event);
          else scrubLanes(editor, event, timeAt);
        }}
      >
        <div ref={content}>
          {Object.keys(piece.lanes).length === 0 && (
            <p className="lane-empty" role="note">
              No lanes yet. Add one to a figure here, or move, rotate or scale a pose in Shapes.
            </p>
          )}
          {[...piece.figureOrder].reverse().map((id) => (
            <OwnerLanes
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
          {piece.figureOrder.length > 0 && (
            <OwnerLanes
              piece={piece}
              figure={null}
              scale={scale}
              width={timeView.width}
              x={x}
              keys={keys}
              isChosen={false}
            />
          )}
        </div>
      </div>
      <div ref={frame} className="lane-box" hidden />
      <div ref={bead} className="lane-bead" aria-hidden="true" />
    </section>
  );
}

/** The lanes of a figure, or of the canvas (null). */
function OwnerLanes({
  piece,
  figure,
  scale,
  width,
  x,
  keys,
  isChosen,
}: {
  readonly piece: Piece;
  readonly figure: Figure | null;
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
  const owner = figure ? figure.name : 'the canvas';
  const lanes = lanesOf(piece, figure?.id ?? null);
  const can = figure ? propertiesOf(piece, figure) : CANVAS_LANES;
  const missing = can.filter((property) => !lanes.some((lane) => lane.property === property));
  const ordered = [...LANE_KIND_IDS, ...SHAPE_NUMBERS.keys()].flatMap((property) =>
    lanes.filter((lane) => lane.property === property),
  );
  // Of one kind of shape the number alone says it.
  const kinds = new Set(lanes.flatMap(({ property }) => shapeNumber(property)?.kind ?? [])).size;
  const choose = (): void => {
    if (!figure) return;
    dispatch(sessionActions.keysChosen([]));
    const stop = workedStop(piece, figure, store.getState().session.selection, editor.clock.seconds);
    chooseFigure(store, figure.id, stop, 'alone');
  };
  const add = (property: LaneProperty): void => {
    setFolded(false);
    let made: string | undefined;
    dispatch(
      changePiece(`Add a lane: ${laneWords(property).label}`, (draft) => {
        made = addLane(draft, figure?.id ?? null, property, freshId);
        if (figure && isAboutPivot(property)) fixMiddle(draft, figure.id);
      }),
    );
    if (made) dispatch(sessionActions.keysChosen([{ lane: made, key: null }]));
  };
  return (
    <div className={`lane-figure ${isChosen ? 'chosen' : ''}`} role="group" aria-label={`Lanes of ${owner}`}>
      <div className="lane-title">
        <IconButton
          icon={folded ? ChevronRight : ChevronDown}
          label={folded ? `Show the lanes of ${owner}` : `Fold the lanes of ${owner}`}
          disabled={ordered.length === 0}
          onClick={() => setFolded(!folded)}
        />
        {figure ? (
          <button type="button" className="lane-name" aria-pressed={isChosen} onClick={choose}>
            {figure.name}
          </button>
        ) : (
          <span className="lane-name">Canvas</span>
        )}
        {missing.length > 0 && (
          <select
            className="lane-add"
            aria-label={`Add a lane to ${owner}`}
            value=""
            onChange={(event) => add(event.target.value as LaneProperty)}
          >
            <option value="" disabled>
              + lane
            </option>
            <ListOptions
              options={missing.map((property) => ({
                value: property,
                label: laneWords(property).label,
                group: isShapeNumber(property) ? 'Numbers of its shapes' : undefined,
              }))}
            />
          </select>
        )}
      </div>
      {figure && (
        <div className="lane-line">
          <div className="lane-track">
            <PosesRow piece={piece} figure={figure} width={width} x={x} />
          </div>
        </div>
      )}
      {!folded &&
        ordered.map((lane) => {
          const words = laneWords(lane.property);
          const beside = besideName(piece, figure, lane);
          return (
            <div key={lane.id} className="lane-line">
              <div className="lane-label">
                <button
                  type="button"
                  className="lane-own"
                  title={`${words.label}: press it for what it follows, drifts and pulses by`}
                  aria-label={`${words.label} ${beside}`.trim()}
                  aria-pressed={keys.some((ref) => ref.lane === lane.id && ref.key === null)}
                  onClick={() => dispatch(sessionActions.keysChosen([{ lane: lane.id, key: null }]))}
                >
                  {kinds > 1 ? words.label : (words.short ?? words.label)} <small>{beside}</small>
                </button>
                <IconButton
                  icon={Trash2}
                  label={`Remove the lane ${words.label} of ${owner}`}
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

/** What a lane says beside its name: that nothing heeds it, what moves it besides its keys, or its unit. */
const besideName = (piece: Piece, figure: Figure | null, lane: LaneRecord): string =>
  figure && !canHave(piece, figure, lane.property)
    ? 'nothing has it'
    : drivesText(lane) || laneWords(lane.property).unit;

/** What moves a lane besides its keys, in words. */
const drivesText = ({ follow, drift, pulse }: LaneRecord): string =>
  [follow && 'follows', drift && 'drifts', pulse && 'pulses'].filter(Boolean).join(', ');
