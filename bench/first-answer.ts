import {
  AS_DRAWN,
  AUTOMATIC_MATCH,
  type Outline,
  type PoseInput,
  planPoseShift,
  previewPoseShift,
  recordOfContour,
  type ShiftInput,
} from '../core/src/index';

/** Times of the first answer while a start point is dragged, and of the full plan, for pairs of outlines; ms each. */
export function firstAnswers(outlines: readonly Outline[]): { first: number[]; full: number[] } {
  let n = 0;
  const newId = (prefix: string): string => `${prefix}${++n}`;
  const pose = ({ contours, fillRule }: Outline): PoseInput => ({
    placement: AS_DRAWN,
    parts: [
      {
        id: newId('p'),
        name: '',
        contours: contours.map((contour) => recordOfContour(contour, newId)),
        fillRule,
        fill: '#000000',
        stroke: null,
      },
    ],
  });
  const poses = outlines.map(pose);
  const firstAnchor = ({ parts }: PoseInput) => ({ anchor: parts[0].contours[0].anchors[0].id });
  const first: number[] = [];
  const full: number[] = [];
  for (let i = 0; i + 1 < poses.length; i++) {
    const [from, to] = [poses[i], poses[i + 1]];
    const starts = [{ id: newId('m'), a: firstAnchor(from), b: firstAnchor(to) }];
    const input: ShiftInput = { from, to, method: 'auto', blend: 'oklab', match: { ...AUTOMATIC_MATCH, starts } };
    let begun = performance.now();
    previewPoseShift(input);
    first.push(performance.now() - begun);
    begun = performance.now();
    planPoseShift(input);
    full.push(performance.now() - begun);
  }
  return { first, full };
}
