import { useId } from 'react';
import './fields.scss';

export interface ChoiceOption<T extends string> {
  readonly value: T;
  readonly label: string;
  readonly hint?: string;
}

/** One of a few, all in sight. */
export function Choice<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  readonly label: string;
  /** null: of several things that differ. */
  readonly value: T | null;
  readonly options: readonly ChoiceOption<T>[];
  readonly onChange: (value: T) => void;
}) {
  const name = useId();
  return (
    <fieldset className="field choice">
      <legend>{label}</legend>
      <div className="choice-row">
        {options.map((option) => (
          <label key={option.value} title={option.hint} className={option.value === value ? 'chosen' : ''}>
            <input
              type="radio"
              name={name}
              value={option.value}
              checked={option.value === value}
              onChange={() => onChange(option.value)}
            />
            {option.label}
          </label>
        ))}
      </div>
    </fieldset>
  );
}

/** One of several, in a list that opens. */
export function SelectField<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  readonly label: string;
  readonly value: T;
  readonly options: readonly ChoiceOption<T>[];
  readonly onChange: (value: T) => void;
}) {
  const id = useId();
  return (
    <div className="field">
      <label htmlFor={id}>{label}</label>
      <select id={id} className="form-select" value={value} onChange={(event) => onChange(event.target.value as T)}>
        {options.map((option) => (
          <option key={option.value} value={option.value}>
            {option.label}
          </option>
        ))}
      </select>
    </div>
  );
}
