import { checkPiece, type Piece, planAndCompile, readOptions } from '@core';
import { outputById, proveOutput } from '../../web/src/outputs';

/** Runs in the browser: files are made and proved by the program's own code, without its rooms. */
const { signal } = new AbortController();
let last = new Blob();

const sourceOf = (piece: unknown) => {
  const checked: Piece = checkPiece(piece);
  return { piece: checked, compiled: planAndCompile(checked) };
};

Object.assign(window, {
  /** Makes a file and proves it against the piece, or against another one. */
  async makeAndProve(
    formId: string,
    piece: unknown,
    options: Record<string, string>,
    other?: unknown,
    others?: object,
  ) {
    const form = outputById(formId);
    const source = sourceOf(piece);
    const checked = readOptions(form, options);
    const started = performance.now();
    const made = await form.make(source, checked, () => {}, signal);
    const seconds = (performance.now() - started) / 1000;
    const judge = other ? sourceOf(other) : source;
    const { holds, lines } = await proveOutput(form.id, judge, { ...checked, ...others }, made, signal);
    last = made.blob;
    return { size: made.blob.size, note: made.note ?? '', holds, lines, seconds };
  },
  /** The file that was made last, as base64. */
  async lastFile(): Promise<string> {
    const bytes = new Uint8Array(await last.arrayBuffer());
    let text = '';
    for (let i = 0; i < bytes.length; i += 8192) text += String.fromCharCode(...bytes.subarray(i, i + 8192));
    return btoa(text);
  },
});
