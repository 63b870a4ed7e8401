import { type Match, matchOutlines, pairOptimally, type Reason } from '../match';
import { type Health, measureHealth, planShift, type ShiftPlan, VERDICTS } from '../morph';
import { areaCentre, type Outline, outlineBox, outlineSize, transformOutline } from '../outline';
import { type BlendSpace, type ColourBlend, planColourBlend, type Rgba, readColour } from '../paint';
import { outlineOfPart, type Part, placementMatrix } from '../piece';
import { boxSize } from '../vec';
import type { PoseInput, ShiftInput } from './shift-input';

/** How a part is stroked along a shift; widths in canvas px. */
export interface StrokePlan {
  readonly colour: ColourBlend;
  readonly widths: readonly [from: number, to: number];
  readonly caps: readonly [from: CanvasLineCap, to: CanvasLineCap];
  readonly joins: readonly [from: CanvasLineJoin, to: CanvasLineJoin];
}
type CanvasLineCap = 'butt' | 'round' | 'square';
type CanvasLineJoin = 'miter' | 'round' | 'bevel';

/** One drawn part of a shift. */
export interface PartPlan {
  readonly plan: ShiftPlan;
  readonly fill: ColourBlend | null;
  readonly stroke: StrokePlan | null;
}

/** The change from one pose to another: its parts in painting order, what was decided and how healthy it is. */
export interface PoseShiftPlan {
  readonly parts: readonly PartPlan[];
  readonly reasons: readonly Reason[];
  readonly health: Health;
}

interface PlacedPart {
  readonly part: Part;
  readonly outline: Outline;
  readonly scale: number;
}

/** Plans a shift between two poses: pairs their parts, matches their outlines, blends their paint. The heavy call of the program. */
export function planPoseShift(input: ShiftInput): PoseShiftPlan {
  const from = placedParts(input.from);
  const to = placedParts(input.to);
  const pairs = pairParts(from, to);
  const drawn: { order: number; plan: PartPlan; health: Health; reasons: readonly Reason[] }[] = [];
  const order = (i: number, n: number): number => (i + 0.5) / n;
  const add = (a: PlacedPart | undefined, b: PlacedPart | undefined, at: number): void => {
    const outlineA = a?.outline ?? { contours: [], fillRule: 'nonzero' };
    const outlineB = b?.outline ?? { contours: [], fillRule: 'nonzero' };
    const match = a && b ? matchOutlines(outlineA, outlineB, input.match) : unpaired(outlineA, outlineB);
    const plan = planShift(outlineA, outlineB, match, input.method);
    drawn.push({
      order: at,
      plan: paintedPlan(plan, a, b, input.blend),
      health: measureHealth(plan),
      reasons: match.reasons,
    });
  };
  for (const [i, j] of pairs) add(from[i], to[j], (order(i, from.length) + order(j, to.length)) / 2);
  from.forEach((part, i) => {
    if (!pairs.some(([a]) => a === i)) add(part, undefined, order(i, from.length));
  });
  to.forEach((part, j) => {
    if (!pairs.some(([, b]) => b === j)) add(undefined, part, order(j, to.length));
  });
  drawn.sort((p, q) => p.order - q.order);
  const texts = new Set<string>();
  return {
    parts: drawn.map(({ plan }) => plan),
    reasons: drawn.flatMap(({ reasons }) => reasons).filter(({ text }) => !texts.has(text) && texts.add(text)),
    health: worstHealth(drawn.map(({ health }) => health)),
  };
}

/** A pose standing still, as a plan whose both ends are the same. */
export function planStill(pose: PoseInput): PoseShiftPlan {
  const parts = placedParts(pose).map((placed) => {
    const contours = placed.outline.contours;
    const identity: Match = {
      pairs: [],
      births: [],
      deaths: contours.map((_, i) => i),
      reasons: [],
    };
    const still = planShift(placed.outline, { contours: [], fillRule: placed.outline.fillRule }, identity);
    const plan: ShiftPlan = {
      ...still,
      to: still.from,
      contours: still.contours.map((contour) => ({ ...contour, role: 'pair' })),
    };
    return paintedPlan(plan, placed, placed, 'oklab');
  });
  return { parts, reasons: [], health: worstHealth([]) };
}

