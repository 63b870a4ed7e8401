/** An element with what moves in it, as compact as JSON allows: what a code module says of a piece. */
export type PackedElement = readonly [
  name: string,
  attributes: Readonly<Record<string, string>>,
  children: readonly PackedElement[],
  tracks: readonly PackedTrack[],
];
export type PackedTrack = readonly [
  attribute: string,
  /** The function of a transform, or '' for any other attribute. */
  step: string,
  begin: number,
  duration: number,
  /** 1: repeats; 2: jumps; 3: both. */
  flags: number,
  times: readonly number[],
  /** A curve each; 0: evenly. */
  splines: readonly (readonly number[] | 0)[],
  /** Colours are rgb(r,g,b): what differs from one to the next is numbers. */
  values: readonly string[],
];

/** An element at a moment: its attributes are those of SVG. */
export interface FrameElement {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly FrameElement[];
}

/** When a pose stands, s: from when it is reached until it is left. */
export interface PoseTime {
  readonly name: string;
  readonly reached: number;
  readonly left: number;
}
