import { EVEN_SPLINE, easedKeys, easingSegments } from '../easing';
import type { CompiledPiece } from '../frame';
import { type Id, type Piece, railTimeline } from '../piece';
import { numberText } from '../svg';
import { type AnimatedSvgOptions, drawPiece } from './animated-svg';
import { figureNames } from './figure-names';
import type { OutputFile } from './output-file';
import { withOwnNames } from './own-names';
import type { PackedElement, PackedTrack, PoseTime } from './runtime/packed';
import { MODULE_RUNTIME } from './runtime/runtime.generated';
import type { DrawnElement } from './tree/drawn-element';
import { mixable } from './tree/mixable';

export const MODULE_INPUTS = ['poses', 'run'] as const;

export interface CodeModuleOptions extends Pick<AnimatedSvgOptions, 'digits'> {
  /** What `frame` takes: 0, 1, 2 … for the poses of the figure that has most of them, or 0 to 1 for the whole run. Default: poses. */
  readonly input?: (typeof MODULE_INPUTS)[number];
  /** In place of 0, 1, 2 …: a number for each pose, ascending. */
  readonly positions?: readonly number[];
  /** What is before the first and after the last: their pictures, or the pace of the change there goes on. Default: clamped. */
  readonly beyond?: 'clamped' | 'extrapolated';
  /** Base name of the files. Default: piece. */
  readonly fileName?: string;
}

/** The figure with most poses, and of these the lowest: its poses are what numbers of the module stand for. */
const leadingFigure = ({ figureOrder, figures }: Piece): Id =>
  figureOrder.reduce((best, id) => (figures[id].rail.length > figures[best].rail.length ? id : best), figureOrder[0]);

/**
 * Writes a piece as an ES module without dependencies, its types, and examples for plain pages and for React. `frame(progress)` and `at(seconds)` give the
 * elements of an SVG with their attributes, `inStep(values, progress)` numbers of one's own that go the same way.
 *
 * @returns the module first
 * @throws RangeError where there are not as many ascending positions as poses
 */
export function writeCodeModule(compiled: CompiledPiece, piece: Piece, options: CodeModuleOptions = {}): OutputFile[] {
  const { input = 'poses', beyond = 'clamped', fileName = 'piece', digits } = options;
  const root = drawPiece(compiled, { digits, named: true });
  const { poses, track } = posesOf(piece, leadingFigure(piece), compiled.duration);
  const positions = options.positions ?? poses.map((_, i) => i);
  if (
    positions.length !== poses.length ||
    positions.some((v, i) => !Number.isFinite(v) || (i > 0 && v <= positions[i - 1]))
  )
    throw new RangeError(
      `Expected ${poses.length} ascending positions, one for each pose; found ${positions.join(', ')}.`,
    );
  const names = figureNames(compiled.figures);
  const constants = (values: Readonly<Record<string, unknown>>): string =>
    Object.entries(values)
      .map(([name, value]) => `${name} = ${JSON.stringify(value)}`)
      .join(',\n  ');
  const text = [
    // What it has stands beside it: ten words here would be a twentieth of a small file.
    `// ${oneLine(piece.name)}\n`,
    `export const ${constants({
      width: compiled.width,
      height: compiled.height,
      duration: round(compiled.duration),
      input,
      figures: names,
      poses,
    })},\n  positions = ${options.positions ? JSON.stringify(positions) : 'poses.map((_, i) => i)'};\n`,
    `const steps = ${shortJson(track)};\n`,
    `const picture = ${withOwnNames(shortJson(packed(root)), piece.name)};\n`,
    MODULE_RUNTIME[`${input} ${beyond}`],
  ].join('');
  return [
    { name: `${fileName}.js`, text },
    { name: `${fileName}.d.ts`, text: TYPES },
    { name: 'example.html', text: pageExample(fileName, positions, input) },
    { name: 'example-react.jsx', text: reactExample(fileName) },
  ];
}

/** JSON in which what goes evenly has no curve. */
const shortJson = (value: unknown): string => JSON.stringify(value).replaceAll('[0,0,1,1]', '0');

const oneLine = (text: string): string => text.replace(/[\r\n\u2028\u2029]+/g, ' ');
const round = (value: number): number => Number(numberText(value, 6));

const MOMENT_S = 1e-6;

