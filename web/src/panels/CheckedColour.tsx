import { readColour } from '@core';
import { rememberColour } from '../editor';
import { sessionActions, useAppDispatch } from '../state';
import { ColourField } from '../ui';
import { colourText, pickedColour } from './picked-colour';

/** A colour that is taken only where it is one: else it is said what was expected. */
export function CheckedColour({
  label,
  value,
  onChange,
}: {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
}) {
  const dispatch = useAppDispatch();
  return (
    <ColourField
      label={label}
      value={value}
      picked={pickedColour(value)}
      toText={colourText}
      onSettled={rememberColour}
      onChange={(next) => {
        if (readColour(next)) onChange(next);
        else
          dispatch(
            sessionActions.told({
              tone: 'error',
              text: `Expected a CSS colour such as #c23f23 or oklch(0.6 0.2 30); found “${next.slice(0, 40)}”. The colour stays as it was.`,
            }),
          );
      }}
    />
  );
}
