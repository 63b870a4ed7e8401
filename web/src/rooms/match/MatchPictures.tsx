import { evaluate, type InBetweenMarks, type MatchChoices } from '@core';
import { type KeyboardEvent, type PointerEvent, useCallback, useEffect, useRef, useState } from 'react';
import {
  dragCutEnd,
  dragStart,
  dragTie,
  dragTouchPoint,
  locate,
  type MatchEditing,
  type MatchGesture,
  MatchPainter,
  movedCut,
  movedPoint,
  PICTURES,
  type PictureElements,
  type PictureId,
  pointAt,
  pressSide,
  removeCut,
  removeTie,
  type StartHandle,
  setContourDirection,
  setCuts,
  setStarts,
  setTies,
  setTouchUps,
  startPlaces,
  stepAlong,
  type TouchPoint,
  touchPoints,
  withStart,
  withTie,
} from '../../editor';
import type { AppStore } from '../../state';

const TITLE: Readonly<Record<PictureId, string>> = { a: 'First outline', middle: 'In between', b: 'Second outline' };

/** The three pictures: the first outline, the in-between, the second outline, with their handles. */
export function MatchPictures({
  editing,
  store,
  names,
  starts,
  ties,
  cuts,
}: {
  readonly editing: MatchEditing;
  readonly store: AppStore;
  readonly names: readonly [string, string];
  readonly starts: readonly StartHandle[];
  readonly ties: readonly string[];
  readonly cuts: MatchChoices['cuts'];
}) {
  const elements = useRef<Partial<Record<PictureId, { canvas?: HTMLCanvasElement; overlay?: SVGSVGElement }>>>({});
  const painter = useRef<MatchPainter | null>(null);
  const status = useRef<HTMLSpanElement>(null);
  const { tool } = editing.snapshot();
  const [points, setPoints] = useState<readonly TouchPoint[]>([]);

  useEffect(() => {
    const made = new MatchPainter(editing, elements.current as PictureElements);
    painter.current = made;
    const stop = made.onMarks((marks, progress) => {
      if (status.current) status.current.textContent = `${Math.round(100 * progress)} %${marksText(marks)}`;
    });
    return () => {
      stop();
      made.destroy();
      painter.current = null;
    };
  }, [editing]);
  // The points of the in-between are handles only while touching up; they are listed anew when the plan or the moment changes.
  const listPoints = useCallback((): void => {
    const now = painter.current;
    setPoints(now && editing.snapshot().tool === 'touch-up' ? pointsNow(now) : []);
  }, [editing]);
  useEffect(() => {
    listPoints();
    if (tool !== 'touch-up') return;
    let waiting = 0;
    const stop = editing.onPaint(() => {
      window.clearTimeout(waiting);
      // Not while something is dragged: the handles are for the keyboard.
      waiting = window.setTimeout(() => editing.dragging === 0 && listPoints(), 120);
    });
    return () => {
      window.clearTimeout(waiting);
      stop();
    };
  }, [editing, tool, listPoints]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: new handles are put where they belong
  useEffect(() => painter.current?.ask(), [starts, ties, cuts, tool]);

  const gesture = (): MatchGesture => ({ store, painter: painter.current as MatchPainter });
  const keep = (id: PictureId, what: 'canvas' | 'overlay') => (element: never) => {
    elements.current[id] = { ...elements.current[id], [what]: element };
  };
  const press = (event: PointerEvent, act: (gesture: MatchGesture) => void): void => {
    if (event.button !== 0 || !painter.current) return;
    event.stopPropagation();
    act(gesture());
  };
  const stepStart = (event: KeyboardEvent, side: 'a' | 'b', handle: StartHandle): void => {
    const at = editing.current();
    if (at && event.key.toLowerCase() === 'r' && !event.ctrlKey && !event.metaKey) {
      eat(event);
      setContourDirection(store, at.shift.id, handle.contourA, handle.reversed ? 'same' : 'reversed');
      return;
    }
    const direction = arrow(event);
    const now = painter.current && startPlaces(painter.current, handle);
    if (!direction || !now || !at) return;
    eat(event);
    const next = stepAlong(editing.parts(side), now[side], direction, event.shiftKey);
    if (!next) return;
    const pair = { ...now, [side]: next };
    setStarts(
      store,
      at.shift.id,
      withStart(at.shift.match, { a: pair.a.place, b: pair.b.place }, pair.a.anchorIds, pair.b.anchorIds).starts,
    );
  };
  const stepTie = (event: KeyboardEvent, side: 'a' | 'b', id: string): void => {
    const at = editing.current();
    const tie = at?.shift.match.ties.find((other) => other.id === id);
    if (!at || !tie) return;
    if (event.key === 'Delete' || event.key === 'Backspace') {
      eat(event);
      removeTie(store, at.shift.id, id);
      return;
    }
    const direction = arrow(event);
    const now = locate(editing.parts(side), tie[side]);
    if (!direction || !now) return;
    eat(event);
    const next = stepAlong(editing.parts(side), now, direction, event.shiftKey);
    if (next) setTies(store, at.shift.id, withTie(at.shift.match, id, side, next.place).ties);
  };
  const stepCut = (event: KeyboardEvent, side: 'a' | 'b', id: string, end: 0 | 1): void => {
    const at = editing.current();
    const now = painter.current;
    if (!at || !now) return;
    if (event.key === 'Delete' || event.key === 'Backspace') {
      eat(event);
      removeCut(store, at.shift.id, id);
      return;
    }
    const step = NUDGE[event.key];
    const place = now.cutEnd(side, id, end);
    if (!step || !place) return;
    eat(event);
    const far = (event.shiftKey ? 10 : 1) / now.views[side].scale;
    const next = movedCut(now, side, id, end, [place[0] + step[0] * far, place[1] + step[1] * far]);
    if (next) setCuts(store, at.shift.id, next.cuts);
  };
  const nudgePoint = (event: KeyboardEvent, point: TouchPoint): void => {
    const step = NUDGE[event.key];
    const at = editing.current();
    if (!step || !at || !painter.current) return;
    eat(event);
    const far = event.shiftKey ? 10 : 1;
    const next = movedPoint(painter.current, point, step[0] * far, step[1] * far);
    if (next) setTouchUps(store, at.shift.id, next.touchUps, 'Nudge the in-between');
  };
  const view = painter.current?.views.middle;

  return (
    <div className="match-pictures">
      {PICTURES.map((id) => (
        <section key={id} className={`match-picture ${id}`} aria-label={TITLE[id]}>
          <header>
            <span className="match-dot" aria-hidden="true" />
            {id === 'middle' ? (
              <>
                In between{' '}
                <span
                  ref={status}
                  className="numbers match-marks"
                  role="status"
                  data-testid="match-marks"
                  title="Ring: the outline crosses itself there. Dashed ring: two contours cross. Wedge: a point that is smooth in both outlines bends."
                />
              </>
            ) : (
              <span className="match-name">{names[id === 'a' ? 0 : 1]}</span>
            )}
          </header>
          <div className={`match-paper tool-${tool}`}>
            <canvas ref={keep(id, 'canvas')} data-testid={`match-${id}`} />
            <svg
              ref={keep(id, 'overlay')}
              role="group"
              aria-label={`Handles of ${TITLE[id].toLowerCase()}`}
              onPointerMove={(event) => painter.current && pointAt(painter.current, id, event)}
              onPointerLeave={() => painter.current && pointAt(painter.current, id, null)}
              onPointerDown={(event) =>
                press(event, (now) =>
                  id === 'middle'
                    ? tool === 'touch-up' && dragTouchPoint(now, event, pointsNow(now.painter))
                    : pressSide(now, event, id),
                )
              }
            >
              <circle data-key="echo" className="match-echo" r="6" visibility="hidden" />
              <line data-key="rubber" className="match-rubber" visibility="hidden" />
              {id !== 'middle' &&
                cuts
                  .filter(({ side }) => side === (id === 'a' ? 'from' : 'to'))
                  .map((cut, i) => (
                    <g key={cut.id}>
                      <line data-cut={cut.id} className="match-cut-line" visibility="hidden" />
                      {([0, 1] as const).map((end) => (
                        <g
                          key={end}
                          data-handle={`cut:${end}:${cut.id}`}
                          className="match-cut"
                          role="button"
                          tabIndex={0}
                          aria-label={`${end === 0 ? 'Start' : 'End'} of cut ${i + 1} on ${names[id === 'a' ? 0 : 1]}`}
                          onPointerDown={(event) => press(event, (now) => dragCutEnd(now, event, id, cut.id, end))}
                          onKeyDown={(event) => stepCut(event, id, cut.id, end)}
                        >
                          <circle className="match-grip" r="14" />
                          <path d="M-6 0L0 -6L6 0L0 6Z" />
                          <title>Cut {i + 1}: drag its end, or use the arrow keys (⇧ by ten); Delete removes it</title>
                        </g>
                      ))}
                    </g>
                  ))}
              {id !== 'middle' &&
                starts.map((handle, i) => (
                  <g
                    key={handle.key}
                    data-handle={`start:${handle.key}`}
                    className="match-start"
                    role="slider"
                    tabIndex={0}
                    aria-label={`Start point ${i + 1} of ${names[id === 'a' ? 0 : 1]}`}
                    aria-valuenow={i}
                    aria-valuetext="Arrow keys move it along the outline, with ⇧ finely; R reverses the second contour"
                    onPointerDown={(event) => press(event, (now) => dragStart(now, event, id, handle))}
                    onKeyDown={(event) => stepStart(event, id, handle)}
                  >
                    <circle className="match-grip" r="15" />
                    <circle r="7" />
                    <path d="M11 -5L20 0L11 5Z" />
                    <title>
                      Start point and direction: drag it round the outline, or use the arrow keys; R runs the second
                      contour the other way
                    </title>
                  </g>
                ))}
              {id !== 'middle' &&
                ties.map((tie, i) => (
                  <g
                    key={tie}
                    data-handle={`tie:${tie}`}
                    className="match-tie"
                    role="slider"
                    tabIndex={0}
                    aria-label={`Tie ${i + 1} on ${names[id === 'a' ? 0 : 1]}`}
                    aria-valuenow={i}
                    aria-valuetext="Arrow keys move it along the outline, with ⇧ finely; Delete removes it"
                    onPointerDown={(event) => press(event, (now) => dragTie(now, event, id, tie))}
                    onKeyDown={(event) => stepTie(event, id, tie)}
                  >
                    <circle className="match-grip" r="14" />
                    <rect x="-7" y="-7" width="14" height="14" rx="3" />
                    <text>{i + 1}</text>
                    <title>Tie {i + 1}: drag it along the outline; Delete removes it</title>
                  </g>
                ))}
              {id === 'middle' &&
                view &&
                points.map((point, i) => (
                  <circle
                    key={`${point.place.contourId}-${point.place.share.toFixed(6)}`}
                    className="match-point"
                    role="button"
                    tabIndex={0}
                    aria-label={`Point ${i + 1} of the in-between`}
                    cx={point.x * view.scale + view.dx}
                    cy={point.y * view.scale + view.dy}
                    r="9"
                    onKeyDown={(event) => nudgePoint(event, point)}
                  >
                    <title>Drag it, or move it by the arrow keys (⇧ by ten)</title>
                  </circle>
                ))}
            </svg>
          </div>
        </section>
      ))}
    </div>
  );
}

/** The points of the in-between as it is shown. */
function pointsNow(painter: MatchPainter): TouchPoint[] {
  const { shown, progress } = painter.editing;
  return touchPoints(painter, new Map(shown?.parts.map((part) => [part, evaluate(part.plan, progress)])));
}

const NUDGE: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
const arrow = (event: KeyboardEvent): 1 | -1 | 0 =>
  event.key === 'ArrowRight' || event.key === 'ArrowDown'
    ? 1
    : event.key === 'ArrowLeft' || event.key === 'ArrowUp'
      ? -1
      : 0;

function eat(event: KeyboardEvent): void {
  event.preventDefault();
  event.stopPropagation();
}

/** What is wrong with the frame shown, in a few words. */
function marksText(marks: readonly InBetweenMarks[]): string {
  const sum = (pick: (mark: InBetweenMarks) => readonly unknown[]): number =>
    marks.reduce((n, mark) => n + pick(mark).length, 0);
  const said = (n: number, one: string, many: string): string[] => (n > 0 ? [`${n} ${n === 1 ? one : many}`] : []);
  const bend = Math.max(0, ...marks.flatMap(({ kinks }) => kinks.map(({ degrees }) => degrees)));
  const words = [
    ...said(
      sum(({ folds }) => folds),
      'fold',
      'folds',
    ),
    ...said(
      sum(({ crossings }) => crossings),
      'crossing',
      'crossings',
    ),
    ...said(
      sum(({ kinks }) => kinks),
      'kink',
      'kinks',
    ).map((words) => `${words}, ${Math.round(bend)}° at a point that is smooth in both outlines`),
  ];
  return words.length > 0 ? ` · ${words.join(', ')}` : '';
}
