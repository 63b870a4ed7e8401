/** The part of the package omggif that is used here; it brings no types. */
declare module 'omggif' {
  export class GifReader {
    constructor(bytes: Uint8Array);
    numFrames(): number;
    /** Hundredths. */
    frameInfo(index: number): { readonly delay: number };
    /** 0: without end; null: once. */
    loopCount(): number | null;
  }
}
