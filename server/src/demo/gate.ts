import type { Piece } from '@core';
import { drawnPiece } from './drawn-piece';

const SIGN = 'M100 24A76 76 0 1 1 100 176A76 76 0 1 1 100 24Z';
const bar = (left: number): string =>
  `M${left + 12} 28H${left + 24}A12 12 0 0 1 ${left + 36} 40V160A12 12 0 0 1 ${left + 24} 172H${left + 12}A12 12 0 0 1 ${left} 160V40A12 12 0 0 1 ${left + 12} 28Z`;

/** The gate to the pier: one round sign parts into two bars and closes again. Where it is cut shows no seam. */
export function gate(): Piece {
  return drawnPiece('demo-gate', 'Gate', 'Gate', '#f4efe4', [
    {
      name: 'Closed',
      hold: 1,
      leave: { duration: 0.7, easing: { kind: 'cubic-bezier', x1: 0.5, y1: 0, x2: 0.15, y2: 1 } },
      parts: [{ name: 'Sign', fill: '#c2452d', d: SIGN }],
    },
    {
      name: 'Open',
      hold: 1,
      leave: { duration: 0.7, easing: { kind: 'cubic-bezier', x1: 0.5, y1: 0, x2: 0.15, y2: 1 } },
      parts: [{ name: 'Bars', fill: '#17324d', d: `${bar(16)}${bar(148)}` }],
    },
  ]);
}
