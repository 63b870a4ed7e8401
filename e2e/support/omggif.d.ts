/** The part of the package omggif that is used here; it brings no types. */
declare module 'omggif' {
  export class GifReader {
    constructor(bytes: Uint8Array);
    numFrames(): number;
    readonly width: number;
    readonly height: number;
    /** The delay in hundredths; disposal 2: what it shows is taken away after it. */
    frameInfo(index: number): { readonly delay: number; readonly disposal: number };
    /** Lays a frame over what is there, four bytes a pixel. */
    decodeAndBlitFrameRGBA(index: number, pixels: Uint8Array): void;
    /** 0: without end; null: once. */
    loopCount(): number | null;
  }
}
