import { isTooShort, pieceDuration, readingTime, stopsOf } from '@core';
import { ZoomIn, ZoomOut } from 'lucide-react';
import {
  type DragEvent,
  type KeyboardEvent,
  useCallback,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
} from 'react';
import { useMatch } from 'react-router';
import { SHAPE_DRAG_TYPE } from '../canvas/drag-type';
import { PoseThumb } from '../canvas/PoseThumb';
import { useOpenPiece, usePlanStatuses } from '../context';
import { chooseOnRail, choosingHow, droppedFiles, matchedShift, poseSeen } from '../editor';
import {
  chosenFigure,
  drawingActions,
  railChoice,
  selectPiece,
  selectSelection,
  useAppDispatch,
  useAppSelector,
} from '../state';
import { IconButton, VERDICT } from '../ui';
import { applyRailLayout } from './apply-layout';
import {
  dragBead,
  dragBox,
  dragCard,
  dragHold,
  type RailGestureContext,
  selectStop,
  showInsertion,
  showRailGesture,
} from './gestures';
import {
  beadHeight,
  insertionStop,
  layoutRail,
  MOST_ZOOM,
  RAIL,
  type RailLayout,
  railWidth,
  scrollToShow,
  timeToX,
  xToTime,
} from './layout';
import { OtherFigures, stripsHeight } from './OtherFigures';
import './rail.scss';

/** Room for a scroll bar under the rail, px. */
const SCROLLBAR = 10;

/** Puts the names of the strips at the right end of what is in sight. */
function placeNames(svg: SVGSVGElement, pane: HTMLElement): void {
  for (const name of svg.querySelectorAll('[data-at="right"]'))
    name.setAttribute('x', String(pane.scrollLeft + pane.clientWidth - 6));
}

