import { useEffect, useId, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import { useStep } from './step';
import './fields.scss';

/** A short text, given back when it is left or Enter is pressed; an empty one is put back. */
export function TextField({
  label,
  value,
  hideLabel,
  className,
  asked,
  most = 200,
  live = false,
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
  /** Is it taken while it is typed, as one step? Escape gives back what there was. */
  readonly live?: boolean;
  readonly onChange: (value: string) => void;
  /** Told when the field is left, after a change. */
  readonly onLeave?: () => void;
}) {
  const id = useId();
  const [text, setText] = useState(value);
  const input = useRef<HTMLInputElement>(null);
  const before = useRef(value);
  const step = useStep();
  // What is being typed, with a space at its end perhaps, is not put in order under the hand.
  useEffect(() => setText((typed) => (live && typed.trim() === value ? typed : value)), [value, live]);
  useEffect(() => {
    if (!asked) return;
    input.current?.focus();
    input.current?.select();
  }, [asked]);
  const commit = (): void => {
    const next = text.trim().slice(0, most);
    if (next !== '' && next !== value) onChange(next);
    // What was cleared on the way has the name that it had.
    if (next === '' && live && before.current !== value) onChange(before.current);
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
        onFocus={() => {
          before.current = value;
        }}
        onChange={(event) => {
          setText(event.target.value);
          const next = event.target.value.trim().slice(0, most);
          if (!live || next === '' || next === value) return;
          step.touch();
          onChange(next);
        }}
        onBlur={() => {
          commit();
          onLeave?.();
        }}
        onKeyDown={(event) => {
          if (event.key === 'Enter') event.currentTarget.blur();
          if (event.key === 'Escape') {
            if (live && before.current !== value) onChange(before.current);
            flushSync(() => setText(live ? before.current : value));
            event.currentTarget.blur();
          }
          event.stopPropagation();
        }}
      />
    </div>
  );
}
