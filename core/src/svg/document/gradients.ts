import { type Outline, outlineBox } from '../../outline';
import {
  cssText,
  GRADIENT_STOP_LIMIT,
  type Gradient,
  type GradientStop,
  type Paint,
  readColour,
  transformPaint,
} from '../../paint';
import { IDENTITY, type Matrix, multiply } from '../../vec';
import { readLength, type Viewport } from './basic-shapes';
import type { StyleSheet } from './style';
import { readTransform } from './transform';
import type { SvgNode } from './tree';

const INHERITED_LIMIT = 8;

/** What a gradient reference gives: a paint, or nothing where the standard paints nothing; notes of what was not taken. */
export interface GradientReading {
  readonly paint: Paint | null;
  readonly notes: readonly string[];
}

/**
 * Reads a linear or radial gradient (SVG 2, chapter 14.2) for a shape: attributes and stops through `href`, units of the box or of user
 * space, gradient transform. `matrix` takes user space to the document.
 */
export function readGradient(
  node: SvgNode,
  byId: ReadonlyMap<string, SvgNode>,
  stopsOf: (node: SvgNode | undefined) => ReadStops,
  shape: Outline,
  matrix: Matrix,
  viewport: Viewport,
): GradientReading {
  const chain = [node];
  for (let at: SvgNode | undefined = node; chain.length < INHERITED_LIMIT; ) {
    const href: string = at?.attributes.href ?? '';
    at = href.startsWith('#') ? byId.get(href.slice(1)) : undefined;
    if (!at || chain.includes(at)) break;
    chain.push(at);
  }
  const attribute = (name: string): string | undefined =>
    chain.find((link) => link.attributes[name] !== undefined)?.attributes[name];
  const { stops, left } = stopsOf(chain.find((link) => link.children.some(({ name }) => name === 'stop')));
  const notes: string[] = [];
  if (left > 0)
    notes.push(
      `A gradient with more than ${GRADIENT_STOP_LIMIT} stops was taken with those that show most; ${left} were left out`,
    );
  const last = stops[stops.length - 1];
  if (!last) return { paint: null, notes };
  if (stops.length === 1) return { paint: last.colour, notes };
  const spread = attribute('spreadMethod');
  if (spread && spread !== 'pad') notes.push(`A gradient's spreadMethod “${spread}” was taken as “pad”`);
  const inBox = attribute('gradientUnits') !== 'userSpaceOnUse';
  const box = outlineBox(shape);
  const [w, h] = [box.maxX - box.minX, box.maxY - box.minY];
  // Does the box have no area? Then the standard paints nothing.
  if (inBox && !(w > 0 && h > 0)) return { paint: null, notes };
  const whole = inBox ? { width: 1, height: 1 } : viewport;
  const diagonal = Math.hypot(whole.width, whole.height) / Math.SQRT2;
  const length = (name: string, size: number, initial: string): number =>
    readLength(attribute(name) ?? initial, size, `${name} of <${node.name}> (line ${node.line})`) ?? 0;
  const place = multiply(
    multiply(matrix, inBox ? [w, 0, 0, h, box.minX, box.minY] : IDENTITY),
    readTransform(attribute('gradientTransform'), node.line),
  );
  let gradient: Gradient;
  if (node.name === 'linearGradient') {
    const from: [number, number] = [length('x1', whole.width, '0%'), length('y1', whole.height, '0%')];
    const to: [number, number] = [length('x2', whole.width, '100%'), length('y2', whole.height, '0%')];
    if (from[0] === to[0] && from[1] === to[1]) return { paint: last.colour, notes };
    gradient = { kind: 'linear', from, to, stops };
  } else {
    const r = length('r', diagonal, '50%');
    if (!(r > 0)) return { paint: last.colour, notes };
    const centre: [number, number] = [length('cx', whole.width, '50%'), length('cy', whole.height, '50%')];
    const fx = attribute('fx') === undefined ? centre[0] : length('fx', whole.width, '50%');
    const fy = attribute('fy') === undefined ? centre[1] : length('fy', whole.height, '50%');
    if (length('fr', diagonal, '0%') > 0) notes.push('The focal radius of a gradient was left out');
    let focus: [number, number] = [(fx - centre[0]) / r, (fy - centre[1]) / r];
    const out = Math.hypot(...focus);
    if (out > 0.99) focus = [(focus[0] * 0.99) / out, (focus[1] * 0.99) / out];
    gradient = { kind: 'radial', centre, radii: [r, r], rotation: 0, focus, stops };
  }
  return { paint: transformPaint(gradient, place), notes };
}

