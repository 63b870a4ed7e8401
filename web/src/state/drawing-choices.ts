export const DRAWS_AS = ['figure', 'pose', 'part', 'contour'] as const;
/** What a drawn outline becomes: a figure of its own, the next pose, a part of the pose, another contour of the part. */
export type DrawsAs = (typeof DRAWS_AS)[number];

/** What the pointer snaps to. */
export interface SnapChoices {
  readonly points: boolean;
  readonly outlines: boolean;
  readonly centres: boolean;
  readonly guides: boolean;
  readonly grid: boolean;
}
