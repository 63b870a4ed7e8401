import { execFileSync, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import zlib from 'node:zlib';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { frameAt, planAndCompile } from '../frame';
import { contourArea, outlineBox } from '../outline';
import type { Piece, PieceDraft } from '../piece';
import { readPathData } from '../svg';
import { realIcons } from '../testing/icons';
import { pieceOf } from '../testing/pieces';
import { writeAnimatedSvg } from './animated-svg';
import { type CodeModuleOptions, writeCodeModule } from './code-module';
import { readAnimatedDocument } from './document/animated-document';
import { attributesAt } from './document/attributes-at';
import type { DrawnElement } from './tree/drawn-element';

const piece = pieceOf(['M0 0H100V100H0Z', 'M50 0L100 50L50 100L0 50Z', 'M10 10H90V90H10Z']);
const compiled = planAndCompile(piece);
const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'arc-shift-module-'));
afterAll(() => fs.rmSync(folder, { recursive: true, force: true }));

/** What Node itself says of a module: it is imported in a process of its own. */
function ask(name: string, options: CodeModuleOptions, expression: string): unknown {
  const [main] = writeCodeModule(compiled, piece, { ...options, fileName: name });
  const file = path.join(folder, `${name}.mjs`);
  fs.writeFileSync(file, main.text);
  const script = `import * as m from ${JSON.stringify(`file://${file}`)}; console.log(JSON.stringify(${expression}));`;
  return JSON.parse(execFileSync(process.execPath, ['--input-type=module', '-e', script], { encoding: 'utf8' }));
}

interface Element {
  readonly name: string;
  readonly attributes: Record<string, string>;
  readonly children: readonly Element[];
}
const paths = (element: Element): Element[] => [
  ...(element.name === 'path' ? [element] : []),
  ...element.children.flatMap(paths),
];
const shown = (element: Element): string[] =>
  element.attributes.display === 'none'
    ? []
    : [...(element.name === 'path' ? [element.attributes.d] : []), ...element.children.flatMap(shown)];

