import type { RampTime } from '../../lane';
import type { Id } from '../../piece';
import type { PartLanes } from './part-lanes';

/** A stretch of a figure's time that one plan shows: a hold, then the shift that leaves it. Times in s. */
export interface FigureSpan {
  readonly shiftId?: Id;
  readonly start: number;
  readonly end: number;
  /** When the hold ends and the shift begins, when it ends, and its easing. */
  readonly time: RampTime;
  /** Laid out when they are first asked for: of a long chain or of thousands of parts, only what is looked at. */
  readonly parts: readonly PartLanes[];
  /** Lays parts out until all are there or `isLate` says so; tells whether all are. */
  layOut(isLate: () => boolean): boolean;
}

/** How many parts are laid out before the time is looked at. */
const PARTS_A_LOOK = 32;
const never = (): boolean => false;

/** A span of `count` parts that are made by the first who asks for them. */
export function lateSpan(
  times: Omit<FigureSpan, 'parts' | 'layOut'>,
  count: number,
  make: (part: number) => PartLanes,
): FigureSpan {
  const made: PartLanes[] = [];
  const layOut = (isLate: () => boolean): boolean => {
    while (made.length < count) {
      made.push(make(made.length));
      if (made.length % PARTS_A_LOOK === 0 && made.length < count && isLate()) return false;
    }
    return true;
  };
  return {
    ...times,
    get parts() {
      layOut(never);
      return made;
    },
    layOut,
  };
}
