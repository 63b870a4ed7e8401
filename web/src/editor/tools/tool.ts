import type { FramePart, Id, MotionSample } from '@core';
import { type AppStore, sessionActions } from '../../state';
import type { EngineClient } from '../../workers';
import type { EditTarget, ShownPose } from '../scene/scene';
import type { SnapField, SnapHint } from '../snap/snap';

/** What the keys of a pointer event mean to tools. */
export interface PressKeys {
  readonly shift: boolean;
  readonly alt: boolean;
  /** 2 for the second press of a double click. */
  readonly clicks: number;
  /** Does the press take the focus out of a field, or close a menu? As a click it is meant for no more than that. */
  readonly letsGo?: boolean;
  /** Is it done by keys? Then it is meant. */
  readonly byKeys?: boolean;
}

/** A place of the canvas that is worth going to, px, and how it is called. */
export interface NamedPlace {
  readonly x: number;
  readonly y: number;
  readonly name: string;
}

/** A pointer on the canvas: px of the piece, and how many screen px each of them takes. */
export interface PointerInput extends PressKeys {
  readonly x: number;
  readonly y: number;
  readonly zoom: number;
}

/** What a press began; ends by `end`, or by `cancel` when it is left. */
export interface Gesture {
  move(pointer: PointerInput): void;
  end(pointer: PointerInput): void;
  cancel(): void;
}

/** Colours of the overlay, from the page's theme. */
export interface PenColours {
  readonly accent: string;
  readonly ink: string;
  readonly paper: string;
  readonly line: string;
  readonly cobalt: string;
}

/** What overlays are painted with: screen px, and the way from the canvas to the screen. */
export interface Pen {
  readonly context: CanvasRenderingContext2D;
  readonly colours: PenColours;
  readonly zoom: number;
  toScreen(x: number, y: number): readonly [number, number];
}

/** What tools work with. */
export interface ToolContext {
  readonly store: AppStore;
  readonly shapes: EngineClient;
  shown(): readonly ShownPose[];
  targets(): readonly EditTarget[];
  seconds(): number;
  /** Shows a figure in another form, or moved otherwise than it is at the pose, until `endLive` ends that for all. */
  showLive(shown: ShownPose, parts: readonly FramePart[], motion?: MotionSample | null): void;
  endLive(): void;
  snapField(left: ReadonlySet<Id>, skip?: ReadonlySet<Id>): SnapField;
  hint(hints: readonly SnapHint[]): void;
  /** The colour of the picture at a place of the canvas, as #rrggbb; undefined outside. */
  pickColour(x: number, y: number): string | undefined;
  /** Keeps what is typed until a text that was asked for has its field. */
  awaitLetters(): void;
  repaint(): void;
}

/** One tool. `hover` gives the cursor; `paint` draws over the canvas. */
export interface Tool {
  down(pointer: PointerInput): Gesture | null;
  hover?(pointer: PointerInput): string;
  paint?(pen: Pen): void;
  /** Places of the canvas (px) that a press would take hold of, in an order to walk them by keys. */
  places?(zoom: number): readonly NamedPlace[];
  /** Enter. True when it meant something. */
  confirm?(): boolean;
  /** Escape. True when something was left. */
  leave?(): boolean;
  /** Undo while something of several presses is being made. True when a step of it was taken back. */
  undo?(): boolean;
  /** Delete or Backspace. True when it meant something. */
  remove?(): boolean;
}

/** A press that has done all that it was to do. */
export const DONE: Gesture = { move: () => {}, end: () => {}, cancel: () => {} };

/** Says that a click outside of the canvas makes nothing; true where it is one. */
export function isOutside({ store }: ToolContext, { x, y }: PointerInput): boolean {
  const canvas = store.getState().document.piece?.canvas;
  if (!canvas || (x >= 0 && y >= 0 && x <= canvas.width && y <= canvas.height)) return false;
  store.dispatch(
    sessionActions.told({
      tone: 'notice',
      text: 'A click outside the canvas makes nothing. Click inside it, or drag.',
    }),
  );
  return true;
}

/** How near a press must be to something, screen px. */
export const GRAB_PX = 8;
/** A press that moves less than this is a click, screen px. */
export const DRAG_PX = 4;
