import { type CompiledPiece, layOutAll, layOutAt, type Stage } from '@core';
import type { ClockDeps } from './clock';

/** What a change may take of a step of the page before the rest is left to the next, ms. */
const FIRST_STEP_MS = 30;
/** What the parts that will be seen later may take of each frame, ms. */
const LATER_STEP_MS = 6;

/**
 * Puts a compiled piece on the stage. Where its parts are too many for one step, the stage goes on showing what it had until those that are in sight are laid
 * out; the others follow a little each frame.
 */
export class Showing {
  private handle: number | undefined;

  constructor(
    private readonly stage: Stage,
    private readonly deps: ClockDeps,
    private readonly seconds: () => number,
    private readonly repaint: () => void,
  ) {}

  show(compiled: CompiledPiece | null): void {
    this.stop();
    if (!compiled) this.stage.show(null);
    else if (layOutAt(compiled, this.seconds(), this.lateAfter(FIRST_STEP_MS))) this.stage.show(compiled);
    else this.next(() => this.goOn(compiled));
    this.repaint();
  }

  stop(): void {
    if (this.handle !== undefined) this.deps.cancelFrame(this.handle);
    this.handle = undefined;
  }

  private goOn(compiled: CompiledPiece): void {
    const shown = this.stage.piece === compiled;
    const isLate = this.lateAfter(shown ? LATER_STEP_MS : FIRST_STEP_MS);
    if (!shown && layOutAt(compiled, this.seconds(), isLate)) {
      this.stage.show(compiled);
      this.repaint();
    }
    if (!layOutAll(compiled, isLate)) this.next(() => this.goOn(compiled));
  }

  private next(work: () => void): void {
    this.handle = this.deps.requestFrame(() => {
      this.handle = undefined;
      work();
    });
  }

  private lateAfter(ms: number): () => boolean {
    const started = this.deps.now();
    return () => this.deps.now() - started >= ms;
  }
}
