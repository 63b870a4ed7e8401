import { FileOutput } from 'lucide-react';
import { Link } from 'react-router';
import { useAppSelector } from '../state';

/** Files that are being made, or wait for it, while one is on the shelf. */
export function OutputsAtWork() {
  const jobs = useAppSelector((state) => state.outputs.jobs);
  const making = jobs.find(({ state }) => state === 'making');
  if (!making) return null;
  const waiting = jobs.filter(({ state }) => state === 'waiting').length;
  return (
    <p className="shelf-left" role="status" data-testid="outputs-at-work">
      <FileOutput size={15} aria-hidden="true" />
      <span>
        Making {making.label} of <Link to={`/piece/${making.pieceId}/output`}>{making.pieceName}</Link>
      </span>
      <progress max={1} value={making.share} aria-label={`Making ${making.label}`} />
      <span className="numbers">{Math.floor(100 * making.share)} %</span>
      {waiting > 0 && <span className="soft">{waiting === 1 ? 'one more waits' : `${waiting} more wait`}</span>}
    </p>
  );
}
