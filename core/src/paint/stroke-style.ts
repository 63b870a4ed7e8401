/** Line ends and joins by the names of SVG and the canvas. */
export const CAPS = ['butt', 'round', 'square'] as const;
export type Cap = (typeof CAPS)[number];
export const JOINS = ['miter', 'round', 'bevel'] as const;
export type Join = (typeof JOINS)[number];
