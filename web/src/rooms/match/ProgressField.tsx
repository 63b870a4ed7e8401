import { useEffect, useRef } from 'react';
import type { MatchEditing } from '../../editor';

const percentOf = (progress: number): string => String(+(100 * progress).toFixed(1));

/** The progress of the in-between as a number to type; it follows the picture outside of React. */
export function ProgressField({
  editing,
  onChange,
}: {
  readonly editing: MatchEditing;
  readonly onChange: (progress: number) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  /** What stood there before anything was typed: entering and leaving alone changes nothing. */
  const before = useRef('');
  useEffect(
    () =>
      editing.onPaint(() => {
        if (input.current && input.current !== document.activeElement)
          input.current.value = percentOf(editing.progress);
      }),
    [editing],
  );
  const commit = (field: HTMLInputElement): void => {
    const percent = Number(field.value.replace(',', '.').replace('%', '').trim());
    if (field.value !== before.current && field.value.trim() !== '' && Number.isFinite(percent))
      onChange(percent / 100);
    before.current = field.value = percentOf(editing.progress);
  };
  return (
    <span className="field-number match-percent">
      <input
        ref={input}
        className="form-control"
        inputMode="decimal"
        aria-label="In-between at (%)"
        title="Type the progress of the in-between, 0 to 100 %"
        defaultValue={percentOf(editing.progress)}
        onFocus={(event) => {
          before.current = event.target.value;
          event.target.select();
        }}
        onBlur={(event) => commit(event.target)}
        onKeyDown={(event) => {
          if (event.key === 'Enter') commit(event.currentTarget);
          else if (event.key === 'Escape') event.currentTarget.value = percentOf(editing.progress);
          else if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
            event.preventDefault();
            onChange(editing.progress + ((event.key === 'ArrowUp' ? 1 : -1) * (event.shiftKey ? 10 : 1)) / 100);
            before.current = event.currentTarget.value = percentOf(editing.progress);
          } else return;
          event.stopPropagation();
        }}
      />
      <span className="field-unit">%</span>
    </span>
  );
}
