import type { FigureSpan, PartLanes } from '../frame';
import { type GradientPlace, Lane, type PaintLanes, STROKE_PROPERTIES, type StrokeProperty } from '../lane';

/** Spans that one set of elements can show: a part of the first goes on as the part in its place in the next, with the same points. */
export interface SpanChain {
  readonly start: number;
  readonly end: number;
  /** When the last ramp ends. */
  readonly rampEnd: number;
  readonly parts: readonly PartLanes[];
}

/** Points nearer than this are one, px. */
const SAME_POINT_PX = 2e-3;

/**
 * Puts neighbouring spans together where every part keeps its points and the structure of its paint from one to the next, as copies of one
 * pose do. One element then shows them all, and no pose is written twice as often as needed.
 */
export function spanChains(spans: readonly FigureSpan[]): SpanChain[] {
  const chains: FigureSpan[][] = [];
  for (const span of spans) {
    const chain = chains[chains.length - 1];
    if (chain && goesOn(chain[chain.length - 1], span)) chain.push(span);
    else chains.push([span]);
  }
  return chains.map((chain) => {
    const last = chain[chain.length - 1];
    return {
      start: chain[0].start,
      end: last.end,
      rampEnd: last.time.end,
      parts: chain[0].parts.map((part, i) =>
        chain.length === 1 ? part : joinParts(chain.map(({ parts }) => parts[i])),
      ),
    };
  });
}

const goesOn = (p: FigureSpan, q: FigureSpan): boolean =>
  p.parts.length === q.parts.length && p.parts.every((part, i) => continues(part, q.parts[i]));

function continues(p: PartLanes, q: PartLanes): boolean {
  if (p.plan.fillRule !== q.plan.fillRule || p.plan.contours.length !== q.plan.contours.length) return false;
  const alike = p.plan.contours.every((contour, c) => {
    const other = q.plan.contours[c];
    const plain = [contour, other].every(
      ({ role, bridgesA, bridgesB }) => role === 'pair' && bridgesA.length + bridgesB.length === 0,
    );
    return plain && contour.segments === other.segments && contour.closed === other.closed;
  });
  return (
    alike &&
    p.plan.to.every((v, i) => Math.abs(v - q.plan.from[i]) <= SAME_POINT_PX) &&
    samePaint(p.fill, q.fill) &&
    samePaint(p.stroke?.paint ?? null, q.stroke?.paint ?? null) &&
    p.stroke?.properties.dash.size === q.stroke?.properties.dash.size
  );
}

function samePaint(p: PaintLanes | null, q: PaintLanes | null): boolean {
  if (!p || !q) return p === q;
  if (p.kind === 'colour' || q.kind === 'colour') return p.kind === q.kind;
  return (
    p.places.length === 1 &&
    q.places.length === 1 &&
    p.places[0].kind === q.places[0].kind &&
    p.offsets.length === q.offsets.length
  );
}

const joinLanes = (lanes: readonly Lane[]): Lane => new Lane(lanes.flatMap(({ ramps }) => ramps));

function joinParts(parts: readonly PartLanes[]): PartLanes {
  const [first] = parts;
  const strokes = parts.flatMap(({ stroke }) => stroke ?? []);
  const property = (id: StrokeProperty): Lane => joinLanes(strokes.map(({ properties }) => properties[id]));
  return {
    ...first,
    outline: joinLanes(parts.map(({ outline }) => outline)),
    fill: first.fill && joinPaints(parts.flatMap(({ fill }) => fill ?? [])),
    stroke: first.stroke && {
      paint: joinPaints(strokes.map(({ paint }) => paint)),
      properties: Object.fromEntries(STROKE_PROPERTIES.map((id) => [id, property(id)])) as Record<StrokeProperty, Lane>,
    },
  };
}

function joinPaints(paints: readonly PaintLanes[]): PaintLanes {
  const [first] = paints;
  if (first.kind === 'colour')
    return {
      kind: 'colour',
      colour: joinLanes(paints.flatMap((paint) => (paint.kind === 'colour' ? paint.colour : []))),
    };
  const all = paints.flatMap((paint) => (paint.kind === 'gradient' ? paint : []));
  return {
    kind: 'gradient',
    places: [joinPlaces(all.map(({ places }) => places[0]))],
    place: joinLanes(all.map(({ place }) => place)),
    offsets: first.offsets.map((_, i) => joinLanes(all.map(({ offsets }) => offsets[i]))),
    colours: first.colours.map((_, i) => joinLanes(all.map(({ colours }) => colours[i]))),
  };
}

function joinPlaces(places: readonly GradientPlace[]): GradientPlace {
  if (places[0].kind === 'linear')
    return { kind: 'linear', line: joinLanes(places.flatMap((place) => (place.kind === 'linear' ? place.line : []))) };
  const radial = places.flatMap((place) => (place.kind === 'radial' ? place : []));
  return {
    kind: 'radial',
    ellipse: joinLanes(radial.map(({ ellipse }) => ellipse)),
    focus: joinLanes(radial.map(({ focus }) => focus)),
  };
}
