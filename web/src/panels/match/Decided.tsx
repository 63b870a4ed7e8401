import { Undo2 } from 'lucide-react';
import type { ReactNode } from 'react';

/** One decision about a match: whether it is the program's or the user's, and the way back. */
export function Decided({
  title,
  own,
  onBack,
  children,
}: {
  readonly title: string;
  /** Did the user decide it? */
  readonly own: boolean;
  readonly onBack: () => void;
  readonly children: ReactNode;
}) {
  return (
    <section className={`decided ${own ? 'own' : ''}`} aria-label={title}>
      <header>
        <h3>{title}</h3>
        <span className="decided-tag">{own ? 'set by you' : 'automatic'}</span>
        {own && (
          <button
            type="button"
            className="btn btn-link quiet decided-back"
            title={`${title}: reset`}
            aria-label={`${title}: reset`}
            onClick={onBack}
          >
            <Undo2 size={14} aria-hidden="true" />
          </button>
        )}
      </header>
      {children}
    </section>
  );
}
