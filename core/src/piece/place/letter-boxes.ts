import { outlineBox, outlineOfContours, transformOutline } from '../../outline';
import { type Box, isEmptyBox, type Matrix } from '../../vec';
import type { Id, Part, Piece, Pose } from '../records';
import { outlineOfPart, placementMatrix } from '../records';

/** Where a letter of a text stands, or where a missing one would: a box in canvas px. */
export interface LetterBox {
  readonly text: Id;
  /** Which character of the text; of a run of spaces the first. */
  readonly index: number;
  readonly character: string;
  readonly box: Box;
}

/**
 * The boxes of all letters of a pose's texts on the canvas. Spaces between two letters of a line, any number of them, count as a missing letter: its
 * box reaches from the one to the other and is as high as the higher of them.
 */
export function letterBoxes(piece: Piece, pose: Pose): LetterBox[] {
  const matrix = placementMatrix(pose.placement);
  const boxOf = (part: Part): Box => outlineBox(transformOutline(outlineOfPart(part), matrix));
  const glyphs = pose.parts
    .map((id) => piece.parts[id])
    .flatMap((part) => (part.source?.kind === 'glyph' ? [{ ...part.source, box: boxOf(part) }] : []));
  const out: LetterBox[] = [];
  for (const text of new Set(glyphs.map((glyph) => glyph.text))) {
    const characters = [...piece.texts[text].content];
    const box = new Map(glyphs.filter((glyph) => glyph.text === text).map((glyph) => [glyph.index, glyph.box]));
    characters.forEach((character, index) => {
      const own = box.get(index);
      if (own && !isEmptyBox(own)) out.push({ text, index, character, box: own });
      if (character !== ' ' || characters[index - 1] === ' ') return;
      let end = index;
      while (characters[end] === ' ') end++;
      const [before, after] = [box.get(index - 1), box.get(end)];
      if (!before || !after || !(after.minX > before.maxX)) return;
      const gap = {
        minX: before.maxX,
        maxX: after.minX,
        minY: Math.min(before.minY, after.minY),
        maxY: Math.max(before.maxY, after.maxY),
      };
      out.push({ text, index, character, box: gap });
    });
  }
  return out;
}

/** The box of the letter at an index of a text in a pose, or of the run of spaces that it belongs to. */
export function letterBoxAt(piece: Piece, pose: Pose, text: Id, index: number): LetterBox | undefined {
  const characters = [...(piece.texts[text]?.content ?? '')];
  let first = index;
  while (characters[index] === ' ' && characters[first - 1] === ' ') first--;
  return letterBoxes(piece, pose).find((box) => box.text === text && box.index === first);
}

/** The extent of a pose on the canvas as its base placement has it, or under another map, px; strokes are not counted. */
export function poseBox(
  piece: Pick<Piece, 'parts'>,
  pose: Pose,
  parts: readonly Id[] = pose.parts,
  matrix: Matrix = placementMatrix(pose.placement),
): Box {
  const outline = outlineOfContours(parts.flatMap((id) => outlineOfPart(piece.parts[id]).contours));
  return outlineBox(transformOutline(outline, matrix));
}
