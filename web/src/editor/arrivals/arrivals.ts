import {
  type ArrivalForm,
  type ArrivingFile,
  addFigure,
  applyPlacementRules,
  type CoreError,
  defaultForm,
  findingOfParts,
  type Id,
  insertPoses,
  LIMITS,
  mendGaps,
  movingFileOf,
  type NewPose,
  type Part,
  type Piece,
  type PieceDraft,
  type Placement,
  type PlacementRule,
  placeByRule,
  type ReadPiece,
  type SvgReading,
  stopsOf,
  titleOfFile,
  within,
} from '@core';
import {
  type AppStore,
  changePiece,
  changePieceInSteps,
  documentActions,
  type Recipe,
  remembered,
  sessionActions,
} from '../../state';
import { checkFileSize, EngineCancelled, type EngineClient, freshId } from '../../workers';
import { freeName } from '../actions/draw-actions';
import { targetFigure } from '../actions/pose-actions';
import { shapeIn } from './adjustable-shape';
import { putMoving } from './put-moving';

/** A source that may hold an SVG: a file, or pasted text. */
export interface ImportSource {
  readonly name: string;
  readonly size: number;
  text(): Promise<string>;
}

/** What to do if the size of the file differs from the canvas. */
export type CanvasFit = 'keep' | 'scale' | 'set';

/** How arrived drawings are arranged; the arrival bar changes it. */
export interface Arrangement {
  readonly form: ArrivalForm;
  readonly rule: PlacementRule;
  /** The choice for each file; at most one file sets the canvas size. */
  readonly fits: readonly CanvasFit[];
  /** Shapes to leave out, by file. */
  readonly left: readonly (readonly number[])[];
}

/** The most notes shown at once. */
const MOST_NOTES = 8;

/** A file that was read, with its text if that may describe an adjustable shape. */
interface ReadFile extends ArrivingFile {
  readonly svg: string;
}

/** An animated file and what was read from it. */
interface MovingRead {
  readonly source: ImportSource;
  readonly read: ReadPiece;
}

interface Kept {
  readonly files: readonly ReadFile[];
  readonly arrangement: Arrangement;
  readonly at?: number;
  /** The undo step that brought them in, while it is the last one. */
  readonly entry: number;
}

/**
 * Brings SVG files into the open piece, and arranges them again while that is the last thing that happened. Nothing stops at a dialog: files
 * are placed at once by the remembered rule.
 */
export class Arrivals {
  private kept: Kept | null = null;
  /** Animated drawings that can still be taken as still ones instead. */
  private movingSources: readonly ImportSource[] = [];
  /** Was the current reading cancelled? */
  private stopped = false;

  constructor(
    private readonly store: AppStore,
    private readonly engine: EngineClient,
  ) {}

  /** The files that arrived last, and how they are arranged. */
  get last(): { files: readonly ArrivingFile[]; arrangement: Arrangement } | null {
    return this.kept;
  }

  /** Can the last arrival still be rearranged? Not after any other change. */
  canRearrange(): boolean {
    const { past } = this.store.getState().document;
    return this.kept !== null && past[past.length - 1]?.id === this.kept.entry;
  }

  /** Cancels the current reading at any point: nothing comes in. */
  stop(): void {
    this.stopped = true;
    this.engine.cancel();
  }

