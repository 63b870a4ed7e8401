import {
  converter,
  modeHsl,
  modeHwb,
  modeLab,
  modeLch,
  modeOklab,
  modeOklch,
  modeP3,
  modeRgb,
  parse,
  useMode as registerMode,
} from 'culori/fn';

for (const mode of [modeRgb, modeHsl, modeHwb, modeLab, modeLch, modeOklab, modeOklch, modeP3])
  registerMode(mode as typeof modeRgb);
const toRgb = converter('rgb');

/** An sRGB colour: channels and alpha in [0, 1]. */
export interface Rgba {
  readonly r: number;
  readonly g: number;
  readonly b: number;
  readonly alpha: number;
}

const clamp01 = (v: number): number => (v > 0 ? (v < 1 ? v : 1) : 0);

/** Reads a CSS Color 4 string; undefined when it is none. The answer is shared: it is not to be written to. Colours outside sRGB are clipped to it. */
export function readColour(css: string): Rgba | undefined {
  if (css.length > 120) return undefined;
  const before = known.get(css);
  if (before !== undefined) return before ?? undefined;
  const found = parseColour(css);
  if (known.size >= MOST_KNOWN) known.clear();
  known.set(css, found ?? null);
  return found;
}

/** What was read before: thousands of parts share few colours. */
const known = new Map<string, Rgba | null>();
const MOST_KNOWN = 2_000;

function parseColour(css: string): Rgba | undefined {
  const colour = toRgb(parse(css.trim().toLowerCase()));
  if (!colour) return undefined;
  return { r: clamp01(colour.r), g: clamp01(colour.g), b: clamp01(colour.b), alpha: clamp01(colour.alpha ?? 1) };
}

const byte = (v: number): number => Math.round(clamp01(v) * 255);
const hex = (v: number): string => byte(v).toString(16).padStart(2, '0');

/** The colour without its alpha as #rrggbb. */
export const hexText = (c: Pick<Rgba, 'r' | 'g' | 'b'>): string => `#${hex(c.r)}${hex(c.g)}${hex(c.b)}`;

/** The colour as a CSS string: #rrggbb when opaque, else rgb(r g b / a). */
export function cssText(r: number, g: number, b: number, alpha: number): string {
  if (alpha >= 1) return `#${hex(r)}${hex(g)}${hex(b)}`;
  return `rgb(${byte(r)} ${byte(g)} ${byte(b)} / ${Math.round(alpha * 1000) / 1000})`;
}
