import { type Outline, transformOutline } from '../outline';
import type { TextFont } from './font';

/** What decides how a text is set; see `TextRecord` of a segment. */
export interface TextSetting {
  readonly content: string;
  readonly size: number;
  readonly tracking: number;
  readonly kerning: boolean;
  readonly lineSpacing: number;
  readonly align: 'start' | 'middle' | 'end';
  readonly x: number;
  readonly y: number;
}

/** One drawn character. */
export interface SetGlyph {
  /** Which character of the content it is. */
  readonly index: number;
  readonly character: string;
  /** px, in place. */
  readonly outline: Outline;
}

export interface TextLayout {
  readonly glyphs: readonly SetGlyph[];
  /** Characters that the font does not have. */
  readonly missing: readonly string[];
  /** What the font could not give, a sentence each. */
  readonly notes: readonly string[];
  /** Widths of the lines, px, without the tracking after their last letter. */
  readonly widths: readonly number[];
}

/**
 * Sets a text: lines at `\n`, pairs kerned as the font says, tracking after every letter, lines aligned at x. Characters that draw nothing
 * (spaces) only take room.
 */
export function layoutText(font: TextFont, setting: TextSetting): TextLayout {
  const { content, size, tracking, kerning, lineSpacing, align, x, y } = setting;
  const scale = size / font.unitsPerEm;
  const glyphs: SetGlyph[] = [];
  const missing = new Set<string>();
  const widths: number[] = [];
  let index = 0;
  content.split('\n').forEach((line, row) => {
    const characters = [...line];
    const starts: number[] = [];
    let at = 0;
    characters.forEach((character, i) => {
      if (i > 0 && kerning) at += font.kerning(characters[i - 1], character) * scale;
      starts.push(at);
      const { advance, known } = font.glyph(character);
      if (!known && character.trim() !== '') missing.add(character);
      at += advance * scale + (tracking / 1000) * size;
    });
    const width = characters.length > 0 ? at - (tracking / 1000) * size : 0;
    widths.push(width);
    const left = x - (align === 'middle' ? width / 2 : align === 'end' ? width : 0);
    characters.forEach((character, i) => {
      const { contours } = font.glyph(character);
      if (contours.length > 0) {
        const outline = transformOutline({ contours, fillRule: 'nonzero' }, [
          scale,
          0,
          0,
          scale,
          left + starts[i],
          y + row * lineSpacing * size,
        ]);
        glyphs.push({ index: index + i, character, outline });
      }
    });
    index += characters.length + 1;
  });
  const notes: string[] = [];
  if (missing.size > 0)
    notes.push(
      `This font has no ${[...missing].map((c) => `“${c}”`).join(', ')}; a sign for a missing letter stands there`,
    );
  if (kerning && font.kerningUnread)
    notes.push('The kerning of this font is in a form that cannot be read, so its letters stand unkerned');
  return { glyphs, missing: [...missing], notes, widths };
}
