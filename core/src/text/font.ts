import { type Font, type Path, parse } from 'opentype.js';
import { CoreError } from '../errors';
import { type Contour, ContourBuilder } from '../outline';

/** A font file longer than this is refused before it is read. */
export const FONT_BYTE_LIMIT = 10 * 1024 * 1024;
const SIGNATURES: Readonly<Record<string, string>> = {
  '\u0000\u0001\u0000\u0000': 'TTF',
  OTTO: 'OTF',
  true: 'TTF',
  wOFF: 'WOFF',
};

/** A read font; its own units stay inside. */
export interface TextFont {
  readonly name: string;
  readonly unitsPerEm: number;
  /** Contours of a character in font units, y down, baseline at 0; none where it draws nothing. */
  glyph(character: string): {
    readonly contours: readonly Contour[];
    readonly advance: number;
    readonly known: boolean;
  };
  /** Does the font kern its pairs in a form that cannot be read (GPOS extension lookups)? */
  readonly kerningUnread: boolean;
  /** Added between two characters, font units. */
  kerning(first: string, second: string): number;
}

/**
 * Reads a TTF, OTF or WOFF font.
 * @throws CoreError 'font' with what was expected and what came
 */
export function readFont(bytes: ArrayBuffer): TextFont {
  const head = String.fromCharCode(...new Uint8Array(bytes.slice(0, 4)));
  if (bytes.byteLength > FONT_BYTE_LIMIT)
    throw new CoreError(
      'font',
      `Expected a font of at most ${FONT_BYTE_LIMIT / 1024 / 1024} MB; this one has ${(bytes.byteLength / 1024 / 1024).toFixed(1)} MB.`,
    );
  if (!SIGNATURES[head])
    throw new CoreError(
      'font',
      `Expected a TTF, OTF or WOFF font; found ${head === 'wOF2' ? 'WOFF2, which cannot be read: convert it to WOFF or TTF' : 'another kind of file'}.`,
    );
  let font: Font;
  try {
    font = parse(bytes);
  } catch (error) {
    throw new CoreError(
      'font',
      `The font cannot be read: ${String((error as Error)?.message ?? error).slice(0, 120)}.`,
    );
  }
  const cache = new Map<string, ReturnType<TextFont['glyph']>>();
  const english = (font.names as unknown as Record<string, Record<string, string> | undefined>).fullName?.en;
  return {
    name: english ?? 'Font',
    unitsPerEm: font.unitsPerEm || 1000,
    glyph(character) {
      let found = cache.get(character);
      if (!found) {
        const glyph = font.charToGlyph(character);
        const contours = contoursOf(glyph.path as Path);
        found = { contours, advance: glyph.advanceWidth ?? 0, known: glyph.index !== 0 };
        cache.set(character, found);
      }
      return found;
    },
    kerningUnread: kernsUnread(font),
    kerning: (first, second) => font.getKerningValue(font.charToGlyph(first), font.charToGlyph(second)) || 0,
  };
}

/** Has the font a kerning feature of which the reader knows no table? */
function kernsUnread(font: Font): boolean {
  const { tables, position, kerningPairs } = font as unknown as {
    tables: { gpos?: { features?: { tag: string }[] } };
    position?: { defaultKerningTables?: readonly unknown[] };
    kerningPairs?: object;
  };
  const wanted = tables.gpos?.features?.some(({ tag }) => tag === 'kern') ?? false;
  return wanted && !position?.defaultKerningTables?.length && Object.keys(kerningPairs ?? {}).length === 0;
}

/** Font outlines as contours: every one closed, quadratic curves raised to cubics exactly, y turned down. */
function contoursOf(path: Path): Contour[] {
  const contours: Contour[] = [];
  let builder: ContourBuilder | undefined;
  let x = 0;
  let y = 0;
  const finish = (): void => {
    if (builder && builder.segments > 0) contours.push(builder.finish(true));
    builder = undefined;
  };
  for (const command of path.commands) {
    switch (command.type) {
      case 'M':
        finish();
        builder = new ContourBuilder(command.x, -command.y);
        break;
      case 'L':
        if (command.x !== x || command.y !== y) builder?.lineTo(command.x, -command.y);
        break;
      case 'Q':
        builder?.cubicTo(
          x + ((command.x1 - x) * 2) / 3,
          -(y + ((command.y1 - y) * 2) / 3),
          command.x + ((command.x1 - command.x) * 2) / 3,
          -(command.y + ((command.y1 - command.y) * 2) / 3),
          command.x,
          -command.y,
        );
        break;
      case 'C':
        builder?.cubicTo(command.x1, -command.y1, command.x2, -command.y2, command.x, -command.y);
        break;
      case 'Z':
        finish();
        continue;
    }
    x = command.x;
    y = command.y;
  }
  finish();
  return contours;
}
