import type { FramePart, Id, MotionSample } from '@core';
import { type AppStore, sessionActions } from '../../state';
import type { EngineClient } from '../../workers';
import type { EditTarget, ShownPose } from '../scene/scene';
import type { SnapField, SnapHint } from '../snap/snap';

/** The modifier keys of a pointer event, by what they mean to tools. */
export interface PressKeys {
  readonly shift: boolean;
  readonly alt: boolean;
  /** 2 for the second press of a double click. */
  readonly clicks: number;
  /** Does the press leave a field or close a menu? Then a click does only that. */
  readonly letsGo?: boolean;
  /** Does it come from the keyboard? Then it is always intended. */
  readonly byKeys?: boolean;
}

/** A place on the canvas to which keys can jump, px, with its name. */
export interface NamedPlace {
  readonly x: number;
  readonly y: number;
  readonly name: string;
}

/** A pointer on the canvas: its place in px of the piece, and the scale in screen px per px. */
export interface PointerInput extends PressKeys {
  readonly x: number;
  readonly y: number;
  readonly zoom: number;
}

/** What a press starts; it finishes with `end` or `cancel`. */
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

/** What overlays are painted with: a context in screen px, and the transform from canvas to screen. */
export interface Pen {
  readonly context: CanvasRenderingContext2D;
  readonly colours: PenColours;
  readonly zoom: number;
  toScreen(x: number, y: number): readonly [number, number];
}

/** What tools can use. */
export interface ToolContext {
  readonly store: AppStore;
  readonly shapes: EngineClient;
  shown(): readonly ShownPose[];
  targets(): readonly EditTarget[];
  seconds(): number;
  /** Shows a figure with other outlines or another motion, until `endLive` ends this for all figures. */
  showLive(shown: ShownPose, parts: readonly FramePart[], motion?: MotionSample | null): void;
  endLive(): void;
  snapField(left: ReadonlySet<Id>, skip?: ReadonlySet<Id>): SnapField;
  hint(hints: readonly SnapHint[]): void;
  /** The colour of the picture at a place on the canvas, as #rrggbb; undefined outside. */
  pickColour(x: number, y: number): string | undefined;
  /** Collects typed letters until the field of a new text is there. */
  awaitLetters(setting: Promise<unknown>): void;
  repaint(): void;
}

/** One tool. `hover` gives the cursor; `paint` draws over the canvas. */
export interface Tool {
  down(pointer: PointerInput): Gesture | null;
  hover?(pointer: PointerInput): string;
  paint?(pen: Pen): void;
  /** Places on the canvas (px) that a press would grab, in the order in which keys walk them. */
  places?(zoom: number): readonly NamedPlace[];
  /** Handles Enter; true if the tool used it. */
  confirm?(): boolean;
  /** Handles Escape; true if something was cancelled. */
  leave?(): boolean;
  /** Handles undo while something is drawn with several presses; true if one press was taken back. */
  undo?(): boolean;
  /** Handles Delete or Backspace; true if the tool used it. */
  remove?(): boolean;
}

/** A press that is already finished. */
export const DONE: Gesture = { move: () => {}, end: () => {}, cancel: () => {} };

/** Tells the user that a click outside the canvas draws nothing; true if it was one. */
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

/** How near to something a press must be to grab it, screen px. */
export const GRAB_PX = 8;
/** A press that moves less than this is a click, screen px. */
export const DRAG_PX = 4;
