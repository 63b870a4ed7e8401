/** Everything that the API refuses: stable code, HTTP status, title. */
export const API_ERRORS = {
  'not-found': { status: 404, title: 'There is no such thing here' },
  'no-such-route': { status: 404, title: 'There is nothing at this address' },
  'piece-exists': { status: 409, title: 'A piece with this id exists already' },
  'piece-stale': { status: 409, title: 'The piece has been changed elsewhere' },
  'piece-invalid': { status: 422, title: 'The piece cannot be used' },
  'piece-version': { status: 422, title: 'The piece is of an unknown version' },
  'content-invalid': { status: 422, title: 'What was sent cannot be used' },
  'asset-invalid': { status: 422, title: 'The file cannot be used' },
  'body-invalid': { status: 400, title: 'The request cannot be used' },
  'body-syntax': { status: 400, title: 'The request is not JSON' },
  'body-too-large': { status: 413, title: 'The request is too large' },
  'media-type': { status: 415, title: 'The request has the wrong type' },
  'origin-refused': { status: 403, title: 'Requests from other sites are refused' },
  'piece-unreadable': { status: 422, title: 'The stored piece cannot be read' },
  'storage-full': { status: 507, title: 'There is no room left to store it' },
  'storage-refused': { status: 507, title: 'The data folder cannot be written' },
  internal: { status: 500, title: 'Something went wrong on our side' },
} as const;
export type ApiErrorCode = keyof typeof API_ERRORS;

/** A refusal with what was expected, what came and where; `extra` goes into the body. */
export class ApiError extends Error {
  constructor(
    readonly code: ApiErrorCode,
    message: string,
    readonly where?: string,
    readonly extra: Readonly<Record<string, unknown>> = {},
  ) {
    super(message);
    this.name = 'ApiError';
  }
}

/** Why the server cannot start, in one sentence that says what is wrong and where. */
export class StartError extends Error {
  constructor(
    readonly code: 'folder-in-use' | 'folder-unusable' | 'database-unreadable' | 'disk-full',
    message: string,
  ) {
    super(message);
    this.name = 'StartError';
  }
}
