import { CoreError } from '../../errors';
import { type CompiledPiece, paintedBox, prepareFrame, sampleFrame, stillPiece } from '../../frame';
import type { Piece } from '../../piece';
import { isEmptyBox } from '../../vec';
import { writeAnimatedSvg } from '../animated-svg';
import { CLIP_UNITS, writeClipPath } from '../clip-path';
import { writeCodeModule } from '../code-module';
import { writeCssSvg } from '../css-svg';
import { writeElement } from '../element';
import { writeFrameCsv, writeFrameJson } from '../frame-data';
import { writeLottie } from '../lottie/write-lottie';
import { FEATURES, type FormId, featuresOf, refusalsOf } from '../matrix';
import type { OutputFile } from '../output-file';
import type { StillBox } from '../still-svg';
import { baseNameOf } from './base-name';
import { DIGITS_FIELD, GROUND_FIELD, type OutputField, type OutputOptions, readOptions } from './form-options';

/** What an output is made from: the piece, and the same made ready with all its plans. */
export interface OutputSource {
  readonly piece: Piece;
  readonly compiled: CompiledPiece;
}

/** What is known of a form before anything is made. */
export interface FormWords {
  readonly id: FormId;
  readonly label: string;
  /** What it is good for, in a sentence or two. */
  readonly about: string;
  /** Of its main file. */
  readonly extension: string;
  readonly type: string;
  readonly fields: readonly OutputField[];
}

/** A form of text: made here, the same in a browser and on a command line. */
export interface TextForm extends FormWords {
  /** The main file first. `baseName` is what they are named after. */
  write(source: OutputSource, options: OutputOptions, baseName: string): OutputFile[];
}

const one = (name: string, text: string): OutputFile[] => [{ name, text }];
const digitsOf = ({ digits }: OutputOptions): number => Number(digits);

const FIGURE_FIELD: OutputField = { kind: 'figure', key: 'figure', label: 'Of', all: 'All figures', otherwise: '' };
const FPS_FIELD: OutputField = {
  kind: 'number',
  key: 'fps',
  label: 'Frames per second',
  unit: 'fps',
  least: 0.1,
  most: 1000,
  empty: 'as the piece',
  otherwise: '',
};

