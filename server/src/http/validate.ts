import Ajv, { type JSONSchemaType } from 'ajv';
import type { RequestParamHandler } from 'express';
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

const ID = /^[A-Za-z0-9_-]{1,64}$/;

/** Lets ids through that anything could have; no other text reaches the database. */
export const idOnly: RequestParamHandler = (_request, _response, next, id: string) => {
  if (ID.test(id)) next();
  else
    next(
      new ApiError('not-found', `Expected an id of letters, digits, “_” and “-”; found “${id.slice(0, 64)}”.`, '/id'),
    );
};
