import {
  type ArrivalForm,
  type ArrivingFile,
  applyClips,
  type Combination,
  type CombineKind,
  type ContourRecord,
  checkRefusals,
  combineOutlines,
  compilePiece,
  cutAlongLine,
  type FeatureId,
  featuresOf,
  layoutText,
  type NewPose,
  type Outline,
  type OutputOptions,
  type OutputSource,
  outlineOfStroke,
  type PathEngine,
  type Piece,
  type PlannedParts,
  type PoseAlternative,
  type PoseShiftPlan,
  pieceOfArrival,
  planPoseShift,
  posesOfArrival,
  previewPoseShift,
  type ReadPiece,
  rankPoseShift,
  readFont,
  readMovingFile,
  readOptions,
  readPieceFile,
  readSvg,
  type ShiftInput,
  type StrokeShape,
  type SvgReading,
  shiftInput,
  simplifyContour,
  storableReading,
  type TextFont,
  type TextLayout,
  type TextSetting,
  titleOfFile,
  withPairs,
} from '@core';
import * as Comlink from 'comlink';
import type { MadeOutput, OutputProof } from '../outputs';
import { fontUrl } from './fonts';
import { freshId } from './fresh-id';
import { PlanShelf } from './kept-plans';
import { tellProgress } from './progress-ports';
import { type ShiftSkeleton, wholeInput } from './shift-portions';

/** A refusal as plain data: errors lose their class on the way out of a worker. */
export interface Refusal {
  readonly code: string;
  readonly message: string;
  readonly where?: string;
}
export type Outcome<T> = { readonly ok: T } | { readonly refusal: Refusal };

async function attempt<T>(work: () => T | Promise<T>): Promise<Outcome<T>> {
  try {
    return { ok: await work() };
  } catch (error) {
    const { code = 'internal', message, where } = error as { code?: string; message: string; where?: string };
    return { refusal: { code, message, where } };
  }
}

/** Loads the path operations only where somebody asks for them. */
const paths = async (): Promise<PathEngine> => (await import('./path-engine')).pathEngine();

const MOST_PLANS = 600;
const plans = new PlanShelf({ factory: globalThis.indexedDB, now: Date.now, most: MOST_PLANS });

const fonts = new Map<string, Promise<TextFont>>();
function loadFont(font: string): Promise<TextFont> {
  let loading = fonts.get(font);
  if (!loading) {
    loading = fetchFont(font);
    fonts.set(font, loading);
    // A font that failed may be there the next time.
    loading.catch(() => fonts.delete(font));
  }
  return loading;
}
async function fetchFont(font: string): Promise<TextFont> {
  const url = fontUrl(font);
  const response = url ? await fetch(url) : undefined;
  if (!response?.ok)
    throw new Error(
      `The font “${font.slice(0, 40)}” is not on this server. Choose another; the letters stay as they are.`,
    );
  return readFont(await response.arrayBuffer());
}

const PROGRESS_PAUSE_MS = 50;

type Progress = (share: number) => void;

/** As `attempt`, for work that tells its progress, no more often than it can be read. */
function attemptTelling<T>(
  onProgress: Progress | undefined,
  work: (tell: Progress) => T | Promise<T>,
): Promise<Outcome<T>> {
  let told = 0;
  return attempt(() =>
    work((share) => {
      if (!onProgress || performance.now() - told < PROGRESS_PAUSE_MS) return;
      told = performance.now();
      onProgress(share);
    }),
  );
}

/** A plan that was made before, or a new one. */
function planKept(input: ShiftInput, tell: Progress): Promise<PoseShiftPlan> {
  const paired = withPairs(input);
  return plans.plan(paired, () => planPoseShift(paired, tell));
}

/** Contours of shifts that come in portions, by the shift's token. */
const portions = new Map<string, ContourRecord[]>();

/** How much of making an output is planning, where plans are missing, and how much is done when the file is there and only its proof is missing. */
const PLANNING_SHARE = 0.2;
const MADE_SHARE = 0.9;

/** A file, and what came of reading it back. */
export interface FinishedOutput extends MadeOutput {
  readonly proof?: OutputProof;
}

async function storableSvg(text: string, onProgress?: Progress): Promise<SvgReading> {
  const reading = readSvg(text, { onProgress });
  const clipped = applyClips(reading, reading.shapes.some(({ clips }) => clips.length > 0) ? await paths() : null);
  return storableReading(clipped);
}

