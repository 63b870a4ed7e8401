import { frameCount, pieceDuration } from '@core';
import { Download } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Button } from 'react-bootstrap';
import { useEngines } from '../../context';
import { selectPiece, sessionActions, useAppDispatch, useAppSelector } from '../../state';
import { Choice } from '../../ui';
import './output.scss';

interface Made {
  readonly url: string;
  readonly bytes: number;
}

const fileName = (name: string): string =>
  `${
    name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '') || 'piece'
  }.svg`;
const sizeText = (bytes: number): string => (bytes < 10_000 ? `${bytes} bytes` : `${(bytes / 1024).toFixed(1)} KB`);

/** The piece as an animated SVG file: shown as a browser plays it, with its size, and taken out. */
export function OutputRoom() {
  const piece = useAppSelector(selectPiece);
  const engines = useEngines();
  const dispatch = useAppDispatch();
  const [digits, setDigits] = useState<'1' | '2' | '3'>('2');
  const [made, setMade] = useState<Made | null>(null);
  const [failed, setFailed] = useState<string | null>(null);
  useEffect(() => {
    if (!piece || piece.figureOrder.length === 0) return;
    let outdated = false;
    let url = '';
    setFailed(null);
    engines.files.animatedSvg(piece, Number(digits)).then(
      (text) => {
        if (outdated) return;
        const blob = new Blob([text], { type: 'image/svg+xml' });
        url = URL.createObjectURL(blob);
        setMade({ url, bytes: blob.size });
      },
      (error: Error) => !outdated && setFailed(error.message),
    );
    return () => {
      outdated = true;
      if (url) URL.revokeObjectURL(url);
      setMade(null);
    };
  }, [piece, digits, engines]);
  if (!piece) return null;
  const empty = piece.figureOrder.length === 0;
  const copy = async (): Promise<void> => {
    if (!made) return;
    try {
      await navigator.clipboard.writeText(await (await fetch(made.url)).text());
      dispatch(sessionActions.told({ tone: 'notice', text: 'The SVG markup is in the clipboard.' }));
    } catch {
      dispatch(
        sessionActions.told({
          tone: 'error',
          text: 'The browser did not allow writing to the clipboard. Download the file instead.',
        }),
      );
    }
  };
  return (
    <>
      <section className="output-picture" aria-label="The file as a browser shows it">
        {empty ? (
          <p className="soft">There is nothing to take out yet. Bring shapes in first, in the room Shapes.</p>
        ) : failed ? (
          <p role="alert">The file could not be made: {failed}</p>
        ) : made ? (
          <img src={made.url} alt={`${piece.name}, playing`} />
        ) : (
          <p className="soft" role="status">
            Writing the file …
          </p>
        )}
      </section>
      <aside className="details" aria-label="Details">
        <div className="details-body">
          <header className="details-head">
            <h2>Animated SVG</h2>
          </header>
          <p className="details-note">
            One file for pages and as an image. It plays by itself, needs no script, and stays sharp at every size.
          </p>
          <Choice
            label="Decimals of coordinates"
            value={digits}
            options={[
              { value: '1', label: '1', hint: 'Smallest file; off by at most 0.05 px' },
              { value: '2', label: '2', hint: 'Off by at most 0.005 px' },
              { value: '3', label: '3', hint: 'For files shown very large' },
            ]}
            onChange={setDigits}
          />
          <dl className="output-facts numbers">
            <dt>Length</dt>
            <dd>
              {+pieceDuration(piece).toFixed(3)} s, {frameCount(piece)} frames
            </dd>
            <dt>At the end</dt>
            <dd>{piece.playback === 'loop' ? 'starts again' : 'stops'}</dd>
            <dt>Size</dt>
            <dd data-testid="output-size">{made ? sizeText(made.bytes) : '–'}</dd>
          </dl>
          <div className="d-grid gap-2">
            {made ? (
              <a className="btn btn-primary" href={made.url} download={fileName(piece.name)} data-testid="download-svg">
                <Download size={16} aria-hidden="true" /> Download {fileName(piece.name)}
              </a>
            ) : (
              <Button variant="primary" disabled>
                <Download size={16} aria-hidden="true" /> Download
              </Button>
            )}
            <button type="button" className="btn outlined" disabled={!made} onClick={() => void copy()}>
              Copy the markup
            </button>
          </div>
        </div>
      </aside>
    </>
  );
}
