import { CoreError } from '../../errors';

interface FieldBase {
  readonly key: string;
  readonly label: string;
  readonly hint?: string;
  /** What it is where nobody said anything. */
  readonly otherwise: string;
}

/** A setting of a form. Values are texts everywhere, so that they can be kept, compared and typed on a command line. */
export type OutputField =
  | (FieldBase & {
      readonly kind: 'choice';
      readonly answers: readonly { readonly value: string; readonly label: string; readonly hint?: string }[];
    })
  | (FieldBase & {
      readonly kind: 'number';
      readonly unit: string;
      readonly least: number;
      readonly most: number;
      readonly whole?: boolean;
      /** What an empty field means; left out: it may not be empty. */
      readonly empty?: string;
    })
  | (FieldBase & { readonly kind: 'switch' })
  | (FieldBase & { readonly kind: 'figure'; readonly all: string })
  | (FieldBase & { readonly kind: 'colour' });

/** Settings by the keys of their fields. */
export type OutputOptions = Readonly<Record<string, string>>;
const MOST_TEXT = 80;

/**
 * Checks options from anywhere against the fields of a form; what is left out is as it is by default.
 * @throws CoreError 'option' for a key or an answer that the form does not have
 */
export function readOptions(
  { fields, label }: { readonly fields: readonly OutputField[]; readonly label: string },
  given: Readonly<Record<string, unknown>> = {},
): OutputOptions {
  const known = fields.map(({ key }) => key);
  for (const key of Object.keys(given))
    if (!known.includes(key))
      throw new CoreError(
        'option',
        `${label}: expected the options ${known.join(', ') || 'none'}; found “${key.slice(0, 40)}”.`,
        key,
      );
  return Object.fromEntries(
    fields.map((field) => {
      const value = given[field.key] ?? field.otherwise;
      const wanted = typeof value === 'string' ? expectation(field, value) : 'a text';
      if (wanted !== null)
        throw new CoreError(
          'option',
          `${label}: expected ${field.key} to be ${wanted}; found ${JSON.stringify(value)?.slice(0, 40)}.`,
          field.key,
        );
      return [field.key, value as string];
    }),
  );
}

/** What a field wants where a value does not do; null where it does. */
function expectation(field: OutputField, value: string): string | null {
  switch (field.kind) {
    case 'choice': {
      const values = field.answers.map((answer) => answer.value);
      return values.includes(value) ? null : `one of ${values.join(', ')}`;
    }
    case 'switch':
      return value === 'yes' || value === 'no' ? null : 'yes or no';
    case 'figure':
      return value.length <= MOST_TEXT ? null : 'the id of a figure';
    case 'colour':
      return /^#[0-9a-f]{6}$/i.test(value) ? null : 'a colour such as #f4efe6';
    case 'number': {
      if (value === '') return field.empty === undefined ? 'a number' : null;
      const number = Number(value);
      const fits = number >= field.least && number <= field.most && (!field.whole || Number.isInteger(number));
      return fits && value.trim() === value
        ? null
        : `a ${field.whole ? 'whole ' : ''}number of ${field.unit || '1'} from ${field.least} to ${field.most}`;
    }
  }
}

/** Decimals of coordinates, as most text forms have them. */
export const DIGITS_FIELD: OutputField = {
  kind: 'choice',
  key: 'digits',
  label: 'Decimals of coordinates',
  answers: [
    { value: '1', label: '1', hint: 'Smallest file; off by at most 0.15 px' },
    { value: '2', label: '2', hint: 'Off by at most 0.1 px' },
    { value: '3', label: '3', hint: 'For files shown very large' },
  ],
  otherwise: '2',
};

/** Whether what lies behind the figures is taken out with them. */
export const GROUND_FIELD: OutputField = {
  kind: 'switch',
  key: 'ground',
  label: 'With the background',
  hint: 'Without it, what is behind the picture shines through',
  otherwise: 'yes',
};