/** The plans of all shifts of a piece. */
async function plansOf(piece: Piece, tell: Progress): Promise<ReadonlyMap<string, PoseShiftPlan>> {
  const shifts = Object.values(piece.shifts);
  const found = new Map<string, PoseShiftPlan>();
  for (const [i, shift] of shifts.entries()) {
    const input = shiftInput(piece, shift);
    const part = (share: number): void => tell((i + share) / shifts.length);
    found.set(shift.id, await planKept(input, part));
    part(1);
  }
  return found;
}

/** A piece with all its plans. */
async function sourceOf(piece: Piece, tell: Progress): Promise<OutputSource> {
  const planned = await plansOf(piece, tell);
  return { piece, compiled: compilePiece(piece, (shift) => planned.get(shift.id)) };
}

/** A file of a form, and its proof where it is wanted. */
async function finished(
  source: OutputSource,
  formId: string,
  options: OutputOptions,
  proved: boolean,
  tell: Progress,
): Promise<FinishedOutput & { readonly extension: string }> {
  const { outputById, proveOutput } = await import('../outputs');
  const form = outputById(formId);
  const checked = readOptions(form, options);
  checkRefusals(form, source);
  // Ended by ending the worker: nothing here outlives it.
  const { signal } = new AbortController();
  const made = {
    extension: form.extension,
    ...(await form.make(source, checked, (share) => tell(MADE_SHARE * share), signal)),
  };
  return proved ? { ...made, proof: await proveOutput(form.id, source, checked, made, signal) } : made;
}

