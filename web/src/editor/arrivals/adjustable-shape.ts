import {
  AS_DRAWN,
  checkPiece,
  emptyPiece,
  newPose,
  type Part,
  type PieceDraft,
  type ShapeSource,
  shapePart,
} from '@core';
import { freshId } from '../../workers/fresh-id';

const ATTRIBUTE = 'data-arcshift-shape';
/** Longer drawings than that are no single shape. */
const MOST_TEXT = 50_000;

/** A drawing of one adjustable shape that remembers what it is: other programs see its outline, this one its numbers too. */
export const withShape = (svg: string, source: ShapeSource): string =>
  svg.replace('<svg ', `<svg ${ATTRIBUTE}="${JSON.stringify(source).replace(/"/g, '&quot;')}" `);

/** The adjustable shape that a drawing says to be, as a part in its paint; undefined when it says nothing, or nothing sound. */
export function shapeIn(svg: string, name: string, paint: Pick<Part, 'fill' | 'stroke'>): Part | undefined {
  const found = svg.length <= MOST_TEXT && new RegExp(`${ATTRIBUTE}="([^"]*)"`).exec(svg);
  if (!found) return undefined;
  try {
    const source = checkedSource(JSON.parse(found[1].replace(/&quot;/g, '"')));
    const part = source && shapePart(source, name, paint, freshId);
    return part && part.contours.length > 0 ? part : undefined;
  } catch {
    return undefined;
  }
}

/** Drawings come from anywhere: only what a piece may hold is taken, and that is looked at before anything is made of it. @throws for all else */
function checkedSource(source: unknown): ShapeSource | undefined {
  const trial = structuredClone(emptyPiece('shape', 'Shape')) as PieceDraft;
  const contours = [{ id: 'c', closed: false, anchors: [{ id: 'a', at: [0, 0] as const }] }];
  const part = { id: 'p', name: 'Shape', contours, fillRule: 'nonzero', fill: null, stroke: null, source };
  trial.poses.q = { ...newPose('q', 'Shape', ['p']), placement: AS_DRAWN } as PieceDraft['poses'][string];
  trial.parts.p = part as unknown as PieceDraft['parts'][string];
  const sound = checkPiece(JSON.parse(JSON.stringify(trial))).parts.p.source;
  return sound && sound.kind !== 'glyph' ? sound : undefined;
}
