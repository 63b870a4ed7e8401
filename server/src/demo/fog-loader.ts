import { addFreeKey, addLane, type Easing, fixMiddle, type Piece, setAppearance, setLaneAtStop } from '@core';
import { addDrawnFigure, countingIds, type DrawnPose, emptyDemo } from './drawn-piece';

const ID = 'demo-fog-loader';
const MIDDLE = 240;
const GLIDE: Easing = { kind: 'cubic-bezier', x1: 0.6, y1: 0, x2: 0.2, y2: 1 };
const SPRING: Easing = { kind: 'spring', bounce: 0.45 };
/** Fog that lifts: from grey to the teal of the ferries. */
const FOG = ['#8fa3ad', '#6f97a3', '#478996', '#1c7c8c'] as const;
const SIDES = [3, 4, 5, 6] as const;
const RADIUS = 92;

/** A polygon with rounded corners, a corner at the top, about the middle of the canvas. */
function roundedPolygon(sides: number, radius: number, rounding: number): string {
  const corner = (i: number): readonly [number, number] => {
    const angle = -Math.PI / 2 + (2 * Math.PI * i) / sides;
    return [MIDDLE + radius * Math.cos(angle), MIDDLE + radius * Math.sin(angle)];
  };
  const between = (p: readonly [number, number], q: readonly [number, number], share: number): string =>
    `${(p[0] + (q[0] - p[0]) * share).toFixed(2)} ${(p[1] + (q[1] - p[1]) * share).toFixed(2)}`;
  let d = '';
  for (let i = 0; i < sides; i++) {
    const [before, at, after] = [corner(i - 1), corner(i), corner(i + 1)];
    d += `${i === 0 ? 'M' : 'L'}${between(at, before, rounding)}Q${between(at, at, 0)} ${between(at, after, rounding)}`;
  }
  return `${d}Z`;
}

const disc = (radius: number): string => {
  const [left, width] = [MIDDLE - radius, 2 * radius];
  return `M${left} ${MIDDLE}a${radius} ${radius} 0 1 1 ${width} 0a${radius} ${radius} 0 1 1 ${-width} 0Z`;
};

/** When the dots part, how far from each other, and the beat to which they then go. */
const PART = { seconds: 0.5, apart: 92, scale: 0.42 } as const;
const PULSE = { period: 0.9, apart: 0.15 } as const;

/** A loader: polygons of ever more sides turn into a disc, which parts into three dots; these go on one after another for as long as it takes. */
export function fogLoader(): Piece {
  const newId = countingIds(ID);
  const draft = emptyDemo(ID, 'Fog Loader', { width: 480, height: 480, background: '#f2f0ea' });
  const poses: DrawnPose[] = SIDES.map((sides, i) => ({
    name: `${sides} sides`,
    hold: 0.12,
    leave: { duration: 0.5, easing: GLIDE },
    parts: [{ name: 'Fog', fill: FOG[i], d: roundedPolygon(sides, RADIUS + 26 - 5 * sides, 0.32) }],
  }));
  poses.push({ name: 'Disc', hold: 0.12, parts: [{ name: 'Fog', fill: FOG[3], d: disc(RADIUS) }] });
  const fog = addDrawnFigure(draft, 'Fog', poses, newId, { inPx: true });
  fixMiddle(draft, fog);
  SIDES.forEach((_, i) => {
    setLaneAtStop(draft, fog, 'turn', i, [90 * i], newId);
  });
  setLaneAtStop(draft, fog, 'turn', SIDES.length, [360], newId);
  setAppearance(draft, fog, 'disappears', 'once', 0, newId);
  const parted = poses.reduce((sum, { hold, leave }) => sum + hold + (leave?.duration ?? 0), 0);
  [-1, 0, 1].forEach((side, i) => {
    const pose: DrawnPose = {
      name: 'Dot',
      hold: PART.seconds + 3 * PULSE.period,
      parts: [{ name: 'Dot', fill: FOG[3], d: disc(RADIUS) }],
    };
    const dot = addDrawnFigure(draft, `Dot ${i + 1}`, [pose], newId, { inPx: true });
    draft.figures[dot].start = parted;
    setAppearance(draft, dot, 'appears', 'once', 0, newId);
    fixMiddle(draft, dot);
    const move = (property: 'position' | 'scale', from: readonly number[], to: readonly number[]): void => {
      const lane = addLane(draft, dot, property, newId) ?? '';
      draft.lanes[lane].keys = [];
      addFreeKey(draft, lane, parted, from, newId);
      addFreeKey(draft, lane, parted + PART.seconds, to, newId);
      draft.lanes[lane].keys[0].easing = { ...SPRING } as (typeof draft.lanes)[string]['keys'][number]['easing'];
    };
    move('scale', [1, 1], [PART.scale, PART.scale]);
    move('position', [0, 0], [side * PART.apart, 0]);
    const lane = Object.values(draft.lanes).find(({ figure, property }) => figure === dot && property === 'position');
    if (lane)
      lane.pulse = {
        shape: 'beat',
        period: PULSE.period,
        from: Math.round((parted + PART.seconds + i * PULSE.apart) * 1e6) / 1e6,
        until: null,
        amount: [0, -34],
      };
  });
  draft.playback = 'stretch';
  const begins = parted + PART.seconds + PULSE.period;
  draft.stretch = {
    from: { at: null, after: Math.round(begins * 1e6) / 1e6 },
    until: { at: null, after: Math.round((begins + PULSE.period) * 1e6) / 1e6 },
  };
  return draft as Piece;
}
