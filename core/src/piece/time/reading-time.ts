import type { Piece, Pose } from '../records';

/** How long something must stand to be read (common practice, adjustable and never forced): a start, and so much for each character, s. */
const START_SECONDS = 0.3;
const CHARACTER_SECONDS = 0.06;

/** How many characters a pose shows: those of its texts without spaces; a drawing is read as one sign. */
function charactersOf(piece: Pick<Piece, 'parts' | 'texts'>, pose: Pose): number {
  const texts = new Set<string>();
  for (const id of pose.parts) {
    const source = piece.parts[id]?.source;
    if (source?.kind === 'glyph') texts.add(source.text);
  }
  let count = 0;
  for (const id of texts) count += [...(piece.texts[id]?.content ?? '').replace(/\s+/g, '')].length;
  return count;
}

/** What a pose needs to be read, s, and how many characters of text it has (0: it is a sign). */
export function readingTime(
  piece: Pick<Piece, 'parts' | 'texts'>,
  pose: Pose,
): { readonly seconds: number; readonly characters: number } {
  const characters = charactersOf(piece, pose);
  return {
    seconds: Math.round((START_SECONDS + CHARACTER_SECONDS * Math.max(1, characters)) * 1000) / 1000,
    characters,
  };
}

/** Is a pose held too short to be read? A drawing that is not held at all is meant to be passed through. */
export function isTooShort(piece: Pick<Piece, 'parts' | 'texts'>, pose: Pose): boolean {
  const { seconds, characters } = readingTime(piece, pose);
  return pose.parts.length > 0 && pose.hold < seconds - 1e-9 && (characters > 0 || pose.hold > 0);
}
