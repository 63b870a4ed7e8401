/** The part of the package gifenc that is used here; it brings no types. */
declare module 'gifenc' {
  export type Palette = number[][];
  export interface FrameOptions {
    readonly palette?: Palette;
    readonly first?: boolean;
    readonly transparent?: boolean;
    readonly transparentIndex?: number;
    /** ms */
    readonly delay?: number;
    /** −1: once; 0: without end; more: so many times again. */
    readonly repeat?: number;
    readonly dispose?: number;
  }
  export interface Encoder {
    writeHeader(): void;
    writeFrame(index: Uint8Array, width: number, height: number, options: FrameOptions): void;
    finish(): void;
    bytesView(): Uint8Array;
    readonly stream: { reset(): void };
  }
  export function GIFEncoder(options?: { auto?: boolean; initialCapacity?: number }): Encoder;
  export function quantize(
    rgba: Uint8Array | Uint8ClampedArray,
    maxColors: number,
    options?: { format?: 'rgb565' | 'rgb444' | 'rgba4444' },
  ): Palette;
  export function applyPalette(rgba: Uint8Array | Uint8ClampedArray, palette: Palette, format?: string): Uint8Array;
}
