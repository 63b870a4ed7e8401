import Ajv, { type JSONSchemaType } from 'ajv';
import { ApiError } from '../errors';

const ajv = new Ajv({ allErrors: false });

/** A check compiled from a schema at start; throws ApiError 'body-invalid' with the path of what does not fit. */
export function bodyCheck<T>(schema: JSONSchemaType<T>): (body: unknown) => T {
  const validate = ajv.compile(schema);
  return (body) => {
    if (validate(body)) return body;
    const error = validate.errors?.[0];
    const where = error?.instancePath || '/';
    throw new ApiError('body-invalid', `Expected another body: ${where} ${error?.message ?? 'does not fit'}.`, where);
  };
}
