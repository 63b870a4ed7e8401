import type { LucideIcon } from 'lucide-react';

/** A small button with a word, and a picture where one helps. */
export function ActionButton({
  label,
  hint,
  icon: Icon,
  disabled,
  onClick,
}: {
  readonly label: string;
  readonly hint?: string;
  readonly icon?: LucideIcon;
  readonly disabled?: boolean;
  readonly onClick: () => void;
}) {
  return (
    <button type="button" className="btn outlined btn-sm action" title={hint} disabled={disabled} onClick={onClick}>
      {Icon && <Icon size={14} aria-hidden="true" />}
      {label}
    </button>
  );
}
