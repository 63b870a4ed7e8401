/** A file of text that is taken out. */
export interface OutputFile {
  readonly name: string;
  readonly text: string;
}
