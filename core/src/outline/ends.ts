import { reverseContour } from './change';
import { anchorCount, type Contour, segmentAt, segmentCount } from './contour';

const flip = <T>(list: readonly T[] | undefined, from: number): T[] | undefined =>
  list && [...list.slice(from), ...list.slice(0, from)];

/** The closed contour started at anchor `i`; an open one stays as it is. */
export function startAt(contour: Contour, i: number): Contour {
  const n = segmentCount(contour);
  if (!contour.closed || i % n === 0) return contour;
  const cut = segmentAt(i);
  const p = contour.points;
  const points = new Float64Array(p.length);
  points.set(p.subarray(cut), 0);
  points.set(p.subarray(2, cut + 2), p.length - cut);
  return {
    points,
    closed: true,
    anchorIds: flip(contour.anchorIds, i),
    originIds: flip(contour.originIds, i),
  };
}

/** A closed contour opened at anchor `i`, which then stands at both ends; the second end gets a new id. */
export function openAt(contour: Contour, i: number, newId: () => string): Contour {
  const started = startAt(contour, i);
  if (!started.closed) return started;
  return {
    points: started.points,
    closed: false,
    anchorIds: started.anchorIds && [...started.anchorIds, newId()],
    originIds: started.originIds && [...started.originIds, undefined],
  };
}

/** An open contour in two, at an inner anchor that then stands in both; undefined at its ends. */
export function cutAt(contour: Contour, i: number, newId: () => string): [Contour, Contour] | undefined {
  if (contour.closed || i <= 0 || i >= anchorCount(contour) - 1) return undefined;
  const cut = segmentAt(i);
  const ids = contour.anchorIds;
  const origins = contour.originIds;
  return [
    {
      points: contour.points.slice(0, cut + 2),
      closed: false,
      anchorIds: ids?.slice(0, i + 1),
      originIds: origins?.slice(0, i + 1),
    },
    {
      points: contour.points.slice(cut),
      closed: false,
      anchorIds: ids && [newId(), ...ids.slice(i + 1)],
      originIds: origins && [undefined, ...origins.slice(i + 1)],
    },
  ];
}

/** An open contour closed: ends within `merge` px become one anchor half-way between them, others are joined by a straight line. */
export function closeContour(contour: Contour, merge: number): Contour {
  if (contour.closed) return contour;
  const p = contour.points;
  const last = p.length - 2;
  const dx = p[last] - p[0];
  const dy = p[last + 1] - p[1];
  if (Math.hypot(dx, dy) <= merge && segmentCount(contour) > 1) {
    const points = p.slice();
    // Both ends go half-way, with their handles.
    for (const [at, sign] of [
      [0, 1],
      [2, 1],
      [last, -1],
      [last - 2, -1],
    ] as const) {
      points[at] += (sign * dx) / 2;
      points[at + 1] += (sign * dy) / 2;
    }
    points[last] = points[0];
    points[last + 1] = points[1];
    return {
      points,
      closed: true,
      anchorIds: contour.anchorIds?.slice(0, -1),
      originIds: contour.originIds?.slice(0, -1),
    };
  }
  const points = new Float64Array(p.length + 6);
  points.set(p);
  for (let k = 1; k <= 3; k++) points.set([p[last] - (dx * k) / 3, p[last + 1] - (dy * k) / 3], p.length + 2 * (k - 1));
  points.set([p[0], p[1]], p.length + 4);
  return { ...contour, points, closed: true };
}

/** Two open contours as one, from an end of the first to an end of the second; ends within `merge` px become one anchor. */
export function joinContours(
  a: Contour,
  endOfA: 'start' | 'end',
  b: Contour,
  endOfB: 'start' | 'end',
  merge: number,
): Contour {
  const first = endOfA === 'end' ? a : reverseContour(a);
  const second = endOfB === 'start' ? b : reverseContour(b);
  const p = first.points;
  const q = second.points;
  const last = p.length - 2;
  const dx = q[0] - p[last];
  const dy = q[1] - p[last + 1];
  const merged = Math.hypot(dx, dy) <= merge;
  const points: number[] = [...p];
  if (merged) {
    for (const at of [last - 2, last]) {
      points[at] += dx / 2;
      points[at + 1] += dy / 2;
    }
    points.push(q[2] - dx / 2, q[3] - dy / 2, ...q.subarray(4));
  } else {
    for (let k = 1; k <= 3; k++) points.push(p[last] + (dx * k) / 3, p[last + 1] + (dy * k) / 3);
    points.push(...q.subarray(2));
  }
  const chain = <T>(x: readonly T[] | undefined, y: readonly T[] | undefined): T[] | undefined =>
    x && y && [...x, ...y.slice(merged ? 1 : 0)];
  return {
    points: Float64Array.from(points),
    closed: false,
    anchorIds: chain(first.anchorIds, second.anchorIds),
    originIds:
      first.originIds || second.originIds
        ? chain(
            first.originIds ?? Array<undefined>(anchorCount(first)).fill(undefined),
            second.originIds ?? Array<undefined>(anchorCount(second)).fill(undefined),
          )
        : undefined,
  };
}
