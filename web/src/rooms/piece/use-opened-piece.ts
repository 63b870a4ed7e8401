import type { LoadedPiece, Piece, Problem } from '@core';
import { useEffect, useState } from 'react';
import { useStore } from 'react-redux';
import { useEngines, useSavingDesk } from '../../context';
import { type Autosave, createEditor, type Editor, type LeftCopy, type Steps } from '../../editor';
import {
  type AppStore,
  api,
  documentActions,
  numberedAnew,
  problemText,
  sessionActions,
  UNKEPT,
  useAppDispatch,
} from '../../state';
import { planInPortions } from '../../workers';

const NO_STEPS: Steps = { past: [], future: [] };

/** What is said with what looks different since an older version. */
const AFTER_CHANGE = 'It is said until the piece is changed and saved.';

/** An open piece at work. */
export interface Opened {
  readonly editor: Editor;
  readonly autosave: Autosave;
}

/** What there is of a piece when this browser has something that the server has not. */
export interface Found {
  readonly onServer: LoadedPiece | undefined;
  /** Why the server gave nothing. */
  readonly failure: string | null;
  /** Is it known not to be on the server any more? */
  readonly gone: boolean;
  readonly copies: readonly LeftCopy[];
}

export type Opening =
  | { readonly state: 'loading' }
  | { readonly state: 'failed'; readonly text: string }
  | { readonly state: 'choosing'; readonly found: Found }
  | { readonly state: 'open'; readonly parts: Opened };

export interface PieceOpening {
  readonly opening: Opening;
  /** Loads again. */
  retry(): void;
  /** Opens what the server has. */
  takeServer(): void;
  /** Opens a copy of this browser; it is saved over what the server has. */
  takeCopy(copy: LeftCopy): void;
  /** Removes a copy for good. */
  throwAway(copy: LeftCopy): void;
}

/** Loads a piece, asks where this browser has something that the server has not, makes its editor, and takes everything down again. */
export function useOpenedPiece(id: string): PieceOpening {
  const store = useStore() as AppStore;
  const dispatch = useAppDispatch();
  const engines = useEngines();
  const desk = useSavingDesk();
  const [opening, setOpening] = useState<Opening>({ state: 'loading' });
  const [attempt, setAttempt] = useState(0);

  const open = (piece: Piece, revision: number, unsaved: boolean, { past, future }: Steps): void => {
    dispatch(documentActions.opened({ piece, revision, past: numberedAnew(past), future: numberedAnew(future) }));
    const editor = createEditor({
      store,
      planners: engines.planners.map((planner) => ({
        plan: (input, onProgress) => planInPortions(planner, input, onProgress),
        cancel: () => planner.cancel(),
      })),
      shapes: engines.shapes,
      clock: {
        now: () => performance.now(),
        requestFrame: (callback) => requestAnimationFrame(callback),
        cancelFrame: (handle) => cancelAnimationFrame(handle),
      },
    });
    setOpening({ state: 'open', parts: { editor, autosave: desk.open(store, unsaved) } });
  };

  // biome-ignore lint/correctness/useExhaustiveDependencies: another attempt loads again
  useEffect(() => {
    let left = false;
    setOpening({ state: 'loading' });
    dispatch(sessionActions.reset());
    const load = async (): Promise<void> => {
      // A piece that was left a moment ago may still be on its way.
      await desk.settled(id);
      const { data, error } = await dispatch(api.endpoints.fetchPiece.initiate(id, UNKEPT));
      const copies = await desk.leftOf(id, data?.piece, (text) => engines.files.importPiece(text));
      const steps = data && copies.length === 0 ? await desk.steps.of(data.piece) : NO_STEPS;
      if (left) return;
      for (const text of data?.notes ?? [])
        dispatch(sessionActions.told({ tone: 'notice', text, details: [AFTER_CHANGE] }));
      if (data && copies.length === 0) open(data.piece, data.revision, false, steps);
      else if (copies.length === 0) setOpening({ state: 'failed', text: problemText(error) });
      else {
        const problem = (error as { data?: Problem } | undefined)?.data;
        const gone = problem?.code === 'not-found';
        setOpening({
          state: 'choosing',
          found: { onServer: data, failure: error ? problemText(error) : null, gone, copies },
        });
      }
    };
    void load();
    return () => {
      left = true;
    };
  }, [id, attempt, dispatch, store, engines, desk]);

  // What was opened is taken down when another is opened or the page is left.
  const parts = opening.state === 'open' ? opening.parts : null;
  useEffect(() => {
    if (!parts) return;
    // Before what is to be saved is looked at: points of a line that is being drawn are a part of the piece.
    const keep = (): void => parts.editor.drawing.keepDrawn();
    for (const name of ['beforeunload', 'pagehide']) window.addEventListener(name, keep, { capture: true });
    return () => {
      for (const name of ['beforeunload', 'pagehide']) window.removeEventListener(name, keep, { capture: true });
      keep();
      void parts.autosave.stop();
      parts.editor.destroy();
      dispatch(documentActions.closed());
    };
  }, [parts, dispatch]);

  return {
    opening,
    retry: () => setAttempt(attempt + 1),
    takeServer() {
      if (opening.state !== 'choosing' || !opening.found.onServer) return;
      const { piece, revision } = opening.found.onServer;
      void desk.steps.of(piece).then((steps) => open(piece, revision, false, steps));
    },
    takeCopy({ copy, piece }) {
      if (opening.state !== 'choosing' || !piece) return;
      const { onServer } = opening.found;
      void desk.copies.hand(copy, desk.tab).catch(() => {});
      const revision = onServer?.revision ?? copy.revision;
      void desk.steps.of(piece).then((steps) => open(piece, revision, true, steps));
    },
    throwAway({ copy }) {
      if (opening.state !== 'choosing') return;
      void desk.copies.drop(copy.key).catch(() => {});
      const copies = opening.found.copies.filter((other) => other.copy !== copy);
      if (copies.length > 0) setOpening({ state: 'choosing', found: { ...opening.found, copies } });
      else setAttempt(attempt + 1);
    },
  };
}
