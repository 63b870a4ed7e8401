import { useEffect, useRef } from 'react';
import type { MatchBench } from '../../editor';

const percentOf = (progress: number): string => String(+(100 * progress).toFixed(1));

/** The progress of the in-between as a number to type; it follows the picture outside of React. */
export function ProgressField({
  bench,
  onChange,
}: {
  readonly bench: MatchBench;
  readonly onChange: (progress: number) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  /** What stood there before anything was typed: entering and leaving alone changes nothing. */
  const before = useRef('');
  useEffect(
    () =>
      bench.onPaint(() => {
        if (input.current && input.current !== document.activeElement) input.current.value = percentOf(bench.progress);
      }),
    [bench],
  );
  const commit = (field: HTMLInputElement): void => {
    const percent = Number(field.value.replace(',', '.').replace('%', '').trim());
    if (field.value !== before.current && field.value.trim() !== '' && Number.isFinite(percent))
      onChange(percent / 100);
    before.current = field.value = percentOf(bench.progress);
  };
  return (
    <span className="field-number match-percent">
      <input
        ref={input}
        className="form-control"
        inputMode="decimal"
        aria-label="In-between at, %"
        title="Type the progress of the in-between, 0 to 100 %"
        defaultValue={percentOf(bench.progress)}
        onFocus={(event) => {
          before.current = event.target.value;
          event.target.select();
        }}
        onBlur={(event) => commit(event.target)}
        onKeyDown={(event) => {
          if (event.key === 'Enter') commit(event.currentTarget);
          else if (event.key === 'Escape') event.currentTarget.value = percentOf(bench.progress);
          else if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
            event.preventDefault();
            onChange(bench.progress + ((event.key === 'ArrowUp' ? 1 : -1) * (event.shiftKey ? 10 : 1)) / 100);
            before.current = event.currentTarget.value = percentOf(bench.progress);
          } else return;
          event.stopPropagation();
        }}
      />
      <span className="field-unit">%</span>
    </span>
  );
}
