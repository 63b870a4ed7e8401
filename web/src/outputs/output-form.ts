import { type CompiledPiece, CoreError, type Piece } from '@core';

/** A setting of an output with a few answers. */
export interface OutputField {
  readonly key: string;
  readonly label: string;
  readonly answers: readonly { readonly value: string; readonly label: string; readonly hint?: string }[];
  readonly otherwise: string;
}

/** Settings by the keys of their fields. */
export type OutputOptions = Readonly<Record<string, string>>;

/** What an output is made from: the piece, and the same made ready with all its plans. */
export interface OutputSource {
  readonly piece: Piece;
  readonly compiled: CompiledPiece;
}

/** One kind of file that can be made from a piece. Works in a worker: no page, no store. */
export interface OutputForm {
  readonly id: string;
  readonly label: string;
  /** What it is good for, in a sentence or two. */
  readonly about: string;
  readonly extension: string;
  readonly type: string;
  readonly fields: readonly OutputField[];
  /** `onProgress` is told the share that is done, 0 to 1; the work ends with the signal's reason once that is aborted. */
  make(
    source: OutputSource,
    options: OutputOptions,
    onProgress: (share: number) => void,
    signal: AbortSignal,
  ): Promise<Blob>;
}

/**
 * Checks options from anywhere against the fields of a form; what is left out is as it is by default.
 * @throws CoreError 'option' for a key or an answer that the form does not have
 */
export function readOptions(
  { fields, label }: OutputForm,
  given: Readonly<Record<string, unknown>> = {},
): OutputOptions {
  const known = fields.map(({ key }) => key);
  for (const key of Object.keys(given))
    if (!known.includes(key))
      throw new CoreError('option', `${label}: expected the options ${known.join(', ')}; found “${key}”.`, key);
  return Object.fromEntries(
    fields.map(({ key, answers, otherwise }) => {
      const value = given[key] ?? otherwise;
      if (!answers.some((answer) => answer.value === value))
        throw new CoreError(
          'option',
          `${label}: expected ${key} to be one of ${answers.map((answer) => answer.value).join(', ')}; found ${JSON.stringify(value)?.slice(0, 40)}.`,
          key,
        );
      return [key, value as string];
    }),
  );
}
