/** The product's name with its sign: a bead on an arc. */
export function Wordmark() {
  return (
    <span className="wordmark">
      <svg viewBox="0 0 32 24" width="30" height="22" aria-hidden="true">
        <path d="M2 19h5C17 19 15 5 25 5h5" fill="none" stroke="currentColor" strokeWidth="3" strokeLinecap="round" />
        <circle cx="16" cy="12" r="4.6" fill="var(--accent)" />
      </svg>
      Arc Shift
    </span>
  );
}
