import { emptyPiece, movingFileOf, type Piece, type Problem, type ReadPiece, titleOfFile } from '@core';
import { useEffect, useRef, useState } from 'react';
import { useStore } from 'react-redux';
import { useNavigate } from 'react-router';
import { useEngines } from '../context';
import {
  type AppStore,
  api,
  type NamedSvg,
  pendingSvgs,
  problemText,
  sessionActions,
  useAppDispatch,
  useCreatePieceMutation,
} from '../state';
import { checkFileSize, EngineCancelled, freshId } from '../workers';

export interface TakenFiles {
  /** Takes files of all kinds: piece files and what moves become pieces, drawings the poses of a new one, which is opened. */
  take(files: readonly File[]): Promise<void>;
  /** Stores a new piece; where that fails it is told, and false is returned. */
  keep(piece: Piece): Promise<boolean>;
  /** Gives up the reading under way, with all that was to be read after it. */
  stop(): void;
  /** What is being read, and how far it is, 0 to 1. */
  readonly reading: { readonly name: string; readonly share: number } | null;
}

/** What becomes of files that are dropped, chosen or pasted on the shelf. */
export function useTakenFiles(): TakenFiles {
  const [create] = useCreatePieceMutation();
  const navigate = useNavigate();
  const dispatch = useAppDispatch();
  const store = useStore() as AppStore;
  const { files: engine } = useEngines();
  const [reading, setReading] = useState<TakenFiles['reading']>(null);
  const stopped = useRef(false);
  /** Is the shelf still what is seen? Whoever has gone on to something else is not taken out of it. */
  const here = useRef(true);
  useEffect(() => {
    here.current = true;
    return () => {
      here.current = false;
    };
  }, []);
  const isReading = reading !== null;
  useEffect(() => {
    if (!isReading) return;
    const ask = (event: Event): void => event.preventDefault();
    window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, [isReading]);
  const tell = (text: string): void => void dispatch(sessionActions.told({ tone: 'error', text }));

  const keep = async (piece: Piece): Promise<boolean> => {
    const result = await create(piece);
    if (result.error) tell(problemText(result.error));
    return !result.error;
  };
  const keepUnderAnyId = async (piece: Piece, idTaken = false): Promise<boolean> => {
    if (!idTaken) {
      const result = await create(piece);
      if (!result.error) return true;
      if ((result.error as { data?: Problem }).data?.code !== 'piece-exists') {
        tell(problemText(result.error));
        return false;
      }
    }
    return keep({ ...piece, id: freshId('piece') });
  };
  /** Reads a file in the worker while its progress is shown. */
  const shown = <T>(name: string, read: (onProgress: (share: number) => void) => Promise<T>): Promise<T> => {
    setReading({ name, share: 0 });
    return read((share) => setReading({ name, share })).finally(() => setReading(null));
  };
  /** A file that moves becomes a piece of its own, and its lanes are shown. */
  const openMoving = async ({ piece, notes }: ReadPiece): Promise<void> => {
    if (!(await keep(piece))) return;
    const place = `/piece/${piece.id}/timing`;
    dispatch(
      sessionActions.told({
        tone: 'notice',
        text: `${piece.name} came with its movement${notes.length > 0 ? ', but for:' : '.'}`,
        ...(notes.length > 0 && { details: notes }),
        ...(here.current ? { ofNext: true } : { opens: place }),
      }),
    );
    if (here.current) await navigate(place);
  };
  const takePiece = async (text: string): Promise<void> => {
    const piece = await engine.importPiece(text);
    const taken = api.endpoints.listPieces
      .select()(store.getState())
      .data?.some(({ id }) => id === piece.id);
    // A file of a piece that is here already comes in beside it; so does one whose id lies in the bin.
    const wanted = taken ? { ...piece, name: `${piece.name} (imported)`.slice(0, 200) } : piece;
    if (await keepUnderAnyId(wanted, taken))
      dispatch(sessionActions.told({ tone: 'notice', text: `${piece.name} was imported.` }));
  };
  /** Drawings go into a new piece, where they arrive as if dropped there, with what can be done about them. */
  const takeDrawings = async (svgs: readonly NamedSvg[]): Promise<void> => {
    const name = titleOfFile(svgs[0].name, 'Untitled piece');
    if (!here.current) {
      // Whoever is somewhere else stays there: the piece is made without its page.
      const made = await engine.drawnPiece(svgs, name);
      if (!(await keep(made))) return;
      const opens = `/piece/${made.id}/shapes`;
      dispatch(sessionActions.told({ tone: 'notice', text: `${name} was made of what you had dropped.`, opens }));
      return;
    }
    const piece = emptyPiece(freshId('piece'), name);
    if (!(await keep(piece))) return;
    pendingSvgs.put(svgs);
    await navigate(`/piece/${piece.id}/shapes`);
  };
  const take = async (files: readonly File[]): Promise<void> => {
    const drawings: NamedSvg[] = [];
    const refusals: string[] = [];
    let pieces = 0;
    stopped.current = false;
    for (const [i, file] of files.entries()) {
      const label = files.length > 1 ? `${i + 1} of ${files.length}: ${file.name}` : file.name;
      try {
        checkFileSize(file);
        const text = await file.text();
        if (stopped.current) throw new EngineCancelled();
        if (movingFileOf(text)) {
          const title = titleOfFile(file.name, 'Moving piece');
          await openMoving(await shown(label, (onProgress) => engine.readMoving(text, title, onProgress)));
          pieces++;
        } else if (/\.json$/i.test(file.name)) {
          await takePiece(text);
          pieces++;
        } else {
          await shown(label, (onProgress) => engine.readSvg(text, onProgress));
          drawings.push({ name: file.name, svg: text });
        }
      } catch (failure) {
        if (failure instanceof EngineCancelled) {
          const said = pieces > 0 ? 'The pieces that had come stay.' : 'Nothing came in.';
          dispatch(sessionActions.told({ tone: 'notice', text: `Reading was stopped. ${said}` }));
          return;
        }
        refusals.push(`${file.name}: ${(failure as Error).message}`);
      }
    }
    const many = refusals.length > 1;
    if (refusals.length > 0)
      dispatch(
        sessionActions.told({
          tone: 'error',
          text: many ? `${refusals.length} of ${files.length} files could not be taken.` : refusals[0],
          ...(many && { details: refusals }),
          // Where a piece is opened it is told there.
          ...(drawings.length > 0 && { ofNext: true }),
        }),
      );
    if (drawings.length > 0) await takeDrawings(drawings).catch((error: Error) => tell(error.message));
  };
  const stop = (): void => {
    stopped.current = true;
    engine.cancel();
  };
  return { take, keep, stop, reading };
}
