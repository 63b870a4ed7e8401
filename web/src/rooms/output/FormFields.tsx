import type { OutputField, OutputOptions, Piece } from '@core';
import { useEffect, useId, useState } from 'react';
import { Choice, SelectField } from '../../ui';

/** Fields that say nothing as long as another is as it is. */
const NEEDS: Readonly<Record<string, (options: OutputOptions) => boolean>> = {
  matte: ({ ground }) => ground === 'colour' || ground === 'none',
  samples: ({ shutter }) => Number(shutter) > 0,
};
/** More answers than this are a list. */
const MOST_IN_SIGHT = 3;

/** The settings of a form, and of no other. */
export function FormFields({
  piece,
  fields,
  options,
  onChange,
}: {
  readonly piece: Piece;
  readonly fields: readonly OutputField[];
  readonly options: OutputOptions;
  readonly onChange: (options: OutputOptions) => void;
}) {
  return fields
    .filter(({ key }) => NEEDS[key]?.(options) ?? true)
    .map((field) => (
      <FormField
        key={field.key}
        piece={piece}
        field={field}
        value={options[field.key]}
        onChange={(value) => onChange({ ...options, [field.key]: value })}
      />
    ));
}

interface FieldProps<F extends OutputField = OutputField> {
  readonly field: F;
  readonly value: string;
  readonly onChange: (value: string) => void;
}

function FormField({ piece, field, value, onChange }: FieldProps & { readonly piece: Piece }) {
  switch (field.kind) {
    case 'choice':
      return field.answers.length > MOST_IN_SIGHT ? (
        <SelectField label={field.label} value={value} options={field.answers} onChange={onChange} />
      ) : (
        <Choice label={field.label} value={value} options={field.answers} onChange={onChange} />
      );
    case 'figure':
      return (
        <SelectField
          label={field.label}
          value={value}
          options={[
            { value: '', label: field.all },
            ...piece.figureOrder.map((id) => ({ value: id, label: piece.figures[id].name })),
          ]}
          onChange={onChange}
        />
      );
    case 'switch':
      return <SwitchField field={field} value={value} onChange={onChange} />;
    case 'colour':
      return <PlainField field={field} value={value} type="color" onChange={onChange} />;
    case 'number':
      return <NumberText field={field} value={value} onChange={onChange} />;
  }
}

function SwitchField({ field, value, onChange }: FieldProps) {
  return (
    <label className="form-check output-switch" title={field.hint}>
      <input
        type="checkbox"
        className="form-check-input"
        checked={value === 'yes'}
        onChange={(event) => onChange(event.target.checked ? 'yes' : 'no')}
      />
      {field.label}
    </label>
  );
}

function PlainField({ field, value, type, onChange }: FieldProps & { readonly type: 'color' }) {
  const id = useId();
  return (
    <div className="field">
      <label htmlFor={id}>{field.label}</label>
      <input
        id={id}
        type={type}
        className="form-control form-control-color"
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
    </div>
  );
}

/** A number that may be left out; nonsense, and what is out of range, stays marked and is not taken. */
function NumberText({ field, value, onChange }: FieldProps<Extract<OutputField, { kind: 'number' }>>) {
  const id = useId();
  const [text, setText] = useState(value);
  useEffect(() => setText(value), [value]);
  const fits = (said: string): boolean => {
    if (said === '') return field.empty !== undefined;
    const number = Number(said);
    return number >= field.least && number <= field.most && (!field.whole || Number.isInteger(number));
  };
  const plain = text.replace(',', '.').trim();
  const wrong = !fits(plain);
  const commit = (): void => {
    if (wrong) setText(value);
    else if (plain !== value) onChange(plain);
  };
  return (
    <div className="field" title={field.hint}>
      <label htmlFor={id}>{field.label}</label>
      <span className={`field-number ${wrong ? 'wrong' : ''} ${field.unit.length > 2 ? 'long-unit' : ''}`}>
        <input
          id={id}
          className="form-control"
          inputMode="decimal"
          value={text}
          placeholder={field.empty}
          aria-invalid={wrong}
          onChange={(event) => setText(event.target.value)}
          onFocus={(event) => event.target.select()}
          onBlur={commit}
          onKeyDown={(event) => {
            if (event.key === 'Enter') commit();
            event.stopPropagation();
          }}
        />
        {field.unit && text !== '' && <span className="field-unit">{field.unit}</span>}
      </span>
    </div>
  );
}