describe('a piece as a code module', () => {
  let all: {
    poses: { name: string; left: number; reached: number }[];
    frames: Element[];
    steps: number[];
    times: Element[];
  };
  beforeAll(() => {
    all = ask(
      'poses',
      { digits: 3 },
      '{poses: m.poses, frames: [0, 0.5, 1, 1.25, 2, -3, 7].map(m.frame), steps: [0, 1, 2, 9].map((p) => m.inStep([0, 100, 40], p)), times: [0.9, 1.3].map(m.at)}',
    ) as typeof all;
  });

  test('Node imports it; a whole number is a pose, to the decimals of the file', () => {
    expect(all.poses.map(({ name }) => name)).toEqual(['Pose 1', 'Pose 2', 'Pose 3']);
    for (const [i, k] of [
      [0, 0],
      [2, 1],
      [4, 2],
    ]) {
      const [d] = shown(all.frames[i]);
      const wanted = frameAt(piece, all.poses[k].left).figures[0].parts[0].points;
      const found = readPathData(d).contours.flatMap(({ points }) => [...points]);
      const box = (p: ArrayLike<number>): number[] => [Math.max(...Array.from(p)), Math.min(...Array.from(p))];
      box(found).forEach((v, n) => expect(v).toBeCloseTo(box(wanted)[n], 2));
    }
  });

  test('between two whole numbers it is halfway through the change, and at a time it is the picture of that time', () => {
    const [first] = all.poses;
    const half = (first.left + all.poses[1].reached) / 2;
    const wanted = frameAt(piece, half).figures[0].parts[0];
    const [contour] = readPathData(shown(all.frames[1])[0]).contours;
    expect(contour.points[0]).toBeCloseTo(wanted.points[wanted.contours[0].at], 1);
    expect(shown(all.times[0])).toHaveLength(1);
    expect(shown(all.times[1])).not.toEqual(shown(all.times[0]));
  });

  test('beyond the ends it is clamped, unless it is to go on', () => {
    expect(shown(all.frames[5])).toEqual(shown(all.frames[0]));
    expect(shown(all.frames[6])).toEqual(shown(all.frames[4]));
    const beyond = ask('beyond', { beyond: 'extrapolated' }, '[0, -0.02, -3].map(m.frame)') as Element[];
    expect(shown(beyond[2])).not.toEqual(shown(beyond[0]));
  });

  test('the last pose of what plays again is itself, though at its very end the run has begun again', () => {
    const two = pieceOf(['M0 0H100V100H0Z', 'M50 0L100 50L50 100L0 50Z']);
    const short = {
      ...two,
      playback: 'loop' as const,
      poses: Object.fromEntries(Object.entries(two.poses).map(([id, pose]) => [id, { ...pose, hold: 0 }])),
    };
    const [main] = writeCodeModule(planAndCompile(short), short, { fileName: 'short' });
    const file = path.join(folder, 'short.mjs');
    fs.writeFileSync(file, main.text);
    const script = `import * as m from ${JSON.stringify(`file://${file}`)}; console.log(JSON.stringify([m.frame(0), m.frame(1)]));`;
    const [first, last] = JSON.parse(
      execFileSync(process.execPath, ['--input-type=module', '-e', script], { encoding: 'utf8' }),
    ) as Element[];
    // A square fills twice as much of its box as a square that stands on a corner.
    const share = (element: Element): number => {
      const outline = readPathData(shown(element)[0]);
      const { minX, minY, maxX, maxY } = outlineBox(outline);
      return Math.abs(contourArea(outline.contours[0])) / ((maxX - minX) * (maxY - minY));
    };
    expect(share(first)).toBeCloseTo(1, 2);
    expect(share(last)).toBeCloseTo(0.5, 2);
  });

  test('own numbers go in step: at a pose they are its number', () => {
    expect(all.steps).toEqual([0, 100, 40, 40]);
  });

  test('0 to 1 can be the whole run, and poses can have positions of their own', () => {
    const run = ask('run', { input: 'run', digits: 3 }, '[m.frame(0.5), m.at(m.duration / 2)]') as Element[];
    expect(shown(run[0])).toEqual(shown(run[1]));
    const own = ask(
      'own',
      { positions: [10, 20, 60] },
      '[m.inStep([0, 100, 40], 20), m.inStep([0, 100, 40], 60), m.positions]',
    );
    expect(own).toEqual([100, 40, [10, 20, 60]]);
    expect(() => writeCodeModule(compiled, piece, { positions: [0, 1] })).toThrow('3 ascending positions');
    expect(() => writeCodeModule(compiled, piece, { positions: [0, 2, 1] })).toThrow('found 0, 2, 1');
  });

  test('TypeScript compiles against its types, and finds a mistake', () => {
    const files = writeCodeModule(compiled, piece, { fileName: 'typed' });
    for (const { name, text } of files) fs.writeFileSync(path.join(folder, name), text);
    const check = (code: string): string[] => {
      const file = path.join(folder, 'use.ts');
      fs.writeFileSync(file, code);
      const tsc = path.resolve('node_modules/typescript-native/bin/tsc');
      const flags = '--strict --noEmit --module esnext --moduleResolution bundler --lib es2022,dom --types';
      const { stdout } = spawnSync(process.execPath, [tsc, file, ...flags.split(' '), ''], {
        cwd: folder,
        encoding: 'utf8',
      });
      return stdout.split('\n').filter((line) => line !== '');
    };
    const use =
      "import { frame, inStep, mount } from './typed.js';\nconst name: string = frame(0.5).children[0].name;\nconst box: number[] = inStep([[0, 1], [2, 3]], 0.5);\nconst go: (progress: number) => void = mount(document.querySelector('svg') as SVGSVGElement);\nexport { name, box, go };\n";
    expect(check(use)).toEqual([]);
    expect(check(use.replace('frame(0.5)', "frame('half')"))).toEqual([
      expect.stringMatching(/error TS\d+: .*string.*number/),
    ]);
  });

  test('its text names no other module, and the name of a piece cannot break out of its comment', () => {
    const [main] = writeCodeModule(compiled, { ...piece, name: 'a\nprocess.exit(1)\u2028b' });
    expect(main.text).not.toMatch(/\bimport\b|\brequire\(/);
    expect(main.text.split('\n')[0]).toContain('a process.exit(1) b');
    expect(paths(all.frames[0]).length).toBeGreaterThan(0);
  });

  test('what it computes is what the file’s tracks say, at 60 moments, read by other code: paths, colours, transforms', () => {
    const draft = structuredClone(pieceOf(['M0 0H100V100H0Z', 'M50 0L100 50L50 100L0 50Z'])) as PieceDraft;
    const [first, second] = draft.figures.f.poses;
    draft.parts[draft.poses[second].parts[0]].fill = '#f80';
    const key = (pose: string, value: number[], shift: string | null) => ({
      id: pose,
      stop: { pose, shift },
      after: null,
      value,
      easing: null,
    });
    const [shift] = draft.figures.f.rail;
    for (const [property, from, to] of [
      ['turn', [0], [-200]],
      ['position', [0, 0], [-30.5, 12]],
    ] as const)
      draft.lanes[property] = {
        id: property,
        figure: 'f',
        property,
        keys: [key(first, [...from], null), key(second, [...to], shift)],
      };
    const moving = draft as Piece;
    const made = planAndCompile(moving);
    const times = Array.from({ length: 60 }, (_, k) => (made.duration * (k + 0.31)) / 61);
    const [main] = writeCodeModule(made, moving, { digits: 3 });
    const file = path.join(folder, 'moving.mjs');
    fs.writeFileSync(file, main.text);
    const script = `import * as m from ${JSON.stringify(`file://${file}`)}; console.log(JSON.stringify(${JSON.stringify(times)}.map(m.at)));`;
    const frames = JSON.parse(
      execFileSync(process.execPath, ['--input-type=module', '-e', script], { encoding: 'utf8' }),
    );
    const numbers = (text = ''): number[] => (text.match(/-?(?:\d+\.?\d*|\.\d+)/g) ?? []).map(Number);
    const { root } = readAnimatedDocument(writeAnimatedSvg(made, { digits: 3, named: true }));
    const compare = (wanted: DrawnElement, found: Element, seconds: number): void => {
      const now = attributesAt(wanted, seconds);
      for (const name of ['d', 'fill', 'transform'])
        if (now[name] && wanted.tracks.some(({ attribute }) => attribute === name)) {
          const [p, q] = [numbers(now[name]), numbers(found.attributes[name])];
          expect([name, q.length]).toEqual([name, p.length]);
          p.forEach((v, i) => expect(Math.abs(v - q[i])).toBeLessThan(name === 'fill' ? 1 : 2e-3));
        }
      const inside = wanted.children.filter(({ name }) => name !== 'title' && name !== 'style');
      inside.forEach((child, i) => compare(child, found.children[i], seconds));
    };
    times.forEach((seconds, i) => compare(root, frames[i], seconds));
  });

  test('own numbers that do not fit are refused in words: too few, none, lists of other lengths, a progress that is none', () => {
    const said = ask(
      'refused',
      {},
      `[[[0, 1], 0], [[0, 1, NaN], 0], [[0, '1', 2], 0], [[[0, 1], [1, 2], [3]], 1], [[0, 1, 2], NaN]].map(([values, p]) => { try { return m.inStep(values, p); } catch (error) { return error.message; } })`,
    ) as string[];
    for (const text of said)
      expect(text).toMatch(/^inStep: expected 3 numbers, or lists alike, and a progress; found /);
    expect(said[0]).toContain('[[0,1],0]');
    // Lists of one length go in step too.
    expect(ask('lists', {}, 'm.inStep([[0, 5], [10, 5], [20, 9]], 1)')).toEqual([10, 5]);
  });

  test('packed, a module is at most twice the animated SVG where that has a kilobyte', () => {
    const icons = pieceOf(
      realIcons(200)
        .slice(10, 13)
        .map(({ d }) => d),
    );
    const moving = planAndCompile(icons);
    const [[module], svg] = [writeCodeModule(moving, icons), writeAnimatedSvg(moving, { title: icons.name })];
    const [long, short] = [module.text, svg].map((text) => zlib.gzipSync(text).length);
    expect(short).toBeLessThan(1_150);
    expect(long).toBeLessThan(2 * short);
  });

  test('a small piece is a small module: its code is at most 1,200 bytes when it is packed', () => {
    const code = (options: CodeModuleOptions): number => {
      const [main] = writeCodeModule(compiled, piece, options);
      return zlib.gzipSync(main.text.slice(main.text.lastIndexOf(';\nvar '))).length;
    };
    for (const input of ['poses', 'run'] as const)
      for (const beyond of ['clamped', 'extrapolated'] as const) expect(code({ input, beyond })).toBeLessThan(1_200);
  });

  test('React is given className for what SVG calls class', () => {
    const example = writeCodeModule(compiled, piece).find(({ name }) => name === 'example-react.jsx')?.text ?? '';
    const named = new Function(`${/const named = [\s\S]*?;\n/.exec(example)?.[0]}; return named;`)() as (
      name: string,
    ) => string;
    expect(['class', 'stroke-width', 'd'].map(named)).toEqual(['className', 'strokeWidth', 'd']);
  });
});
