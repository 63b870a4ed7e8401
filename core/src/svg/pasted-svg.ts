/** Elements that may be pasted without the document around them. */
const FRAGMENT =
  /^(?:\s|<!--[\s\S]{0,10000}?-->)*<(?:path|g|rect|circle|ellipse|line|polyline|polygon|defs|use|style|symbol|clipPath|linearGradient|radialGradient)[\s/>]/;
/** Documents one after another. */
const SEVERAL = /<\/svg>\s*<svg[\s>]/;
const PATH_DATA = /^\s*[Mm][\s\d.+-]/;

const wrapped = (inner: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink">${inner}</svg>`;

/** What was pasted as a document: bare path data and fragments of SVG get one around them; anything else stays as it is. */
export function pastedSvg(text: string): string {
  if (PATH_DATA.test(text)) return wrapped(`<path d="${text.replace(/[<>&"]/g, ' ')}"/>`);
  if (FRAGMENT.test(text)) return wrapped(text);
  if (SEVERAL.test(text)) return wrapped(text.replace(/<\?xml[^>]*\?>|<!DOCTYPE[^>[]*>/gi, ''));
  return text;
}

/** Is a text on the clipboard worth reading as SVG where plain text may mean something else? */
export const looksLikeSvg = (text: string): boolean =>
  text.includes('<svg') || FRAGMENT.test(text) || PATH_DATA.test(text);
