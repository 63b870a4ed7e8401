import { frameCount, type Playback, pieceDuration } from '@core';
import { Download } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Button } from 'react-bootstrap';
import { useEngines } from '../../context';
import { OUTPUTS, type OutputOptions, outputById, outputFileName, readOptions } from '../../outputs';
import { remember, remembered, selectPiece, sessionActions, useAppDispatch, useAppSelector } from '../../state';
import { Choice } from '../../ui';
import { RoomColumns } from '../RoomColumns';
import './output.scss';

/** What has become of the file. */
type Made =
  | { readonly state: 'making'; readonly share: number }
  | { readonly state: 'made'; readonly url: string; readonly blob: Blob }
  | { readonly state: 'failed'; readonly text: string }
  | { readonly state: 'cancelled' };

const sizeText = (bytes: number): string => (bytes < 10_000 ? `${bytes} bytes` : `${(bytes / 1024).toFixed(1)} KB`);

/** Options as they were chosen last; what no form has any more is as it is by default. */
function rememberedOptions(formId: string): OutputOptions {
  const form = outputById(formId);
  try {
    return readOptions(form, remembered('outputs').options[formId]);
  } catch {
    return readOptions(form);
  }
}

const AT_THE_END: Readonly<Record<Playback, string>> = {
  loop: 'starts again',
  once: 'stops',
  back: 'goes back, and again',
  stretch: 'plays a stretch again',
};

/** The piece as a file: shown as a browser plays it, with its size, and taken out. */
export function OutputRoom() {
  const piece = useAppSelector(selectPiece);
  const engines = useEngines();
  const dispatch = useAppDispatch();
  const [formId, setFormId] = useState(() => outputById(remembered('outputs').form).id);
  const [options, setOptions] = useState(() => rememberedOptions(formId));
  const [made, setMade] = useState<Made>({ state: 'making', share: 0 });
  const [attempt, setAttempt] = useState(0);
  const form = outputById(formId);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another attempt makes it again
  useEffect(() => {
    if (!piece || piece.figureOrder.length === 0) return;
    let outdated = false;
    let url = '';
    setMade({ state: 'making', share: 0 });
    const tell = (share: number): void => {
      if (!outdated) setMade((before) => (before.state === 'making' ? { state: 'making', share } : before));
    };
    engines.outputs.makeOutput(formId, piece, options, tell).then(
      (blob) => {
        if (outdated) return;
        url = URL.createObjectURL(blob);
        setMade({ state: 'made', url, blob });
      },
      (error: Error) => {
        if (!outdated && error.name !== 'EngineCancelled') setMade({ state: 'failed', text: error.message });
      },
    );
    return () => {
      outdated = true;
      engines.outputs.cancel();
      if (url) URL.revokeObjectURL(url);
    };
  }, [piece, formId, options, engines, attempt]);
  if (!piece) return null;
  const choose = (id: string, next: OutputOptions): void => {
    setFormId(id);
    setOptions(next);
    const before = remembered('outputs');
    remember('outputs', { form: id, options: { ...before.options, [id]: next } });
  };
  const cancel = (): void => {
    engines.outputs.cancel();
    setMade({ state: 'cancelled' });
  };
  const copy = async (blob: Blob): Promise<void> => {
    try {
      // From the file itself: the page may not fetch its own object URLs.
      await navigator.clipboard.writeText(await blob.text());
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
  const name = outputFileName(form, piece.name);
  const details = (
    <aside className="details" aria-label="Details">
      <div className="details-body">
        <header className="details-head">
          <h2>{form.label}</h2>
        </header>
        {OUTPUTS.length > 1 && (
          <Choice
            label="Form"
            value={formId}
            options={OUTPUTS.map(({ id, label }) => ({ value: id, label }))}
            onChange={(id) => choose(id, rememberedOptions(id))}
          />
        )}
        <p className="details-note">{form.about}</p>
        {form.fields.map(({ key, label, answers }) => (
          <Choice
            key={key}
            label={label}
            value={options[key]}
            options={answers}
            onChange={(value) => choose(formId, { ...options, [key]: value })}
          />
        ))}
        <dl className="output-facts numbers">
          <dt>Length</dt>
          <dd>
            {+pieceDuration(piece).toFixed(3)} s, {frameCount(piece)} frames
          </dd>
          <dt>At the end</dt>
          <dd>{AT_THE_END[piece.playback]}</dd>
          <dt>Size</dt>
          <dd data-testid="output-size">{made.state === 'made' ? sizeText(made.blob.size) : '–'}</dd>
        </dl>
        <div className="d-grid gap-2">
          {made.state === 'made' ? (
            <a className="btn btn-primary" href={made.url} download={name} data-testid="download-svg">
              <Download size={16} aria-hidden="true" /> Download {name}
            </a>
          ) : (
            <Button variant="primary" disabled>
              <Download size={16} aria-hidden="true" /> Download
            </Button>
          )}
          <button
            type="button"
            className="btn outlined"
            disabled={made.state !== 'made'}
            onClick={() => made.state === 'made' && void copy(made.blob)}
          >
            Copy the markup
          </button>
        </div>
      </div>
    </aside>
  );
  return (
    <RoomColumns right={details}>
      <section className="output-picture" aria-label="The file as a browser shows it">
        {piece.figureOrder.length === 0 ? (
          <p className="soft">There is nothing to take out yet. Bring shapes in first, in the room Shapes.</p>
        ) : made.state === 'failed' ? (
          <p role="alert">The file could not be made: {made.text}</p>
        ) : made.state === 'made' ? (
          <img src={made.url} alt={`${piece.name}, playing`} />
        ) : made.state === 'cancelled' ? (
          <p className="soft">
            Nothing was made.{' '}
            <button type="button" className="btn outlined btn-sm" onClick={() => setAttempt(attempt + 1)}>
              Make the file
            </button>
          </p>
        ) : (
          <div className="output-making" role="status">
            <p className="soft">Writing the file …</p>
            <progress max={1} value={made.share || undefined} aria-label="Writing the file" />
            <button type="button" className="btn outlined btn-sm" onClick={cancel}>
              Cancel
            </button>
          </div>
        )}
      </section>
    </RoomColumns>
  );
}
