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

/** An option of a list that opens. */
interface ListOption<T extends string> {
  readonly value: T;
  readonly label: string;
  /** What it stands under in the list, together with those beside it that have the same. */
  readonly group?: string;
}

/** Options as a list that opens shows them, those of a group under its name. */
export function ListOptions({ options }: { readonly options: readonly ListOption<string>[] }) {
  const runs: { readonly group: string | undefined; readonly options: ListOption<string>[] }[] = [];
  for (const option of options) {
    const last = runs[runs.length - 1];
    if (last && last.group === option.group) last.options.push(option);
    else runs.push({ group: option.group, options: [option] });
  }
  return runs.map(({ group, options: run }) => {
    const items = run.map(({ value, label }) => (
      <option key={value} value={value}>
        {label}
      </option>
    ));
    if (group === undefined) return items;
    return (
      <optgroup key={`${group} ${run[0].value}`} label={group}>
        {items}
      </optgroup>
    );
  });
}

/** One of several, in a list that opens. */
export function SelectField<T extends string>({
  label,
  value,
  options,
  hint,
  onChange,
}: {
  readonly label: string;
  readonly value: T;
  readonly options: readonly ListOption<T>[];
  readonly hint?: string;
  readonly onChange: (value: T) => void;
}) {
  const id = useId();
  return (
    <div className="field" title={hint}>
      <label htmlFor={id}>{label}</label>
      <select id={id} className="form-select" value={value} onChange={(event) => onChange(event.target.value as T)}>
        <ListOptions options={options} />
      </select>
    </div>
  );
}
