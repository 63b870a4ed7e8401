import { CircleAlert, CircleCheck, Copy, Download, Globe, RotateCcw, Trash2, X } from 'lucide-react';
import { lazy, type ReactNode, Suspense, useState } from 'react';
import { useOutputQueue } from '../../context';
import { type OutputJob, useAppSelector } from '../../state';
import { IconButton } from '../../ui';
import { sizeText } from './size-text';

/** Charts come with a package of their own, when they are first looked at. */
const SizeChart = lazy(() => import('./SizeChart'));

/** What is being made and what was made, the latest first: of this piece, then of others. */
export function JobList({
  pieceId,
  chosen,
  onProof,
  onCopy,
  onAgain,
  onPlace,
}: {
  readonly pieceId: string;
  readonly chosen: string | null;
  readonly onProof: (job: OutputJob) => void;
  readonly onCopy: (job: OutputJob) => void;
  readonly onAgain: (job: OutputJob) => void;
  readonly onPlace: (job: OutputJob) => void;
}) {
  const jobs = useAppSelector((state) => state.outputs.jobs);
  if (jobs.length === 0)
    return (
      <p className="soft output-empty">
        What you make is listed here, with its proof: each file is read back and compared with the piece. Files are kept
        for 30 days.
      </p>
    );
  return (
    <div className="output-jobs">
      {groupsOf(jobs, pieceId).map(({ id, name, own }) => (
        <JobSection key={id} name={name} own={own}>
          <ul>
            {own.map((job) => (
              <li key={job.id} className={job.id === chosen ? 'chosen' : ''} data-testid="output-job">
                <JobRow job={job} onProof={onProof} onCopy={onCopy} onAgain={onAgain} onPlace={onPlace} />
              </li>
            ))}
          </ul>
        </JobSection>
      ))}
    </div>
  );
}

/** The files of one piece, with how large they are. */
function JobSection({
  name,
  own,
  children,
}: {
  readonly name: string;
  readonly own: readonly OutputJob[];
  readonly children: ReactNode;
}) {
  const [compares, setCompares] = useState(false);
  const made = own.filter(({ state }) => state === 'made');
  return (
    <section aria-label={`Files of ${name}`}>
      <header>
        <h3>{name}</h3>
        <span className="soft numbers">{sumText(own)}</span>
        {made.length > 1 && (
          <button
            type="button"
            className="btn btn-link p-0"
            aria-expanded={compares}
            aria-label={`Compare the sizes of the files of ${name}`}
            onClick={() => setCompares(!compares)}
          >
            Compare sizes
          </button>
        )}
        <ThrowAway name={name} jobs={own} />
      </header>
      {compares && made.length > 1 && (
        <Suspense fallback={<p className="soft">Drawing the chart …</p>}>
          <SizeChart jobs={made} />
        </Suspense>
      )}
      {children}
    </section>
  );
}

/** Throws all files of a piece away, once that was said twice: it cannot be undone. */
function ThrowAway({ name, jobs }: { readonly name: string; readonly jobs: readonly OutputJob[] }) {
  const queue = useOutputQueue();
  const [asking, setAsking] = useState(false);
  if (!asking)
    return (
      <button
        type="button"
        className="btn btn-link p-0"
        aria-label={`Delete all files of ${name}`}
        onClick={() => setAsking(true)}
      >
        Delete all
      </button>
    );
  return (
    <span className="output-throw" role="alert">
      This cannot be undone.
      <button
        type="button"
        className="btn btn-link p-0"
        onClick={() => {
          for (const { id } of jobs) queue.remove(id);
        }}
      >
        Delete {jobs.length === 1 ? 'it' : `all ${jobs.length}`}
      </button>
      <button type="button" className="btn btn-link p-0" onClick={() => setAsking(false)}>
        Keep
      </button>
    </span>
  );
}

interface JobGroup {
  readonly id: string;
  readonly name: string;
  readonly own: readonly OutputJob[];
}

