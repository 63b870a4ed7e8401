import { describe, expect, test } from '@jest/globals';
import { measureArcLength, type Place, shareOfPlace, transformOutline } from '../../outline';
import { countedIds, drawnPose, pieceOf } from '../../testing/pieces';
import { outlineOfPart, placementMatrix } from '../records/geometry';
import type { MatchChoices, Piece } from '../records/records';
import { insertPoses, type PieceDraft, removeStop } from './edit';
import { keepPlaces } from './keep-places';

const ARROW = 'M10 40L60 40L60 15L95 50L60 85L60 60L10 60Z';
/** The arrow with other points, another start and the other way round. */
const ARROW_AGAIN = 'M60 85L95 50L60 15L60 40L35 40L10 40L10 60L60 60Z';
const STAR = 'M50 2L61 38L98 38L68 59L79 95L50 73L21 95L32 59L2 38L39 38Z';

const base = pieceOf([ARROW, STAR]);
const [shiftId] = base.figures.f.rail;
const anchorsOf = (piece: Piece, stop: 'from' | 'to') =>
  piece.parts[piece.poses[piece.shifts[shiftId][stop]].parts[0]].contours[0].anchors;
const tip: Place = { anchor: anchorsOf(base, 'from')[3].id };
const top: Place = { anchor: anchorsOf(base, 'to')[0].id };

const chosen = (match: Partial<MatchChoices>): Piece => {
  const shift = base.shifts[shiftId];
  return { ...base, shifts: { ...base.shifts, [shiftId]: { ...shift, match: { ...shift.match, ...match } } } };
};
const changed = (piece: Piece, recipe: (draft: PieceDraft) => void): Piece => {
  const draft = structuredClone(piece) as PieceDraft;
  recipe(draft);
  return draft as Piece;
};
const inserted = (piece: Piece, ...ds: string[]): Piece => {
  const newId = countedIds();
  const fresh = (prefix: string): string => `new${newId(prefix)}`;
  return changed(piece, (draft) =>
    insertPoses(
      draft,
      'f',
      ds.map((d) => drawnPose(d, fresh, 'Between')),
      fresh,
      1,
    ),
  );
};

/** Where a place of a pose is, canvas px. */
function spot(piece: Piece, poseId: string, place: Place): { x: number; y: number } {
  const pose = piece.poses[poseId];
  for (const id of pose.parts) {
    const outline = transformOutline(outlineOfPart(piece.parts[id]), placementMatrix(pose.placement));
    for (const contour of outline.contours) {
      const table = measureArcLength(contour);
      const share = shareOfPlace(table, place);
      if (share === undefined) continue;
      const index = table.cumulative.findIndex((length) => length / table.cumulative.slice(-1)[0] >= share - 1e-9);
      return { x: contour.points[6 * index], y: contour.points[6 * index + 1] };
    }
  }
  throw new Error(`No place ${JSON.stringify(place)}.`);
}

describe('a pose that is put between the two of a shift', () => {
  const start = { id: 's', a: tip, b: top };

  test('start points and ties go on through it, by way of the same place', () => {
    const piece = chosen({
      starts: [start],
      ties: [{ id: 't', a: { anchor: anchorsOf(base, 'from')[0].id }, b: top }],
    });
    const after = inserted(piece, ARROW_AGAIN);
    const { matches, lost } = keepPlaces(piece, after);
    expect(lost).toEqual([]);
    const [first, second] = after.figures.f.rail.map((id) => matches.get(id));
    expect([first?.starts.length, first?.ties.length, second?.starts.length, second?.ties.length]).toEqual([
      1, 1, 1, 1,
    ]);
    expect(first?.starts[0].a).toEqual(tip);
    expect(second?.starts[0].b).toEqual(top);
    expect(second?.starts[0].a).toEqual(first?.starts[0].b);
    // The pose between is the arrow once more: the tip's place in it is its tip, at the very right.
    const [, { from: between }] = after.figures.f.rail.map((id) => after.shifts[id]);
    const at = spot(after, between, second?.starts[0].a as Place);
    const own = spot(after, after.shifts[after.figures.f.rail[0]].from, tip);
    expect(Math.hypot(at.x - own.x, at.y - own.y)).toBeLessThan(1);
  });

  test('two poses at once: the places go on from one to the next', () => {
    const piece = chosen({ starts: [start] });
    const after = inserted(piece, ARROW_AGAIN, ARROW);
    const { matches } = keepPlaces(piece, after);
    const chain = after.figures.f.rail.map((id) => matches.get(id)?.starts[0]);
    expect(chain).toHaveLength(3);
    expect(chain[0]?.b).toEqual(chain[1]?.a);
    expect(chain[1]?.b).toEqual(chain[2]?.a);
    expect(chain[2]?.b).toEqual(top);
    expect(new Set(chain.map((link) => link?.id)).size).toBe(3);
  });

  test('what belongs to the in-between itself is named, with how many', () => {
    const touchUp = (id: string) => ({
      id,
      progress: 0.4,
      points: [{ place: tip, by: [1, 2], before: [0, 0], after: [0, 0] }] as const,
    });
    const piece = chosen({ touchUps: [touchUp('u'), touchUp('v')], points: [tip], smoothing: 4 });
    const { matches, lost } = keepPlaces(piece, inserted(piece, STAR));
    expect(matches.size).toBe(0);
    expect(lost).toEqual([
      expect.stringMatching(/^An added point/),
      expect.stringMatching(/^2 touch-ups of Pose 1 to Pose 2 could not be kept: another pose stands between/),
      expect.stringMatching(/^The chosen direction, method or smoothing/),
    ]);
  });

  test('a place on a contour that finds no partner in the new pose is named as lost', () => {
    const piece = chosen({ ties: [{ id: 't', a: { anchor: 'nowhere' }, b: top }] });
    expect(keepPlaces(piece, inserted(piece, STAR)).lost).toEqual([expect.stringMatching(/^A tie of/)]);
  });

  test('directions, of all contours or of one, are named', () => {
    for (const match of [{ direction: 'same' }, { directions: [{ contour: 'c', direction: 'same' }] }] as const)
      expect(keepPlaces(chosen(match), inserted(chosen(match), STAR)).lost).toEqual([
        expect.stringMatching(/^The chosen direction/),
      ]);
  });

  test('nothing chosen: nothing to carry, nothing to say', () => {
    expect(keepPlaces(base, inserted(base, STAR))).toEqual({ matches: new Map(), lost: [] });
  });

  test('a shift whose pose was taken away is no such case', () => {
    const piece = inserted(chosen({ starts: [start] }), STAR);
    const after = changed(piece, (draft) => removeStop(draft, 'f', 1, countedIds()));
    expect(keepPlaces(piece, after).lost).toEqual([]);
  });
});
