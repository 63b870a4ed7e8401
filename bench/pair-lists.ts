import fs from 'node:fs';
import path from 'node:path';
import opentype from 'opentype.js';
import {
  type Contour,
  contourArea,
  contourLength,
  findCrossings,
  nestingOf,
  type Outline,
  outlineBox,
  readPathData,
  reverseContour,
  scaling,
  seededRandom,
  transformOutline,
  translation,
  writePathData,
} from '../core/src/index';

/** Two outlines to be turned into each other, as path data in a box of 100. */
export interface Pair {
  readonly name: string;
  readonly a: string;
  readonly b: string;
}

export const LISTS = ['single', 'glyphs', 'multi', 'dense', 'open'] as const;
export type ListName = (typeof LISTS)[number];

interface Named {
  readonly name: string;
  readonly d: string;
  readonly contours: number;
}

const MOST_CONTOURS = 6;
const MOST_TEXT = 6000;
const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789';
const modules = (name: string): string => path.join(process.cwd(), 'node_modules', name);

function* files(folder: string): Generator<string> {
  for (const entry of fs.readdirSync(folder, { withFileTypes: true }).sort((p, q) => (p.name < q.name ? -1 : 1))) {
    const at = path.join(folder, entry.name);
    if (entry.isDirectory()) yield* files(at);
    else if (entry.name.endsWith('.svg')) yield at;
  }
}

/** A filled outline with simple contours that do not cross, in the box of 100; half of them run the other way round. */
function filled(name: string, d: string, scale: number, dx = 0, dy = 0): Named | undefined {
  let outline: Outline;
  try {
    outline = transformOutline(transformOutline(readPathData(d), scaling(scale)), translation(dx, dy));
  } catch {
    return undefined;
  }
  const contours = outline.contours
    .map((contour): Contour => ({ ...contour, closed: true }))
    .map((contour) => closed(contour))
    .filter((contour) => Math.abs(contourArea(contour)) > 0.5);
  if (contours.length === 0 || contours.length > MOST_CONTOURS) return undefined;
  const { self, between } = findCrossings({ contours, fillRule: 'nonzero' }, 0.03);
  if (self.length + between.length > 0) return undefined;
  const box = outlineBox({ contours, fillRule: 'nonzero' });
  if (box.minX < -1 || box.minY < -1 || box.maxX > 101 || box.maxY > 101) return undefined;
  const nesting = nestingOf({ contours, fillRule: 'evenodd' });
  const backwards = [...d].reduce((hash, letter) => (hash * 31 + letter.charCodeAt(0)) | 0, 0) & 1;
  const run = contours.map((contour, i) => {
    const clockwise = nesting[i].depth % 2 === 0;
    return (contourArea(contour) > 0 === clockwise) === (backwards === 0) ? contour : reverseContour(contour);
  });
  const text = writePathData({ contours: run, fillRule: 'nonzero' }, { digits: 3 });
  return text.length > MOST_TEXT ? undefined : { name, d: text, contours: contours.length };
}

/** A contour whose last point is its first. */
function closed(contour: Contour): Contour {
  const p = contour.points;
  const last = p.length - 2;
  if (Math.hypot(p[last] - p[0], p[last + 1] - p[1]) < 1e-9) return contour;
  const points = new Float64Array(p.length + 6);
  points.set(p);
  for (let k = 1; k <= 3; k++)
    points.set(
      [p[last] + ((p[0] - p[last]) * k) / 3, p[last + 1] + ((p[1] - p[last + 1]) * k) / 3],
      p.length + 2 * (k - 1),
    );
  return { points, closed: true };
}

const singlePath = (svg: string): string | undefined => {
  const paths = [...svg.matchAll(/<path[^>]*?\sd="([^"]+)"/g)];
  return paths.length === 1 ? paths[0][1] : undefined;
};

/** Filled icons of two open packages (remixicon without brand marks, Apache 2.0; ionicons, MIT). */
function icons(): Named[] {
  const out: (Named | undefined)[] = [];
  for (const file of files(modules('remixicon/icons'))) {
    if (!file.endsWith('-fill.svg') || file.includes('Logos')) continue;
    const d = singlePath(fs.readFileSync(file, 'utf8'));
    if (d) out.push(filled(path.basename(file, '.svg'), d, 100 / 24));
  }
  for (const file of files(modules('ionicons/dist/svg'))) {
    if (/logo-|outline|sharp/.test(path.basename(file))) continue;
    const svg = fs.readFileSync(file, 'utf8');
    const d = /<(circle|rect|g|ellipse|polygon|defs|line)|stroke/.test(svg) ? undefined : singlePath(svg);
    if (d) out.push(filled(`ion ${path.basename(file, '.svg')}`, d, 100 / 512));
  }
  return out.filter((icon) => icon !== undefined);
}

