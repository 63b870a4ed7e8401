import { movingFileOf, pastedSvg } from '@core';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { Outlet, useNavigate, useParams } from 'react-router';
import { EditorContext, type OpenPiece, useEngines } from '../../context';
import { Arrivals, commandById, copiedKeys, copiedSvg, pasteCopied, pasteKeys, removeChosenKeys } from '../../editor';
import { Rail } from '../../rail';
import { Messages } from '../../shelf/Messages';
import { type NamedSvg, pendingSvgs, sessionActions } from '../../state';
import { FrameDialog } from '../shapes/FrameDialog';
import { isReferenceFile, useReferenceFile } from '../shapes/use-reference-file';
import { AddMenu } from './AddMenu';
import { LeaveDialog } from './LeaveDialog';
import { LeftVersions } from './LeftVersions';
import { PieceHeader } from './PieceHeader';
import { SaveBanner } from './SaveBanner';
import { ShortcutSheet } from './ShortcutSheet';
import { StatusLine } from './StatusLine';
import { type Opened, useOpenedPiece } from './use-opened-piece';
import { useShortcuts } from './use-shortcuts';
import './piece.scss';

/** An open piece: header, rail, room, status line. */
export function PiecePage() {
  const { id = '' } = useParams();
  const opened = useOpenedPiece(id);
  const { opening } = opened;
  switch (opening.state) {
    case 'loading':
      return <div className="piece-loading">Opening the piece …</div>;
    case 'failed':
      return <Failure text={opening.text} onRetry={opened.retry} />;
    case 'choosing':
      return (
        <>
          <LeftVersions found={opening.found} opening={opened} />
          <Messages />
        </>
      );
    case 'open':
      return <OpenPieceView {...opening.parts} />;
  }
}

function OpenPieceView({ editor, autosave }: Opened) {
  const store = editor.store;
  const engines = useEngines();
  const chooser = useRef<HTMLInputElement>(null);
  const target = useRef<number | undefined>(undefined);
  const [adding, setAdding] = useState<Element | null>(null);
  const [arrivals] = useState(() => new Arrivals(store, engines.files));
  const takeReference = useReferenceFile();
  const takeFiles = useCallback(
    (files: readonly File[], at?: number) => {
      // Pictures that are no drawings are there to be traced.
      const pictures = files.filter(isReferenceFile);
      for (const picture of pictures) takeReference(picture);
      const drawings = files.filter((file) => !pictures.includes(file));
      if (drawings.length > 0) void arrivals.take(drawings, at);
    },
    [arrivals, takeReference],
  );
  const takeSvgs = useCallback(
    (svgs: readonly NamedSvg[], at?: number) =>
      void arrivals.take(
        svgs.map(({ name, svg }) => ({ name, size: svg.length, text: async () => svg })),
        at,
      ),
    [arrivals],
  );
  const takeSvg = useCallback((name: string, svg: string, at?: number) => takeSvgs([{ name, svg }], at), [takeSvgs]);
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
    const waiting = pendingSvgs.take();
    if (waiting.length > 0) takeSvgs(waiting);
  }, [takeSvgs]);
  useEffect(() => {
    const inField = (event: Event): boolean =>
      event.target instanceof HTMLElement && event.target.closest('input, textarea, select') !== null;
    const paste = (event: ClipboardEvent): void => {
      if (inField(event)) return;
      const own = event.clipboardData?.getData(CLIPBOARD_TYPE);
      if (own && pasteKeys(store, own, editor.clock.seconds)) return;
      if (own && pasteCopied(store, own, editor.clock.seconds)) return;
      const files = [...(event.clipboardData?.files ?? [])];
      const text = event.clipboardData?.getData('text/plain') ?? '';
      if (files.length > 0) takeFiles(files);
      else if (text.trim() !== '') takeSvg('Pasted shape', movingFileOf(text) ? text : pastedSvg(text));
    };
    const copy = (event: ClipboardEvent): void => {
      if (inField(event) || !document.getSelection()?.isCollapsed) return;
      // Keys that are chosen are what the hand is at; they are chosen in the Timing room alone.
      const keys = document.querySelector('.lane-sheet') ? copiedKeys(store) : undefined;
      const copied = keys ?? copiedSvg(store, editor.clock.seconds);
      if (!copied) return;
      event.clipboardData?.setData(CLIPBOARD_TYPE, copied.json);
      event.clipboardData?.setData('text/plain', 'svg' in copied ? copied.svg : copied.text);
      event.preventDefault();
      if (event.type !== 'cut') {
        if (keys) store.dispatch(sessionActions.told({ tone: 'notice', text: keys.said }));
        return;
      }
      if (keys) removeChosenKeys(store);
      else commandById('remove').run({ editor, openRoom: () => {}, saveNow: () => {} });
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
        <SaveBanner />
        <Rail onAdd={setAdding} />
        <AddMenu anchor={adding} openRoom={context.openRoom} onClose={() => setAdding(null)} />
        <main className="piece-room">
          <Outlet />
        </main>
        <StatusLine />
        <Messages />
        <ShortcutSheet />
        <LeaveDialog />
        <FrameDialog />
        <input
          ref={chooser}
          type="file"
          accept=".svg,image/svg+xml,.json,application/json,.csv,text/csv"
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

function Failure({ text, onRetry }: { readonly text: string; readonly onRetry: () => void }) {
  const navigate = useNavigate();
  return (
    <div className="page-notice" role="alert">
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
