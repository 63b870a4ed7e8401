import type { RankOptions } from '../../morph';
import { type ArcLengthTable, measureArcLength, type Outline, type Place, shareOfPlace } from '../../outline';
import { decidedOptions, type MatchChoices, type ShiftMethod, settledMatch, unusedDecisions } from '../../piece';
import type { PlacedPart } from './placed-parts';

/** A place as contour index and share of its length; undefined where the outline does not have it. */
export class PlaceFinder {
  private readonly tables: (ArcLengthTable | undefined)[] = [];

  constructor(private readonly outline: Outline) {}

  find(place: Place): { contour: number; share: number } | undefined {
    const key = 'anchor' in place ? place.anchor : place.after;
    for (let i = 0; i < this.outline.contours.length; i++) {
      const contour = this.outline.contours[i];
      if (!contour.anchorIds?.includes(key)) continue;
      this.tables[i] ??= measureArcLength(contour);
      const share = shareOfPlace(this.tables[i] as ArcLengthTable, place);
      if (share !== undefined) return { contour: i, share };
    }
    return undefined;
  }
}

/**
 * What was decided about a shift as options for the match of two of its parts: places as shares, contours as indices. `used` collects what was
 * found, so that the caller can name what no pair of parts had.
 */
export function rankOptions(
  choices: MatchChoices,
  method: ShiftMethod,
  a: PlacedPart,
  b: PlacedPart,
  used: Set<unknown>,
): RankOptions {
  const finders = { a: new PlaceFinder(a.outline), b: new PlaceFinder(b.outline) };
  const parts = { a: a.part, b: b.part };
  const decided = decidedOptions(settledMatch(choices), {
    place: (side, place) => finders[side].find(place),
    contour(side, id) {
      if (id === null) return -1;
      const i = parts[side].contours.findIndex((contour) => contour.id === id);
      return i >= 0 ? i : undefined;
    },
    matrix: { a: a.matrix, b: b.matrix },
    use: (item) => void used.add(item),
  });
  return { ...decided, method: method === 'auto' || method === 'numbers' || method === 'points' ? undefined : method };
}

/** The direction (rad) in which a contour is to be wiped, if it is; the choice then counts as used. */
export function wipeAngle(choices: MatchChoices, contourId: string, used: Set<unknown>): number | undefined {
  const wipe = choices.wipes.find(({ contour }) => contour === contourId);
  if (!wipe) return undefined;
  used.add(wipe);
  return (wipe.angle * Math.PI) / 180;
}

/** In words, what no pair of parts could use. */
export const lostChoices = (choices: MatchChoices, used: ReadonlySet<unknown>): string[] =>
  unusedDecisions(choices, used).map((what) => `${what} could not be used: the outlines no longer have the place.`);
