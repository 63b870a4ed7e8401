/**
 * Names for figures that are also good as ids of XML, classes of CSS and keys of JSON: small letters, digits and hyphens, none twice, in the figures' order.
 */
export function figureNames(figures: readonly { readonly name: string }[]): string[] {
  const used = new Set<string>();
  return figures.map(({ name }) => {
    const plain = name
      .normalize('NFKD')
      .replace(/\p{M}+/gu, '')
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '');
    const base = /^[a-z]/.test(plain) ? plain : `figure${plain && `-${plain}`}`;
    let unique = base;
    for (let n = 2; used.has(unique); n++) unique = `${base}-${n}`;
    used.add(unique);
    return unique;
  });
}
