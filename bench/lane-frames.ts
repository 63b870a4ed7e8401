// Script time for each frame of playback, and how the heap grows: 1, 10 and 100 figures of 64 points with a morph and four lanes each.
// node --expose-gc --import tsx bench/lane-frames.ts
import {
  AS_DRAWN,
  addFigure,
  compilePiece,
  drawFrame,
  emptyPiece,
  insertPoses,
  newPose,
  type Piece,
  type PieceDraft,
  planPoseShift,
  prepareFrame,
  readPathData,
  recordOfContour,
  sampleFrame,
  setClosedRail,
  setLaneAtStop,
  shiftInput,
} from '../core/src/index';
import { RecordingTarget } from '../core/src/testing/recording-target';

const POINTS = 64;
const FRAMES = 1_000;
let n = 0;
const newId = (prefix: string): string => `${prefix}${++n}`;

/** A wavy round of 64 points. */
function wave(radius: number, depth: number): string {
  const at = (i: number): string => {
    const angle = (2 * Math.PI * i) / POINTS;
    const r = radius * (1 + depth * Math.sin(5 * angle));
    return `${(300 + r * Math.cos(angle)).toFixed(2)} ${(300 + r * Math.sin(angle)).toFixed(2)}`;
  };
  return `M${Array.from({ length: POINTS }, (_, i) => at(i)).join('L')}Z`;
}

function pieceOf(figures: number): Piece {
  const draft = structuredClone(emptyPiece('bench', 'Bench')) as PieceDraft;
  for (let f = 0; f < figures; f++) {
    const id = `f${f}`;
    addFigure(draft, id, id);
    // No two figures have an edge in common: what is measured is playing, not matching.
    const poses = [wave(120 + f, 0.1), wave(90 + f, 0.4)].map((d) => {
      const part = newId('p');
      const contours = readPathData(d).contours.map((contour) => recordOfContour(contour, newId));
      return {
        pose: { ...newPose(newId('q'), 'Pose', [part]), placement: AS_DRAWN },
        parts: [{ id: part, name: 'Part', contours, fillRule: 'nonzero' as const, fill: '#204060', stroke: null }],
      };
    });
    insertPoses(draft, id, poses, newId);
    setClosedRail(draft, id, true, newId);
    draft.figures[id].middle = [300, 300];
    setLaneAtStop(draft, id, 'position', 1, [40, 20], newId);
    setLaneAtStop(draft, id, 'turn', 1, [180], newId);
    setLaneAtStop(draft, id, 'scale', 1, [1.4, 0.7], newId);
    setLaneAtStop(draft, id, 'opacity', 1, [0.4], newId);
  }
  return draft as Piece;
}

/** A target that draws nothing: what is measured is the program's own script. */
class NoTarget extends RecordingTarget {
  override moveTo = (): void => {};
  override closePath = (): void => {};
  override beginPath = (): void => {};
  override fill = (): void => {};
  override save = (): void => {};
  override restore = (): void => {};
  override translate = (): void => {};
  override rotate = (): void => {};
  override scale = (): void => {};
}

const gc = (globalThis as { gc?: () => void }).gc;
let one = 0;
for (const figures of [1, 10, 100]) {
  const piece = pieceOf(figures);
  const plans = new Map(
    Object.values(piece.shifts).map((shift) => [shift.id, planPoseShift(shiftInput(piece, shift))]),
  );
  const compiled = compilePiece(piece, (shift) => plans.get(shift.id));
  const frame = prepareFrame(compiled);
  const target = new NoTarget();
  const paint = (k: number): void => drawFrame(sampleFrame(compiled, k / 60, frame), target);
  for (let k = 0; k < 400; k++) paint(k);
  const times: number[] = [];
  gc?.();
  const before = process.memoryUsage().heapUsed;
  for (let k = 0; k < FRAMES; k++) {
    const started = performance.now();
    paint(k);
    times.push(performance.now() - started);
  }
  const grown = process.memoryUsage().heapUsed - before;
  times.sort((p, q) => p - q);
  const [median, late] = [times[FRAMES / 2], times[Math.floor(FRAMES * 0.95)]];
  one ||= median;
  console.log(
    `${String(figures).padStart(4)} figures: median ${median.toFixed(3)} ms, 95th percentile ${late.toFixed(3)} ms, ${(median / one).toFixed(1)} times one figure; heap ${(grown / FRAMES / 1024).toFixed(2)} KB a frame`,
  );
}
