import { type Easing, writeCssEasing } from '@core';
import { useEffect, useRef } from 'react';

/** A rest at each end of the track, ms. */
const PAUSE_MS = 400;

/** A bead that runs as the easing says, over and over, by the browser's own timing; it stands still for who wants less motion. */
export function EasingRun({ easing, seconds }: { readonly easing: Easing; readonly seconds: number }) {
  const bead = useRef<HTMLElement>(null);
  const text = writeCssEasing(easing);
  useEffect(() => {
    const element = bead.current;
    if (!element || window.matchMedia('(prefers-reduced-motion: reduce)').matches) return;
    const duration = Math.min(10, Math.max(0.05, seconds)) * 1000;
    const whole = duration + 2 * PAUSE_MS;
    const [from, to] = [PAUSE_MS / whole, (PAUSE_MS + duration) / whole];
    const [start, end] = [{ left: '14%' }, { left: '86%' }];
    const run = element.animate(
      [
        { ...start, offset: 0 },
        { ...start, offset: from, easing: text },
        { ...end, offset: to },
        { ...end, offset: 1 },
      ],
      { duration: whole, iterations: Infinity },
    );
    // By the page's own clock: two of equal duration run side by side, in step.
    run.startTime = 0;
    return () => run.cancel();
  }, [text, seconds]);
  return (
    <div className="easing-run" aria-hidden="true">
      <i ref={bead} />
    </div>
  );
}
