import { RAIL, type RailLayout, rulerStep, timeToX } from './layout';

const NS = 'http://www.w3.org/2000/svg';

const part = (root: SVGSVGElement, key: string): SVGElement | null => root.querySelector(`[data-key="${key}"]`);
const set = (element: Element | null, attributes: Record<string, string | number>): void => {
  if (element) for (const [name, value] of Object.entries(attributes)) element.setAttribute(name, String(value));
};

/**
 * Writes a layout into the rail's elements, which carry their keys. Used by React after it has rendered, and by gestures between renders, so
 * that dragging moves things at the display's rate without rendering.
 */
export function applyRailLayout(root: SVGSVGElement, layout: RailLayout): void {
  for (const bar of layout.bars) {
    const width = Math.max(bar.x1 - bar.x0, 0);
    set(part(root, `bar-${bar.stop}`), {
      x: bar.x0 - (width < 6 ? 3 : 0),
      y: bar.y - RAIL.bar / 2,
      width: Math.max(width, 6),
    });
    set(part(root, `short-${bar.stop}`), { cx: (bar.x0 + bar.x1) / 2, cy: bar.y + 11 });
    set(part(root, `edge-${bar.stop}`), { x: bar.x1 - 5, y: bar.y - RAIL.edge / 2 });
    set(part(root, `thread-${bar.stop}`), {
      x1: bar.cardX + RAIL.card / 2,
      y1: RAIL.cardTop + RAIL.card,
      x2: (bar.x0 + bar.x1) / 2,
      y2: bar.y - RAIL.bar / 2,
    });
    set(part(root, `card-${bar.stop}`), { transform: `translate(${bar.cardX} ${RAIL.cardTop})` });
  }
  for (const arc of layout.arcs) {
    set(part(root, `arc-${arc.shiftId}`), { d: arc.d });
    set(part(root, `hit-${arc.shiftId}`), { d: arc.d });
    set(part(root, `mark-${arc.shiftId}`), {
      transform: `translate(${(arc.x0 + arc.x1) / 2} ${(RAIL.upper + RAIL.lower) / 2})`,
    });
  }
  set(part(root, 'add'), { transform: `translate(${addX(layout)} ${RAIL.cardTop})` });
  drawRuler(part(root, 'ruler'), layout);
}

function addX(layout: RailLayout): number {
  const last = layout.bars[layout.bars.length - 1];
  return Math.min(layout.width - RAIL.card - 2, last ? last.cardX + RAIL.card + RAIL.cardGap : RAIL.padding);
}

function drawRuler(group: SVGElement | null, layout: RailLayout): void {
  if (!group) return;
  group.replaceChildren();
  if (!(layout.scale > 0)) return;
  const step = rulerStep(layout.scale, 64);
  const end = layout.duration;
  for (let i = 0; i * step <= end + 1e-9; i++) {
    const x = timeToX(layout, i * step);
    const line = document.createElementNS(NS, 'line');
    set(line, { x1: x, x2: x, y1: RAIL.ruler, y2: RAIL.ruler + 5 });
    const text = document.createElementNS(NS, 'text');
    set(text, { x, y: RAIL.ruler + 16 });
    text.textContent = `${Math.round(i * step * 100) / 100} s`;
    group.append(line, text);
  }
}