/** Jobs by their pieces, the latest first; one piece before all others. A piece is called as it was when the latest of its files was asked for. */
function groupsOf(jobs: readonly OutputJob[], pieceId: string): JobGroup[] {
  const groups = new Map<string, OutputJob[]>();
  for (const job of [...jobs].reverse()) groups.set(job.pieceId, [...(groups.get(job.pieceId) ?? []), job]);
  return [...groups]
    .map(([id, own]) => ({ id, name: own[0].pieceName, own }))
    .sort((p, q) => Number(q.id === pieceId) - Number(p.id === pieceId));
}

const sumText = (jobs: readonly OutputJob[]): string => {
  const made = jobs.filter(({ state }) => state === 'made');
  const size = made.reduce((sum, job) => sum + job.size, 0);
  return made.length === 0
    ? 'nothing made yet'
    : `${made.length === 1 ? '1 file' : `${made.length} files`}, ${sizeText(size)}`;
};

const TEXTUAL = /\.(?:svg|json|css|csv|html|js)$/;
/** What a page can show by itself, and a custom element with its player. */
const isShowable = ({ fileName, choices }: OutputJob): boolean =>
  /\.(?:svg|png|gif|mp4|webm)$/.test(fileName) || (choices.length === 1 && choices[0].form === 'element');

function JobRow({
  job,
  onProof,
  onCopy,
  onAgain,
  onPlace,
}: {
  readonly job: OutputJob;
  readonly onProof: (job: OutputJob) => void;
  readonly onCopy: (job: OutputJob) => void;
  readonly onAgain: (job: OutputJob) => void;
  readonly onPlace: (job: OutputJob) => void;
}) {
  const queue = useOutputQueue();
  const files = queue.files(job.id);
  const { state, label, pieceName, share, problem, proof, size, fileName, note, unkept } = job;
  return (
    <>
      <span className="output-job-name" title={[note, problem, unkept].filter(Boolean).join(' ') || undefined}>
        <strong>{label}</strong> <span className="soft">{state === 'made' ? fileName : pieceName}</span>
        {note && <span className="soft"> · {note}</span>}
        {state === 'failed' && <span role="alert"> · {problem}</span>}
        {state === 'cancelled' && <span className="soft"> · cancelled, nothing was made</span>}
        {state === 'elsewhere' && <span className="soft"> · is being made in another tab</span>}
        {unkept && state !== 'failed' && <span role="status"> · only in this tab so far: {unkept}</span>}
      </span>
      {(state === 'waiting' || state === 'making') && (
        <>
          <progress max={1} value={state === 'making' ? share : 0} aria-label={`Making ${label}`} />
          <span className="numbers soft">{state === 'waiting' ? 'waits' : `${Math.floor(100 * share)} %`}</span>
          <IconButton icon={X} label={`Cancel ${label}`} onClick={() => queue.cancel(job.id)} />
        </>
      )}
      {state === 'made' && (
        <>
          {proof && (
            <button
              type="button"
              className={`output-verdict ${proof.holds ? 'good' : 'broken'}`}
              onClick={() => onProof(job)}
            >
              {proof.holds ? (
                <CircleCheck size={14} aria-hidden="true" />
              ) : (
                <CircleAlert size={14} aria-hidden="true" />
              )}
              {proof.holds ? 'Proved' : 'Proof fails'}
            </button>
          )}
          <span className="numbers soft output-job-size">{sizeText(size)}</span>
          <span className="output-job-actions">
            {files && (
              <a
                className="btn quiet icon-button"
                href={files.url}
                download={fileName}
                title={`Download ${fileName}`}
                aria-label={`Download ${fileName}`}
              >
                <Download size={16} aria-hidden="true" />
              </a>
            )}
            {TEXTUAL.test(fileName) && (
              <IconButton icon={Copy} label={`Copy ${fileName}`} onClick={() => onCopy(job)} />
            )}
            {isShowable(job) && (
              <IconButton icon={Globe} label={`See ${fileName} on a page`} onClick={() => onPlace(job)} />
            )}
          </span>
        </>
      )}
      {state !== 'waiting' && state !== 'making' && state !== 'elsewhere' && (
        <>
          <IconButton icon={RotateCcw} label={`Make ${label} again`} onClick={() => onAgain(job)} />
          <IconButton icon={Trash2} label={`Remove ${label}`} onClick={() => queue.remove(job.id)} />
        </>
      )}
    </>
  );
}
