import { useStep } from './step';

/** A number that is slid; however many values it passes, it is one step of history. */
export function RangeField({
  label,
  value,
  min,
  max,
  onChange,
}: {
  readonly label: string;
  readonly value: number;
  readonly min: number;
  readonly max: number;
  readonly onChange: (value: number) => void;
}) {
  const step = useStep();
  return (
    <input
      type="range"
      className="form-range"
      min={min}
      max={max}
      value={value}
      aria-label={label}
      onChange={(event) => {
        step.touch();
        onChange(Number(event.target.value));
      }}
      onPointerUp={step.end}
      onBlur={step.end}
    />
  );
}
