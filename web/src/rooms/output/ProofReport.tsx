import { CircleAlert, CircleCheck } from 'lucide-react';
import { useOutputQueue } from '../../context';
import type { OutputJob } from '../../state';

/** What came of reading a file back: line by line, and the moment at which it is furthest off, side by side. */
export function ProofReport({ job, onClose }: { readonly job: OutputJob; readonly onClose: () => void }) {
  const worst = useOutputQueue().files(job.id)?.worst ?? null;
  const { proof } = job;
  if (!proof) return null;
  return (
    <section className="output-proof" aria-label="Proof">
      <header>
        <h2>
          {proof.holds ? 'Proved: ' : 'The proof fails: '}
          {job.fileName}
        </h2>
        <button type="button" className="btn outlined btn-sm" onClick={onClose}>
          Close the proof
        </button>
      </header>
      <p className="details-note">The file was read back and compared with the piece’s own frames.</p>
      <table className="output-proof-lines">
        <thead>
          <tr>
            <th scope="col">What</th>
            <th scope="col">Wanted</th>
            <th scope="col">Found</th>
            <th scope="col">
              <span className="visually-hidden">Holds</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {proof.lines.map(({ what, wanted, found, holds }) => (
            <tr key={what} className={holds ? '' : 'fails'}>
              <th scope="row">{what}</th>
              <td className="numbers">{wanted}</td>
              <td className="numbers">{found}</td>
              <td>
                {holds ? <CircleCheck size={14} aria-label="holds" /> : <CircleAlert size={14} aria-label="fails" />}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {worst && (
        <div className="output-worst">
          <figure>
            <img src={worst.wanted} alt="The piece at that moment" />
            <figcaption>The piece{proof.seconds !== null && ` at ${+proof.seconds.toFixed(3)} s`}</figcaption>
          </figure>
          <figure>
            <img src={worst.found} alt="The file at that moment" />
            <figcaption>The file, where it is furthest off</figcaption>
          </figure>
        </div>
      )}
    </section>
  );
}
