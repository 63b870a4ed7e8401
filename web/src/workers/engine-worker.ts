import {
  compilePiece,
  type NewPose,
  type Piece,
  type PoseShiftPlan,
  planPoseShift,
  poseFromSvg,
  readPiece,
  readSvg,
  type ShiftInput,
  writeAnimatedSvg,
} from '@core';
import * as Comlink from 'comlink';
import { freshId } from './fresh-id';

/** A refusal as plain data: errors lose their class on the way out of a worker. */
export interface Refusal {
  readonly code: string;
  readonly message: string;
  readonly where?: string;
}
export type Outcome<T> = { readonly ok: T } | { readonly refusal: Refusal };

export interface ImportedPose {
  readonly added: NewPose;
  readonly notes: readonly string[];
}

function attempt<T>(work: () => T): Outcome<T> {
  try {
    return { ok: work() };
  } catch (error) {
    const { code = 'internal', message, where } = error as { code?: string; message: string; where?: string };
    return { refusal: { code, message, where } };
  }
}

/** The heavy calls of the core, off the page's main thread. */
const engine = {
  planShift: (input: ShiftInput): Outcome<PoseShiftPlan> => attempt(() => planPoseShift(input)),
  importSvg: (text: string, name: string): Outcome<ImportedPose> =>
    attempt(() => {
      const reading = readSvg(text);
      return { added: poseFromSvg(reading, name, freshId), notes: reading.notes };
    }),
  importPiece: (text: string): Outcome<Piece> => attempt(() => readPiece(text)),
  animatedSvg: (piece: Piece, digits: number): Outcome<string> =>
    attempt(() => writeAnimatedSvg(compilePiece(piece), { digits, title: piece.name })),
};
export type Engine = typeof engine;

Comlink.expose(engine);
