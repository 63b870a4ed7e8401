import { canMove, cellOf, FEATURES, type FeatureId, type OutputOptions, type Piece, refusalsOf } from '@core';
import { Copy, Download, Play } from 'lucide-react';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { GROUP_OF_FORM, type OutputForm } from '../../outputs';
import { FormFields } from './FormFields';
import { sizeText } from './size-text';
import type { Look } from './use-look';

/** A form with its settings, what becomes of the piece in it, and how to make it. */
export function FormDetails({
  piece,
  form,
  options,
  features,
  look,
  length,
  onOptions,
  onMake,
  onCopy,
  onKeep,
}: {
  readonly piece: Piece;
  readonly form: OutputForm;
  readonly options: OutputOptions;
  readonly features: readonly FeatureId[] | null;
  readonly look: Look;
  /** What the piece's length is, in words. */
  readonly length: string;
  readonly onOptions: (options: OutputOptions) => void;
  readonly onMake: () => void;
  readonly onCopy: (blob: Blob) => void;
  readonly onKeep: (name: string) => void;
}) {
  const refusals = features ? refusalsOf(form.id, features) : [];
  return (
    <aside className="details" aria-label="Details">
      <div className="details-body">
        <header className="details-head">
          <h2>{form.label}</h2>
        </header>
        <p className="details-note">{form.about}</p>
        {refusals.length > 0 && (
          <div className="output-refusal" role="alert">
            <strong>{form.label} cannot show this piece.</strong>
            <ul>
              {refusals.map(({ feature, reason }) => (
                <li key={feature}>
                  {FEATURES[feature].label}: {reason}
                </li>
              ))}
            </ul>
          </div>
        )}
        <FormFields piece={piece} fields={form.fields} options={options} onChange={onOptions} />
        {features && <FeatureTable form={form} features={features} />}
        <KeepPreset onKeep={onKeep} />
      </div>
      <footer className="output-make">
        {piece.figureOrder.length > 0 && GROUP_OF_FORM[form.id] !== 'One picture' && !canMove(piece) && (
          <p className="details-note">
            Nothing moves yet: each figure has one pose. Add a second pose in Shapes, or a lane in Timing.
          </p>
        )}
        <dl className="output-facts numbers">
          <dt>Length</dt>
          <dd>{length}</dd>
          <dt>{look.state === 'made' ? 'Size' : 'About'}</dt>
          <dd data-testid="output-size">
            {look.state === 'made'
              ? sizeText(look.blob.size)
              : look.state === 'estimated'
                ? `${sizeText(look.bytes)}, estimated`
                : '–'}
          </dd>
        </dl>
        <div className="d-grid gap-2">
          {look.state === 'failed' && refusals.length === 0 && (
            <p className="output-failed" role="alert">
              {look.text}
            </p>
          )}
          <Button
            variant="primary"
            disabled={refusals.length > 0 || piece.figureOrder.length === 0 || look.state === 'failed'}
            onClick={onMake}
          >
            <Play size={16} aria-hidden="true" /> Make and prove
          </Button>
          {look.state === 'made' && (
            <>
              <a className="btn outlined" href={look.url} download={look.name} data-testid="download-svg">
                <Download size={16} aria-hidden="true" /> Download {look.name}
              </a>
              {look.isText && (
                <button type="button" className="btn outlined" onClick={() => onCopy(look.blob)}>
                  <Copy size={16} aria-hidden="true" /> Copy the {form.type.includes('svg') ? 'markup' : 'text'}
                </button>
              )}
            </>
          )}
        </div>
      </footer>
    </aside>
  );
}

const WORDS = { exact: 'exact', baked: 'within', refused: 'refused', beside: 'not in it' } as const;

/** What becomes of everything that the piece has. */
function FeatureTable({ form, features }: { readonly form: OutputForm; readonly features: readonly FeatureId[] }) {
  return (
    <details className="output-features">
      <summary>What is kept and what changes</summary>
      <table>
        <tbody>
          {features.map((feature) => {
            const cell = cellOf(form.id, feature);
            return (
              <tr key={feature} className={cell.kind}>
                <th scope="row">{FEATURES[feature].label}</th>
                <td>
                  {cell.kind === 'baked'
                    ? `within ${cell.deviation}`
                    : cell.kind === 'exact'
                      ? WORDS.exact
                      : `${WORDS[cell.kind]}: ${cell.reason}`}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </details>
  );
}

function KeepPreset({ onKeep }: { readonly onKeep: (name: string) => void }) {
  const [name, setName] = useState('');
  return (
    <form
      className="output-keep"
      onSubmit={(event) => {
        event.preventDefault();
        if (name.trim() === '') return;
        onKeep(name.trim());
        setName('');
      }}
    >
      <input
        className="form-control"
        value={name}
        maxLength={40}
        placeholder="Name of the preset"
        aria-label="Save as preset"
        onChange={(event) => setName(event.target.value)}
        onKeyDown={(event) => event.stopPropagation()}
      />
      <button type="submit" className="btn outlined btn-sm" disabled={name.trim() === ''}>
        Save
      </button>
    </form>
  );
}
