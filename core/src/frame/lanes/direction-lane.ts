import { FormulaLane, type Lane, type PathBlend, type Ramp, turnBetween } from '../../lane';

const DEGREES = 180 / Math.PI;

/** A ramp's direction, radians: at each progress, and by how many whole turns it is shifted so that it goes on from the ramp before. */
interface Way {
  readonly ramp: Ramp;
  readonly angle: (progress: number) => number;
}

/**
 * Which way a position is carried, degrees clockwise from the right: along its path while it moves, as it arrived while it rests. It never jumps by a whole turn;
 * at a corner of the path it jumps. `breaks`: where the position bends, s. Undefined where it never changes.
 */
export function directionLane(position: Lane, breaks: readonly number[]): Lane | undefined {
  const ways: Way[] = [];
  let arrived: number | undefined;
  for (const ramp of position.ramps) {
    const found: ((progress: number) => number) | undefined = angleOf(ramp);
    if (!found) {
      const stands = arrived;
      if (stands !== undefined) ways.push({ ramp, angle: () => stands });
      continue;
    }
    const begins: number = found(0);
    const shift: number = arrived === undefined ? 0 : arrived + turnBetween(arrived, begins) - begins;
    ways.push({ ramp, angle: shift === 0 ? found : (progress) => found(progress) + shift });
    arrived = found(1) + shift;
  }
  if (ways.length === 0) return undefined;
  let head = 0;
  return new FormulaLane(1, breaks, (seconds, out, at) => {
    if (seconds < ways[head].ramp.time.start) head = 0;
    while (head + 1 < ways.length && seconds >= ways[head + 1].ramp.time.start) head++;
    const { ramp, angle } = ways[head];
    out[at] = DEGREES * angle(ramp.time.progressAt(seconds));
  });
}

function angleOf({ blend }: Ramp): ((progress: number) => number) | undefined {
  if ('angle' in blend) return (blend as PathBlend).angle;
  if (blend.still) return undefined;
  const [p, q] = [new Float64Array(2), new Float64Array(2)];
  blend.write(0, p, 0);
  blend.write(1, q, 0);
  const angle = Math.atan2(q[1] - p[1], q[0] - p[0]);
  return () => angle;
}
