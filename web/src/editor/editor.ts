import { type CompiledPiece, compilePiece, type Piece, type PoseInput, pieceDuration, planStill } from '@core';
import type { AppStore } from '../state';
import { type Planner, PlanStore } from './plans/plan-store';
import { type ClockDeps, PlaybackClock } from './playback/clock';
import { Stage } from './playback/stage';
import { Viewport } from './viewport/viewport';

export interface EditorDeps {
  readonly store: AppStore;
  readonly planner: Planner;
  readonly clock: ClockDeps;
}

/** The working parts of an open piece, without any interface. Made when a piece opens, destroyed when it closes. */
export interface Editor {
  readonly store: AppStore;
  readonly clock: PlaybackClock;
  readonly plans: PlanStore;
  readonly viewport: Viewport;
  readonly stage: Stage;
  /** Shows one pose in place of the piece while a gesture works on a copy of it; null ends that. */
  preview(pose: PoseInput | null): void;
  /** Called whenever what is on the canvas should be painted again. */
  onRepaint(listener: () => void): () => void;
  destroy(): void;
}

export function createEditor({ store, planner, clock: clockDeps }: EditorDeps): Editor {
  const clock = new PlaybackClock(clockDeps);
  const plans = new PlanStore(planner);
  const viewport = new Viewport();
  const stage = new Stage();
  const repaintListeners = new Set<() => void>();
  const repaint = (): void => {
    for (const listener of repaintListeners) listener();
  };
  let shown: Piece | null = null;
  let compiled: CompiledPiece | null = null;

  const compile = (): void => {
    compiled = shown && compilePiece(shown, plans.planOf);
    stage.show(compiled);
    repaint();
  };
  const follow = (): void => {
    const { document, session } = store.getState();
    if (document.piece === shown) return;
    shown = document.piece;
    if (shown) {
      const { rate, width, height } = shown.canvas;
      clock.setRange({ duration: pieceDuration(shown), loop: shown.playback === 'loop', rate: rate.num / rate.den });
      viewport.setCanvas(width, height);
      plans.update(shown, session.selection?.kind === 'shift' ? session.selection.shiftId : undefined);
    }
    compile();
  };

  const stopFollowing = store.subscribe(follow);
  plans.subscribe(compile);
  clock.onMove(repaint);
  viewport.onChange(repaint);
  follow();

  return {
    store,
    clock,
    plans,
    viewport,
    stage,
    preview(pose) {
      if (!pose || !compiled) stage.show(compiled);
      else {
        const span = {
          start: 0,
          holdEnd: 1,
          end: 1,
          easing: { kind: 'linear' } as const,
          parts: planStill(pose).parts,
        };
        stage.show({ ...compiled, figures: [{ id: 'preview', spans: [span] }] });
      }
      repaint();
    },
    onRepaint(listener) {
      repaintListeners.add(listener);
      return () => void repaintListeners.delete(listener);
    },
    destroy() {
      stopFollowing();
      clock.destroy();
      plans.destroy();
      repaintListeners.clear();
    },
  };
}