  /**
   * Reads SVG sources in a worker and puts them on the rail before stop `at` (default: at the end), as one undoable step. What cannot be read
   * is told, file by file, and changes nothing. What moves by itself comes as figures with their movement, unless it is to be taken `still`. Returns how many
   * poses or figures came in.
   */
  async take(sources: readonly ImportSource[], at?: number, still = false): Promise<number> {
    const { dispatch } = this.store;
    const pieceId = this.store.getState().document.piece?.id;
    const files: ReadFile[] = [];
    const moving: MovingRead[] = [];
    const notes: string[] = [];
    const refused: string[] = [];
    this.stopped = false;
    try {
      for (const [i, source] of sources.entries()) {
        const text =
          sources.length > 1 ? `Reading ${i + 1} of ${sources.length}: ${source.name}` : `Reading ${source.name}`;
        const tell = (share: number): void =>
          void dispatch(sessionActions.busyChanged({ text, share: (i + share) / sources.length, stoppable: true }));
        tell(0);
        try {
          checkFileSize(source);
          const svg = await source.text();
          // Cancelled before the worker had started.
          if (this.stopped) throw new EngineCancelled();
          if (!still && movingFileOf(svg)) {
            const read = await this.engine.readMoving(svg, titleOfFile(source.name, 'Pose'), tell);
            if (this.stopped) throw new EngineCancelled();
            moving.push({ source, read });
            continue;
          }
          const reading = await this.engine.readSvg(svg, tell);
          if (this.stopped) throw new EngineCancelled();
          files.push({ name: titleOfFile(source.name, 'Pose'), reading, svg: reading.shapes.length === 1 ? svg : '' });
          notes.push(...reading.notes.map((note) => `${source.name}: ${note}.`));
        } catch (error) {
          if (error instanceof EngineCancelled) {
            dispatch(sessionActions.told({ tone: 'notice', text: 'Reading was stopped. Nothing came in.' }));
            return 0;
          }
          refused.push(`${source.name}: ${(error as CoreError).message}`);
        }
      }
    } finally {
      dispatch(sessionActions.busyChanged(null));
    }
    if (refused.length > 0) {
      const text =
        refused.length === 1
          ? refused[0]
          : `${refused.length} of ${sources.length} files could not be taken. The piece is as it was, apart from the others.`;
      dispatch(sessionActions.told({ tone: 'error', text, details: refused.length > 1 ? refused : undefined }));
    }
    // The piece may have been closed while its files were read.
    if (this.store.getState().document.piece?.id !== pieceId) return 0;
    const figures = this.putMoving(moving);
    if (files.length === 0) return figures;
    const arrangement: Arrangement = {
      form: defaultForm(files.length),
      rule: remembered('placementRule'),
      fits: files.map(() => 'keep'),
      left: files.map(() => []),
    };
    return this.arrange(files, arrangement, notes, at);
  }

  /** Adds animated drawings as one step. @returns how many figures were added */
  private putMoving(moving: readonly MovingRead[]): number {
    const { store } = this;
    if (moving.length === 0) return 0;
    const names = moving.map(({ source }) => titleOfFile(source.name, 'Pose'));
    store.dispatch(
      changePiece(`Add ${names.join(', ').slice(0, 60)} with its movement`, (draft) => {
        for (const { read } of moving) putMoving(draft, read);
      }),
    );
    const { past, piece } = store.getState().document;
    const ids = moving.flatMap(({ read }) => read.piece.figureOrder);
    const [first] = ids.filter((id) => piece?.figures[id] && !piece.figures[id].hidden);
    if (!first) return 0;
    store.dispatch(sessionActions.selected({ kind: 'stop', figureId: first, stop: 0 }));
    store.dispatch(sessionActions.arrived(null));
    const drawings = moving.map(({ source }) => source).filter(({ name }) => !/\.(json|csv)$/i.test(name));
    this.movingSources = drawings;
    const notes = moving.flatMap(({ source, read }) => read.notes.map((note) => `${source.name}: ${note}`));
    const entry = past[past.length - 1]?.id ?? -1;
    const { length } = notes;
    store.dispatch(
      sessionActions.told({
        tone: 'notice',
        text: `${names.join(', ')} came with its movement${length > 0 ? `; ${length === 1 ? 'one thing was' : `${length} things were`} changed on import` : ''}.`,
        undoChange: entry,
        ...(length > 0 && { details: notes.slice(0, MOST_NOTES) }),
      }),
    );
    store.dispatch(sessionActions.cameMoving({ names, figureIds: ids, notes, entry, drawings: drawings.length }));
    return ids.length;
  }

  /** Takes animated drawings as still ones, as they are at their start. Replaces the step that brought them in. */
  async takeStillInstead(): Promise<void> {
    const { store, movingSources } = this;
    const { past } = store.getState().document;
    const { moving } = store.getState().session;
    if (!moving || movingSources.length === 0 || past[past.length - 1]?.id !== moving.entry) return;
    store.dispatch(documentActions.undone());
    store.dispatch(sessionActions.cameMoving(null));
    await this.take(movingSources, undefined, true);
  }

