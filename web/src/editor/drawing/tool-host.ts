import { type FramePart, type Id, type MotionSample, railTimeline, type Stage, stopsOf } from '@core';
import { type AppStore, type Arrival, changePiece } from '../../state';
import { type EngineClient, freshId } from '../../workers';
import type { PlaybackClock } from '../playback/clock';
import { type EditTarget, editTargets, type ShownPose, shownBox, shownPoses } from '../scene/scene';
import { SnapField, type SnapHint } from '../snap/snap';
import { createTools } from '../tools/table';
import type { Gesture, NamedPlace, Pen, PointerInput, PressKeys, Tool, ToolContext } from '../tools/tool';
import type { Viewport } from '../viewport/viewport';
import { KeyPointer } from './key-pointer';

export interface ToolHostParts {
  readonly store: AppStore;
  readonly clock: PlaybackClock;
  readonly stage: Stage;
  readonly viewport: Viewport;
  readonly shapes: EngineClient;
  readonly repaint: () => void;
  readonly pickColour: (x: number, y: number) => string | undefined;
  /** Collects typed letters until the field of a new text is there. */
  readonly awaitLetters: (setting: Promise<unknown>) => void;
}

/** Width of the rulers, screen px. */
export const RULER_PX = 18;
/** How near to a guide a press must be to grab it, screen px. */
const GUIDE_PX = 4;

/** Hosts the drawing tools: passes pointer and keys to the current tool, keeps what gestures show, and knows what is edited. */
export class ToolHost {
  /** The pointer that is moved by keys. */
  readonly keyPointer: KeyPointer;
  private readonly tools: ReturnType<typeof createTools>;
  private gesture: Gesture | null = null;
  private hints: readonly SnapHint[] = [];
  private cache: { key: readonly unknown[]; shown: readonly ShownPose[]; targets: readonly EditTarget[] } | null = null;

  constructor(private readonly parts: ToolHostParts) {
    const drawing: ToolContext = {
      store: parts.store,
      shapes: parts.shapes,
      shown: () => this.look().shown,
      targets: () => this.look().targets,
      seconds: () => parts.clock.seconds,
      showLive: (shown, frameParts, motion = shown.motion) => this.showLive(shown, frameParts, motion),
      endLive: () => this.endLive(),
      snapField: (left, skip) => this.snapField(left, skip),
      hint: (hints) => {
        this.hints = hints;
        parts.repaint();
      },
      pickColour: parts.pickColour,
      awaitLetters: parts.awaitLetters,
      repaint: parts.repaint,
    };
    this.tools = createTools(drawing);
    this.keyPointer = new KeyPointer({
      store: parts.store,
      viewport: parts.viewport,
      repaint: parts.repaint,
      down: (sx, sy, keys) => this.down(sx, sy, keys),
      move: (sx, sy, keys) => this.move(sx, sy, keys),
      up: (sx, sy, keys) => this.up(sx, sy, keys),
      cancel: () => this.cancel(),
      places: () => this.tool.places?.(parts.viewport.view.zoom) ?? this.middles(),
    });
  }

  /** The centres of all visible poses. */
  private middles(): NamedPlace[] {
    return this.look().shown.flatMap((shown) => {
      const { figure } = shown;
      const box = shownBox(shown);
      if (figure.hidden || !(box.maxX >= box.minX)) return [];
      return [{ x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2, name: `Middle of ${figure.name}` }];
    });
  }

  private get tool(): Tool {
    return this.tools[this.parts.store.getState().drawing.tool];
  }

  /** The visible poses and what is edited. Computed again only when the piece, the selection or the time changes. */
  look(): { readonly shown: readonly ShownPose[]; readonly targets: readonly EditTarget[] } {
    const state = this.parts.store.getState();
    const { piece } = state.document;
    const seconds = this.parts.clock.seconds;
    const key = [piece, state.session.selection, state.drawing.also, state.drawing.parts, seconds];
    if (!this.cache || key.some((value, i) => value !== this.cache?.key[i])) {
      const shown = piece ? shownPoses(piece, state.session.selection, seconds) : [];
      this.cache = { key, shown, targets: editTargets(state, seconds) };
    }
    return this.cache;
  }

