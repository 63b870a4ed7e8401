import { useEffect, useId, useState } from 'react';
import './fields.scss';

/** A short text, given back when it is left or Enter is pressed; an empty one is put back. */
export function TextField({
  label,
  value,
  hideLabel,
  className,
  onChange,
}: {
  readonly label: string;
  readonly value: string;
  readonly hideLabel?: boolean;
  readonly className?: string;
  readonly onChange: (value: string) => void;
}) {
  const id = useId();
  const [text, setText] = useState(value);
  useEffect(() => setText(value), [value]);
  const commit = (): void => {
    const next = text.trim().slice(0, 200);
    if (next !== '' && next !== value) onChange(next);
    // Shows what is in force: the new value when it was taken, the old one when it was refused.
    setText(value);
  };
  return (
    <div className={`field ${className ?? ''}`}>
      <label htmlFor={id} className={hideLabel ? 'visually-hidden' : undefined}>
        {label}
      </label>
      <input
        id={id}
        className="form-control"
        value={text}
        maxLength={200}
        onChange={(event) => setText(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => {
          if (event.key === 'Enter') event.currentTarget.blur();
          if (event.key === 'Escape') setText(value);
          event.stopPropagation();
        }}
      />
    </div>
  );
}
