import { easedKeys, easingSegments } from '../easing';
import { FormulaLane, Lane, type RampTime } from '../lane';

/** Several lanes as one: by the same ramps where they share them, else by whatever any of them does. */
export function joinedLane(lanes: readonly Lane[]): Lane {
  const [first] = lanes;
  const alike = lanes.every(
    ({ ramps }) =>
      ramps.length === first.ramps.length && ramps.every(({ time }, r) => sameTime(time, first.ramps[r].time)),
  );
  return alike ? rampByRamp(lanes) : sideBySide(lanes);
}

const sameTime = (p: RampTime, q: RampTime): boolean =>
  p === q || (p.start === q.start && p.end === q.end && p.easing === q.easing);

function rampByRamp(lanes: readonly Lane[]): Lane {
  return new Lane(
    lanes[0].ramps.map(({ time }, r) => {
      const blends = lanes.map(({ ramps }) => ramps[r].blend);
      // An outline is written into an array of its own.
      const parts = blends.map((blend) => new Float64Array(blend.size));
      return {
        time,
        blend: {
          size: sizeOf(lanes),
          breaks: [...new Set(blends.flatMap(({ breaks }) => breaks))].sort((p, q) => p - q),
          jumps: false,
          still: blends.every((blend) => blend.still),
          write(progress: number, out: Float64Array, at: number): void {
            let next = at;
            blends.forEach((blend, i) => {
              blend.write(progress, parts[i], 0);
              out.set(parts[i], next);
              next += blend.size;
            });
          },
        },
      };
    }),
  );
}

function sideBySide(lanes: readonly Lane[]): Lane {
  const parts = lanes.map((lane) => new Float64Array(lane.size));
  const breaks = lanes.flatMap(({ ramps }) =>
    ramps.flatMap(({ time: { start, end, easing }, blend }) =>
      easedKeys(easingSegments(easing), blend.breaks).map(({ time }) => start + (end - start) * time),
    ),
  );
  return new FormulaLane(sizeOf(lanes), breaks, (seconds, out, at) => {
    let next = at;
    lanes.forEach((lane, i) => {
      lane.sample(seconds, parts[i]);
      out.set(parts[i], next);
      next += lane.size;
    });
  });
}

const sizeOf = (lanes: readonly Lane[]): number => lanes.reduce((sum, { size }) => sum + size, 0);
