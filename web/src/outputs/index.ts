import { animatedSvg } from './animated-svg';
import type { OutputForm } from './output-form';

export { type OutputForm, type OutputOptions, readOptions } from './output-form';

/** Everything that can be taken out, in the order in which it is offered: a new form is a file and a row here. */
export const OUTPUTS: readonly OutputForm[] = [animatedSvg];

/** The form with an id; an unknown one is the first. */
export const outputById = (id: string): OutputForm => OUTPUTS.find((form) => form.id === id) ?? OUTPUTS[0];

/** A file name for what is made from a piece. */
export const outputFileName = ({ extension }: OutputForm, pieceName: string): string =>
  `${
    pieceName
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '') || 'piece'
  }.${extension}`;
