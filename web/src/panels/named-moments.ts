import { type Figure, LIMITS, type Moment, type Piece, stopName, stopsOf } from '@core';

/** Values of the choices that are no stop: the beginning and the end of the piece. */
export const START = 'start';
export const END = 'end';
/** The end of a piece as a moment: later than any piece lasts, so it is drawn in to where it ends. */
export const LATEST = LIMITS.offset.max;

/** The moments of a piece that can be chosen by name: its beginning, the stops of a figure, its end. */
export function namedMoments(piece: Piece, figure: Figure | undefined) {
  const stops = figure ? stopsOf(piece, figure) : [];
  return {
    stops,
    options: [
      { value: START, label: 'The beginning' },
      ...stops.map((id, i) => ({ value: String(i), label: `${i + 1}: ${piece.poses[id].name}` })),
      { value: END, label: 'The end' },
    ],
    momentAt(value: string): Moment {
      if (value === START || !figure) return { at: null, after: 0 };
      if (value === END) return { at: null, after: LATEST };
      return { at: { figure: figure.id, stop: stopName(figure, stops, Number(value)) }, after: 0 };
    },
    nameOf({ at, after }: Moment): string {
      if (!at) return after >= LATEST ? END : START;
      const stop = stops.findIndex((pose, i) => {
        const name = figure && stopName(figure, stops, i);
        return pose === at.stop.pose && name?.shift === at.stop.shift;
      });
      return stop >= 0 ? String(stop) : START;
    },
  };
}
