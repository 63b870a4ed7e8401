/** What a code module computes its frames with, by what it takes and what it does beyond its ends: small code without imports. */
export const MODULE_RUNTIME: Readonly<Record<`${'poses' | 'run'} ${'clamped' | 'extrapolated'}`, string>>;
/** The custom element that plays an animated SVG: small code without imports. */
export const PLAYER: string;
