import { DEFAULT_EASING, type Piece } from '@core';
import { drawnPiece } from './drawn-piece';

const NAVY = '#17324d';

/** The logo of Lantern Quay Ferries: wave, sail, lantern, and back; held and looping. */
export function quayMark(): Piece {
  const leave = { duration: 0.8, easing: DEFAULT_EASING };
  return drawnPiece('demo-quay-mark', 'Quay Mark', 'Mark', '#f6efe2', [
    {
      name: 'Wave',
      hold: 0.9,
      leave,
      parts: [
        {
          name: 'Crest',
          fill: '#1c7c8c',
          d: 'M14 146C22 84 62 34 118 34C156 34 182 56 186 92C174 78 154 74 142 84C126 98 136 126 170 146Z',
        },
        {
          name: 'Swell',
          fill: NAVY,
          d: 'M14 158C40 146 64 146 90 158C116 170 142 170 186 154L186 172C142 188 116 188 90 176C64 164 40 164 14 176Z',
        },
      ],
    },
    {
      name: 'Sail',
      hold: 0.9,
      leave,
      parts: [
        { name: 'Canvas', fill: '#eeb03a', d: 'M88 16C130 48 158 92 166 144L38 144C64 108 82 66 88 16Z' },
        { name: 'Hull', fill: NAVY, d: 'M22 152L178 152C174 172 158 184 136 184L64 184C42 184 26 172 22 152Z' },
      ],
    },
    {
      name: 'Lantern',
      hold: 1.2,
      leave: { duration: 1, easing: DEFAULT_EASING },
      parts: [
        { name: 'Glass', fill: '#e58a2f', d: 'M70 62L130 62C142 86 147 118 140 148L60 148C53 118 58 86 70 62Z' },
        { name: 'Foot', fill: NAVY, d: 'M56 156L144 156L154 174C157 180 154 184 148 184L52 184C46 184 43 180 46 174Z' },
        { name: 'Cap', fill: NAVY, d: 'M62 54L138 54L124 38C118 30 110 26 100 26C90 26 82 30 76 38Z' },
        {
          name: 'Flame',
          fill: '#fff6d8',
          d: 'M101 78C116 98 122 110 116 124C110 136 90 136 84 124C80 114 86 108 92 100C97 93 100 87 101 78Z',
        },
      ],
    },
  ]);
}
