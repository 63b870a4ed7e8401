/** Stable codes of everything that the core refuses. Callers branch on the code, people read the message. */
export const CORE_ERROR_CODES = [
  'path-data',
  'number-range',
  'too-many-segments',
  'svg-syntax',
  'svg-not-svg',
  'svg-unsafe',
  'svg-no-outline',
  'svg-too-complex',
  'file-too-large',
  'json-syntax',
  'table-syntax',
  'piece-version',
  'piece-invalid',
  'option',
  'easing-syntax',
  'font',
  'path-operation',
  'output-refused',
] as const;
export type CoreErrorCode = (typeof CORE_ERROR_CODES)[number];

/** A refusal: what was expected, what came, and where. */
export class CoreError extends Error {
  readonly code: CoreErrorCode;
  /** Where it happened: a character position, a line, or the path of a field. */
  readonly where?: string;

  constructor(code: CoreErrorCode, message: string, where?: string) {
    super(message);
    this.name = 'CoreError';
    this.code = code;
    this.where = where;
  }
}

/** The end of a switch over a closed set. */
export function assertNever(value: never): never {
  throw new Error(`Unexpected case: ${String(value)}`);
}
