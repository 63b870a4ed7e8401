import type { PenColours } from '../editor';

/** The colours of the theme, for what is painted and not styled. */
export function penColours(element: Element): PenColours {
  const style = getComputedStyle(element);
  const of = (name: string): string => style.getPropertyValue(name).trim();
  return {
    accent: of('--accent'),
    ink: of('--ink'),
    paper: of('--paper-raised'),
    line: of('--line-strong'),
    cobalt: of('--cobalt'),
  };
}
