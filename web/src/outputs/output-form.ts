import type { FormWords, OutputOptions, OutputSource } from '@core';

/** A file that was made. */
export interface MadeOutput {
  readonly blob: Blob;
  /** Of the file, where it is not the form's own: several files are put into one. */
  readonly extension?: string;
  /** px, where it had to be made smaller than was asked for. */
  readonly size?: { readonly width: number; readonly height: number };
  /** What was decided on the way, in a sentence. */
  readonly note?: string;
}

/** One kind of file that can be made from a piece. Works in a worker: no page, no store. */
export interface OutputForm extends FormWords {
  /** Tells before anything is made what cannot be: throws CoreError 'output-refused'. */
  check?(source: OutputSource, options: OutputOptions): Promise<void>;
  /** `tell` is told the share that is done, 0 to 1; the work ends with the signal's reason once that is aborted. */
  make(
    source: OutputSource,
    options: OutputOptions,
    tell: (share: number) => void,
    signal: AbortSignal,
  ): Promise<MadeOutput>;
}
