import {
  AS_DRAWN,
  addLane,
  type Easing,
  fixMiddle,
  insertPoses,
  layoutText,
  newPose,
  type Piece,
  type PieceDraft,
  plainStroke,
  setClosedRail,
  setLaneAtStop,
  setText,
  type TextRecord,
} from '@core';
import { addDrawnFigure, countingIds, type DrawnPart, emptyDemo } from './drawn-piece';
import { shippedFont } from './shipped-font';

const ID = 'demo-deck-crew';
const [NAVY, TEAL, AMBER, RED, PAPER] = ['#17324d', '#1c7c8c', '#eeb03a', '#c2452d', '#fff6d8'];
const THERE: Easing = { kind: 'back', side: 'out', overshoot: 1.4 };
const BACK: Easing = { kind: 'cubic-bezier', x1: 0.6, y1: 0, x2: 0.2, y2: 1 };
const HOLDS = { signs: 1, word: 1.6 } as const;
const SHIFT = { there: 0.9, back: 0.8 } as const;
const [BASELINE, SIZE] = [300, 190];
/** How much later each of the crew sets off than the one before, s. */
const LATE = 0.12;

const ellipse = (x: number, y: number, rx: number, ry = rx): string =>
  `M${x - rx} ${y}a${rx} ${ry} 0 1 1 ${2 * rx} 0a${rx} ${ry} 0 1 1 ${-2 * rx} 0Z`;

/** The crew: what each is at first, which letters it becomes, and where these stand. */
const CREW: readonly {
  readonly name: string;
  readonly parts: readonly DrawnPart[];
  readonly letters: string;
  readonly x: number;
  readonly fill: string;
  readonly turn: number;
}[] = [
  {
    name: 'Buoy',
    letters: 'F',
    x: 162,
    fill: RED,
    turn: -360,
    parts: [
      { name: 'Float', fill: RED, d: 'M70 268C92 250 168 250 190 268L178 318C150 332 110 332 82 318Z' },
      { name: 'Tower', fill: PAPER, d: 'M108 150H152L166 254C144 248 116 248 94 254Z' },
      { name: 'Stripe', fill: RED, d: 'M104 186H156L161 220C142 216 118 216 99 220Z' },
      { name: 'Lamp', fill: AMBER, d: ellipse(130, 132, 18) },
    ],
  },
  {
    name: 'Signal flag',
    letters: 'E',
    x: 300,
    fill: AMBER,
    turn: 360,
    parts: [
      { name: 'Mast', fill: NAVY, d: 'M262 120H274V330H262Z' },
      { name: 'Cloth', fill: AMBER, d: 'M274 128C306 116 342 140 382 128V226C342 238 306 214 274 226Z' },
      { name: 'Mark', fill: NAVY, d: ellipse(328, 177, 24) },
    ],
  },
  {
    name: 'Wheel',
    letters: 'RR',
    x: 516,
    fill: TEAL,
    turn: 360,
    parts: [
      { name: 'Rim', fill: TEAL, d: `${ellipse(516, 226, 92)}M516 164a62 62 0 1 0 0 124a62 62 0 1 0 0 -124Z` },
      { name: 'Spokes', fill: NAVY, d: 'M508 110H524V218H632V234H524V342H508V234H400V218H508Z' },
      { name: 'Hub', fill: AMBER, d: ellipse(516, 226, 24) },
    ],
  },
  {
    name: 'Gull',
    letters: 'Y',
    x: 736,
    fill: NAVY,
    turn: -360,
    parts: [
      {
        name: 'Wings',
        fill: NAVY,
        d: 'M628 196C664 150 706 160 736 206C766 160 808 150 844 196C806 184 770 196 750 236H722C702 196 666 184 628 196Z',
      },
      { name: 'Body', fill: PAPER, d: ellipse(736, 250, 34, 44) },
      { name: 'Beak', fill: AMBER, d: 'M720 286H752L736 316Z' },
    ],
  },
];

/** Four many-coloured signs turn into the word FERRY, one after another, a wake is drawn under it, and all go back. */
export function deckCrew(): Piece {
  const newId = countingIds(ID);
  const draft = emptyDemo(ID, 'Deck Crew', { width: 900, height: 420, background: '#e9efe9' });
  const font = shippedFont();
  CREW.forEach(({ name, parts, letters, x, fill, turn }, i) => {
    const late = i * LATE;
    const sign = { name, hold: HOLDS.signs + late, parts };
    const figure = addDrawnFigure(draft, name, [sign], newId, { inPx: true });
    const pose = { ...newPose(newId('q'), letters, []), placement: AS_DRAWN, hold: HOLDS.word - late };
    insertPoses(draft, figure, [{ pose, parts: [] }], newId);
    const text: TextRecord = {
      id: newId('t'),
      content: letters,
      font: 'archivo-black',
      size: SIZE,
      tracking: 0,
      kerning: true,
      lineSpacing: 1.2,
      align: 'middle',
      x,
      y: BASELINE,
    };
    setText(draft, pose.id, text, layoutText(font, text).glyphs, { fill, stroke: null }, newId);
    setClosedRail(draft, figure, true, newId);
    const [there, back] = draft.figures[figure].rail.map((id) => draft.shifts[id]);
    Object.assign(there, { duration: SHIFT.there, easing: { ...THERE } });
    Object.assign(back, { duration: SHIFT.back, easing: { ...BACK } });
    fixMiddle(draft, figure);
    setLaneAtStop(draft, figure, 'turn', 1, [turn], newId);
  });
  wake(draft, newId);
  return draft as Piece;
}

/** A line under the word that is drawn when the last letter has come. */
function wake(draft: PieceDraft, newId: ReturnType<typeof countingIds>): void {
  const d = 'M96 352C150 332 190 372 244 352S344 332 398 352S498 372 552 352S652 332 706 352S770 366 806 352';
  const line = (name: string, hold: number) => ({
    name,
    hold,
    parts: [{ name: 'Wake', d, stroke: { ...plainStroke(TEAL, 12), cap: 'round' as const } }],
  });
  const late = (CREW.length - 1) * LATE;
  const figure = addDrawnFigure(
    draft,
    'Wake',
    [line('Hidden', HOLDS.signs + late), line('Drawn', HOLDS.word - late)],
    newId,
    { inPx: true, closed: true },
  );
  const [there, back] = draft.figures[figure].rail.map((id) => draft.shifts[id]);
  Object.assign(there, { duration: SHIFT.there, easing: { ...BACK } });
  Object.assign(back, { duration: SHIFT.back, easing: { ...BACK } });
  addLane(draft, figure, 'drawn', newId);
  setLaneAtStop(draft, figure, 'drawn', 0, [0, 0, 0], newId);
}
