/** The part of the package upng-js that is used here; it brings no types. */
declare module 'upng-js' {
  interface Image {
    readonly width: number;
    readonly height: number;
    readonly frames: readonly { readonly delay: number }[];
    readonly tabs: { readonly acTL?: { readonly num_frames: number; readonly num_plays: number } };
  }
  const UPNG: {
    decode(bytes: ArrayBuffer): Image;
    /** Each frame as it is seen, four bytes a pixel. */
    toRGBA8(image: Image): ArrayBuffer[];
  };
  export default UPNG;
}