/** The heavy calls of the core, off the page's main thread. */
const engine = {
  /** A shift's plan, with its progress (0 to 1) now and then; one that was made before is taken from the browser's store. */
  planShift: (input: ShiftInput, onProgress?: Progress): Promise<Outcome<PoseShiftPlan>> =>
    attemptTelling(onProgress, (tell) => planKept(input, tell)),
  /** Some contours of a shift of thousands; the rest of it comes to `planPortions`. */
  takePortion: (token: string, contours: readonly ContourRecord[]): Promise<Outcome<void>> =>
    attempt(() => {
      const taken = portions.get(token) ?? [];
      for (const contour of contours) taken.push(contour);
      portions.set(token, taken);
    }),
  /** As `planShift`, of what was taken before. */
  planPortions: (token: string, skeleton: ShiftSkeleton, onProgress?: Progress): Promise<Outcome<PoseShiftPlan>> =>
    attemptTelling(onProgress, (tell) => {
      const contours = portions.get(token) ?? [];
      portions.delete(token);
      return planKept(wholeInput(skeleton, contours), tell);
    }),
  /** A first answer while something is dragged. */
  planQuickly: (input: ShiftInput): Promise<Outcome<PlannedParts>> => attempt(() => previewPoseShift(input)),
  /** The ways to do a shift, the best first. */
  rankShift: (input: ShiftInput): Promise<Outcome<PoseAlternative[]>> => attempt(() => rankPoseShift(input)),
  /** Reads an SVG, clip paths applied, as it can be stored; tells its progress (0 to 1) now and then. */
  readSvg: (text: string, onProgress?: Progress): Promise<Outcome<SvgReading>> =>
    attemptTelling(onProgress, (tell) => storableSvg(text, tell)),
  /** Poses of files that were read. */
  arrive: (files: readonly ArrivingFile[], form: ArrivalForm): Promise<Outcome<NewPose[]>> =>
    attempt(async () => posesOfArrival(files, form, form === 'united' ? await paths() : null, freshId)),
  /** A new piece of drawings, as they would arrive in an empty one. */
  drawnPiece: (drawings: readonly { readonly name: string; readonly svg: string }[], name: string) =>
    attempt(async (): Promise<Piece> => {
      const files: ArrivingFile[] = [];
      for (const drawing of drawings)
        files.push({ name: titleOfFile(drawing.name, 'Pose'), reading: await storableSvg(drawing.svg) });
      return pieceOfArrival(files, { id: freshId('piece'), name }, freshId);
    }),
  /** A file that moves, as a piece; tells its progress (0 to 1) now and then. */
  readMoving: (text: string, name: string, onProgress?: Progress): Promise<Outcome<ReadPiece>> =>
    attemptTelling(onProgress, (tell) =>
      readMovingFile(text, { id: freshId('piece'), name, newId: freshId, onProgress: tell }),
    ),
  importPiece: (text: string): Promise<Outcome<Piece>> => attempt(() => readPieceFile(text)),
  /** A file of one of the forms, with its progress, and, unless it is only looked at, its proof; plans that were made before are taken from the browser's store. */
  makeOutput: (
    formId: string,
    piece: Piece,
    options: OutputOptions,
    proved: boolean,
    onProgress?: Progress,
  ): Promise<Outcome<FinishedOutput>> =>
    attemptTelling(onProgress, async (tell) => {
      const source = await sourceOf(piece, (share) => tell(PLANNING_SHARE * share));
      return finished(source, formId, options, proved, (share) => tell(PLANNING_SHARE + (1 - PLANNING_SHARE) * share));
    }),
  /** Several forms as one ZIP, a folder each; proved if each of them is. */
  makeOutputs: (
    choices: readonly { readonly form: string; readonly options: OutputOptions; readonly name: string }[],
    piece: Piece,
    onProgress?: Progress,
  ): Promise<Outcome<FinishedOutput>> =>
    attemptTelling(onProgress, async (tell) => {
      const { ZipWriter } = await import('../outputs');
      const source = await sourceOf(piece, (share) => tell(PLANNING_SHARE * share));
      const zip = new ZipWriter();
      const proofs: OutputProof[] = [];
      const notes: string[] = [];
      for (const [i, { form, options, name }] of choices.entries()) {
        const part = (share: number): void =>
          tell(PLANNING_SHARE + ((1 - PLANNING_SHARE) * (i + share)) / choices.length);
        const { blob, extension, note, proof } = await finished(source, form, options, true, part);
        zip.add(`${name}.${extension}`, new Uint8Array(await blob.arrayBuffer()), !blob.type.startsWith('text'));
        if (proof)
          proofs.push({ ...proof, lines: proof.lines.map((line) => ({ ...line, what: `${name}: ${line.what}` })) });
        if (note) notes.push(`${name}: ${note}`);
      }
      const failed = proofs.find(({ holds }) => !holds);
      const lines = proofs.flatMap((proof) => proof.lines);
      return {
        blob: zip.end(),
        extension: 'zip',
        ...(notes.length > 0 && { note: notes.join(' ') }),
        proof: { holds: !failed, lines, worst: (failed ?? proofs[0])?.worst ?? null },
      };
    }),
  /** What a piece has that forms of output may have trouble with. */
  outputFeatures: (piece: Piece): Promise<Outcome<FeatureId[]>> =>
    attempt(async () => {
      const { compiled } = await sourceOf(piece, () => {});
      return featuresOf(piece, compiled);
    }),
  /** About how large a file will be, bytes: from a few of its frames. */
  estimateOutput: (formId: string, piece: Piece, options: OutputOptions): Promise<Outcome<number>> =>
    attempt(async () => {
      const { estimateSize, outputById } = await import('../outputs');
      const source = await sourceOf(piece, () => {});
      return estimateSize(outputById(formId), source, readOptions(outputById(formId), options));
    }),
  combine: (kind: CombineKind, outlines: readonly Outline[]): Promise<Outcome<Combination>> =>
    attempt(async () => combineOutlines(await paths(), kind, outlines)),
  strokeOutline: (outline: Outline, stroke: StrokeShape): Promise<Outcome<Outline>> =>
    attempt(async () => outlineOfStroke(await paths(), outline, stroke)),
  cut: (outline: Outline, line: readonly [number, number, number, number]) =>
    attempt(async () => cutAlongLine(await paths(), outline, ...line)),
  /** The outline with as few points as stay within `tolerance` px, and how far it strays. */
  simplify: (outline: Outline, tolerance: number): Promise<Outcome<{ outline: Outline; deviation: number }>> =>
    attempt(() => {
      const changed = outline.contours.map((contour) => simplifyContour(contour, tolerance));
      return {
        outline: { ...outline, contours: changed.map(({ contour }) => contour) },
        deviation: Math.max(0, ...changed.map(({ deviation }) => deviation)),
      };
    }),
  layoutText: (font: string, setting: TextSetting): Promise<Outcome<TextLayout>> =>
    attempt(async () => layoutText(await loadFont(font), setting)),
  /** The name of a font file, or why it cannot be read. */
  checkFont: (bytes: ArrayBuffer): Promise<Outcome<string>> => attempt(() => readFont(bytes).name),
};
export type Engine = typeof engine;

tellProgress();
Comlink.expose(engine);
