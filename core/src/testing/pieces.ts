import { type PaintedPose, pairParts } from '../frame/plan/part-pairs';
import type { PoseShape, ShiftInput } from '../frame/plan/shift-input';
import {
  AS_DRAWN,
  AUTOMATIC_MATCH,
  addFigure,
  emptyPiece,
  type Figure,
  insertPoses,
  type MatchChoices,
  type NewPose,
  newPose,
  type Part,
  type Piece,
  type PieceDraft,
  type Placement,
  poseFromSvg,
  recordOfContour,
  type Shift,
  type TextRecord,
} from '../piece';
import { readPathData, readSvg } from '../svg';

/** Ids that count up, for tests. */
export function countedIds(): (prefix: string) => string {
  let n = 0;
  return (prefix) => `${prefix}${++n}`;
}

/** A text as a piece keeps it. */
export const plainText = (content: string, id = 't'): TextRecord => ({
  id,
  content,
  font: 'archivo-black',
  size: 10,
  tracking: 0,
  kerning: true,
  lineSpacing: 1,
  align: 'start',
  x: 0,
  y: 0,
});

/** A pose with one filled part from path data. */
export function drawnPose(d: string, newId: (prefix: string) => string, name = 'Pose', fill = '#204060'): NewPose {
  const id = newId('p');
  const part = {
    id,
    name: 'Part',
    contours: readPathData(d).contours.map((contour) => recordOfContour(contour, newId)),
    fillRule: 'nonzero' as const,
    fill,
    stroke: null,
  };
  return { pose: newPose(newId('q'), name, [id]), parts: [part] };
}

/** A piece with one figure whose poses are the given path data. */
export function pieceOf(ds: readonly string[], newId = countedIds()): Piece {
  const draft = structuredClone(emptyPiece('test', 'Test')) as PieceDraft;
  addFigure(draft, 'f', 'Figure');
  insertPoses(
    draft,
    'f',
    ds.map((d, i) => drawnPose(d, newId, `Pose ${i + 1}`)),
    newId,
  );
  return draft as Piece;
}

export const poseOfSvg = (svg: string, newId = countedIds()): NewPose => poseFromSvg(readSvg(svg), 'Pose', newId);

/** The input of a shift between two poses given by their parts, as a piece would give it. */
export function inputBetween(
  from: PaintedPose,
  to: PaintedPose,
  { match = AUTOMATIC_MATCH, method = 'auto' }: { match?: MatchChoices; method?: ShiftInput['method'] } = {},
): ShiftInput {
  const shape = ({ placement, parts }: PaintedPose): PoseShape => ({ placement, parts });
  return { from: shape(from), to: shape(to), pairs: pairParts(from, to, match.pairs), method, match };
}

/** What a piece of `pieceBetween` may have besides its parts. */
export interface BetweenOptions {
  readonly from?: Partial<Placement>;
  readonly to?: Partial<Placement>;
  readonly shift?: Partial<Pick<Shift, 'easing' | 'blend' | 'method' | 'match' | 'duration'>>;
  readonly figure?: Partial<Figure>;
}

/** A piece with one figure `f` that goes from some parts to others in one even second, without holds, and stops: its time is its progress. */
export function pieceBetween(
  from: readonly Part[],
  to: readonly Part[],
  { from: placeA, to: placeB, shift, figure }: BetweenOptions = {},
): Piece {
  const draft = structuredClone(emptyPiece('between', 'Between')) as PieceDraft;
  const newId = countedIds();
  addFigure(draft, 'f', 'Figure');
  const pose = (parts: readonly Part[], name: string): NewPose => ({
    pose: {
      ...newPose(
        name,
        name,
        parts.map(({ id }) => id),
      ),
      hold: 0,
      placement: AS_DRAWN,
    },
    parts,
  });
  insertPoses(draft, 'f', [pose(from, 'A'), pose(to, 'B')], newId);
  draft.playback = 'once';
  const place = (placement: Partial<Placement> = {}) =>
    ({ ...AS_DRAWN, ...placement }) as PieceDraft['poses'][string]['placement'];
  draft.poses.A.placement = place(placeA);
  draft.poses.B.placement = place(placeB);
  Object.assign(draft.shifts[draft.figures.f.rail[0]], { duration: 1, easing: { kind: 'linear' } }, shift);
  Object.assign(draft.figures.f, figure);
  return draft as Piece;
}
