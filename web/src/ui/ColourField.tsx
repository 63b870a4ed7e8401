import { useId } from 'react';
import { TextField } from './TextField';

/** A colour: chosen from the system's picker (as #rrggbb) or typed as any CSS colour. `hex` is the colour for the picker. */
export function ColourField({
  label,
  value,
  hex,
  onChange,
}: {
  readonly label: string;
  readonly value: string;
  readonly hex: string;
  readonly onChange: (value: string) => void;
}) {
  const id = useId();
  return (
    <div className="field colour">
      <label htmlFor={id}>{label}</label>
      <span className="colour-row">
        <input
          id={id}
          type="color"
          className="form-control form-control-color"
          value={hex}
          title={`${label}: choose`}
          onChange={(event) => onChange(event.target.value)}
        />
        <TextField label={`${label} as text`} hideLabel value={value} onChange={onChange} />
      </span>
    </div>
  );
}
