import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import {
  addFigure,
  compilePiece,
  type DrawTarget,
  drawFrame,
  emptyPiece,
  insertPoses,
  type NewPose,
  type Piece,
  type PieceDraft,
  type PoseShiftPlan,
  poseFromSvg,
  prepareFrame,
  previewPoseShift,
  readSvg,
  type ShiftInput,
  sameShiftInput,
  sampleFrame,
  shiftInput,
} from '../core/src/index';
import { realIcons } from '../core/src/testing/icons';
import { PlanStore } from '../web/src/editor/plans/plan-store';
import { beginStep, changePiece, createStore, documentActions, endStep, type RootState } from '../web/src/state';

/** A piece of so many figures with so many poses each, in step with each other or each at a pace of its own. */
function manyFigures(figures: number, poses: number, inStep = true): Piece {
  let n = 0;
  const newId = (prefix: string): string => `${prefix}${++n}`;
  const icons = realIcons(poses, 11);
  const draft = structuredClone(emptyPiece('many', 'Many')) as PieceDraft;
  for (let f = 0; f < figures; f++) {
    addFigure(draft, `f${f}`, `Figure ${f}`);
    insertPoses(
      draft,
      `f${f}`,
      icons.map(({ svg }, i): NewPose => poseFromSvg(readSvg(svg), `Icon ${i}`, newId)),
      newId,
    );
  }
  if (!inStep)
    Object.values(draft.shifts).forEach((shift, i) => {
      shift.duration = 0.5 + i / 100;
    });
  return draft as Piece;
}

const timed = (work: () => void): number => {
  const start = performance.now();
  work();
  return performance.now() - start;
};
const middle = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1];

/** Inputs of all shifts after an edit of one part, ms: what the page does on every change. */
function inputsAfterEdit(figures: number, poses: number): { shifts: number; first: number; edit: number } {
  let piece = manyFigures(figures, poses);
  const inputsOf = (p: Piece): ShiftInput[] => Object.values(p.shifts).map((shift) => shiftInput(p, shift));
  let before = inputsOf(piece);
  const first = timed(() => void (before = inputsOf(manyFigures(figures, poses))));
  before = inputsOf(piece);
  const ids = Object.keys(piece.parts);
  const edits = Array.from({ length: 15 }, (_, k) => {
    const part = piece.parts[ids[(k * 7) % ids.length]];
    const [contour] = part.contours;
    const moved = { ...contour, anchors: contour.anchors.map((a) => ({ ...a, at: [a.at[0] + 1, a.at[1]] as const })) };
    piece = {
      ...piece,
      parts: { ...piece.parts, [part.id]: { ...part, contours: [moved, ...part.contours.slice(1)] } },
    };
    return timed(() => {
      const now = inputsOf(piece);
      now.forEach((input, i) => sameShiftInput(input, before[i]));
      before = now;
    });
  });
  return { shifts: before.length, first, edit: middle(edits) };
}

/** Dragging a colour through forty values: entries of history, plans asked for, and how long an event takes, ms. */
async function colourDrag(): Promise<{
  entries: number;
  asked: number;
  event: number;
  compile: number;
  compiles: number;
}> {
  const store = createStore();
  const piece = manyFigures(20, 4, false);
  store.dispatch(documentActions.opened({ piece, revision: 1 }));
  const state = (): RootState['document'] => (store.getState() as RootState).document;
  let asked = 0;
  let advance: (share: number) => void = () => {};
  const plans = new PlanStore([
    {
      plan: async (input, onProgress): Promise<PoseShiftPlan> => {
        asked++;
        advance = onProgress;
        return { ...previewPoseShift(input), health: {} as PoseShiftPlan['health'] };
      },
      cancel: () => {},
    },
  ]);
  let compiles = 0;
  plans.subscribe(() => compiles++);
  plans.update(piece);
  while ([...plans.statuses().values()].some(({ pending }) => pending))
    await new Promise((next) => setTimeout(next, 5));
  asked = 0;
  compiles = 0;
  for (let i = 0; i < 20; i++) advance(i / 20);
  const progress = compiles;
  const [part] = Object.keys(piece.parts);
  const compileTimes: number[] = [];
  const step = store.dispatch(beginStep());
  const events = Array.from({ length: 40 }, (_, i) =>
    timed(() => {
      store.dispatch(changePiece('Fill', (draft) => void (draft.parts[part].fill = `#0000${i + 10}`)));
      const now = state().piece as Piece;
      plans.update(now);
      compileTimes.push(timed(() => void compilePiece(now, plans.planOf)));
    }),
  );
  store.dispatch(endStep(step));
  return {
    entries: state().past.length,
    asked,
    event: middle(events),
    compile: middle(compileTimes),
    compiles: progress,
  };
}