/** The stops of a gradient, and how many were left out because there are too many. */
export interface ReadStops {
  readonly stops: readonly GradientStop[];
  readonly left: number;
}

/** Reads the stops of a gradient element. */
export function readGradientStops(node: SvgNode | undefined, sheet: StyleSheet, currentColour: string): ReadStops {
  const stops: GradientStop[] = [];
  for (const child of node?.children ?? []) {
    if (child.name !== 'stop') continue;
    const own = sheet.ownStyle(child);
    const offset = child.attributes.offset ?? '0';
    const share = offset.trim().endsWith('%') ? Number.parseFloat(offset) / 100 : Number(offset);
    const at = Math.min(1, Math.max(stops[stops.length - 1]?.at ?? 0, Number.isFinite(share) ? share : 0));
    const text = own['stop-color'] ?? 'black';
    const colour = readColour(text.toLowerCase() === 'currentcolor' ? currentColour : text);
    const opacity = Number.parseFloat(own['stop-opacity'] ?? '1') * (own['stop-opacity']?.includes('%') ? 0.01 : 1);
    const alpha = (colour?.alpha ?? 1) * (Number.isFinite(opacity) ? Math.min(1, Math.max(0, opacity)) : 1);
    stops.push({ at, colour: cssText(colour?.r ?? 0, colour?.g ?? 0, colour?.b ?? 0, alpha) });
  }
  const kept = thinnedStops(stops);
  return { stops: kept, left: stops.length - kept.length };
}

/** More stops than this are first taken evenly: which of them shows least is looked up one by one. */
const EVEN_STOPS = 10 * GRADIENT_STOP_LIMIT;

/** At most as many stops as can be stored: those go first whose colour their neighbours give best. */
function thinnedStops(stops: readonly GradientStop[]): readonly GradientStop[] {
  if (stops.length <= GRADIENT_STOP_LIMIT) return stops;
  const step = Math.max(1, (stops.length - 1) / (EVEN_STOPS - 1));
  const few =
    stops.length <= EVEN_STOPS ? stops : Array.from({ length: EVEN_STOPS }, (_, i) => stops[Math.round(i * step)]);
  const left = few.map(({ at, colour }) => ({ at, colour, rgba: readColour(colour) ?? BLACK }));
  while (left.length > GRADIENT_STOP_LIMIT) {
    let least = 1;
    let error = Number.POSITIVE_INFINITY;
    for (let i = 1; i < left.length - 1; i++) {
      const [a, b, c] = [left[i - 1], left[i], left[i + 1]];
      const share = c.at > a.at ? (b.at - a.at) / (c.at - a.at) : 0.5;
      const off = (['r', 'g', 'b', 'alpha'] as const).reduce(
        (most, k) => Math.max(most, Math.abs(a.rgba[k] + (c.rgba[k] - a.rgba[k]) * share - b.rgba[k])),
        0,
      );
      const shown = off * (c.at - a.at);
      if (shown < error) {
        error = shown;
        least = i;
      }
    }
    left.splice(least, 1);
  }
  return left.map(({ at, colour }) => ({ at, colour }));
}
const BLACK = { r: 0, g: 0, b: 0, alpha: 1 };