function placedParts(pose: PoseInput): PlacedPart[] {
  const matrix = placementMatrix(pose.placement);
  return pose.parts.map((part) => ({
    part,
    outline: transformOutline(outlineOfPart(part), matrix),
    scale: pose.placement.scale,
  }));
}

const unpaired = (a: Outline, b: Outline): Match => ({
  pairs: [],
  deaths: a.contours.map((_, i) => i),
  births: b.contours.map((_, i) => i),
  reasons: [],
});

/** Which part becomes which: optimal assignment on distance, size and colour; parts on their own grow or shrink. */
function pairParts(from: readonly PlacedPart[], to: readonly PlacedPart[]): [number, number][] {
  if (from.length === 1 && to.length === 1) return [[0, 0]];
  const size = Math.max(1e-9, ...[...from, ...to].map(({ outline }) => outlineSize(outline)));
  const measure = ({ outline, part }: PlacedPart) => {
    const centre = areaCentre(outline);
    const longest = boxSize(outlineBox(outline)) / size;
    return {
      x: centre.x / size,
      y: centre.y / size,
      weight: Math.max(1e-3, longest),
      colour: readColour(part.fill ?? part.stroke?.colour ?? ''),
    };
  };
  const a = from.map(measure);
  const b = to.map(measure);
  const apart = (p: Rgba | undefined, q: Rgba | undefined): number =>
    p && q ? Math.hypot(p.r - q.r, p.g - q.g, p.b - q.b) : p === q ? 0 : 1;
  return pairOptimally(
    a.length,
    b.length,
    (i, j) =>
      Math.hypot(a[i].x - b[j].x, a[i].y - b[j].y) / 0.5 +
      0.7 * Math.abs(Math.log(a[i].weight / b[j].weight)) +
      0.6 * apart(a[i].colour, b[j].colour),
    (i) => 1.2 * (0.3 + a[i].weight),
    (j) => 1.2 * (0.3 + b[j].weight),
  );
}

const CLEAR: Rgba = { r: 0, g: 0, b: 0, alpha: 0 };

function paintedPlan(
  plan: ShiftPlan,
  a: PlacedPart | undefined,
  b: PlacedPart | undefined,
  space: BlendSpace,
): PartPlan {
  const colours = (pick: (part: Part) => string | null | undefined): [Rgba, Rgba] | null => {
    const first = a && readColour(pick(a.part) ?? '');
    const second = b && readColour(pick(b.part) ?? '');
    if (!first && !second) return null;
    // A paint that one side lacks fades in its own colour; a part on its own keeps its paint.
    const lacking = (other: Rgba, exists: boolean): Rgba => (exists ? { ...other, alpha: 0 } : other);
    return [first ?? lacking(second ?? CLEAR, a !== undefined), second ?? lacking(first ?? CLEAR, b !== undefined)];
  };
  const fill = colours((part) => part.fill);
  const stroke = colours((part) => part.stroke?.colour);
  const strokeA = a?.part.stroke ?? b?.part.stroke;
  const strokeB = b?.part.stroke ?? a?.part.stroke;
  const width = (side: PlacedPart | undefined, other: PlacedPart | undefined): number =>
    side ? (side.part.stroke?.width ?? 0) * side.scale : (other?.part.stroke?.width ?? 0) * (other?.scale ?? 1);
  return {
    plan,
    fill: fill && planColourBlend(fill[0], fill[1], space),
    stroke:
      stroke && strokeA && strokeB
        ? {
            colour: planColourBlend(stroke[0], stroke[1], space),
            widths: [width(a, b), width(b, a)],
            caps: [strokeA.cap, strokeB.cap],
            joins: [strokeA.join, strokeB.join],
          }
        : null,
  };
}

const HEALTHY: Health = {
  verdict: 'good',
  sentence: 'Nothing changes shape.',
  folds: 0,
  crossings: 0,
  areaDip: 1,
  swell: 1,
  perimeter: 1,
};

function worstHealth(all: readonly Health[]): Health {
  return all.reduce<Health>(
    (worst, health, i) =>
      i === 0 || VERDICTS.indexOf(health.verdict) > VERDICTS.indexOf(worst.verdict) ? health : worst,
    HEALTHY,
  );
}
