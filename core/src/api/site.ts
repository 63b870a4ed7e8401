/** Places on the simulated site into which an output can be put. */
export const SITE_SLOTS = ['header', 'hero', 'button', 'mail'] as const;
export type SiteSlot = (typeof SITE_SLOTS)[number];

/** How the site shows a file. */
export const SITE_KINDS = ['image', 'video', 'element'] as const;
export type SiteKind = (typeof SITE_KINDS)[number];
