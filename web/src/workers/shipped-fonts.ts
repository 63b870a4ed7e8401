/** The fonts that come with the application, all under the SIL Open Font License. */
export const SHIPPED_FONTS = [
  { id: 'archivo-black', label: 'Archivo Black', character: 'heavy grotesque' },
  { id: 'public-sans', label: 'Public Sans', character: 'text sans' },
  { id: 'libre-baskerville', label: 'Libre Baskerville', character: 'serif' },
  { id: 'dm-mono', label: 'DM Mono', character: 'mono' },
  { id: 'pacifico', label: 'Pacifico', character: 'script' },
  { id: 'barlow-condensed', label: 'Barlow Condensed', character: 'condensed' },
] as const;
export type ShippedFont = (typeof SHIPPED_FONTS)[number]['id'];
