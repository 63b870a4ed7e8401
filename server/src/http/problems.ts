import { CoreError } from '@core';
import type { ErrorRequestHandler, RequestHandler } from 'express';
import { storageFault } from '../db/storage-faults';
import { API_ERRORS, ApiError, type ApiErrorCode } from '../errors';

/** Turns every refusal into `application/problem+json` (RFC 9457): what was expected, what came and where. */
export const problemHandler: ErrorRequestHandler = (error, request, response, _next) => {
  if (response.headersSent) {
    // Half an answer must not look like a whole one.
    request.log?.debug({ err: error }, 'failed after the answer');
    request.socket.destroy();
    return;
  }
  if (response.destroyed) {
    // Whoever asked has gone. A server that ends then has no database any more, for one.
    request.log?.warn({ err: error }, 'failed with nobody waiting for the answer');
    return;
  }
  const refusal = asApiError(error);
  const { status, title } = API_ERRORS[refusal.code];
  if (status >= 500) request.log?.error({ err: error }, 'request failed');
  response
    .status(status)
    .type('application/problem+json')
    .send(
      JSON.stringify({
        type: `urn:arc-shift:problem:${refusal.code}`,
        code: refusal.code,
        title,
        status,
        detail: refusal.message,
        where: refusal.where,
        instance: request.id,
        ...refusal.extra,
      }),
    );
};

/** A refusal of the core keeps its own code where the API has it. */
function apiCodeOf({ code }: CoreError): ApiErrorCode {
  if (code === 'file-too-large') return 'body-too-large';
  return code in API_ERRORS ? (code as ApiErrorCode) : 'content-invalid';
}

function asApiError(error: unknown): ApiError {
  if (error instanceof ApiError) return error;
  if (error instanceof CoreError) return new ApiError(apiCodeOf(error), error.message, error.where);
  const fault = storageFault(error);
  if (fault === 'full')
    return new ApiError(
      'storage-full',
      'The disk of the server is full; nothing was changed. Make room and try again.',
    );
  if (fault === 'refused')
    return new ApiError('storage-refused', 'The data folder of the server cannot be written; nothing was changed.');
  const { type, limit, status } = error as { type?: string; limit?: number; status?: number };
  if (type === 'entity.too.large')
    return new ApiError(
      'body-too-large',
      `Expected a body of at most ${Math.round((limit ?? 0) / 1024 / 1024)} MB; this one is larger.`,
    );
  if (type === 'entity.parse.failed')
    return new ApiError('body-syntax', `Expected a body in JSON; it cannot be read: ${(error as Error).message}.`);
  if (type === 'charset.unsupported' || type === 'encoding.unsupported')
    return new ApiError('media-type', 'Expected JSON in UTF-8.');
  if (error instanceof URIError) return new ApiError('no-such-route', 'Expected a readable address.');
  // What Express and its parsers refuse: a file that is not there, broken compression, a body that was cut off.
  if (status === 404) return new ApiError('no-such-route', 'Expected the address of a file that is there.');
  if (typeof status === 'number' && status >= 400 && status < 500)
    return new ApiError('body-invalid', `Expected a request that can be read: ${(error as Error).message}.`);
  return new ApiError('internal', 'The request failed; nothing was changed. The log has the details.');
}

export const noSuchRoute: RequestHandler = (request) => {
  throw new ApiError(
    'no-such-route',
    `Expected an address of the API; found ${request.method} ${request.path.slice(0, 100)}.`,
  );
};
