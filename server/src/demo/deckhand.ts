import { addFreeKey, addLane, type Easing, type Piece, type PieceDraft, plainStroke } from '@core';
import { addDrawnFigure, countingIds, type DrawnPose, emptyDemo } from './drawn-piece';

const ID = 'demo-deckhand';
const [NAVY, SKIN, CAP, RED] = ['#17324d', '#e9b88f', '#2b5d86', '#b93a2b'];
const QUICK: Easing = { kind: 'cubic-bezier', x1: 0.5, y1: 0, x2: 0.3, y2: 1 };
const SOFT: Easing = { kind: 'cubic-bezier', x1: 0.45, y1: 0, x2: 0.2, y2: 1 };

const ellipse = (x: number, y: number, rx: number, ry: number): string =>
  `M${x - rx} ${y}a${rx} ${ry} 0 1 1 ${2 * rx} 0a${rx} ${ry} 0 1 1 ${-2 * rx} 0Z`;
/** An eye as lids leave it: from corner to corner, above and below. */
const eye = (x: number, above: number, below: number): string =>
  `M${x - 46} 300C${x - 30} ${300 - above} ${x + 30} ${300 - above} ${x + 46} 300C${x + 30} ${300 + below} ${x - 30} ${300 + below} ${x - 46} 300Z`;

const LID = { ...plainStroke(NAVY, 5), cap: 'round', join: 'round' } as const;
const EYES = { left: 250, right: 390 } as const;

/** What a still figure needs: one pose that stands as long as the piece. */
const still = (name: string, parts: DrawnPose['parts']): DrawnPose[] => [{ name, hold: LENGTH, parts }];
const LENGTH = 4.2;

/** A deckhand: it blinks, glances on an arc (the pupils are seen inside the eyes alone, the second follows the first) and calls. */
export function deckhand(): Piece {
  const newId = countingIds(ID);
  const draft = emptyDemo(ID, 'Deckhand', { background: '#dfe9e6' });
  const add = (name: string, poses: readonly DrawnPose[], closed = false): string =>
    addDrawnFigure(draft, name, poses, newId, { inPx: true, closed });
  add(
    'Head',
    still('Head', [
      { name: 'Shirt', fill: NAVY, d: 'M150 640C160 560 240 520 320 520C400 520 480 560 490 640Z' },
      { name: 'Neck', fill: '#d8a27a', d: 'M262 470H378V540C360 570 280 570 262 540Z' },
      { name: 'Scarf', fill: RED, d: 'M232 528C280 560 360 560 408 528L420 566C370 600 270 600 220 566Z' },
      {
        name: 'Face',
        fill: SKIN,
        d: 'M320 150C430 150 490 230 484 330C478 430 410 500 320 500C230 500 162 430 156 330C150 230 210 150 320 150Z',
      },
      { name: 'Ears', fill: '#d8a27a', d: `${ellipse(152, 330, 22, 34)}${ellipse(488, 330, 22, 34)}` },
    ]),
  );
  for (const [side, x] of Object.entries(EYES)) {
    const name = side === 'left' ? 'left' : 'right';
    const open = { name: 'Open', parts: [{ name: 'White', fill: '#fdfaf2', stroke: LID, d: eye(x, 58, 46) }] };
    const shut = { name: 'Shut', parts: [{ name: 'White', fill: '#fdfaf2', stroke: LID, d: eye(x, -14, 15) }] };
    const white = add(`Eye ${name}`, [
      { ...open, hold: 0.7, leave: { duration: 0.09, easing: QUICK } },
      { ...shut, hold: 0.05, leave: { duration: 0.14, easing: QUICK } },
      { ...open, hold: 2.1, leave: { duration: 0.09, easing: QUICK } },
      { ...shut, hold: 0.05, leave: { duration: 0.14, easing: QUICK } },
      { ...open, hold: 0.84 },
    ]);
    const pupil = add(
      `Pupil ${name}`,
      still('Pupil', [
        { name: 'Iris', fill: '#2f6f63', d: ellipse(x, 300, 26, 26) },
        { name: 'Pupil', fill: '#14231f', d: ellipse(x, 300, 13, 13) },
        { name: 'Light', fill: '#ffffff', d: ellipse(x + 8, 290, 6, 6) },
      ]),
    );
    draft.figures[pupil].clip = white;
    if (name === 'left') glance(draft, pupil, newId);
    else follow(draft, pupil, newId);
  }
  add('Mouth', mouth(), true);
  add(
    'Cap',
    still('Cap', [
      { name: 'Crown', fill: CAP, d: 'M150 216C150 110 240 62 320 62C400 62 490 110 490 216Z' },
      { name: 'Band', fill: NAVY, d: 'M140 206C220 176 420 176 500 206L500 244C420 212 220 212 140 244Z' },
      { name: 'Badge', fill: '#eeb03a', d: ellipse(320, 150, 30, 30) },
    ]),
  );
  const brows = add(
    'Brows',
    still('Brows', [
      { name: 'Left', stroke: { ...plainStroke(NAVY, 12), cap: 'round' }, d: 'M208 246C230 230 268 230 290 244' },
      { name: 'Right', stroke: { ...plainStroke(NAVY, 12), cap: 'round' }, d: 'M350 244C372 230 410 230 432 246' },
    ]),
  );
  const raised = addLane(draft, brows, 'position', newId) ?? '';
  draft.lanes[raised].keys = [];
  for (const [seconds, y] of [
    [1, 0],
    [1.3, -16],
    [2.2, -16],
    [2.5, 0],
  ])
    addFreeKey(draft, raised, seconds, [0, y], newId);
  return draft as Piece;
}

