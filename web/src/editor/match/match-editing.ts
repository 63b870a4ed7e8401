import {
  ease,
  type Id,
  type MatchChoices,
  type PartPlan,
  type Piece,
  type Place,
  type PlacedPart,
  type PlannedParts,
  type PoseShiftPlan,
  placedParts,
  railTimeline,
  type Shift,
  type ShiftInput,
  shiftInput,
} from '@core';
import { type AppStore, chosenFigure, selectedShift } from '../../state';
import type { PlanStore } from '../plans/plan-store';
import type { PlaybackClock } from '../playback/clock';

export const MATCH_TOOLS = ['tie', 'pair', 'cut', 'touch-up', 'point'] as const;
/** What pressing on the pictures does: tie places (and drag start points), pair contours, cut, touch up, add points. */
export type MatchTool = (typeof MATCH_TOOLS)[number];

/** What the room shows, as far as React draws it. The same object until something changes. */
export interface MatchView {
  readonly tool: MatchTool;
  readonly threads: boolean;
  readonly numbers: boolean;
  /** The full plan, when it is there. */
  readonly plan: PoseShiftPlan | undefined;
  /** The full plan of what is being tried out, once the hand has rested long enough to make it; it stays until the shift's own is there. */
  readonly tried: PoseShiftPlan | undefined;
  /** The full plan is on its way. */
  readonly pending: boolean;
  /** The place of the first press of a tie, which waits for its second. */
  readonly waiting: WaitingPlace | null;
  /** A contour that is pointed at, in a picture or in the list: it is shown in both. */
  readonly lit: LitContour | null;
}

export interface WaitingPlace {
  readonly side: 'a' | 'b';
  readonly place: Place;
}
export interface LitContour {
  readonly side: 'a' | 'b';
  readonly contour: Id;
}

export interface MatchEditingDeps {
  readonly store: AppStore;
  readonly plans: PlanStore;
  readonly clock: PlaybackClock;
  /** A first answer, fast. */
  readonly quick: (input: ShiftInput) => Promise<PlannedParts>;
  /** The full answer, looked at and measured. */
  readonly full: (input: ShiftInput) => Promise<PoseShiftPlan>;
  /** Ends the full answer under way; its promise fails. */
  readonly cancelFull: () => void;
}

/** The hand rests when it has asked nothing new for this long, ms. */
const REST_MS = 90;

/** The shift that the Match room is about: the chosen one, the one that leaves the chosen pose, or the figure's first. */
export function matchedShift(piece: Piece, selection: Parameters<typeof selectedShift>[1]): Shift | undefined {
  const chosen = selectedShift(piece, selection);
  if (chosen) return chosen;
  const figure = chosenFigure(piece, selection);
  if (!figure) return undefined;
  const stop = selection?.kind === 'stop' ? Math.min(selection.stop, figure.rail.length - 1) : 0;
  return piece.shifts[figure.rail[Math.max(0, stop)]];
}

/** The working parts of the Match room without any interface: which shift, which plan, at what progress, and what is under way. */
export class MatchEditing {
  /** Progress of the in-between in the middle, 0 to 1. */
  progress = 0.5;
  /** What is to be drawn now: a quick answer while something is dragged, else the full plan, else the last one there was. */
  shown: PlannedParts | undefined;
  /** Gestures under way: while there are any, the pictures keep their scale. */
  dragging = 0;
  private view: MatchView = {
    tool: 'tie',
    threads: true,
    numbers: false,
    plan: undefined,
    tried: undefined,
    pending: false,
    waiting: null,
    lit: null,
  };
  private shiftId: Id | undefined;
  private live: MatchChoices | undefined;
  private asked = 0;
  private answering = false;
  private resting: ReturnType<typeof setTimeout> | undefined;
  private readonly viewListeners = new Set<() => void>();
  private readonly paintListeners = new Set<() => void>();
  private readonly stops: (() => void)[];

  constructor(private readonly deps: MatchEditingDeps) {
    this.stops = [
      deps.store.subscribe(() => this.follow()),
      deps.plans.subscribe(() => this.follow()),
      deps.clock.onMove((seconds) => this.followClock(seconds)),
    ];
    this.follow();
  }

  destroy(): void {
    for (const stop of this.stops) stop();
    this.live = undefined;
    this.stopResting();
    this.viewListeners.clear();
    this.paintListeners.clear();
  }