/** A drawing target on which nothing happens. */
class SilentTarget implements DrawTarget {
  fillStyle: unknown = '';
  strokeStyle: unknown = '';
  lineWidth = 1;
  lineCap = '';
  lineJoin = '';
  miterLimit = 1;
  lineDashOffset = 0;
  globalAlpha = 1;
  save(): void {}
  restore(): void {}
  translate(): void {}
  rotate(): void {}
  scale(): void {}
  transform(): void {}
  beginPath(): void {}
  moveTo(): void {}
  bezierCurveTo(): void {}
  closePath(): void {}
  fill(): void {}
  stroke(): void {}
  clip(): void {}
  setLineDash(): void {}
  beginLayer(): void {}
  endLayer(): void {}
  createLinearGradient = () => ({ addColorStop: () => {} });
  createRadialGradient = () => ({ addColorStop: () => {} });
}

/** Bytes that 1,000 frames leave on the heap, sampled only and drawn as well. */
function heapOfFrames(): { sampled: number; drawn: number } {
  setFlagsFromString('--expose_gc');
  const collect = runInNewContext('gc') as () => void;
  const piece = manyFigures(5, 4, false);
  const compiled = compilePiece(piece, (shift) => ({
    ...previewPoseShift(shiftInput(piece, shift)),
    health: {} as PoseShiftPlan['health'],
  }));
  const frame = prepareFrame(compiled);
  const silent = new SilentTarget();
  const grown = (each: (k: number) => void): number => {
    // Until the engine has compiled it: before, numbers are boxed on their way from call to call.
    for (let k = 0; k < 20_000; k++) each(k % 1000);
    collect();
    const before = process.memoryUsage().heapUsed;
    for (let k = 0; k < 1000; k++) each(k);
    return process.memoryUsage().heapUsed - before;
  };
  const at = (k: number): number => (k / 1000) * compiled.duration;
  const sampled = grown((k) => void sampleFrame(compiled, at(k), frame));
  const drawn = grown((k) => drawFrame(sampleFrame(compiled, at(k), frame), silent));
  return { sampled, drawn };
}

/** Prints what edits, colours and frames cost. */
export async function printHands(): Promise<void> {
  const one = inputsAfterEdit(1, 241);
  const many = inputsAfterEdit(20, 13);
  console.log('\nEdits');
  console.log(
    `inputs of ${one.shifts} shifts of one figure after an edit: ${one.edit.toFixed(2)} ms here (wanted: at most 10), ${(one.edit / one.first).toFixed(3)} of making them the first time`,
  );
  console.log(
    `inputs of ${many.shifts} shifts of 20 figures in step after an edit: ${many.edit.toFixed(2)} ms here (wanted: at most 10), ${(many.edit / many.first).toFixed(3)} of the first time`,
  );
  const colour = await colourDrag();
  console.log(
    `a colour dragged through 40 values, 20 figures x 4 poses: ${colour.entries} step of history, ${colour.asked} plans asked for, an event ${colour.event.toFixed(2)} ms, of which compiling ${((100 * colour.compile) / colour.event).toFixed(0)} %`,
  );
  console.log(`20 reports of progress: ${colour.compiles} recompilations`);
  const heap = heapOfFrames();
  console.log(
    `heap over 1,000 frames: sampled ${(heap.sampled / 1000).toFixed(1)} bytes a frame, sampled and drawn ${(heap.drawn / 1000).toFixed(0)} bytes a frame (texts of colours)`,
  );
}
