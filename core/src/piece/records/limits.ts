/** Times below this are none: a hold or a shift takes no time at all, or at least a tenth of a millisecond. */
export const SHORTEST_SECONDS = 1e-4;
/** Touch-ups keep this distance in progress from each other and from the poses. */
export const TOUCH_UP_GAP = 1e-4;
/** A scale is zero, or not smaller than this. */
export const SMALLEST_SCALE = 1e-6;
/** Contours of one part, as in the schema. */
export const CONTOURS_OF_PART = 5_000;
/** Anchors of a whole piece; as many take some 16 MB as a file. */
export const ANCHORS_OF_PIECE = 80_000;
/** Frames of one run of a piece. */
export const FRAMES_OF_PIECE = 1_000_000;
/** Records of each table, as in the schema. */
export const MOST_RECORDS = {
  figures: 1_000,
  poses: 5_000,
  parts: 20_000,
  shifts: 10_000,
  lanes: 10_000,
  texts: 2_000,
  groups: 1_000,
} as const;
