import {
  coloursOf,
  type Id,
  type Paint,
  type Part,
  type Piece,
  type PieceDraft,
  plainStroke,
  type Stroke,
} from '@core';
import { type AppStore, changePiece, remember, remembered } from '../../state';
import { editTargets } from '../scene/scene';

const RECENT_LIMIT = 12;

/** Puts a colour first among those used last in this browser. */
export const rememberColour = (colour: string): void =>
  remember(
    'recentColours',
    [colour, ...remembered('recentColours').filter((other) => other !== colour)].slice(0, RECENT_LIMIT),
  );

/** All colours of a piece, the most used first. */
export function paletteOf(piece: Piece): string[] {
  const count = new Map<string, number>();
  const add = (paint: Paint | null | undefined): void => {
    for (const colour of coloursOf(paint ?? null)) count.set(colour, (count.get(colour) ?? 0) + 1);
  };
  for (const part of Object.values(piece.parts)) {
    add(part.fill);
    add(part.stroke?.paint);
  }
  add(piece.canvas.background);
  return [...count].sort((p, q) => q[1] - p[1]).map(([colour]) => colour);
}

type PartDraft = PieceDraft['parts'][Id];

/** Changes the paint of all parts that are worked on, as one step. */
export function changePaint(store: AppStore, seconds: number, name: string, change: (part: PartDraft) => void): void {
  const ids = editTargets(store.getState(), seconds).flatMap(({ targets }) => targets.map(({ id }) => id));
  if (ids.length === 0) return;
  store.dispatch(
    changePiece(name, (draft) => {
      for (const id of ids) change(draft.parts[id]);
    }),
  );
}

/** Gives fill or stroke of what is worked on a paint; null takes it away. A stroke that was not there is 4 px wide. */
export function setPaint(store: AppStore, seconds: number, which: 'fill' | 'stroke', paint: Paint | null): void {
  changePaint(store, seconds, which === 'fill' ? 'Fill' : 'Stroke', (part) => {
    if (which === 'fill') part.fill = paint as PartDraft['fill'];
    else if (paint === null) part.stroke = null;
    else part.stroke = { ...((part.stroke as Stroke | null) ?? plainStroke(paint, 4)), paint } as PartDraft['stroke'];
  });
}

/** The paint of the first part that has one, for showing. */
export const paintOf = (parts: readonly Part[], which: 'fill' | 'stroke'): Paint | null => {
  for (const part of parts) {
    const paint = which === 'fill' ? part.fill : (part.stroke?.paint ?? null);
    if (paint !== null) return paint;
  }
  return null;
};
