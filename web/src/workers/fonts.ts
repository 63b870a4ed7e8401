import archivoBlack from '@fontsource/archivo-black/files/archivo-black-latin-400-normal.woff?url';
import barlowCondensed from '@fontsource/barlow-condensed/files/barlow-condensed-latin-600-normal.woff?url';
import dmMono from '@fontsource/dm-mono/files/dm-mono-latin-400-normal.woff?url';
import libreBaskerville from '@fontsource/libre-baskerville/files/libre-baskerville-latin-700-normal.woff?url';
import pacifico from '@fontsource/pacifico/files/pacifico-latin-400-normal.woff?url';
import publicSans from '@fontsource/public-sans/files/public-sans-latin-600-normal.woff?url';
import { SHIPPED_FONTS, type ShippedFont } from './shipped-fonts';

const FILES: Record<ShippedFont, string> = {
  'archivo-black': archivoBlack,
  'public-sans': publicSans,
  'libre-baskerville': libreBaskerville,
  'dm-mono': dmMono,
  pacifico,
  'barlow-condensed': barlowCondensed,
};

/** Where the file of a font is: a shipped one, or an own one among the stored assets. Undefined for a name that is neither. */
export function fontUrl(font: string): string | undefined {
  const own = /^asset:([a-f0-9]{64})$/.exec(font);
  if (own) return `/api/assets/${own[1]}`;
  return SHIPPED_FONTS.some(({ id }) => id === font) ? FILES[font as ShippedFont] : undefined;
}
