import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useStore } from 'react-redux';
import { Outlet, useNavigate, useParams } from 'react-router';
import { EditorContext, type OpenPiece, useEngines } from '../../context';
import { type Autosave, createEditor, type Editor, importFiles, readBackup, startAutosave } from '../../editor';
import { Rail } from '../../rail';
import { Messages } from '../../shelf/Messages';
import { type AppStore, api, documentActions, problemText, sessionActions, useAppDispatch } from '../../state';
import { PieceHeader } from './PieceHeader';
import { ShortcutSheet } from './ShortcutSheet';
import { StatusLine } from './StatusLine';
import { useShortcuts } from './use-shortcuts';
import './piece.scss';

/** An open piece: header, rail, room, status line. Loads the piece, makes its editor, and takes both down again. */
export function PiecePage() {
  const { id = '' } = useParams();
  const store = useStore() as AppStore;
  const dispatch = useAppDispatch();
  const engines = useEngines();
  const [open, setOpen] = useState<{ editor: Editor; autosave: Autosave } | null>(null);
  const [failure, setFailure] = useState<string | null>(null);
  const [attempt, setAttempt] = useState(0);

  // biome-ignore lint/correctness/useExhaustiveDependencies: another attempt loads again
  useEffect(() => {
    let left = false;
    let parts: { editor: Editor; autosave: Autosave } | null = null;
    setFailure(null);
    dispatch(sessionActions.reset());
    void dispatch(api.endpoints.loadPiece.initiate(id, { forceRefetch: true, subscribe: false })).then(
      ({ data, error }) => {
        if (left) return;
        if (!data) {
          setFailure(problemText(error));
          return;
        }
        const backup = readBackup(id);
        const piece = backup?.piece ?? data.piece;
        dispatch(documentActions.opened({ piece, revision: backup?.revision ?? data.revision }));
        if (backup)
          dispatch(
            sessionActions.told({
              tone: 'notice',
              text: 'Changes of last time that had not reached the server were found in this browser and are back.',
            }),
          );
        const editor = createEditor({
          store,
          planner: (input) => engines.planner.planShift(input),
          clock: {
            now: () => performance.now(),
            requestFrame: (callback) => requestAnimationFrame(callback),
            cancelFrame: (handle) => cancelAnimationFrame(handle),
          },
        });
        parts = { editor, autosave: startAutosave(store, backup !== undefined) };
        setOpen(parts);
      },
    );
    return () => {
      left = true;
      parts?.autosave.stop();
      parts?.editor.destroy();
      setOpen(null);
      dispatch(documentActions.closed());
    };
  }, [id, attempt, dispatch, store, engines]);

  if (failure) return <Failure text={failure} onRetry={() => setAttempt(attempt + 1)} />;
  if (!open) return <div className="piece-loading">Opening the piece …</div>;
  return <PieceFrame {...open} />;
}

function PieceFrame({ editor, autosave }: { readonly editor: Editor; readonly autosave: Autosave }) {
  const store = editor.store;
  const engines = useEngines();
  const chooser = useRef<HTMLInputElement>(null);
  const target = useRef<number | undefined>(undefined);
  const takeFiles = useCallback(
    (files: readonly File[], at?: number) => void importFiles(store, engines.files, files, at),
    [store, engines],
  );
  const chooseFiles = useCallback((at?: number) => {
    target.current = at;
    chooser.current?.click();
  }, []);
  const value = useMemo<OpenPiece>(
    () => ({ editor, autosave, chooseFiles, takeFiles }),
    [editor, autosave, chooseFiles, takeFiles],
  );
  const context = useShortcuts(value);
  useEffect(() => {
    const paste = (event: ClipboardEvent): void => {
      const inField = event.target instanceof HTMLElement && event.target.closest('input, textarea, select');
      if (inField) return;
      const files = [...(event.clipboardData?.files ?? [])];
      const text = event.clipboardData?.getData('text/plain') ?? '';
      if (files.length > 0) takeFiles(files);
      else if (text.trim() !== '')
        void importFiles(store, engines.files, [
          { name: 'Pasted shape', size: text.length, text: async () => pastedSvg(text) },
        ]);
    };
    window.addEventListener('paste', paste);
    return () => window.removeEventListener('paste', paste);
  }, [store, engines, takeFiles]);
  return (
    <EditorContext.Provider value={value}>
      <div className="piece-page">
        <PieceHeader context={context} />
        <Rail />
        <main className="piece-room">
          <Outlet />
        </main>
        <StatusLine />
        <Messages />
        <ShortcutSheet />
        <input
          ref={chooser}
          type="file"
          accept=".svg,image/svg+xml"
          multiple
          hidden
          data-testid="svg-chooser"
          onChange={(event) => {
            takeFiles([...(event.target.files ?? [])], target.current);
            event.target.value = '';
          }}
        />
      </div>
    </EditorContext.Provider>
  );
}

/** Bare path data is as good as a file. */
const pastedSvg = (text: string): string =>
  /^\s*[Mm][\s\d.+-]/.test(text)
    ? `<svg xmlns="http://www.w3.org/2000/svg"><path d="${text.replace(/[<>&"]/g, ' ')}"/></svg>`
    : text;

function Failure({ text, onRetry }: { readonly text: string; readonly onRetry: () => void }) {
  const navigate = useNavigate();
  return (
    <div className="piece-failure" role="alert">
      <h1>This piece cannot be opened</h1>
      <p>{text}</p>
      <div>
        <button type="button" className="btn btn-primary me-2" onClick={() => void navigate('/')}>
          To the shelf
        </button>
        <button type="button" className="btn outlined" onClick={onRetry}>
          Try again
        </button>
      </div>
    </div>
  );
}