/** The forms of text, in the order in which they are offered. */
export const TEXT_FORMS: readonly TextForm[] = [
  {
    id: 'animated-svg',
    label: 'Animated SVG',
    about: 'One file for pages and as an image. It plays by itself, needs no script, and stays sharp at every size.',
    extension: 'svg',
    type: 'image/svg+xml',
    fields: [
      DIGITS_FIELD,
      {
        kind: 'switch',
        key: 'calm',
        label: 'Still picture for “reduce motion”',
        hint: 'People can ask their system to reduce motion. They then see the poster picture of the piece',
        otherwise: 'yes',
      },
      {
        kind: 'switch',
        key: 'named',
        label: 'Figures have ids',
        hint: 'Each figure’s group is named after it, for style sheets and scripts',
        otherwise: 'no',
      },
      GROUND_FIELD,
    ],
    write: ({ piece, compiled }, options, base) =>
      one(
        `${base}.svg`,
        writeAnimatedSvg(compiled, {
          digits: digitsOf(options),
          title: piece.name,
          named: options.named === 'yes',
          ...(options.calm === 'yes' && { calmAt: compiled.poster }),
        }),
      ),
  },
  {
    id: 'css',
    label: 'CSS animation',
    about:
      'An SVG that style sheets move: for pages whose animations are paused, timed or overruled by CSS. It shows a still picture for “reduce motion”.',
    extension: 'svg',
    type: 'image/svg+xml',
    fields: [
      DIGITS_FIELD,
      {
        kind: 'choice',
        key: 'wrap',
        label: 'File',
        answers: [
          { value: 'svg', label: 'SVG', hint: 'As an image, or put into a page' },
          { value: 'html', label: 'HTML', hint: 'A page with the picture in it' },
        ],
        otherwise: 'svg',
      },
      { kind: 'switch', key: 'named', label: 'Figures have ids', otherwise: 'no' },
      GROUND_FIELD,
    ],
    write: ({ piece, compiled }, options, base) =>
      one(
        options.wrap === 'html' ? `${base}.html` : `${base}.css.svg`,
        writeCssSvg(compiled, {
          calmAt: compiled.poster,
          digits: digitsOf(options),
          title: piece.name,
          named: options.named === 'yes',
          page: options.wrap === 'html',
        }),
      ),
  },
  {
    id: 'lottie',
    label: 'Lottie',
    about:
      'JSON by the open specification 1.0, for players in apps and on pages. Shapes keep their points, keys their easing.',
    extension: 'json',
    type: 'application/json',
    fields: [DIGITS_FIELD, GROUND_FIELD],
    write: ({ piece, compiled }, options, base) =>
      one(`${base}.lottie.json`, writeLottie(compiled, { digits: digitsOf(options), name: piece.name })),
  },
  {
    id: 'element',
    label: 'Custom element',
    about:
      'A tag for pages that plays, pauses, seeks and tells what it does; the picture is a file of its own beside a small player.',
    extension: 'js',
    type: 'text/javascript',
    fields: [DIGITS_FIELD, GROUND_FIELD],
    write: ({ piece, compiled }, options, base) =>
      writeElement(compiled, { digits: digitsOf(options), title: piece.name, fileName: base }),
  },
  {
    id: 'module',
    label: 'Code module',
    about:
      'An ES module with types for engineers: path data, numbers and colours for any progress, and your own numbers in step.',
    extension: 'js',
    type: 'text/javascript',
    fields: [
      DIGITS_FIELD,
      {
        kind: 'choice',
        key: 'input',
        label: 'Progress is given as',
        answers: [
          { value: 'poses', label: 'Poses', hint: '0, 1, 2 …: the poses, however long they are held' },
          { value: 'run', label: 'Time', hint: '0 to 1: the whole run with its holds' },
        ],
        otherwise: 'poses',
      },
      {
        kind: 'choice',
        key: 'beyond',
        label: 'Beyond the ends',
        answers: [
          { value: 'clamped', label: 'Held', hint: 'The first and the last picture' },
          { value: 'extrapolated', label: 'Continued', hint: 'At the pace that it has at the end' },
        ],
        otherwise: 'clamped',
      },
      GROUND_FIELD,
    ],
    write: ({ piece, compiled }, options, base) =>
      writeCodeModule(compiled, piece, {
        digits: digitsOf(options),
        input: options.input as 'poses' | 'run',
        beyond: options.beyond as 'clamped' | 'extrapolated',
        fileName: base,
      }),
  },
  {
    id: 'path-data',
    label: 'Path data by frame',
    about: 'Outlines, paints and motion of every frame as a table, for other tools and own code.',
    extension: 'json',
    type: 'application/json',
    fields: [
      {
        kind: 'choice',
        key: 'format',
        label: 'Format',
        answers: [
          { value: 'json', label: 'JSON' },
          { value: 'csv', label: 'CSV' },
        ],
        otherwise: 'json',
      },
      FPS_FIELD,
      DIGITS_FIELD,
      GROUND_FIELD,
    ],
    write: ({ compiled }, options, base) => {
      const settings = { digits: digitsOf(options), ...(options.fps && { fps: Number(options.fps) }) };
      return options.format === 'csv'
        ? one(`${base}.csv`, writeFrameCsv(compiled, settings))
        : one(`${base}.frames.json`, writeFrameJson(compiled, settings));
    },
  },
  {
    id: 'clip-path',
    label: 'Clip path',
    about: 'A style sheet whose rule clips any element of a page, a photograph for instance, to a figure that changes.',
    extension: 'css',
    type: 'text/css',
    fields: [
      { ...FIGURE_FIELD, all: 'The lowest figure' } as OutputField,
      {
        kind: 'choice',
        key: 'unit',
        label: 'Size',
        answers: [
          { value: CLIP_UNITS[1], label: 'Stretches', hint: 'Percent of the element, by shape()' },
          { value: CLIP_UNITS[0], label: 'As drawn', hint: 'px of the canvas, by path()' },
        ],
        otherwise: CLIP_UNITS[1],
      },
      DIGITS_FIELD,
    ],
    write: ({ piece, compiled }, options, base) =>
      one(
        `${base}.css`,
        writeClipPath(compiled, {
          title: piece.name,
          digits: digitsOf(options),
          unit: options.unit as (typeof CLIP_UNITS)[number],
          ...(options.figure && { figureId: options.figure }),
        }),
      ),
  },
  {
    id: 'still-svg',
    label: 'Still SVG',
    about: 'One moment of the piece as a picture that stays sharp: a poster, a fallback, an icon.',
    extension: 'svg',
    type: 'image/svg+xml',
    fields: [
      {
        kind: 'number',
        key: 'at',
        label: 'Moment',
        unit: 's',
        least: 0,
        most: 36_000,
        empty: 'that of the piece',
        otherwise: '',
      },
      FIGURE_FIELD,
      {
        kind: 'switch',
        key: 'trimmed',
        label: 'Trimmed to what is seen',
        hint: 'The file is as large as what is drawn, not as the canvas',
        otherwise: 'no',
      },
      GROUND_FIELD,
      { ...DIGITS_FIELD, otherwise: '3' },
    ],
    write: ({ piece, compiled }, options, base) => {
      const still = stillOf(compiled, options);
      const text = writeAnimatedSvg(still.compiled, { digits: digitsOf(options), title: piece.name, box: still.box });
      return one(`${base}.svg`, text);
    },
  },
];

