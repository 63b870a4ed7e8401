import { type Easing, ease } from '@core';

const STEPS = 20;

/** A small picture of an easing. */
export function EasingMark({ easing }: { readonly easing: Easing }) {
  const points = Array.from(
    { length: STEPS + 1 },
    (_, i) => `${(i / STEPS) * 28},${24 - 24 * ease(easing, i / STEPS)}`,
  );
  return (
    <svg viewBox="-2 -9 32 40" width="30" height="30" aria-hidden="true">
      <polyline points={points.join(' ')} />
    </svg>
  );
}
