import { type Figure, type Id, type Piece, stopsOf } from '@core';
import type { RailItem, Selection } from './session';

/** What is chosen on a rail, in the order of time. */
export interface RailChoice {
  readonly figure: Figure;
  /** Stops, counted from the rail's start. */
  readonly stops: readonly number[];
  readonly shifts: readonly Id[];
}

/** Everything on a figure's rail, in the order of time. */
export const railItems = ({ rail }: Figure, stops: number): RailItem[] =>
  Array.from({ length: stops }, (_, stop): RailItem[] => {
    const shiftId = rail[stop];
    return [{ kind: 'stop', stop }, ...(shiftId ? [{ kind: 'shift' as const, shiftId }] : [])];
  }).flat();

export const sameItem = (p: RailItem, q: RailItem): boolean =>
  p.kind === 'stop' ? q.kind === 'stop' && p.stop === q.stop : q.kind === 'shift' && p.shiftId === q.shiftId;

/** What the selection is on its rail. */
export const itemOf = (selection: Selection): RailItem =>
  selection.kind === 'stop' ? { kind: 'stop', stop: selection.stop } : { kind: 'shift', shiftId: selection.shiftId };

/** All that is chosen on the rail, as far as it is still there; undefined when nothing is. */
export function railChoice(
  piece: Piece,
  selection: Selection | null,
  more: readonly RailItem[],
): RailChoice | undefined {
  const figure = selection && piece.figures[selection.figureId];
  if (!figure) return undefined;
  const chosen = [itemOf(selection), ...more];
  const items = railItems(figure, stopsOf(piece, figure).length).filter((item) =>
    chosen.some((other) => sameItem(item, other)),
  );
  if (items.length === 0) return undefined;
  return {
    figure,
    stops: items.flatMap((item) => (item.kind === 'stop' ? [item.stop] : [])),
    shifts: items.flatMap((item) => (item.kind === 'shift' ? [item.shiftId] : [])),
  };
}