/** Filled icons of a family with many solids (@primer/octicons, MIT), each of at least two contours. */
function denseIcons(): Named[] {
  const out: (Named | undefined)[] = [];
  for (const file of files(modules('@primer/octicons/build/svg'))) {
    if (!file.endsWith('-24.svg') || file.includes('logo')) continue;
    const svg = fs.readFileSync(file, 'utf8');
    const d = /<(circle|rect|ellipse|polygon|defs|line)|stroke=|transform=/.test(svg) ? undefined : singlePath(svg);
    if (d) out.push(filled(`octicon ${path.basename(file, '.svg')}`, d, 100 / 24));
  }
  return out.filter((icon) => icon !== undefined && icon.contours > 1) as Named[];
}

/** Letters and figures of a bold sans and a text serif (both SIL Open Font License). */
function glyphs(font: string): Named[] {
  const bytes = fs.readFileSync(modules(font));
  const face = opentype.parse(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length) as ArrayBuffer);
  const k = 92 / (face.ascender - face.descender);
  return [...LETTERS].flatMap((letter): Named[] => {
    const shape = face.charToGlyph(letter).getPath(0, 0, face.unitsPerEm);
    const box = shape.getBoundingBox();
    const made = filled(letter, shape.toPathData(4), k, 50 - (k * (box.x1 + box.x2)) / 2, 4 + k * face.ascender);
    return made ? [made] : [];
  });
}

/** Single open strokes of feather-icons (MIT). */
function strokes(): Named[] {
  const seen = new Set<string>();
  const out: Named[] = [];
  for (const file of files(modules('feather-icons/dist/icons'))) {
    const svg = fs.readFileSync(file, 'utf8');
    const ds = [...svg.matchAll(/<path d="([^"]+)"/g)].map((match) => match[1]);
    ds.push(...[...svg.matchAll(/<polyline points="([^"]+)"/g)].map((match) => `M${match[1]}`));
    for (const d of ds) {
      const outline = transformOutline(readPathData(d), scaling(100 / 24));
      const [contour] = outline.contours;
      if (outline.contours.length !== 1 || contour.closed || contour.points.length < 14) continue;
      const p = contour.points;
      if (contourLength(contour) < 35 || Math.hypot(p[p.length - 2] - p[0], p[p.length - 1] - p[1]) < 1) continue;
      const text = writePathData(outline, { digits: 3 });
      if (seen.has(text)) continue;
      seen.add(text);
      out.push({ name: path.basename(file, '.svg'), d: text, contours: 1 });
    }
  }
  return out;
}

function shuffled<T>(items: readonly T[], random: () => number): T[] {
  const out = [...items];
  for (let i = out.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1));
    [out[i], out[j]] = [out[j], out[i]];
  }
  return out;
}

/** Random pairs; outlines are paired anew when there are fewer than are needed. */
function paired(items: readonly Named[], count: number, random: () => number): Pair[] {
  const out: Pair[] = [];
  while (out.length < count) {
    const order = shuffled(items, random);
    for (let i = 0; i + 1 < order.length && out.length < count; i += 2)
      if (order[i].d !== order[i + 1].d)
        out.push({ name: `${order[i].name} to ${order[i + 1].name}`, a: order[i].d, b: order[i + 1].d });
  }
  return out;
}

/** At most two icons of one stem, so that a list is varied. */
function varied(items: readonly Named[], random: () => number): Named[] {
  const seen = new Map<string, number>();
  return shuffled(items, random).filter(({ name }) => {
    const stem = name.split(/[-_]/)[0];
    const count = (seen.get(stem) ?? 0) + 1;
    seen.set(stem, count);
    return count <= 2;
  });
}

/** Seeded lists of random pairs of real outlines: harder than what a designer picks. `count` pairs in each. */
export function pairLists(seed: number, count: number): Record<ListName, Pair[]> {
  const random = (k: number): (() => number) => seededRandom(seed * 1000 + k);
  const all = icons();
  const single = varied(
    all.filter(({ contours }) => contours === 1),
    random(1),
  );
  const multi = varied(all, random(2)).filter(({ contours }, i) => contours > 1 || i % 3 === 0);
  const half = Math.ceil(count / 2);
  return {
    single: paired(single, count, random(3)),
    glyphs: [
      ...paired(glyphs('@fontsource/archivo/files/archivo-latin-700-normal.woff'), half, random(4)),
      ...paired(
        glyphs('@fontsource/source-serif-4/files/source-serif-4-latin-400-normal.woff'),
        count - half,
        random(5),
      ),
    ],
    multi: paired(multi, count, random(6)),
    dense: paired(varied(denseIcons(), random(8)), count, random(9)),
    open: paired(strokes(), count, random(7)),
  };
}
