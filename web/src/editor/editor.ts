import { type CompiledPiece, compilePiece, type Ghost, type Piece, pieceDuration, Stage, stretchOf } from '@core';
import type { AppStore } from '../state';
import { type EngineClient, makeCanvas } from '../workers';
import { EarlyLetters } from './drawing/early-letters';
import { ToolHost } from './drawing/tool-host';
import { type Planner, PlanStore } from './plans/plan-store';
import { type ClockDeps, PlaybackClock } from './playback/clock';
import { onionSkins } from './playback/onion';
import { Showing } from './playback/showing';
import { TimeView } from './playback/time-view';
import { rememberDrawing } from './remember-drawing';
import { Viewport } from './viewport/viewport';

/** Opacity of a see-through figure while one draws. */
const SEE_THROUGH = 0.3;

export interface EditorDeps {
  readonly store: AppStore;
  readonly planners: readonly Planner[];
  readonly clock: ClockDeps;
  /** The worker that edits outlines and lays out text. */
  readonly shapes: EngineClient;
}

/** Everything an open piece works with, without any interface. It is made when a piece opens, and destroyed when it closes. */
export interface Editor {
  readonly store: AppStore;
  readonly clock: PlaybackClock;
  readonly plans: PlanStore;
  readonly viewport: Viewport;
  readonly timeView: TimeView;
  readonly stage: Stage;
  readonly shapes: EngineClient;
  /** Gives the drawing a way to read a colour from the painted picture. */
  pickColourWith(pick: (x: number, y: number) => string | undefined): void;
  readonly drawing: ToolHost;
  /** Letters typed for a new text before its field has appeared. */
  readonly earlyLetters: EarlyLetters;
  /** Shows a changed piece on the canvas during a gesture; null: the real one again. */
  preview(piece: Piece | null): void;
  /** The moments before and after this one that are shown faintly; their count is the user's choice. */
  onionSkins(): readonly Ghost[];
  /** Called whenever the canvas needs to be painted again. */
  onRepaint(listener: () => void): () => void;
  destroy(): void;
}

export function createEditor({ store, planners, clock: clockDeps, shapes }: EditorDeps): Editor {
  const clock = new PlaybackClock(clockDeps);
  const plans = new PlanStore(planners);
  const viewport = new Viewport();
  const timeView = new TimeView();
  const stage = new Stage(makeCanvas);
  const repaintListeners = new Set<() => void>();
  const repaint = (): void => {
    for (const listener of repaintListeners) listener();
  };
  let pickColour: (x: number, y: number) => string | undefined = () => undefined;
  const earlyLetters = new EarlyLetters(typeof window === 'undefined' ? null : window);
  const drawing = new ToolHost({
    awaitLetters: (setting) => earlyLetters.wait(setting),
    store,
    clock,
    stage,
    viewport,
    shapes,
    repaint,
    pickColour: (x, y) => pickColour(x, y),
  });
  stage.fade = (id) => (shown?.figures[id]?.seeThrough && !clock.playing ? SEE_THROUGH : 1);
  let shown: Piece | null = null;
  const showing = new Showing(stage, clockDeps, () => clock.seconds, repaint);

  // The clock covers the whole run, including what lies outside the playing stretch.
  const compiledOf = (piece: Piece): CompiledPiece => {
    const compiled = compilePiece(piece, plans.planOf);
    return compiled.playback === 'loop' ? compiled : { ...compiled, playback: 'once' };
  };
  const compile = (): void => showing.show(shown && compiledOf(shown));
  let drawingState = store.getState().drawing;
  let selection = store.getState().session.selection;
  let arrived = store.getState().session.arrival?.poseIds;
  const follow = (): void => {
    const { document, session, drawing: nextDrawing } = store.getState();
    if (document.piece === shown) {
      // The canvas also shows the selection and the current tool.
      if (nextDrawing !== drawingState || session.selection !== selection) repaint();
      // A newly selected pose is shown as it is, not halfway into another.
      if (session.selection !== selection && !clock.playing) drawing.standAtPose();
      const came = session.arrival;
      if (came && came.form !== 'figures' && came.poseIds !== arrived && !clock.playing) drawing.standAtArrival(came);
      arrived = came?.poseIds;
      drawingState = nextDrawing;
      selection = session.selection;
      return;
    }
    shown = document.piece;
    if (shown) {
      const { rate, width, height } = shown.canvas;
      clock.setRange({
        duration: pieceDuration(shown),
        playback: shown.playback,
        stretch: stretchOf(shown),
        rate: rate.num / rate.den,
      });
      viewport.setCanvas(width, height);
      plans.update(shown, session.selection?.kind === 'shift' ? session.selection.shiftId : undefined);
    }
    compile();
  };

  const stopFollowing = store.subscribe(follow);
  const stopRemembering = rememberDrawing(store);
  plans.subscribe(compile);
  clock.onMove(repaint);
  viewport.onChange(repaint);
  follow();

  return {
    store,
    clock,
    plans,
    viewport,
    timeView,
    stage,
    drawing,
    earlyLetters,
    shapes,
    preview: (other) => {
      const piece = other ?? shown;
      showing.show(piece && compiledOf(piece));
    },
    pickColourWith: (pick) => {
      pickColour = pick;
    },
    onionSkins() {
      if (!shown) return [];
      const { rate } = shown.canvas;
      return onionSkins(clock.seconds, store.getState().drawing.onion, {
        duration: pieceDuration(shown),
        loop: shown.playback === 'loop',
        rate: rate.num / rate.den,
      });
    },
    onRepaint(listener) {
      repaintListeners.add(listener);
      return () => void repaintListeners.delete(listener);
    },
    destroy() {
      earlyLetters.take();
      stopFollowing();
      stopRemembering();
      showing.stop();
      clock.destroy();
      plans.destroy();
      repaintListeners.clear();
    },
  };
}
