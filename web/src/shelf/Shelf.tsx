import { emptyPiece, looksLikeSvg, movingFileOf, type Piece, pastedSvg, titleOfFile } from '@core';
import { Archive, FileUp, Moon, Plus, Search, Sun } from 'lucide-react';
import { type ChangeEvent, useEffect, useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { useDropzone } from 'react-dropzone';
import { useStore } from 'react-redux';
import { Link, useNavigate } from 'react-router';
import { useEngines } from '../context';
import {
  type AppStore,
  api,
  type NamedSvg,
  type Problem,
  pendingSvgs,
  problemText,
  sessionActions,
  useAppDispatch,
  useAppSelector,
  useCreatePieceMutation,
  useListPiecesQuery,
} from '../state';
import { IconButton } from '../ui';
import { EngineCancelled, freshId } from '../workers';
import { LeftChanges } from './LeftChanges';
import { Messages } from './Messages';
import { PieceCard } from './PieceCard';
import { Wordmark } from './Wordmark';
import './shelf.scss';

/** All pieces, the latest first. SVG files dropped here become a new piece; piece files are imported. */
export function Shelf() {
  const {
    data: pieces,
    error,
    refetch,
    isLoading,
  } = useListPiecesQuery(undefined, { refetchOnMountOrArgChange: true });
  const [create] = useCreatePieceMutation();
  const navigate = useNavigate();
  const dispatch = useAppDispatch();
  const store = useStore() as AppStore;
  const engines = useEngines();
  const theme = useAppSelector((state) => state.session.theme);
  const [search, setSearch] = useState('');
  const [reading, setReading] = useState<{ readonly name: string; readonly share: number } | null>(null);
  const chooser = useRef<HTMLInputElement>(null);
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
  const newPiece = async (): Promise<void> => {
    const piece = emptyPiece(freshId('piece'), 'Untitled piece');
    if (await keep(piece)) await navigate(`/piece/${piece.id}/shapes`);
  };
  /** A file that moves becomes a piece of its own, and its lanes are shown. */
  const takeMoving = async (name: string, text: string): Promise<void> => {
    const tell = (share: number): void => setReading({ name, share });
    tell(0);
    const { piece, notes } = await engines.files
      .readMoving(text, titleOfFile(name, 'Moving piece'), tell)
      .finally(() => setReading(null));
    if (!(await keep(piece))) return;
    dispatch(
      sessionActions.told({
        tone: 'notice',
        ofNext: true,
        text: `${piece.name} came with its movement${notes.length > 0 ? ', but for:' : '.'}`,
        ...(notes.length > 0 && { details: notes }),
      }),
    );
    await navigate(`/piece/${piece.id}/timing`);
  };
  /** Those of some files that are drawings; of the others it is told why not, in the piece that is opened if there is one. */
  const readable = async (files: readonly File[]): Promise<NamedSvg[]> => {
    const found: NamedSvg[] = [];
    const refusals: string[] = [];
    for (const file of files)
      try {
        const svg = await file.text();
        await engines.files.readSvg(svg);
        found.push({ name: file.name, svg });
      } catch (failure) {
        refusals.push(`${file.name}: ${(failure as Error).message}`);
      }
    for (const text of refusals)
      dispatch(sessionActions.told({ tone: 'error', text, ...(found.length > 0 && { ofNext: true }) }));
    return found;
  };
  const take = async (files: readonly File[]): Promise<void> => {
    const drawings: File[] = [];
    for (const file of files) {
      try {
        const text = await file.text();
        if (movingFileOf(text)) {
          await takeMoving(file.name, text);
          continue;
        }
        if (!/\.json$/i.test(file.name)) {
          drawings.push(file);
          continue;
        }
        const piece = await engines.files.importPiece(text);
        const known = store.getState();
        const taken = api.endpoints.listPieces
          .select()(known)
          .data?.some(({ id }) => id === piece.id);
        // A file of a piece that is here already comes in beside it; so does one whose id lies in the bin.
        const wanted = taken ? { ...piece, name: `${piece.name} (imported)`.slice(0, 200) } : piece;
        if (await keepUnderAnyId(wanted, taken))
          dispatch(sessionActions.told({ tone: 'notice', text: `${piece.name} was imported.` }));
      } catch (failure) {
        if (failure instanceof EngineCancelled)
          dispatch(sessionActions.told({ tone: 'notice', text: `Reading ${file.name} was stopped. Nothing came in.` }));
        else tell(`${file.name}: ${(failure as Error).message}`);
      }
    }
    if (drawings.length === 0) return;
    const svgs = await readable(drawings);
    if (svgs.length === 0) return;
    const piece = emptyPiece(freshId('piece'), titleOfFile(svgs[0].name, 'Untitled piece'));
    if (!(await keep(piece))) return;
    // There they arrive as any others, with what can be done about them.
    pendingSvgs.put(svgs);
    await navigate(`/piece/${piece.id}/shapes`);
  };
  const takeRef = useRef(take);
  takeRef.current = take;
  // Who leaves the shelf does not wait for its thumbnails.
  useEffect(
    () => () => {
      for (const planner of engines.planners) planner.cancel();
    },
    [engines],
  );
  useEffect(() => {
    const paste = (event: ClipboardEvent): void => {
      if (event.target instanceof HTMLInputElement) return;
      const text = event.clipboardData?.getData('text/plain') ?? '';
      const files = [...(event.clipboardData?.files ?? [])];
      if (files.length > 0) void takeRef.current(files);
      else if (movingFileOf(text)) void takeRef.current([new File([text], 'Pasted animation')]);
      else if (looksLikeSvg(text))
        void takeRef.current([new File([pastedSvg(text)], 'Pasted shape.svg', { type: 'image/svg+xml' })]);
    };
    window.addEventListener('paste', paste);
    return () => window.removeEventListener('paste', paste);
  }, []);
  const drop = useDropzone({ noClick: true, noKeyboard: true, onDrop: (files) => void take(files) });
  const shown = pieces?.filter(({ name }) => name.toLowerCase().includes(search.trim().toLowerCase())) ?? [];
  return (
    <div {...drop.getRootProps({ className: `shelf ${drop.isDragActive ? 'dropping' : ''}` })}>
      <header className="shelf-header">
        <h1>
          <Wordmark />
        </h1>
        <label className="shelf-search">
          <Search size={15} aria-hidden="true" />
          <input
            type="search"
            className="form-control"
            placeholder="Search pieces"
            aria-label="Search pieces"
            value={search}
            onChange={(event) => setSearch(event.target.value)}
          />
        </label>
        <div className="shelf-actions">
          <IconButton
            icon={theme === 'dark' ? Sun : Moon}
            label={theme === 'dark' ? 'Light theme' : 'Dark theme'}
            onClick={() => dispatch(sessionActions.themeChosen(theme === 'dark' ? 'light' : 'dark'))}
          />
          <Button variant="link" className="outlined text-decoration-none" onClick={() => chooser.current?.click()}>
            <FileUp size={15} aria-hidden="true" /> Import
          </Button>
          <Link to="/shapes" className="btn outlined" title="Shapes kept for reuse">
            <Archive size={15} aria-hidden="true" /> Drawer
          </Link>
          <Button variant="primary" onClick={() => void newPiece()}>
            <Plus size={16} aria-hidden="true" /> New piece
          </Button>
        </div>
        <input
          ref={chooser}
          type="file"
          hidden
          multiple
          accept=".json,.svg,.csv,image/svg+xml,application/json,text/csv"
          data-testid="import-chooser"
          onChange={(event: ChangeEvent<HTMLInputElement>) => {
            void take([...(event.target.files ?? [])]);
            event.target.value = '';
          }}
        />
      </header>
      <LeftChanges />
      <main className="shelf-board">
        {error ? (
          <div className="shelf-empty" role="alert">
            <h2>The shelf cannot be read</h2>
            <p>{problemText(error)}</p>
            <Button variant="primary" onClick={() => void refetch()}>
              Try again
            </Button>
          </div>
        ) : isLoading ? (
          <p className="soft">Fetching the pieces …</p>
        ) : pieces?.length === 0 ? (
          <div className="shelf-empty">
            <h2>Nothing on the shelf yet</h2>
            <p>
              Start a new piece, or drop two SVG files anywhere on this page: they become the two poses of a playing
              morph.
            </p>
            <Link to="/shapes" className="btn outlined" title="Shapes kept for reuse">
              <Archive size={15} aria-hidden="true" /> Drawer
            </Link>
            <Button variant="primary" onClick={() => void newPiece()}>
              <Plus size={16} aria-hidden="true" /> New piece
            </Button>
          </div>
        ) : shown.length === 0 ? (
          <p className="soft">No piece is called “{search}”.</p>
        ) : (
          <div className="shelf-grid">
            {shown.map((summary) => (
              <PieceCard key={summary.id} summary={summary} />
            ))}
            {search === '' && (
              <button type="button" className="piece-start" onClick={() => void newPiece()}>
                <Plus size={22} aria-hidden="true" />
                <strong>Start another</strong>
                <span className="soft">or drop SVG files anywhere</span>
              </button>
            )}
          </div>
        )}
      </main>
      <footer className="shelf-hint soft">
        {reading ? (
          <>
            <span role="status">
              Reading {reading.name} … {Math.round(100 * reading.share)} %
            </span>
            <button type="button" className="btn btn-link p-0" onClick={() => engines.files.cancel()}>
              Stop
            </button>
          </>
        ) : (
          'Drop SVG files anywhere to begin a piece with them. Animated SVG, Lottie and path data by frame come with their movement; a .arcshift.json file comes back as it was.'
        )}
      </footer>
      <Messages />
    </div>
  );
}