/** The rail: poses as cards over their holds, shifts as arcs that show their easing, and the bead. In the Match room its shift is marked. */
export function Rail({ onAdd }: { readonly onAdd: (card: Element) => void }) {
  const { editor, takeFiles, takeSvg } = useOpenPiece();
  const dispatch = useAppDispatch();
  const piece = useAppSelector(selectPiece);
  const selection = useAppSelector(selectSelection);
  const more = useAppSelector((state) => state.session.more);
  const statuses = usePlanStatuses();
  const inMatch = useMatch('/piece/:id/match') !== null;
  const matched = inMatch && piece ? matchedShift(piece, selection)?.id : undefined;
  const svgRef = useRef<SVGSVGElement>(null);
  const paneRef = useRef<HTMLDivElement>(null);
  const [pane, setPane] = useState(0);
  const [zoom, setZoom] = useState(1);
  const zoomRef = useRef(1);
  /** How far the pane is scrolled and how wide it is, px. */
  const scrolled = useRef(0);
  const paneWidth = useRef(0);
  paneWidth.current = pane;
  /** What stays where it is while the rail is zoomed: a time, and how far from the left of the pane, px. */
  const fixed = useRef<{ readonly seconds: number; readonly at: number } | null>(null);
  const figure = piece ? chosenFigure(piece, selection) : undefined;
  const layout = useMemo<RailLayout>(() => {
    const width = railWidth(pane, piece && figure ? stopsOf(piece, figure).length : 0, zoom);
    return piece
      ? layoutRail(piece, figure, width, pieceDuration(piece))
      : { width, scale: 0, duration: 0, bars: [], arcs: [] };
  }, [piece, figure, pane, zoom]);
  const layoutRef = useRef(layout);
  layoutRef.current = layout;

  useLayoutEffect(() => {
    const box = paneRef.current;
    if (!box) return;
    const observer = new ResizeObserver(() => setPane(box.clientWidth));
    observer.observe(box);
    setPane(box.clientWidth);
    return () => observer.disconnect();
  }, []);
  useLayoutEffect(() => {
    const [svg, box] = [svgRef.current, paneRef.current];
    if (!svg || !box) return;
    applyRailLayout(svg, layout);
    editor.timeView.show(layout.scale, layout.width);
    showRailGesture(svg);
    if (fixed.current) box.scrollLeft = timeToX(layout, fixed.current.seconds) - fixed.current.at;
    fixed.current = null;
    placeNames(svg, box);
  });
  const zoomBy = useCallback((factor: number, at?: number): void => {
    const box = paneRef.current;
    if (!box) return;
    const next = Math.min(MOST_ZOOM, Math.max(1, zoomRef.current * factor));
    // Nothing to keep in place where nothing changes.
    if (next === zoomRef.current) return;
    zoomRef.current = next;
    const x = at ?? box.clientWidth / 2;
    fixed.current = { seconds: xToTime(layoutRef.current, box.scrollLeft + x), at: x };
    setZoom(next);
  }, []);
  useEffect(() => {
    const box = paneRef.current;
    if (!box) return;
    const turned = (event: WheelEvent): void => {
      if (event.ctrlKey || event.metaKey) {
        event.preventDefault();
        zoomBy(Math.exp(-event.deltaY * 0.004), event.clientX - box.getBoundingClientRect().left);
      } else if (box.scrollWidth > box.clientWidth && !event.shiftKey) {
        // A wheel that only turns one way goes along the rail.
        event.preventDefault();
        box.scrollLeft += event.deltaX + event.deltaY;
      }
    };
    box.addEventListener('wheel', turned, { passive: false });
    return () => box.removeEventListener('wheel', turned);
  }, [zoomBy]);
  useEffect(
    () =>
      editor.timeView.own({
        zoomBy,
        scrollBy: (px) => {
          if (paneRef.current) paneRef.current.scrollLeft += px;
        },
      }),
    [editor, zoomBy],
  );
  // biome-ignore lint/correctness/useExhaustiveDependencies: another layout puts the bead elsewhere
  useEffect(() => {
    // The bead moves with the clock, outside React.
    const bead = svgRef.current?.querySelector('[data-key="bead"]');
    const place = (seconds: number): void => {
      const x = timeToX(layoutRef.current, seconds);
      bead?.setAttribute('transform', `translate(${x} ${beadHeight(layoutRef.current, seconds)})`);
    };
    const moved = (seconds: number): void => {
      place(seconds);
      const box = paneRef.current;
      if (!box) return;
      // Both are kept: asking the page for them in every picture would lay it out anew each time.
      const wanted = scrollToShow(timeToX(layoutRef.current, seconds), scrolled.current, paneWidth.current);
      const scroll = Math.min(wanted, Math.max(0, layoutRef.current.width - paneWidth.current));
      if (scroll === scrolled.current) return;
      scrolled.current = scroll;
      box.scrollLeft = scroll;
    };
    place(editor.clock.seconds);
    return editor.clock.onMove(moved);
  }, [editor, layout]);

  if (!piece) return null;
  const strips = stripsHeight(piece, figure);
  const choice = railChoice(piece, selection, more);
  /** On the rail plus and minus zoom in time. */
  const zoomed = (event: KeyboardEvent): void => {
    if (event.ctrlKey || event.metaKey || event.altKey || !['+', '=', '-'].includes(event.key)) return;
    event.preventDefault();
    event.stopPropagation();
    zoomBy(event.key === '-' ? 1 / 1.5 : 1.5);
  };
  const gesture = (): RailGestureContext => ({
    editor,
    svg: svgRef.current as SVGSVGElement,
    layout: () => layoutRef.current,
  });
  const insertion = (): SVGElement | null => svgRef.current?.querySelector('[data-key="insertion"]') ?? null;
  type Pressed = Parameters<typeof choosingHow>[0];
  const pressed = (event: KeyboardEvent, act: (event: KeyboardEvent) => void): void => {
    if (event.key !== 'Enter' && event.key !== ' ') return;
    event.preventDefault();
    event.stopPropagation();
    act(event);
  };
  const dragOver = (event: DragEvent): void => {
    const { types } = event.dataTransfer;
    if ((!types.includes('Files') && !types.includes(SHAPE_DRAG_TYPE)) || !figure) return;
    event.preventDefault();
    const x = event.clientX - (svgRef.current?.getBoundingClientRect().left ?? 0);
    showInsertion(insertion(), layout, insertionStop(layout, x));
  };
  const dropped = (event: DragEvent): void => {
    event.preventDefault();
    event.stopPropagation();
    insertion()?.setAttribute('visibility', 'hidden');
    const x = event.clientX - (svgRef.current?.getBoundingClientRect().left ?? 0);
    const at = figure ? insertionStop(layout, x) : undefined;
    const svg = event.dataTransfer.getData(SHAPE_DRAG_TYPE);
    if (svg) takeSvg(event.dataTransfer.getData('text/x-arcshift-name') || 'Shape', svg, at);
    else void droppedFiles(event.dataTransfer).then((files) => takeFiles(files, at));
  };

  return (
    <section className="rail" aria-label="Rail" style={{ minHeight: RAIL.height }} onKeyDown={zoomed}>
      <div
        ref={paneRef}
        className="rail-pane"
        style={{ maxHeight: RAIL.height + strips.seen + SCROLLBAR }}
        onScroll={({ currentTarget }) => {
          scrolled.current = currentTarget.scrollLeft;
          editor.timeView.scrolled(currentTarget.scrollLeft);
          if (svgRef.current) placeNames(svgRef.current, currentTarget);
        }}
      >
        <svg
          ref={svgRef}
          className="rail-picture"
          width={layout.width}
          height={RAIL.height + strips.all}
          role="group"
          aria-label="Poses and shifts in time"
          onDragOver={dragOver}
          onDragLeave={() => insertion()?.setAttribute('visibility', 'hidden')}
          onDrop={dropped}
          onPointerDown={(event) => {
            // Beside everything: a box begins.
            if (event.button === 0 && event.target === event.currentTarget) dragBox(gesture(), event);
          }}
        >
          <rect
            className="rail-floor"
            x="0"
            y={RAIL.ruler - 4}
            width="100%"
            height={RAIL.height - RAIL.ruler + 4}
            onPointerDown={(event) => dragBead(gesture(), event)}
          />
          <g data-key="ruler" className="rail-ruler" />
          <OtherFigures piece={piece} figure={figure} layout={layout} gesture={gesture} />
          {layout.arcs.map(({ shiftId }) => {
            const status = statuses.get(shiftId);
            const verdict = status?.plan?.health.verdict;
            const shift = piece.shifts[shiftId];
            const names = `${piece.poses[shift.from].name} to ${piece.poses[shift.to].name}`;
            const select = (event: Pressed): void =>
              chooseOnRail(editor.store, figure?.id ?? '', { kind: 'shift', shiftId }, choosingHow(event));
            const chosen = choice?.shifts.includes(shiftId) === true;
            const marked = chosen || shiftId === matched;
            const Mark = verdict ? VERDICT[verdict].icon : null;
            return (
              <g
                key={shiftId}
                className={`rail-shift ${verdict ?? 'pending'} ${marked ? 'chosen' : ''}`}
                onClick={select}
              >
                <path data-key={`arc-${shiftId}`} className="rail-arc" />
                <path
                  data-key={`hit-${shiftId}`}
                  className="rail-hit"
                  tabIndex={0}
                  role="button"
                  aria-pressed={chosen}
                  aria-current={shiftId === matched || undefined}
                  aria-label={`Shift ${names}, ${shift.duration} s, ${status?.failed ? 'failed' : verdict ? VERDICT[verdict].word : 'being matched'}`}
                  onKeyDown={(event) => pressed(event, select)}
                >
                  <title>
                    {status?.failed ??
                      (status?.plan ? `${names}: ${status.plan.health.sentence}` : `${names}: being matched …`)}
                  </title>
                </path>
                <g data-key={`mark-${shiftId}`} className="rail-mark">
                  {(verdict !== 'good' || marked) && (
                    <>
                      <circle r="8" />
                      {Mark ? (
                        <Mark x={-5.5} y={-5.5} size={11} strokeWidth={2.6} />
                      ) : (
                        <circle className="rail-waiting" r="4" />
                      )}
                    </>
                  )}
                </g>
              </g>
            );
          })}
          {layout.bars.map((bar) => {
            const pose = piece.poses[bar.poseId];
            const chosen = choice?.stops.includes(bar.stop) === true;
            const select = (event: Pressed): void => {
              if (!figure) return;
              const how = choosingHow(event);
              if (how === 'alone') selectStop(editor, figure.id, bar.stop, layout);
              else chooseOnRail(editor.store, figure.id, { kind: 'stop', stop: bar.stop }, how);
            };
            return (
              <g key={bar.stop} className={`rail-stop ${chosen ? 'chosen' : ''} ${bar.held ? '' : 'returning'}`}>
                <line data-key={`thread-${bar.stop}`} className="rail-thread" />
                <rect
                  data-key={`bar-${bar.stop}`}
                  className="rail-bar"
                  height={RAIL.bar}
                  rx={RAIL.bar / 2}
                  onClick={select}
                />
                {bar.held && isTooShort(piece, pose) && (
                  <circle data-key={`short-${bar.stop}`} className="rail-short" r="4">
                    <title>
                      {pose.name} is held {pose.hold} s: about {readingTime(piece, pose).seconds} s are needed to read
                      it
                    </title>
                  </circle>
                )}
                {bar.held && (
                  <rect
                    data-key={`edge-${bar.stop}`}
                    className="rail-edge"
                    width="10"
                    height={RAIL.edge}
                    onPointerDown={(event) => dragHold(gesture(), event, bar.poseId)}
                  >
                    <title>Drag to hold {pose.name} longer or shorter</title>
                  </rect>
                )}
                <g
                  data-key={`card-${bar.stop}`}
                  className="rail-card"
                  role="button"
                  tabIndex={0}
                  aria-pressed={chosen}
                  aria-label={`Pose ${bar.stop + 1}, ${pose.name}, ${bar.held ? `held ${pose.hold} s` : 'the way back to the beginning'}`}
                  onPointerDown={(event) => event.button === 0 && dragCard(gesture(), event, bar.stop)}
                  onKeyDown={(event) => pressed(event, select)}
                  onDoubleClick={(event) => {
                    select(event);
                    dispatch(drawingActions.changed({ details: 'pose', renames: bar.poseId }));
                  }}
                >
                  <rect className="rail-card-paper" width={RAIL.card} height={RAIL.card} rx="6" />
                  <PoseThumb
                    piece={piece}
                    pose={pose}
                    seen={figure && poseSeen(piece, figure, bar.stop)}
                    size={RAIL.card - 10}
                    x={5}
                    y={5}
                  />
                  <title>
                    {pose.name}: drag to move it along the rail, press twice to rename it; with ⇧ or Ctrl several are
                    chosen
                  </title>
                </g>
              </g>
            );
          })}
          <g
            data-key="add"
            className="rail-add"
            role="button"
            tabIndex={0}
            aria-label="Add a pose"
            onClick={(event) => onAdd(event.currentTarget)}
            onKeyDown={(event) => pressed(event, () => onAdd(event.currentTarget))}
          >
            <rect width={RAIL.card} height={RAIL.card} rx="6" />
            <path d={`M${RAIL.card / 2} 15v14M15 ${RAIL.card / 2}h14`} />
            <title>Add a pose: a shape, a drawing, a text, files, a copy</title>
          </g>
          {layout.bars.length === 0 && (
            <text className="rail-empty" x={RAIL.padding + RAIL.card + 14} y={RAIL.cardTop + RAIL.card / 2 + 4}>
              Poses will hang here in the order in which they play, with an arc from one to the next.
            </text>
          )}
          <g data-key="insertion" className="rail-insertion" visibility="hidden">
            <line y1="2" y2={RAIL.ruler - 6} />
          </g>
          <rect data-key="box" className="rail-box" visibility="hidden" />
          <g
            data-key="bead"
            className="rail-bead"
            visibility={layout.scale > 0 ? 'visible' : 'hidden'}
            onPointerDown={(event) => dragBead(gesture(), event)}
          >
            <circle className="rail-bead-reach" r="14" />
            <circle className="rail-bead-body" r="6.5" />
          </g>
        </svg>
      </div>
      {layout.scale > 0 && (
        <div className="rail-zoom" role="group" aria-label="Zoom of the rail">
          <IconButton icon={ZoomOut} label="Show more time" disabled={zoom <= 1} onClick={() => zoomBy(1 / 1.5)} />
          <IconButton icon={ZoomIn} label="Show less time" disabled={zoom >= MOST_ZOOM} onClick={() => zoomBy(1.5)} />
        </div>
      )}
    </section>
  );
}
