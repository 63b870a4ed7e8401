import { type ExchangeSummary, exchangePose, type Id, type NewPose, type Piece } from '@core';
import { type AppStore, changePiece, makeChange } from '../../state';
import { type EngineClient, freshId } from '../../workers';

/** A new version of a pose's outline, not yet taken. */
export interface ExchangeOffer {
  readonly poseId: Id;
  readonly fileName: string;
  readonly added: NewPose;
  readonly notes: readonly string[];
}

/** Reads the file that is to take the place of a pose's outline. @throws CoreError when it cannot be read */
export async function readExchange(engine: EngineClient, poseId: Id, file: File): Promise<ExchangeOffer> {
  const reading = await engine.readSvg(await file.text());
  const [added] = await engine.arrive([{ name: file.name.replace(/\.svg$/i, ''), reading }], 'parts');
  return { poseId, fileName: file.name, added, notes: reading.notes };
}

/** The piece as it would be, and what is kept and changed. */
export function previewExchange(
  piece: Piece,
  offer: ExchangeOffer,
  keepPaint: boolean,
): { piece: Piece; summary: ExchangeSummary } | undefined {
  let summary: ExchangeSummary | undefined;
  const change = makeChange(piece, '', (draft) => {
    summary = exchangePose(draft, offer.poseId, offer.added, keepPaint, freshId);
  });
  return change && summary ? { piece: change.piece, summary } : undefined;
}

/** Puts the new version in the place of the old. */
export function takeExchange(store: AppStore, offer: ExchangeOffer, keepPaint: boolean): void {
  store.dispatch(
    changePiece(`Exchange for ${offer.fileName}`, (draft) => {
      exchangePose(draft, offer.poseId, offer.added, keepPaint, freshId);
    }),
  );
}
