import type { LucideIcon } from 'lucide-react';
import { Button } from 'react-bootstrap';

export interface IconButtonProps {
  readonly icon: LucideIcon;
  readonly label: string;
  /** Shown behind the label in the hover help. */
  readonly keys?: string;
  readonly onClick: () => void;
  readonly disabled?: boolean;
  readonly pressed?: boolean;
}

/** A quiet button with a picture; its name is its hover help. */
export function IconButton({ icon: Icon, label, keys, onClick, disabled, pressed }: IconButtonProps) {
  return (
    <Button
      variant="link"
      className="quiet icon-button"
      title={keys ? `${label} (${keys})` : label}
      aria-label={label}
      aria-pressed={pressed}
      onClick={onClick}
      disabled={disabled}
    >
      <Icon size={17} aria-hidden="true" />
    </Button>
  );
}
