/** What a code module computes its frames with: plain code without imports. */
export const FRAMES_RUNTIME: string;
/** The custom element that plays an animated SVG: plain code without imports. */
export const PLAYER: string;
