import { useId, useRef, useState } from 'react';
import { Overlay, Popover } from 'react-bootstrap';
import { RgbaColorPicker } from 'react-colorful';
import { useStep } from './step';
import { TextField } from './TextField';
import './colour-field.scss';

/** A colour as channels of 0..255 and alpha in 0..1. */
export interface PickedColour {
  readonly r: number;
  readonly g: number;
  readonly b: number;
  readonly a: number;
}

/** Beside the field's label, so that what is being chosen stays in sight, px. */
const BESIDE_LABEL = { modifiers: [{ name: 'offset', options: { offset: [0, 108] } }] };

/**
 * A colour with its opacity: chosen in a field that opens, or typed as any CSS colour. What is dragged in the field is one step of history,
 * however many colours it passes.
 */
export function ColourField({
  label,
  value,
  picked,
  toText,
  onChange,
  onSettled,
}: {
  readonly label: string;
  readonly value: string;
  /** The value as channels, for the field. */
  readonly picked: PickedColour;
  readonly toText: (colour: PickedColour) => string;
  readonly onChange: (value: string) => void;
  /** Told the colour that was arrived at. */
  readonly onSettled?: (value: string) => void;
}) {
  const id = useId();
  const [open, setOpen] = useState(false);
  const button = useRef<HTMLButtonElement>(null);
  const step = useStep();
  const close = (): void => {
    step.end();
    onSettled?.(value);
    setOpen(false);
  };
  return (
    <div className="field colour">
      <label htmlFor={id}>{label}</label>
      <span className="colour-row">
        <button
          ref={button}
          id={id}
          type="button"
          className="colour-swatch"
          title={`${label}: choose`}
          aria-haspopup="dialog"
          aria-expanded={open}
          aria-label={`${label}, ${value}`}
          onClick={() => (open ? close() : setOpen(true))}
        >
          <span style={{ backgroundColor: value }} />
        </button>
        <TextField label={`${label} as text`} hideLabel value={value} onChange={onChange} />
      </span>
      <Overlay
        target={button}
        show={open}
        placement="left"
        rootClose
        onHide={close}
        transition={false}
        popperConfig={BESIDE_LABEL}
      >
        {(props) => (
          <Popover
            {...props}
            role="dialog"
            aria-label={`Choose ${label}`}
            className="colour-popover"
            onKeyDown={(event) => {
              if (event.key === 'Escape') {
                close();
                button.current?.focus();
              }
              event.stopPropagation();
            }}
            onPointerUp={step.end}
          >
            <RgbaColorPicker
              color={{ ...picked }}
              onChange={(colour) => {
                const text = toText(colour);
                if (text === value) return;
                step.touch();
                onChange(text);
              }}
            />
          </Popover>
        )}
      </Overlay>
    </div>
  );
}
