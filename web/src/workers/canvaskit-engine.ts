import { type Contour, ContourBuilder, type Outline, type PathEngine, segmentAt, segmentCount } from '@core';
import type { CanvasKit, Path, PathOp } from 'canvaskit-wasm';

/** How finely strokes are traced; the core fits curves to the result. */
const STROKE_PRECISION = 16;
const STRAIGHT_EPS = 1e-6;

/** The path operations of CanvasKit behind the core's port; every object that it makes is given back. */
export function canvasKitEngine(kit: CanvasKit): PathEngine {
  const ops: Record<Parameters<PathEngine['combine']>[0], PathOp> = {
    unite: kit.PathOp.Union,
    subtract: kit.PathOp.Difference,
    intersect: kit.PathOp.Intersect,
    exclude: kit.PathOp.XOR,
  };
  const caps = { butt: kit.StrokeCap.Butt, round: kit.StrokeCap.Round, square: kit.StrokeCap.Square };
  const joins = { miter: kit.StrokeJoin.Miter, round: kit.StrokeJoin.Round, bevel: kit.StrokeJoin.Bevel };
  const scoped = <T>(work: (keep: <P extends Path | null>(path: P) => P) => T): T => {
    const made: Path[] = [];
    try {
      return work((path) => {
        if (path) made.push(path);
        return path;
      });
    } finally {
      for (const path of made) path.delete();
    }
  };
  return {
    combine: (kind, subject, other) =>
      scoped((keep) => {
        const a = keep(toPath(kit, subject));
        const b = keep(toPath(kit, other));
        const result = a && b && keep(kit.Path.MakeFromOp(a, b, ops[kind]));
        return result ? fromPath(kit, result) : null;
      }),
    stroke: (outline, { width, cap, join, miter }) =>
      scoped((keep) => {
        const drawn = keep(toPath(kit, outline));
        const stroked =
          drawn &&
          keep(
            drawn.makeStroked({
              width,
              cap: caps[cap],
              join: joins[join],
              miter_limit: miter,
              precision: STROKE_PRECISION,
            }),
          );
        return stroked ? fromPath(kit, stroked) : null;
      }),
  };
}

function toPath(kit: CanvasKit, outline: Outline): Path | null {
  const commands: number[] = [];
  for (const contour of outline.contours) {
    const p = contour.points;
    commands.push(kit.MOVE_VERB, p[0], p[1]);
    for (let i = 0; i < segmentCount(contour); i++) {
      const at = segmentAt(i);
      if (straight(p, at)) commands.push(kit.LINE_VERB, p[at + 6], p[at + 7]);
      else commands.push(kit.CUBIC_VERB, ...p.subarray(at + 2, at + 8));
    }
    if (contour.closed) commands.push(kit.CLOSE_VERB);
  }
  const path = commands.length > 0 ? kit.Path.MakeFromCmds(commands) : new kit.PathBuilder().detachAndDelete();
  path?.setFillType(outline.fillRule === 'evenodd' ? kit.FillType.EvenOdd : kit.FillType.Winding);
  return path;
}

function straight(p: Float64Array, at: number): boolean {
  const dx = p[at + 6] - p[at];
  const dy = p[at + 7] - p[at + 1];
  for (let k = 1; k <= 2; k++) {
    if (Math.abs(p[at + 2 * k] - p[at] - (dx * k) / 3) > STRAIGHT_EPS) return false;
    if (Math.abs(p[at + 2 * k + 1] - p[at + 1] - (dy * k) / 3) > STRAIGHT_EPS) return false;
  }
  return true;
}

function fromPath(kit: CanvasKit, path: Path): Outline {
  const contours: Contour[] = [];
  const c = path.toCmds();
  let builder: ContourBuilder | undefined;
  let x = 0;
  let y = 0;
  const finish = (closed: boolean): void => {
    if (builder && builder.segments > 0) contours.push(builder.finish(closed));
    builder = undefined;
  };
  const quad = (x1: number, y1: number, x2: number, y2: number): void => {
    builder?.cubicTo(
      x + ((x1 - x) * 2) / 3,
      y + ((y1 - y) * 2) / 3,
      x2 + ((x1 - x2) * 2) / 3,
      y2 + ((y1 - y2) * 2) / 3,
      x2,
      y2,
    );
    [x, y] = [x2, y2];
  };
  for (let i = 0; i < c.length; ) {
    const verb = c[i++];
    if (verb === kit.MOVE_VERB) {
      finish(true);
      [x, y] = [c[i], c[i + 1]];
      builder = new ContourBuilder(x, y);
      i += 2;
    } else if (verb === kit.LINE_VERB) {
      [x, y] = [c[i], c[i + 1]];
      builder?.lineTo(x, y);
      i += 2;
    } else if (verb === kit.QUAD_VERB) {
      quad(c[i], c[i + 1], c[i + 2], c[i + 3]);
      i += 4;
    } else if (verb === kit.CONIC_VERB) {
      for (const q of conicToQuads(x, y, c[i], c[i + 1], c[i + 2], c[i + 3], c[i + 4])) quad(...q);
      i += 5;
    } else if (verb === kit.CUBIC_VERB) {
      builder?.cubicTo(c[i], c[i + 1], c[i + 2], c[i + 3], c[i + 4], c[i + 5]);
      [x, y] = [c[i + 4], c[i + 5]];
      i += 6;
    } else if (verb === kit.CLOSE_VERB) finish(true);
  }
  finish(true);
  return {
    contours,
    fillRule: path.getFillType() === kit.FillType.EvenOdd ? 'evenodd' : 'nonzero',
  };
}

/** A conic halved three times, each part as the parabola with its end tangents (Lee: Rational curves with polynomial parameterization, 1991). */
function conicToQuads(
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  x2: number,
  y2: number,
  w: number,
  depth = 3,
): [number, number, number, number][] {
  if (depth === 0) return [[x1, y1, x2, y2]];
  const k = 1 / (1 + w);
  const [ax, ay] = [(x0 + w * x1) * k, (y0 + w * y1) * k];
  const [bx, by] = [(w * x1 + x2) * k, (w * y1 + y2) * k];
  const [mx, my] = [(ax + bx) / 2, (ay + by) / 2];
  const inner = Math.sqrt((1 + w) / 2);
  return [
    ...conicToQuads(x0, y0, ax, ay, mx, my, inner, depth - 1),
    ...conicToQuads(mx, my, bx, by, x2, y2, inner, depth - 1),
  ];
}