  private snapField(left: ReadonlySet<Id>, skip?: ReadonlySet<Id>): SnapField {
    const { document, drawing } = this.parts.store.getState();
    if (!document.piece) throw new Error('There is no piece to snap in.');
    return new SnapField(document.piece, this.look().shown, drawing.snap, left, skip);
  }

  private showLive(shown: ShownPose, frameParts: readonly FramePart[], motion: MotionSample | null): void {
    this.parts.stage.override(shown.figure.id, frameParts, motion);
    this.parts.repaint();
  }

  private endLive(): void {
    this.parts.stage.clearOverrides();
    this.hints = [];
    this.parts.repaint();
  }

  get busy(): boolean {
    return this.gesture !== null;
  }

  /** Converts a place in the pane (screen px from its top left corner) to the canvas. */
  private pointer(sx: number, sy: number, keys: PressKeys): PointerInput {
    const { x, y, zoom } = this.parts.viewport.view;
    return { x: (sx - x) / zoom, y: (sy - y) / zoom, zoom, ...keys };
  }

  down(sx: number, sy: number, keys: PressKeys): void {
    this.cancel();
    this.parts.clock.pause();
    this.standAtPose();
    const pointer = this.pointer(sx, sy, keys);
    this.gesture = this.guideGesture(sx, sy) ?? this.tool.down(pointer);
    this.standAtPose();
    this.parts.repaint();
  }

  /** Is the bead within the hold of the selected pose? Only then does the canvas show that pose itself. */
  get atPose(): boolean {
    const stop = this.selectedStop();
    const now = this.parts.clock.seconds;
    return !stop || (now >= stop.start - 1e-6 && now <= stop.start + stop.hold + 1e-6);
  }

  /** Moves the bead to the selected pose, so that one sees what one edits. */
  standAtPose(): void {
    const stop = this.selectedStop();
    if (stop && !this.atPose) this.parts.clock.seek(stop.start);
  }

  /** Moves the bead to a pose that is not selected, such as one that has just arrived. */
  standAtArrival({ figureId, poseIds: [first] }: Arrival): void {
    const { piece } = this.parts.store.getState().document;
    const figure = piece?.figures[figureId];
    if (!piece || !figure) return;
    const stop = railTimeline(piece, figure).stops[stopsOf(piece, figure).indexOf(first)];
    if (stop) this.parts.clock.seek(stop.start);
  }

  private selectedStop() {
    const { document, session } = this.parts.store.getState();
    const { selection } = session;
    if (!document.piece || selection?.kind !== 'stop') return undefined;
    const figure = document.piece.figures[selection.figureId];
    return figure && railTimeline(document.piece, figure).stops[selection.stop];
  }

  move(sx: number, sy: number, keys: PressKeys): void {
    this.gesture?.move(this.pointer(sx, sy, keys));
  }

  up(sx: number, sy: number, keys: PressKeys): void {
    const { gesture } = this;
    this.gesture = null;
    gesture?.end(this.pointer(sx, sy, keys));
    this.hints = [];
    this.parts.repaint();
  }

  /** Cancels the current gesture; true if there was one. */
  cancel(): boolean {
    const { gesture } = this;
    this.gesture = null;
    gesture?.cancel();
    this.hints = [];
    return gesture !== null;
  }

  /** The mouse cursor for a place in the pane. */
  hover(sx: number, sy: number, keys: PressKeys): string {
    const onRuler = this.rulers && (sx < RULER_PX || sy < RULER_PX);
    if (onRuler) return sx < RULER_PX ? 'ew-resize' : 'ns-resize';
    const guide = this.guideAt(sx, sy);
    if (guide) return guide.axis === 'x' ? 'ew-resize' : 'ns-resize';
    return this.tool.hover?.(this.pointer(sx, sy, keys)) ?? 'default';
  }

