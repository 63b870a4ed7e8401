import type { Piece } from '@core';
import { drawnPiece } from './drawn-piece';

const LOBES = 12;

/** A seal with scalloped rim: arcs between points on a circle. */
function sealOutline(): string {
  const radius = 62;
  const bulge = 17.2;
  const point = (i: number): string => {
    const angle = (2 * Math.PI * i) / LOBES - Math.PI / 2;
    return `${(100 + radius * Math.cos(angle)).toFixed(2)} ${(100 + radius * Math.sin(angle)).toFixed(2)}`;
  };
  let d = `M${point(0)}`;
  for (let i = 1; i <= LOBES; i++) d += `A${bulge} ${bulge} 0 0 1 ${point(i)}`;
  return `${d}Z`;
}

/** A control: the ticket stub is pressed and becomes the boarded seal fast; released, it comes back at leisure. */
export function boardingButton(): Piece {
  return drawnPiece('demo-boarding-button', 'Boarding Button', 'Button', '#e9eef0', [
    {
      name: 'Ticket stub',
      hold: 1.1,
      leave: { duration: 0.24, easing: { kind: 'cubic-bezier', x1: 0.2, y1: 0.7, x2: 0.2, y2: 1 } },
      parts: [
        {
          name: 'Stub',
          fill: '#f2b134',
          d: 'M26 56L174 56C180 56 184 60 184 66L184 87C176 87 171 92.5 171 100C171 107.500 176 113 184 113L184 134C184 140 180 144 174 144L26 144C20 144 16 140 16 134L16 113C24 113 29 107.500 29 100C29 92.500 24 87 16 87L16 66C16 60 20 56 26 56Z',
        },
        { name: 'Arrow', fill: '#17324d', d: 'M58 93L108 93L108 77L142 100L108 123L108 107L58 107Z' },
      ],
    },
    {
      name: 'Boarded seal',
      hold: 1.1,
      leave: { duration: 0.45, easing: { kind: 'cubic-bezier', x1: 0.5, y1: 0, x2: 0.15, y2: 1 } },
      parts: [
        { name: 'Seal', fill: '#2c7a5a', d: sealOutline() },
        { name: 'Tick', fill: '#fdf8ec', d: 'M68 100L80 88L93 101L121 72L133 84L93 125Z' },
      ],
    },
  ]);
}
