import { textHash } from '../num';
import { baseNameOf } from './forms/base-name';

/**
 * Stands before every id, class and name of keyframes while a file is written. It is a character of private use, which no name of a figure or piece can bring
 * in: `safeTitle` takes it out.
 */
export const OWN = '\uE000';

/** What a class of the picture that stands where less motion is asked for ends with. */
export const CALM_CLASS = 'still';

/** Is this the group that is seen only where less motion is asked for, in a file of this program? */
export const isCalmPicture = ({ attributes }: { readonly attributes: Readonly<Record<string, string>> }): boolean =>
  attributes.class === CALM_CLASS || attributes.class?.endsWith(`-${CALM_CLASS}`) === true;

/** A title without the character that stands for the prefix. */
export const safeTitle = (title: string): string => title.replaceAll(OWN, '');

/**
 * Gives a file names of its own, so that several files in one page leave each other and the page alone. They begin with the piece's name and a few letters made of what the
 * file says (FNV-1a, 32 bits: Fowler, Noll, Vo). The same file has the same names every time.
 *
 * @param text a file in which `OWN` stands for the prefix
 */
export function withOwnNames(text: string, pieceName: string): string {
  if (!text.includes(OWN)) return text;
  return text.replaceAll(OWN, `${ownName(pieceName)}-${textHash(text).toString(36)}-`);
}

const MOST_LETTERS = 24;

/** The piece's name as a word that may stand first in an id or a class. */
export function ownName(pieceName: string): string {
  const base = baseNameOf(pieceName).slice(0, MOST_LETTERS).replace(/-+$/, '');
  return /^[a-z]/.test(base) ? base : `piece-${base}`;
}
