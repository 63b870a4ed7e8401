import type { Limit } from '../../num';

// Builders of JSON Schema (draft 7) in the words of the records. The schema is made when the program is built; nothing of it ships.

export type Schema = Readonly<Record<string, unknown>>;
/** A field that may be left out. */
interface Optional {
  readonly optional: Schema;
}

export const NULL: Schema = { type: 'null' };
export const BOOLEAN: Schema = { type: 'boolean' };

export const number = ({ min, max, whole }: Limit): Schema => ({
  type: whole ? 'integer' : 'number',
  minimum: min,
  maximum: max,
});
/** Neither limit itself. */
export const between = (least: number, most: number): Schema => ({
  type: 'number',
  exclusiveMinimum: least,
  exclusiveMaximum: most,
});
export const string = (says: Schema): Schema => ({ type: 'string', ...says });
export const fixed = (value: string | number): Schema => ({ const: value });
export const oneOf = (...values: readonly string[]): Schema => ({ enum: values });
export const anyOf = (...schemas: readonly Schema[]): Schema => ({ anyOf: schemas });
export const orNull = (schema: Schema): Schema => anyOf(NULL, schema);
export const notNull = (schema: Schema): Schema => ({ allOf: [schema, { not: NULL }] });
export const ref = (definition: string): Schema => ({ $ref: `#/definitions/${definition}` });
export const described = (description: string, schema: Schema): Schema => ({ description, ...schema });
/** From `least` to `most` of a kind. */
export const list = (items: Schema, least: number, most: number): Schema => ({
  type: 'array',
  ...(least > 0 && { minItems: least }),
  maxItems: most,
  items,
});
export const tuple = (count: number, items: Schema): Schema => ({
  type: 'array',
  minItems: count,
  maxItems: count,
  items,
});
export const optional = (schema: Schema): Optional => ({ optional: schema });

/** Fields by name, and no others. */
export function record(fields: Readonly<Record<string, Schema | Optional>>): Schema {
  const required = Object.keys(fields).filter((name) => !('optional' in fields[name]));
  return {
    type: 'object',
    additionalProperties: false,
    ...(required.length > 0 && { required }),
    properties: Object.fromEntries(
      Object.entries(fields).map(([name, field]) => [name, 'optional' in field ? (field as Optional).optional : field]),
    ),
  };
}

/** Records by their ids. */
export const table = (items: Schema, most: number): Schema => ({
  type: 'object',
  maxProperties: most,
  propertyNames: ref('id'),
  additionalProperties: items,
});