  snapshot = (): MatchView => this.view;
  subscribe = (listener: () => void): (() => void) => {
    this.viewListeners.add(listener);
    return () => void this.viewListeners.delete(listener);
  };
  onPaint(listener: () => void): () => void {
    this.paintListeners.add(listener);
    return () => void this.paintListeners.delete(listener);
  }

  /** The shift at hand, with its piece. */
  current(): { piece: Piece; shift: Shift } | undefined {
    const { document, session } = this.deps.store.getState();
    const shift = document.piece && matchedShift(document.piece, session.selection);
    return document.piece && shift ? { piece: document.piece, shift } : undefined;
  }

  /** Parts of both poses where they stand on the canvas. */
  parts(side: 'a' | 'b'): readonly PlacedPart[] {
    const at = this.current();
    if (!at) return [];
    const input = shiftInput(at.piece, at.shift);
    return placedParts(side === 'a' ? input.from : input.to);
  }

  /** Has a drawn part an area at either end, or is it a line? */
  isFilled = ({ a, b }: PartPlan): boolean => {
    const parts = this.current()?.piece.parts;
    return [a, b].some((id) => id !== undefined && (parts?.[id]?.fill ?? null) !== null);
  };

  change(change: Partial<Pick<MatchView, 'tool' | 'threads' | 'numbers' | 'waiting' | 'lit'>>): void {
    this.setView(change.tool ? { waiting: null, ...change } : change);
    this.paint();
  }

  setProgress(progress: number): void {
    this.progress = Math.min(1, Math.max(0, progress));
    this.paint();
  }

  /** Shows what the shift would be with other choices: quickly at first, in full when the hand rests; the newest question wins. */
  tryOut(choices: MatchChoices): void {
    this.live = choices;
    this.asked++;
    this.stopResting();
    if (!this.answering) void this.answer();
  }

  /** The gesture has ended: the piece tells what holds. */
  settle(): void {
    this.live = undefined;
    this.stopResting();
    this.follow();
  }

  paint(): void {
    for (const listener of this.paintListeners) listener();
  }

  private async answer(): Promise<void> {
    this.answering = true;
    while (this.live) {
      const { asked, live } = this;
      const at = this.current();
      if (!at) break;
      try {
        const plan = await this.deps.quick(shiftInput(at.piece, { ...at.shift, match: live }));
        if (this.live) {
          this.shown = plan;
          this.paint();
        }
      } catch {
        // What cannot be done is told when the gesture ends; until then the last picture stays.
      }
      if (asked === this.asked) break;
    }
    this.answering = false;
    if (this.live) this.resting = setTimeout(() => void this.answerFully(), REST_MS);
  }

  private async answerFully(): Promise<void> {
    const { asked, live } = this;
    const at = this.current();
    if (!at || !live) return;
    try {
      const plan = await this.deps.full(shiftInput(at.piece, { ...at.shift, match: live }));
      if (!this.live || asked !== this.asked) return;
      this.shown = plan;
      this.setView({ tried: plan });
      this.paint();
    } catch {
      // Outdated, or it cannot be done: then the quick answer stays, and the end of the gesture tells.
    }
  }

  private stopResting(): void {
    clearTimeout(this.resting);
    this.deps.cancelFull();
  }

  private follow(): void {
    const at = this.current();
    const plan = at && this.deps.plans.planOf(at.shift);
    const moved = at?.shift.id !== this.shiftId;
    if (moved) {
      this.shiftId = at?.shift.id;
      this.shown = undefined;
      this.live = undefined;
    }
    if (plan && !this.live) this.shown = plan;
    const pending = at !== undefined && !plan;
    const tried = moved || (plan && !this.live) ? undefined : this.view.tried;
    const { view } = this;
    if (moved || plan !== view.plan || pending !== view.pending || tried !== view.tried)
      this.setView({
        plan: plan ?? (moved ? undefined : view.plan),
        tried,
        pending,
        ...(moved && { waiting: null, lit: null }),
      });
    this.paint();
  }

  private followClock(seconds: number): void {
    const at = this.current();
    const figure = at && chosenFigure(at.piece, this.deps.store.getState().session.selection);
    if (!at || !figure) return;
    const span = railTimeline(at.piece, figure).spans.find(({ shift }) => shift.id === at.shift.id);
    if (!span || seconds < span.start || seconds > span.end || !(span.end > span.start)) return;
    this.setProgress(ease(at.shift.easing, (seconds - span.start) / (span.end - span.start)));
  }

  private setView(change: Partial<MatchView>): void {
    this.view = { ...this.view, ...change };
    for (const listener of this.viewListeners) listener();
  }
}
