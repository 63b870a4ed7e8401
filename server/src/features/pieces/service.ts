import { CoreError, checkPiece, type LoadedPiece, migrationNotes, type PieceSummary, type SavedPiece } from '@core';
import { ApiError } from '../../errors';
import type { PieceRepository } from './repository';

/** What can be done with pieces; every piece that comes in is checked against the schema and its rules. */
export class PieceService {
  constructor(
    private readonly repository: PieceRepository,
    private readonly newId: () => string,
  ) {}

  list(): Promise<PieceSummary[]> {
    return this.repository.list();
  }

  async load(id: string): Promise<LoadedPiece> {
    const stored = await this.repository.find(id);
    if (!stored) throw unknownPiece(id);
    const { document, ...summary } = stored;
    try {
      const data = JSON.parse(document);
      // Before it is checked: checking brings the very same data up to date.
      const notes = migrationNotes(data);
      return { ...summary, piece: checkPiece(data), ...(notes.length > 0 && { notes }) };
    } catch (error) {
      throw new ApiError(
        'piece-unreadable',
        `What is stored of “${stored.name}” cannot be read: ${(error as Error).message}`,
        error instanceof CoreError ? error.where : '/',
      );
    }
  }

  /** What is stored of a piece, as it is, readable or not. */
  async text(id: string): Promise<string> {
    const stored = await this.repository.find(id);
    if (!stored) throw unknownPiece(id);
    return stored.document;
  }

  async create(data: unknown): Promise<PieceSummary> {
    const piece = checkPiece(data);
    const created = await this.repository.create(piece.id, piece.name, JSON.stringify(piece));
    if (!created)
      throw new ApiError(
        'piece-exists',
        `Expected an id that is not in use; found “${piece.id}”. Import it under a new id or replace the existing piece.`,
        '/piece/id',
      );
    return created;
  }

  /** Replaces a piece; a stale write is refused with what is newer. */
  async replace(id: string, revision: number, data: unknown): Promise<SavedPiece> {
    const piece = checkPiece(data);
    if (piece.id !== id)
      throw new ApiError('body-invalid', `Expected the piece “${id}”; found “${piece.id.slice(0, 64)}”.`, '/piece/id');
    const replaced = await this.repository.replace(id, revision, piece.name, JSON.stringify(piece));
    if (replaced) return replaced;
    const newer = await this.load(id);
    throw new ApiError(
      'piece-stale',
      `Expected a change to revision ${newer.revision}; found one to revision ${revision}. Somebody saved in between.`,
      '/revision',
      { newer },
    );
  }

  async duplicate(id: string): Promise<PieceSummary> {
    const { piece } = await this.load(id);
    return this.create({ ...piece, id: this.newId(), name: `${piece.name} copy`.slice(0, 200) });
  }

  async remove(id: string): Promise<void> {
    if (!(await this.repository.bin(id))) throw unknownPiece(id);
  }

  async restore(id: string): Promise<void> {
    if (!(await this.repository.restore(id)))
      throw new ApiError('not-found', `Expected the id of a deleted piece; found “${id.slice(0, 64)}”.`, '/id');
  }
}

const unknownPiece = (id: string): ApiError =>
  new ApiError('not-found', `Expected the id of a piece on this server; found “${id.slice(0, 64)}”.`, '/id');
