import { addFigure, emptyPiece, insertPoses, type NewPose, type Piece, type PieceDraft, titleOfFile } from '@core';
import { produce } from 'immer';
import { remembered } from '../state';
import { type EngineClient, freshId } from '../workers';

/** A new piece with one figure whose poses are the given drawings, and a message for each drawing that could not be taken. */
export async function pieceFromSvgs(
  engine: EngineClient,
  files: readonly File[],
): Promise<{ piece?: Piece; refusals: string[] }> {
  const refusals: string[] = [];
  const added: NewPose[] = [];
  const rule = remembered('placementRule');
  for (const file of files) {
    try {
      const reading = await engine.readSvg(await file.text());
      const [one] = await engine.arrive([{ name: titleOfFile(file.name, 'Pose'), reading }], 'parts');
      added.push({ ...one, pose: { ...one.pose, placement: { ...one.pose.placement, rule } } });
    } catch (error) {
      refusals.push(`${file.name}: ${(error as Error).message}`);
    }
  }
  if (added.length === 0) return { refusals };
  const figureId = freshId('f');
  const piece = produce(emptyPiece(freshId('piece'), added[0].pose.name), (draft) => {
    addFigure(draft as PieceDraft, figureId, 'Figure 1');
    insertPoses(draft as PieceDraft, figureId, added, freshId);
  });
  return { piece, refusals };
}
