import {
  combineOutlines,
  cutAlongLine,
  type Id,
  layoutText,
  mapPoint,
  motionMatrix,
  multiply,
  outlineOfStroke,
  type Part,
  type PathEngine,
  type Piece,
  type Pose,
  placementMatrix,
  simplifyContour,
  type TextFont,
} from '@core';
import { type CommandId, commandById, createEditor, type Editor, motionAtStop } from '../editor';
import { type AppStore, createStore, documentActions, type RootState, sessionActions } from '../state';
import type { EngineClient } from '../workers';

/** Where the canvas's left top corner lies in the pane, px; the view is not zoomed. */
const OFFSET = 28;
/** What is kept free under it. */
const FOOT = 52;

/** The worker's calls without a worker. */
export const engineOf = (paths: PathEngine, font?: TextFont): EngineClient =>
  ({
    combine: async (kind, outlines) => combineOutlines(paths, kind, outlines),
    strokeOutline: async (outline, stroke) => outlineOfStroke(paths, outline, stroke),
    cut: async (outline, line) => cutAlongLine(paths, outline, ...line),
    simplify: async (outline, tolerance) => {
      const changed = outline.contours.map((contour) => simplifyContour(contour, tolerance));
      return {
        outline: { ...outline, contours: changed.map(({ contour }) => contour) },
        deviation: Math.max(0, ...changed.map(({ deviation }) => deviation)),
      };
    },
    layoutText: async (_font, setting) => layoutText(font as TextFont, setting),
  }) as Partial<EngineClient> as EngineClient;

/** Works on a piece as a designer does, without a page: presses and drags in px of the canvas, runs commands, tells what came of it. */
export class Driver {
  readonly store: AppStore;
  readonly editor: Editor;

  constructor(piece: Piece, shapes: EngineClient = {} as EngineClient) {
    // What another test made this process remember is nothing that this designer chose.
    Reflect.deleteProperty(globalThis, 'localStorage');
    this.store = createStore();
    this.store.dispatch(documentActions.opened({ piece, revision: 1 }));
    this.editor = createEditor({
      store: this.store,
      planners: [{ plan: () => new Promise(() => {}), cancel: () => {} }],
      shapes,
      clock: { now: () => 0, requestFrame: () => 1, cancelFrame: () => {} },
    });
    const { width, height } = piece.canvas;
    this.editor.viewport.setPane(width + 2 * OFFSET, height + OFFSET + FOOT);
  }

  get state(): RootState {
    return this.store.getState();
  }
  get piece(): Piece {
    return this.state.document.piece as Piece;
  }
  get history(): string[] {
    return this.state.document.past.map(({ name }) => name);
  }
  get messages(): string {
    return this.state.session.messages.map(({ text }) => text).join(' ');
  }
  pose(figure = this.piece.figureOrder[0], stop = 0): Pose {
    return this.piece.poses[this.piece.figures[figure].poses[stop]];
  }
  parts(figure?: Id, stop?: number): Part[] {
    return this.pose(figure, stop).parts.map((id) => this.piece.parts[id]);
  }
  /** Where anchors of a figure's first part stand on the canvas. */
  points(figure = this.piece.figureOrder[0], stop = 0): [number, number][] {
    const motion = motionAtStop(this.piece, this.piece.figures[figure], stop);
    const base = placementMatrix(this.pose(figure, stop).placement);
    const matrix = motion ? multiply(motionMatrix(motion), base) : base;
    return this.parts(figure, stop)[0].contours.flatMap(({ anchors }) =>
      anchors.map(({ at }) => mapPoint(matrix, ...at).map((v) => +v.toFixed(6)) as [number, number]),
    );
  }

  select(figure = this.piece.figureOrder[0], stop = 0): this {
    this.store.dispatch(sessionActions.selected({ kind: 'stop', figureId: figure, stop }));
    return this;
  }
  run(id: CommandId): this {
    commandById(id).run({ editor: this.editor, openRoom: () => {}, saveNow: () => {} });
    return this;
  }
  press(x: number, y: number, keys: { shift?: boolean; alt?: boolean; clicks?: number; letsGo?: boolean } = {}): this {
    return this.drag([x, y], [x, y], keys);
  }
  /** Presses at one place, moves in four steps, releases at another. `leave` leaves the gesture instead. */
  drag(
    [x0, y0]: readonly [number, number],
    [x1, y1]: readonly [number, number],
    keys: { shift?: boolean; alt?: boolean; clicks?: number; letsGo?: boolean; leave?: boolean } = {},
  ): this {
    const { shift = false, alt = false, clicks = 1, letsGo = false, leave = false } = keys;
    const how = { shift, alt, clicks, letsGo };
    const { drawing } = this.editor;
    drawing.down(x0 + OFFSET, y0 + OFFSET, how);
    if (x0 !== x1 || y0 !== y1)
      for (let k = 1; k <= 4; k++)
        drawing.move(x0 + ((x1 - x0) * k) / 4 + OFFSET, y0 + ((y1 - y0) * k) / 4 + OFFSET, how);
    if (leave) drawing.cancel();
    else drawing.up(x1 + OFFSET, y1 + OFFSET, how);
    return this;
  }
  /** Waits until work of a worker has come back. */
  async settled(): Promise<this> {
    for (let i = 0; i < 200 && (i < 3 || this.state.session.busy); i++)
      await new Promise((resolve) => setTimeout(resolve, 5));
    return this;
  }
}
