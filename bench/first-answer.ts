import {
  AS_DRAWN,
  AUTOMATIC_MATCH,
  type Outline,
  type PoseShape,
  planPoseShift,
  previewPoseShift,
  recordOfContour,
  type ShiftInput,
} from '../core/src/index';

/** Times of the first answer while a start point is dragged, and of the full plan, for pairs of outlines; ms each. */
export function firstAnswers(outlines: readonly Outline[]): { first: number[]; full: number[] } {
  let n = 0;
  const newId = (prefix: string): string => `${prefix}${++n}`;
  const pose = ({ contours, fillRule }: Outline): PoseShape => ({
    placement: AS_DRAWN,
    parts: [
      {
        id: newId('p'),
        contours: contours.map((contour) => recordOfContour(contour, newId)),
        fillRule,
      },
    ],
  });
  const poses = outlines.map(pose);
  const firstAnchor = ({ parts }: PoseShape) => ({ anchor: parts[0].contours[0].anchors[0].id });
  const first: number[] = [];
  const full: number[] = [];
  for (let i = 0; i + 1 < poses.length; i++) {
    const [from, to] = [poses[i], poses[i + 1]];
    const starts = [{ id: newId('m'), a: firstAnchor(from), b: firstAnchor(to) }];
    const input: ShiftInput = { from, to, pairs: [[0, 0]], method: 'auto', match: { ...AUTOMATIC_MATCH, starts } };
    let begun = performance.now();
    previewPoseShift(input);
    first.push(performance.now() - begun);
    begun = performance.now();
    planPoseShift(input);
    full.push(performance.now() - begun);
  }
  return { first, full };
}