  /** Arranges the last arrival in another way. Replaces the step that brought it in. */
  async rearrange(arrangement: Arrangement): Promise<void> {
    const { kept, store } = this;
    const arrival = store.getState().session.arrival;
    if (!kept || !arrival || !this.canRearrange()) return;
    try {
      await this.arrange(kept.files, arrangement, arrival.notes, kept.at, true);
    } catch (error) {
      store.dispatch(sessionActions.told({ tone: 'error', text: (error as Error).message }));
    }
  }

  private async arrange(
    files: readonly ReadFile[],
    arrangement: Arrangement,
    notes: readonly string[],
    at?: number,
    again = false,
  ): Promise<number> {
    const { store } = this;
    const wanted = files.map(({ name, reading }, i) => ({ name, reading, left: arrangement.left[i] ?? [] }));
    const poses = withShapes(files, await this.engine.arrive(wanted, arrangement.form));
    if (poses.length === 0) {
      store.dispatch(
        sessionActions.told({ tone: 'notice', text: 'At least one shape must be taken. Nothing was changed.' }),
      );
      return 0;
    }
    const large = countContours(poses) > MANY_CONTOURS;
    if (large) await checkInSteps(poses);
    if (again) {
      if (!this.canRearrange()) return 0;
      store.dispatch(documentActions.undone());
    }
    const { piece } = store.getState().document;
    if (!piece) return 0;
    const name = poses.length === 1 ? `Add ${poses[0].pose.name}` : `Add ${poses.length} poses`;
    const figureId = targetFigure(store)?.id ?? freshId('f');
    const figureIds = arrangement.form === 'figures' ? poses.map(() => freshId('f')) : [figureId];
    const place = placementsFor(piece, files, arrangement, poses);
    const setting = files.find((_, i) => arrangement.fits[i] === 'set');
    const putIn: Recipe = (draft) => {
      if (setting) setCanvas(draft, setting.reading);
      const placed = poses.map(
        (added, i): NewPose => ({ ...added, pose: { ...added.pose, placement: place(added, i) } }),
      );
      const names = Object.values(draft.figures).map((figure) => figure.name);
      if (arrangement.form === 'figures') {
        placed.forEach((added, i) => {
          const own = freeName(names, added.pose.name);
          names.push(own);
          addFigure(draft, figureIds[i], own);
          insertPoses(draft, figureIds[i], [added], freshId);
        });
        return;
      }
      if (!draft.figures[figureId])
        addFigure(draft, figureId, freeName(names, files.length === 1 ? files[0].name : 'Figure 1'));
      insertPoses(draft, figureId, placed, freshId, at);
    };
    if (large) await store.dispatch(changePieceInSteps(name, [...portionsOf(poses).map(putParts), putIn], nextStep));
    else store.dispatch(changePiece(name, putIn));
    const { past } = store.getState().document;
    this.kept = { files, arrangement, at, entry: past[past.length - 1]?.id ?? -1 };
    if (arrangement.form !== 'figures') this.chooseInstead(figureId, poses[0].pose.id);
    store.dispatch(
      sessionActions.arrived({
        figureId: figureIds[0],
        poseIds: poses.map(({ pose }) => pose.id),
        rule: arrangement.rule,
        notes,
        form: arrangement.form,
        gaps: gapsOf(poses.flatMap(({ parts }) => parts)),
      }),
    );
    return poses.length;
  }

  /** If a pose was selected, the arrived one is selected instead, so that details and canvas agree. */
  private chooseInstead(figureId: Id, poseId: Id): void {
    const { document, session } = this.store.getState();
    if (!document.piece || session.selection?.kind !== 'stop') return;
    const stop = stopsOf(document.piece, document.piece.figures[figureId]).indexOf(poseId);
    if (stop >= 0) this.store.dispatch(sessionActions.selected({ kind: 'stop', figureId, stop }));
  }
}

/** More contours than this are added in several tasks of the page. */
const MANY_CONTOURS = 500;
/** How many parts are checked or added in one task. */
const PARTS_A_STEP = 1_000;

const countContours = (poses: readonly NewPose[]): number =>
  poses.reduce((sum, { parts }) => sum + parts.reduce((each, { contours }) => each + contours.length, 0), 0);

const nextStep = (): Promise<void> => new Promise((resolve) => setTimeout(resolve));

