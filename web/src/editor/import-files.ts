import { addFigure, type CoreError, insertPoses, type NewPose } from '@core';
import { type AppStore, changePiece, sessionActions } from '../state';
import type { EngineClient } from '../workers';
import { freshId } from '../workers';
import { rememberedRule, targetFigure } from './commands/pose-actions';

/** Something that may hold an SVG: a file, or pasted text. */
export interface ImportSource {
  readonly name: string;
  readonly size: number;
  text(): Promise<string>;
}

/** Files longer than this are refused before they are read. */
const BYTE_LIMIT = 8 * 1024 * 1024;
const stem = (name: string): string =>
  name
    .replace(/\.svgz?$/i, '')
    .replace(/[-_]+/g, ' ')
    .trim() || 'Pose';

/**
 * Reads SVG sources in a worker and puts them on the rail before stop `at` (default: at the end), each as a pose, as one undoable step.
 * What cannot be read is told, file by file, and changes nothing. Returns how many poses came in.
 */
export async function importFiles(
  store: AppStore,
  engine: EngineClient,
  sources: readonly ImportSource[],
  at?: number,
): Promise<number> {
  const { dispatch } = store;
  const pieceId = store.getState().document.piece?.id;
  const added: NewPose[] = [];
  const notes: string[] = [];
  const refused: string[] = [];
  const rule = rememberedRule();
  try {
    for (const [i, source] of sources.entries()) {
      dispatch(
        sessionActions.busyChanged(
          sources.length > 1 ? `Reading ${i + 1} of ${sources.length}: ${source.name}` : `Reading ${source.name}`,
        ),
      );
      try {
        if (source.size > BYTE_LIMIT)
          throw new Error(
            `Expected a file of at most ${BYTE_LIMIT / 1024 / 1024} MB; this one has ${(source.size / 1024 / 1024).toFixed(1)} MB.`,
          );
        const imported = await engine.importSvg(await source.text(), stem(source.name));
        const { pose, parts } = imported.added;
        added.push({ parts, pose: { ...pose, placement: { ...pose.placement, rule } } });
        notes.push(...imported.notes.map((note) => `${source.name}: ${note}.`));
      } catch (error) {
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
  // The piece may have been left while its files were read.
  if (added.length === 0 || store.getState().document.piece?.id !== pieceId) return 0;
  const figureId = targetFigure(store)?.id ?? freshId('f');
  const name = added.length === 1 ? `Add ${added[0].pose.name}` : `Add ${added.length} poses`;
  dispatch(
    changePiece(name, (draft) => {
      if (!draft.figures[figureId]) addFigure(draft, figureId, 'Figure 1');
      insertPoses(draft, figureId, added, freshId, at);
    }),
  );
  dispatch(sessionActions.arrived({ figureId, poseIds: added.map(({ pose }) => pose.id), rule, notes }));
  return added.length;
}
