import { emptyPiece, looksLikeSvg, movingFileOf, pastedSvg } from '@core';
import { Archive, FileUp, Moon, Plus, Search, Sun } from 'lucide-react';
import { type ChangeEvent, useEffect, useRef, useState } from 'react';
import { Button } from 'react-bootstrap';
import { useDropzone } from 'react-dropzone';
import { Link, useNavigate } from 'react-router';
import { useEngines } from '../context';
import { problemText, sessionActions, useAppDispatch, useAppSelector, useListPiecesQuery } from '../state';
import { IconButton } from '../ui';
import { freshId } from '../workers';
import { LeftChanges } from './LeftChanges';
import { Messages } from './Messages';
import { OutputsAtWork } from './OutputsAtWork';
import { PieceCard } from './PieceCard';
import { useTakenFiles } from './use-taken-files';
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
  const navigate = useNavigate();
  const dispatch = useAppDispatch();
  const engines = useEngines();
  const { take, keep, stop, reading } = useTakenFiles();
  const theme = useAppSelector((state) => state.session.theme);
  const [search, setSearch] = useState('');
  const chooser = useRef<HTMLInputElement>(null);
  const newPiece = async (): Promise<void> => {
    const piece = emptyPiece(freshId('piece'), 'Untitled piece');
    if (await keep(piece)) await navigate(`/piece/${piece.id}/shapes`);
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
      <OutputsAtWork />
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
            <button type="button" className="btn btn-link p-0" onClick={stop}>
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
