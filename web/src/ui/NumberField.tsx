import { useEffect, useId, useState } from 'react';
import { flushSync } from 'react-dom';
import { useStep } from './step';
import './fields.scss';

/** The least and the most that can be typed; whole numbers only, or any. */
interface Limit {
  readonly min: number;
  readonly max: number;
  readonly whole?: boolean;
}
const ANY: Limit = { min: -Infinity, max: Infinity };

export interface NumberFieldProps {
  readonly label: string;
  /** null: of several things that differ. */
  readonly value: number | null;
  readonly unit?: string;
  /** Left out: any number. */
  readonly limit?: Limit;
  readonly step?: number;
  readonly digits?: number;
  /** A second view of the value, such as frames beside seconds. */
  readonly also?: string;
  readonly onChange: (value: number) => void;
}

/** A number with its unit: typed, stepped with the arrow keys (⇧ for ten), kept within its range; nonsense is put back. */
export function NumberField({
  label,
  value,
  unit,
  limit = ANY,
  step = 1,
  digits = limit.whole ? 0 : 3,
  also,
  onChange,
}: NumberFieldProps) {
  const id = useId();
  const stepped = useStep();
  const shown = value === null ? '' : String(+value.toFixed(digits));
  const [text, setText] = useState(shown);
  const [wrong, setWrong] = useState(false);
  useEffect(() => setText(shown), [shown]);
  const settle = (next: number): void => {
    const kept = +Math.min(limit.max, Math.max(limit.min, next)).toFixed(digits);
    setWrong(false);
    setText(String(kept));
    if (kept !== value) onChange(kept);
  };
  const commit = (): void => {
    const read = Number(
      text
        .replace(',', '.')
        .replace(unit ?? '', '')
        .trim(),
    );
    if (text.trim() === '' || !Number.isFinite(read)) {
      setText(shown);
      setWrong(false);
    } else settle(read);
  };
  return (
    <div className="field">
      <label htmlFor={id}>{label}</label>
      <span className={`field-number ${wrong ? 'wrong' : ''}`}>
        <input
          id={id}
          className="form-control"
          inputMode="decimal"
          value={text}
          placeholder={value === null ? 'differ' : undefined}
          aria-invalid={wrong}
          onChange={(event) => {
            setText(event.target.value);
            setWrong(
              !Number.isFinite(
                Number(
                  event.target.value
                    .replace(',', '.')
                    .replace(unit ?? '', '')
                    .trim(),
                ),
              ),
            );
          }}
          onFocus={(event) => event.target.select()}
          onBlur={() => {
            commit();
            stepped.end();
          }}
          onKeyDown={(event) => {
            if (event.key === 'Enter') event.currentTarget.blur();
            else if (event.key === 'Escape') {
              flushSync(() => setText(shown));
              event.currentTarget.blur();
            } else if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
              event.preventDefault();
              // What differs has no next value.
              if (value === null) return;
              stepped.touch();
              settle(value + (event.key === 'ArrowUp' ? 1 : -1) * step * (event.shiftKey ? 10 : 1));
            } else return;
            event.stopPropagation();
          }}
        />
        {unit && <span className="field-unit">{unit}</span>}
      </span>
      {also && <span className="field-also numbers">{also}</span>}
    </div>
  );
}