  private get rulers(): boolean {
    return this.parts.store.getState().drawing.rulers;
  }

  private guideAt(sx: number, sy: number) {
    const { document, drawing } = this.parts.store.getState();
    if (!drawing.rulers || drawing.tool !== 'select') return undefined;
    const { x, y, zoom } = this.parts.viewport.view;
    return document.piece?.aids.guides.find(({ axis, at }) =>
      axis === 'x' ? Math.abs(x + at * zoom - sx) <= GUIDE_PX : Math.abs(y + at * zoom - sy) <= GUIDE_PX,
    );
  }

  /** Pulls a new guide out of a ruler, or moves one. Dropping it on its ruler removes it. */
  private guideGesture(sx: number, sy: number): Gesture | null {
    const { store, viewport, repaint } = this.parts;
    const onRuler = this.rulers && (sx < RULER_PX || sy < RULER_PX);
    const old = onRuler ? undefined : this.guideAt(sx, sy);
    if (!onRuler && !old) return null;
    const axis = old?.axis ?? (sx < RULER_PX ? 'x' : 'y');
    const id = old?.id ?? freshId('gd');
    const place = (p: PointerInput): { at: number; off: boolean } => {
      const at = Math.round(axis === 'x' ? p.x : p.y);
      const { x, y, zoom } = viewport.view;
      return { at, off: (axis === 'x' ? x + at * zoom : y + at * zoom) < RULER_PX };
    };
    return {
      move: (p) => {
        const { at } = place(p);
        this.hints = [{ axis, x: at, y: at, label: `${at} px` }];
        repaint();
      },
      end: (p) => {
        const { at, off } = place(p);
        store.dispatch(
          changePiece(off ? 'Remove a guide' : old ? 'Move a guide' : 'Set a guide', (draft) => {
            const rest = draft.aids.guides.filter((guide) => guide.id !== id);
            draft.aids.guides = off ? rest : [...rest, { id, axis, at }];
          }),
        );
      },
      cancel: repaint,
    };
  }

  /** Handles Enter, Escape and Delete; true if the gesture or the tool used the key. */
  confirm(): boolean {
    return this.tool.confirm?.() ?? false;
  }
  leave(): boolean {
    return this.cancel() || (this.tool.leave?.() ?? false);
  }
  /** Keeps what the pen has drawn so far, because the piece is about to close. */
  keepDrawn(): void {
    this.tools.draw.leave?.();
  }
  undo(): boolean {
    return this.tool.undo?.() ?? false;
  }
  remove(): boolean {
    return this.tool.remove?.() ?? false;
  }

  /** Paints the marks of the tool and the lines that it snaps to. */
  paint(pen: Pen): void {
    this.tool.paint?.(pen);
    this.keyPointer.paint(pen);
    const { context: c, colours } = pen;
    c.strokeStyle = colours.cobalt;
    c.fillStyle = colours.cobalt;
    c.lineWidth = 1;
    c.font = '11px "Instrument Sans Variable", sans-serif';
    for (const { axis, x, y, label } of this.hints) {
      const [sx, sy] = pen.toScreen(x, y);
      c.beginPath();
      if (axis === 'x') {
        c.moveTo(Math.round(sx) + 0.5, 0);
        c.lineTo(Math.round(sx) + 0.5, c.canvas.height);
      } else if (axis === 'y') {
        c.moveTo(0, Math.round(sy) + 0.5);
        c.lineTo(c.canvas.width, Math.round(sy) + 0.5);
      } else c.arc(sx, sy, 7, 0, 2 * Math.PI);
      c.stroke();
      if (axis === 'y') c.fillText(label, RULER_PX + 6, sy - 4);
      else c.fillText(label, sx + 10, axis === 'x' ? RULER_PX + 14 : sy - 8);
    }
  }
}
