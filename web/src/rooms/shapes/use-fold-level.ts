import { type RefObject, useLayoutEffect, useRef, useState } from 'react';

/**
 * How far a row must be folded so that nothing of it runs over: 0 unfolded, up to `most`. Found by trying, before anything is painted, whenever the row's
 * width changes.
 */
export function useFoldLevel(ref: RefObject<HTMLElement | null>, most: number): number {
  const [level, setLevel] = useState(0);
  const width = useRef(0);
  useLayoutEffect(() => {
    const row = ref.current;
    if (row && row.scrollWidth > row.clientWidth && level < most) setLevel(level + 1);
  });
  useLayoutEffect(() => {
    const row = ref.current;
    if (!row) return;
    const observer = new ResizeObserver(() => {
      if (row.clientWidth === width.current) return;
      width.current = row.clientWidth;
      setLevel(0);
    });
    observer.observe(row);
    return () => observer.disconnect();
  }, [ref]);
  return level;
}
