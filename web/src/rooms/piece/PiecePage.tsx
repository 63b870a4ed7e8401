import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useStore } from 'react-redux';
import { Outlet, useNavigate, useParams } from 'react-router';
import { EditorContext, type OpenPiece, useEngines } from '../../context';
import { pendingShape } from '../../drawer';
import {
  Arrivals,
  type Autosave,
  commandById,
  copiedSvg,
  createEditor,
  type Editor,
  pasteCopied,
  startAutosave,
  unsavedBackup,
} from '../../editor';
import { Rail } from '../../rail';
import { Messages } from '../../shelf/Messages';
import { type AppStore, api, documentActions, problemText, sessionActions, useAppDispatch } from '../../state';
import { useReferenceFile } from '../shapes/use-reference-file';
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
      async ({ data, error }) => {
        if (left) return;
        if (!data) {
          setFailure(problemText(error));
          return;
        }
        const backup = await unsavedBackup(data.piece, (text) => engines.files.importPiece(text));
        if (left) return;
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
          planners: engines.planners.map((planner) => ({
            plan: (input, onProgress) => planner.planShift(input, onProgress),
            cancel: () => planner.cancel(),
          })),
          shapes: engines.shapes,
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
  return <OpenPieceView {...open} />;
}

function OpenPieceView({ editor, autosave }: { readonly editor: Editor; readonly autosave: Autosave }) {
  const store = editor.store;
  const engines = useEngines();
  const chooser = useRef<HTMLInputElement>(null);
  const target = useRef<number | undefined>(undefined);
  const [arrivals] = useState(() => new Arrivals(store, engines.files));
  const takeReference = useReferenceFile();
  const takeFiles = useCallback(
    (files: readonly File[], at?: number) => {
      // Pictures that are no drawings are there to be traced.
      const pictures = files.filter(({ type }) => /^image\/(png|jpeg|webp)$/.test(type));
      for (const picture of pictures) takeReference(picture);
      const drawings = files.filter((file) => !pictures.includes(file));
      if (drawings.length > 0) void arrivals.take(drawings, at);
    },
    [arrivals, takeReference],
  );
  const takeSvg = useCallback(
    (name: string, svg: string, at?: number) =>
      void arrivals.take([{ name, size: svg.length, text: async () => svg }], at),
    [arrivals],
  );
  const chooseFiles = useCallback((at?: number) => {
    target.current = at;
    chooser.current?.click();
  }, []);
  const value = useMemo<OpenPiece>(
    () => ({ editor, autosave, arrivals, chooseFiles, takeFiles, takeSvg }),
    [editor, autosave, arrivals, chooseFiles, takeFiles, takeSvg],
  );
  const context = useShortcuts(value);
  useEffect(() => {
    const waiting = pendingShape.take();
    if (waiting) takeSvg(waiting.name, waiting.svg);
  }, [takeSvg]);
  useEffect(() => {
    const inField = (event: Event): boolean =>
      event.target instanceof HTMLElement && event.target.closest('input, textarea, select') !== null;
    const paste = (event: ClipboardEvent): void => {
      if (inField(event)) return;
      const own = event.clipboardData?.getData(CLIPBOARD_TYPE);
      if (own && pasteCopied(store, own, editor.clock.seconds)) return;
      const files = [...(event.clipboardData?.files ?? [])];
      const text = event.clipboardData?.getData('text/plain') ?? '';
      if (files.length > 0) takeFiles(files);
      else if (text.trim() !== '') takeSvg('Pasted shape', pastedSvg(text));
    };
    const copy = (event: ClipboardEvent): void => {
      if (inField(event) || !document.getSelection()?.isCollapsed) return;
      const copied = copiedSvg(store, editor.clock.seconds);
      if (!copied) return;
      event.clipboardData?.setData(CLIPBOARD_TYPE, copied.json);
      event.clipboardData?.setData('text/plain', copied.svg);
      event.preventDefault();
      if (event.type === 'cut') commandById('remove').run({ editor, openRoom: () => {}, saveNow: () => {} });
    };
    window.addEventListener('paste', paste);
    window.addEventListener('copy', copy);
    window.addEventListener('cut', copy);
    return () => {
      window.removeEventListener('paste', paste);
      window.removeEventListener('copy', copy);
      window.removeEventListener('cut', copy);
    };
  }, [store, editor, takeFiles, takeSvg]);
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

/** What this program copies for itself: poses and parts with their ids. */
const CLIPBOARD_TYPE = 'application/x-arcshift+json';

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