/** The look goes to the left, over an arc to the right, and back: a straight move would look like a machine's. */
function glance(draft: PieceDraft, pupil: string, newId: ReturnType<typeof countingIds>): void {
  const lane = addLane(draft, pupil, 'position', newId) ?? '';
  draft.lanes[lane].keys = [];
  const ways: readonly [
    seconds: number,
    x: number,
    y: number,
    into: readonly [number, number] | null,
    out: readonly [number, number] | null,
  ][] = [
    [1, 0, 0, null, [-6, -6]],
    [1.3, -20, 4, [6, -10], null],
    [1.7, -20, 4, null, [4, -26]],
    [2.2, 20, 2, [-4, -26], null],
    [2.8, 20, 2, null, [-8, 8]],
    [3.1, 0, 0, [8, 8], null],
  ];
  for (const [seconds, x, y, into, out] of ways) {
    addFreeKey(draft, lane, seconds, [x, y], newId);
    const key = draft.lanes[lane].keys[draft.lanes[lane].keys.length - 1];
    key.easing = { ...SOFT } as typeof key.easing;
    key.path = { ...(into && { in: [...into] }), ...(out && { out: [...out] }) };
  }
}

/** The other pupil looks where the first one looks. */
function follow(draft: PieceDraft, pupil: string, newId: ReturnType<typeof countingIds>): void {
  const lane = addLane(draft, pupil, 'position', newId) ?? '';
  const first = Object.values(draft.figures).find(({ name }) => name === 'Pupil left');
  draft.lanes[lane].keys = [];
  draft.lanes[lane].follow = {
    figure: first?.id ?? '',
    property: 'position',
    axis: null,
    factor: 1,
    offset: 0,
    delay: 0,
    colour: 'same',
  };
}

/** Rest, “oh”, “ee”, and rest: lips and the dark between them. */
function mouth(): DrawnPose[] {
  const lips = (d: string, inside: string): DrawnPose['parts'] => [
    { name: 'Lips', fill: '#a5483c', d },
    { name: 'Inside', fill: '#3f1512', d: inside },
  ];
  const leave = { duration: 0.22, easing: SOFT };
  return [
    {
      name: 'Rest',
      hold: 1.9,
      leave,
      parts: lips(
        'M250 412C280 428 360 428 390 412C372 446 268 446 250 412Z',
        'M270 421C300 429 340 429 370 421C340 432 300 432 270 421Z',
      ),
    },
    { name: 'Oh', hold: 0.28, leave, parts: lips(ellipse(320, 425, 38, 42), ellipse(320, 426, 22, 27)) },
    {
      name: 'Ee',
      hold: 0.34,
      leave,
      parts: lips(
        'M240 408C290 402 350 402 400 408C392 452 248 452 240 408Z',
        'M258 415C300 411 340 411 382 415C372 438 268 438 258 415Z',
      ),
    },
    {
      name: 'Oh again',
      hold: 0.2,
      leave: { duration: 0.3, easing: SOFT },
      parts: lips(ellipse(320, 425, 30, 34), ellipse(320, 426, 16, 20)),
    },
  ];
}
