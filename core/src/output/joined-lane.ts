import { Lane } from '../lane';

/** Several lanes that run by the same ramps as one. */
export function joinedLane(lanes: readonly Lane[]): Lane {
  return new Lane(
    lanes[0].ramps.map(({ time }, r) => {
      const blends = lanes.map(({ ramps }) => ramps[r].blend);
      // An outline is written into an array of its own.
      const parts = blends.map((blend) => new Float64Array(blend.size));
      const size = blends.reduce((sum, blend) => sum + blend.size, 0);
      return {
        time,
        blend: {
          size,
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
