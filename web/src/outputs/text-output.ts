import { makeTextFiles, type TextForm } from '@core';
import type { OutputForm } from './output-form';
import { ZipWriter } from './zip';

/** A form of text as the room and the worker know forms: several files go into one ZIP. */
export const textOutput = (form: TextForm): OutputForm => ({
  ...form,
  async make(source, options, tell, signal) {
    signal.throwIfAborted();
    const files = makeTextFiles(form, source, options);
    tell(1);
    const [main] = files;
    if (files.length === 1) {
      const extension = main.name.slice(main.name.indexOf('.') + 1);
      return { blob: new Blob([main.text], { type: form.type }), extension };
    }
    const zip = new ZipWriter();
    for (const { name, text } of files) zip.add(name, new TextEncoder().encode(text), false);
    return { blob: zip.end(), extension: 'zip' };
  },
});
