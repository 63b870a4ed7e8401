import { drawnShare, type Lane } from '../lane';

/** How much of a contour is drawn from a time on, s: nothing, a part, or the whole. */
export interface DrawnState {
  readonly time: number;
  readonly state: 'none' | 'part' | 'whole';
}

/** A share that is nothing, or all. */
const SAME_SHARE = 1e-6;

/**
 * When a lane of what is drawn changes between nothing, a part and, where `closes`, the whole. While it changes it is a part, though it may begin or end at
 * nothing: there a pen with round ends would leave a dot.
 */
export function drawnStates(lane: Lane, closes: boolean): DrawnState[] {
  const value = new Float64Array(lane.size);
  const stateOf = (write: (out: Float64Array) => void): DrawnState['state'] => {
    write(value);
    const share = drawnShare(value);
    return share <= SAME_SHARE ? 'none' : closes && share >= 1 - SAME_SHARE ? 'whole' : 'part';
  };
  const states: DrawnState[] = [];
  const add = (time: number, state: DrawnState['state']): void => {
    const last = states[states.length - 1];
    if (last?.state === state) return;
    if (last && time - last.time <= 1e-9) states.pop();
    states.push({ time: Math.max(0, time), state });
  };
  for (const { time, blend } of lane.ramps) {
    const [first, middle, last] = [0, 0.5, 1].map((share) =>
      stateOf((out) => blend.write(time.progressAt(time.start + share * (time.end - time.start)), out, 0)),
    );
    if (states.length === 0) add(0, first);
    add(time.start, blend.still || first === middle ? first : 'part');
    add(time.end, last);
  }
  return states;
}
