import { baseNameOf, TEXT_FORMS } from '@core';
import type { OutputForm } from './output-form';
import { gif } from './raster/gif';
import { apng, pngSequence, spriteSheet, stillPng } from './raster/png-forms';
import { mp4, webm } from './raster/video';
import { textOutput } from './text-output';

export { estimateSize } from './estimate';
export { FORM_GROUPS, GROUP_OF_FORM } from './form-groups';
export { openMovingPicture, pictureFile } from './moving-picture';
export type { MadeOutput, OutputForm } from './output-form';
export { type OutputProof, proveOutput } from './proof/prove';
export { PURPOSES, type Purpose } from './purposes';
export { ZipWriter } from './zip';

/** Everything that can be taken out, in the order in which it is offered: a new form is a file and a row here. */
export const OUTPUTS: readonly OutputForm[] = [
  ...TEXT_FORMS.map(textOutput),
  stillPng,
  gif,
  apng,
  pngSequence,
  spriteSheet,
  mp4,
  webm,
];

/** The form with an id; an unknown one is the first. */
export const outputById = (id: string): OutputForm => OUTPUTS.find((form) => form.id === id) ?? OUTPUTS[0];

/** A file name for what is made from a piece. */
export const outputFileName = (extension: string, pieceName: string): string => `${baseNameOf(pieceName)}.${extension}`;