/** When each pose is reached and left, and the number of the pose over time. */
function posesOf(piece: Piece, figureId: Id, duration: number): { poses: PoseTime[]; track: PackedTrack } {
  const { stops, spans } = railTimeline(piece, piece.figures[figureId]);
  const poses = stops.map(({ poseId, start, hold }): PoseTime => {
    const { name } = piece.poses[poseId];
    // At its very end what plays again has begun again.
    return {
      name,
      reached: Math.max(0, Math.min(round(start), round(duration - MOMENT_S))),
      left: round(start + hold),
    };
  });
  const length = Math.max(duration, 1e-6);
  const times: number[] = [0];
  const values: string[] = ['0'];
  const splines: number[][] = [];
  const add = (time: number, value: number, spline: readonly number[]): void => {
    times.push(Math.min(1, Math.max(times[times.length - 1], round(time / length))));
    values.push(numberText(value, 6));
    splines.push([...spline].map(round));
  };
  spans.forEach(({ shift, end }, i) => {
    const start = stops[i].start + stops[i].hold;
    add(start, i, EVEN_SPLINE);
    for (const { time, progress, spline } of easedKeys(easingSegments(shift.easing), [0, 1]).slice(1))
      add(start + (end - start) * time, i + progress, spline);
  });
  add(length, poses.length - 1, EVEN_SPLINE);
  return { poses, track: ['', '', 0, round(length), 0, times, splines, values] };
}

/** A colour by its numbers; anything else as it is. */
function rgbText(value: string): string {
  if (value[0] !== '#') return value;
  const wide = value.length < 7 ? value.slice(1).replace(/./g, '$&$&') : value.slice(1);
  return `rgb(${[0, 2, 4].map((i) => Number.parseInt(wide.slice(i, i + 2), 16)).join(',')})`;
}

function packed({ name, attributes: all, children, tracks }: DrawnElement): PackedElement {
  // What is hidden at first is so by its tracks too: without a style sheet classes say nothing.
  const { class: _, ...attributes } = all;
  return [
    name,
    attributes,
    children.filter((child) => child.name !== 'title' && child.name !== 'style').map(packed),
    tracks.map((track): PackedTrack => {
      const { attribute, step, begin, duration, repeats, jumps, times, splines, values } = track;
      return [
        attribute,
        step?.type ?? '',
        begin,
        duration,
        (repeats ? 1 : 0) + (jumps ? 2 : 0),
        times,
        splines,
        mixable(attribute, step?.type, values).map(rgbText),
      ];
    }),
  ];
}

const TYPES = `/** An element of SVG at a moment, with its attributes. */
export interface FrameElement {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly FrameElement[];
}
/** Size of the canvas, px. */
export const width: number;
export const height: number;
/** Of the whole run, s. */
export const duration: number;
/** The poses, and when each is reached and left, s. */
export const poses: readonly { readonly name: string; readonly reached: number; readonly left: number }[];
/** What \`frame\` takes: a number for each pose, or 0 to 1 for the whole run. */
export const input: 'poses' | 'run';
/** The number of each pose. */
export const positions: readonly number[];
/** Ids of the figures' groups. */
export const figures: readonly string[];
/** The whole picture for a progress: the element svg. */
export function frame(progress: number): FrameElement;
/** The whole picture at a time in s. */
export function at(seconds: number): FrameElement;
/** Numbers of your own, one for each pose, eased as the figure is. */
export function inStep(values: readonly number[], progress: number): number;
export function inStep(values: readonly (readonly number[])[], progress: number): number[];
/** Puts the picture into an empty svg element; call what it returns with a progress to change it. */
export function mount(svg: SVGSVGElement): (progress: number) => void;
`;

const pageExample = (name: string, positions: readonly number[], input: string): string => {
  const last = input === 'run' ? 1 : positions[positions.length - 1];
  const first = input === 'run' ? 0 : positions[0];
  return `<!doctype html>
<html lang="en">
<meta charset="utf-8">
<title>${name}</title>
<svg id="picture"></svg>
<input id="progress" type="range" min="${first}" max="${last}" step="0.001" value="${first}" aria-label="Progress">
<script type="module">
import { mount } from './${name}.js';
const update = mount(document.getElementById('picture'));
document.getElementById('progress').addEventListener('input', (event) => update(Number(event.target.value)));
</script>
</html>
`;
};

const reactExample = (name: string): string => `import { createElement } from 'react';
import { frame } from './${name}.js';

// React has names of its own for what SVG calls stroke-width or class.
const named = (name) =>
  name === 'class' ? 'className' : name.replace(/-([a-z])/g, (_, letter) => letter.toUpperCase());
const draw = ({ name, attributes, children }, key) =>
  createElement(
    name,
    { key, ...Object.fromEntries(Object.entries(attributes).map(([each, value]) => [named(each), value])) },
    children.map(draw),
  );

/** The picture for a progress. */
export const Picture = ({ progress }) => draw(frame(progress));
`;