/** The parts of poses in portions, one per task. */
function portionsOf(poses: readonly NewPose[]): Part[][] {
  const parts = poses.flatMap((pose) => pose.parts);
  return Array.from({ length: Math.ceil(parts.length / PARTS_A_STEP) }, (_, i) =>
    parts.slice(i * PARTS_A_STEP, (i + 1) * PARTS_A_STEP),
  );
}

/** Checks thousands of parts in advance, which keeps the check of the whole change short. */
async function checkInSteps(poses: readonly NewPose[]): Promise<void> {
  for (const portion of portionsOf(poses)) {
    await nextStep();
    // Faults are ignored here: the check of the change finds and reports them.
    findingOfParts(portion);
  }
  await nextStep();
}

/** Adds parts to the piece; their poses are added afterwards. */
const putParts =
  (parts: readonly Part[]): Recipe =>
  (draft) => {
    for (const part of parts) draft.parts[part.id] = Object.freeze(part) as PieceDraft['parts'][string];
  };

/** The adjustable shape that a file with a single shape describes. */
function withShapes(files: readonly ReadFile[], poses: readonly NewPose[]): readonly NewPose[] {
  const [only] = poses;
  if (files.length !== 1 || poses.length !== 1 || only.parts.length !== 1) return poses;
  const [{ fill, stroke }] = only.parts;
  const part = shapeIn(files[0].svg, files[0].name, { fill, stroke });
  return part ? [{ pose: { ...only.pose, parts: [part.id] }, parts: [part] }] : poses;
}

function setCanvas(draft: PieceDraft, { width, height }: SvgReading): void {
  draft.canvas.width = within(LIMITS.canvasSide, width);
  draft.canvas.height = within(LIMITS.canvasSide, height);
  for (const id of draft.figureOrder) applyPlacementRules(draft, id);
}

/** Placements of arriving poses. As drawn or scaled to the canvas, they keep their relative places. Otherwise each follows the rule. */
function placementsFor(
  piece: Piece,
  files: readonly ReadFile[],
  { fits, rule, form, left }: Arrangement,
  poses: readonly NewPose[],
): (added: NewPose, index: number) => Placement {
  const byHand = (scale: number, x: number, y: number): Placement => ({
    x,
    y,
    scaleX: scale,
    scaleY: scale,
    rotation: 0,
    rule: null,
  });
  // Each of several files becomes one pose; a single file may become several.
  const taken = files.flatMap((file, i) =>
    (left[i]?.length ?? 0) < file.reading.shapes.length ? [{ ...file, fit: fits[i] ?? 'keep' }] : [],
  );
  const fileOf = (index: number) => (taken.length === poses.length ? taken[index] : taken[0]);
  // Figures from one drawing keep their relative places.
  const all: Part[] = poses.flatMap(({ parts }) => parts);
  const whole =
    form === 'figures'
      ? placeByRule({ ...rule, to: rule.to === 'previous' ? 'canvas' : rule.to }, all, piece.canvas)
      : undefined;
  return ({ pose }, index) => {
    const { fit, reading } = fileOf(index);
    if (fit === 'set') return byHand(1, 0, 0);
    if (fit === 'scale') {
      const { width, height } = piece.canvas;
      const k = Math.min(width / (reading.width || 1), height / (reading.height || 1));
      return byHand(k, (width - k * reading.width) / 2, (height - k * reading.height) / 2);
    }
    return whole ? { ...whole, rule: null } : { ...pose.placement, rule };
  };
}

/** The number of small gaps in parts that can be closed. */
const gapsOf = (parts: readonly Part[]): number =>
  parts.reduce((sum, { contours, source }) => sum + (source ? 0 : mendGaps(contours).gaps), 0);

/** Closes all small gaps of poses as one step. */
export function mendGapsOf(store: AppStore, poseIds: readonly string[]): void {
  const { piece } = store.getState().document;
  if (!piece) return;
  const parts = poseIds.flatMap((id) => piece.poses[id]?.parts ?? []).map((id) => piece.parts[id]);
  store.dispatch(
    changePiece('Close small gaps', (draft) => {
      for (const { id, contours, source } of parts) {
        const mended = source ? undefined : mendGaps(contours);
        if (mended && mended.gaps > 0)
          draft.parts[id].contours = mended.contours as PieceDraft['parts'][string]['contours'];
      }
    }),
  );
}