/** The moment of a still, s; none given: the one whose picture stands for the piece. */
export const stillMoment = ({ poster }: CompiledPiece, at: string): number => (at === '' ? poster : Number(at));

/**
 * What of a piece a still shows: a moment, one figure or all, with or without what is behind, and the box of the canvas that it shows.
 * @throws CoreError 'output-refused' for a figure that is not there, and where there is nothing to trim to
 */
export function stillOf(
  compiled: CompiledPiece,
  options: OutputOptions,
): { readonly compiled: CompiledPiece; readonly box: StillBox } {
  const { at, figure, trimmed } = options;
  const still = stillPiece(withGround(compiled, options), stillMoment(compiled, at));
  if (figure && !still.figures.some(({ id }) => id === figure))
    throw new CoreError('output-refused', `Expected a figure of the piece; “${figure.slice(0, 40)}” is none.`);
  const shown: CompiledPiece = {
    ...still,
    figures: still.figures.map((each) => ({ ...each, hidden: each.hidden || (figure !== '' && each.id !== figure) })),
  };
  const { width, height } = shown;
  if (trimmed !== 'yes') return { compiled: shown, box: { x: 0, y: 0, width, height } };
  const box = paintedBox(sampleFrame(shown, 0, prepareFrame(shown)));
  if (isEmptyBox(box))
    throw new CoreError('output-refused', 'There is nothing to trim to: at this moment nothing is seen.');
  const [x, y] = [Math.floor(box.minX), Math.floor(box.minY)];
  return {
    compiled: shown,
    box: { x, y, width: Math.max(1, Math.ceil(box.maxX) - x), height: Math.max(1, Math.ceil(box.maxY) - y) },
  };
}

/**
 * Makes the files of a form of text.
 * @throws CoreError 'option' for options that the form does not have, 'output-refused' for what it has no words for
 */
export function makeTextFiles(
  form: TextForm,
  source: OutputSource,
  given: Readonly<Record<string, unknown>>,
): OutputFile[] {
  checkRefusals(form, source);
  const options = readOptions(form, given);
  return form.write(
    { ...source, compiled: withGround(source.compiled, options) },
    options,
    baseNameOf(source.piece.name),
  );
}

/** A piece with what lies behind it, or without where the options of a form say so. */
export const withGround = (compiled: CompiledPiece, { ground }: OutputOptions): CompiledPiece =>
  ground === 'no' ? { ...compiled, background: null, ground: null } : compiled;

/**
 * @throws CoreError 'output-refused' with all that the form refuses of a piece, or where there is nothing to take out
 */
export function checkRefusals(
  { id, label }: { readonly id: FormId; readonly label: string },
  { piece, compiled }: OutputSource,
): void {
  if (piece.figureOrder.length === 0)
    throw new CoreError('output-refused', 'There is nothing to take out: the piece has no figures yet.');
  const refusals = refusalsOf(id, featuresOf(piece, compiled));
  if (refusals.length > 0)
    throw new CoreError(
      'output-refused',
      `${label} cannot show this piece. ${refusals.map(({ feature, reason }) => `${FEATURES[feature].label}: ${reason}`).join(' ')}`,
    );
}
