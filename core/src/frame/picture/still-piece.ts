import {
  type Blend,
  type Lane,
  levelLane,
  OVER_IDS,
  type PaintLanes,
  RampTime,
  STROKE_PROPERTIES,
  TRANSFORM_IDS,
  type TransformId,
} from '../../lane';
import type { PlanContour, ShiftPlan } from '../../morph';
import type {
  CompiledFigure,
  CompiledPiece,
  MotionLanes,
  MotionSample,
  OverLanes,
  PaintSample,
  PartLanes,
} from '../lanes';
import { type FrameFigure, type FramePart, isVanished, prepareFrame, type StrokeSample, sampleFrame } from './sample';

const STANDING = new RampTime(0, 0, { kind: 'linear' });

/** A value that is what it is. */
function level(values: ArrayLike<number>): Lane {
  const kept = Float64Array.from(values);
  const blend: Blend = {
    size: kept.length,
    breaks: [],
    jumps: false,
    still: true,
    write: (_progress, out, at) => out.set(kept, at),
  };
  return levelLane(blend);
}

/**
 * A piece that stands still as another looks at a time in s: the same figures, in exactly the numbers of that frame, without duration. What writes pieces
 * writes still pictures by it.
 */
export function stillPiece(compiled: CompiledPiece, seconds: number): CompiledPiece {
  const frame = sampleFrame(compiled, seconds, prepareFrame(compiled));
  return {
    ...compiled,
    ground: frame.ground && level(frame.ground),
    duration: 0,
    playback: 'once',
    stretch: [0, 0],
    poster: 0,
    figures: compiled.figures.map((figure, i) => stillFigure(figure, frame.figures[i])),
  };
}

function stillFigure(figure: CompiledFigure, { parts, motion, opacity, over }: FrameFigure): CompiledFigure {
  const lanes = parts.flatMap((part) => stillPart(part) ?? []);
  return {
    ...figure,
    from: 0,
    until: Number.POSITIVE_INFINITY,
    opacity: level(opacity),
    motion: motion && stillMotion(motion),
    over: over && stillOver(over),
    spans: [{ start: 0, end: 0, time: STANDING, parts: lanes, layOut: () => true }],
  };
}

function stillOver(over: NonNullable<FrameFigure['over']>): OverLanes {
  return Object.fromEntries(
    OVER_IDS.flatMap((id) => {
      const value = over[id];
      return value ? [[id, level(value instanceof Float64Array ? value : value.colour)]] : [];
    }),
  );
}

const stillMotion = (motion: MotionSample): MotionLanes => ({
  pivot: motion.pivot,
  ...(Object.fromEntries(TRANSFORM_IDS.map((id) => [id, level(motion[id])])) as Record<TransformId, Lane>),
});

/** null where nothing of it is left. */
function stillPart({ lanes, points, contours, progress, fill, stroke }: FramePart): PartLanes | null {
  const seen = contours.filter((contour) => !isVanished(contour, progress)).map((each) => stillContour(each, progress));
  if (seen.length === 0) return null;
  const kept = points.slice();
  const plan: ShiftPlan = { ...lanes.plan, contours: seen, from: kept, to: kept };
  return {
    ...lanes,
    plan,
    time: STANDING,
    outline: level(kept),
    fill: fill && stillPaint(fill),
    stroke: stroke && stillStroke(stroke),
  };
}

/** Slits and cuts are those of the outline that is nearer in time. */
function stillContour(contour: PlanContour, progress: number): PlanContour {
  const bridges = progress < 0.5 ? contour.bridgesA : contour.bridgesB;
  return { ...contour, role: 'pair', bridgesA: bridges, bridgesB: bridges };
}

const stillStroke = ({ paint, values }: StrokeSample): PartLanes['stroke'] => ({
  paint: stillPaint(paint),
  properties: Object.fromEntries(STROKE_PROPERTIES.map((id) => [id, level(values[id])])) as NonNullable<
    PartLanes['stroke']
  >['properties'],
});

function stillPaint({ colour, gradient }: PaintSample): PaintLanes {
  if (!gradient) return { kind: 'colour', colour: level(colour) };
  const { kind, geometry: g } = gradient;
  return {
    kind: 'gradient',
    places: [
      kind === 'linear'
        ? { kind, line: level(g.subarray(0, 4)) }
        : { kind, ellipse: level(g.subarray(0, 5)), focus: level(g.subarray(5, 7)) },
    ],
    place: level([0]),
    offsets: Array.from(gradient.at, (at) => level([at])),
    colours: Array.from(gradient.at, (_, i) => level(gradient.colours.subarray(4 * i, 4 * i + 4))),
  };
}
