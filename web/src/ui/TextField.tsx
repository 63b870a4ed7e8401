import { useEffect, useId, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import './fields.scss';

/** A short text, given back when it is left or Enter is pressed; an empty one is put back. */
export function TextField({
  label,
  value,
  hideLabel,
  className,
  asked,
  most = 200,
  onChange,
  onLeave,
}: {
  readonly label: string;
  readonly value: string;
  readonly hideLabel?: boolean;
  readonly className?: string;
  /** Is it to be typed into at once? */
  readonly asked?: boolean;
  /** Longest text. */
  readonly most?: number;
  readonly onChange: (value: string) => void;
  /** Told when the field is left, after a change. */
  readonly onLeave?: () => void;
}) {
  const id = useId();
  const [text, setText] = useState(value);
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => setText(value), [value]);
  useEffect(() => {
    if (!asked) return;
    input.current?.focus();
    input.current?.select();
  }, [asked]);
  const commit = (): void => {
    const next = text.trim().slice(0, most);
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
        ref={input}
        id={id}
        className="form-control"
        value={text}
        maxLength={most}
        onChange={(event) => setText(event.target.value)}
        onBlur={() => {
          commit();
          onLeave?.();
        }}
        onKeyDown={(event) => {
          if (event.key === 'Enter') event.currentTarget.blur();
          if (event.key === 'Escape') {
            flushSync(() => setText(value));
            event.currentTarget.blur();
          }
          event.stopPropagation();
        }}
      />
    </div>
  );
}
