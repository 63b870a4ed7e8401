import {
  type CompiledPiece,
  CoreError,
  type FormId,
  LIMITS,
  MOST_FRAMES,
  type OutputField,
  type OutputOptions,
  type Piece,
  runLength,
} from '@core';

/** The largest side of a picture, px: what browsers can paint. */
const MOST_SIDE = 8192;
/** And its area, px². */
const MOST_AREA = 64 * 1024 * 1024;

/** What forms of frames cannot do as other forms do. */
interface FrameTraits {
  /** Pictures have even sides. */
  readonly even?: true;
  /** There is always something behind: 'always', or unless nothing is asked for. */
  readonly opaque?: 'always' | 'unless-asked';
  /** Frames per second, at most. */
  readonly mostFps?: number;
}
const TRAITS: Partial<Record<FormId, FrameTraits>> = {
  // Browsers hold what is shown for less than two hundredths of a second far longer (common practice).
  gif: { mostFps: 50 },
  mp4: { even: true, opaque: 'always' },
  webm: { even: true, opaque: 'unless-asked' },
};

/** How pictures of a piece are painted. */
export interface RasterSettings {
  readonly width: number;
  readonly height: number;
  /** Frames per second, as a fraction. */
  readonly rate: { readonly num: number; readonly den: number };
  /** When each frame is, s of the run. */
  readonly times: readonly number[];
  /** What lies behind: the piece's own, nothing, or a colour of CSS. */
  readonly ground: 'piece' | 'none' | { readonly colour: string };
  /** How long the shutter is open, as a share of a frame, and how many moments it sees; one sees the moment of the frame alone. */
  readonly shutter: { readonly share: number; readonly samples: number };
}

export const SIZE_FIELDS: readonly OutputField[] = [
  {
    kind: 'number',
    key: 'width',
    label: 'Width',
    unit: 'px',
    least: 1,
    most: MOST_SIDE,
    whole: true,
    empty: 'as the canvas',
    otherwise: '',
  },
  {
    kind: 'number',
    key: 'height',
    label: 'Height',
    unit: 'px',
    least: 1,
    most: MOST_SIDE,
    whole: true,
    empty: 'in proportion',
    otherwise: '',
  },
];

const choiceOfGround = (transparent: boolean): OutputField[] => [
  {
    kind: 'choice',
    key: 'ground',
    label: 'Background',
    answers: [
      { value: 'piece', label: 'As in the piece' },
      ...(transparent ? [{ value: 'none', label: 'Transparent', hint: 'What is not drawn is transparent' }] : []),
      { value: 'colour', label: 'Colour', hint: 'The colour below, where nothing is drawn' },
    ],
    otherwise: 'piece',
  },
  { kind: 'colour', key: 'matte', label: 'Background colour', otherwise: '#ffffff' },
];

/** Fields of all forms of frames; `fps` is what is common for it, or '' for the piece's own. */
export const frameFields = ({
  transparent,
  fps,
  mostFps,
}: {
  transparent: boolean;
  fps: string;
  mostFps: number;
}): readonly OutputField[] => [
  ...SIZE_FIELDS,
  {
    kind: 'number',
    key: 'fps',
    label: 'Frames per second',
    unit: 'fps',
    least: 0.1,
    most: mostFps,
    empty: 'as in the piece',
    otherwise: fps,
  },
  { kind: 'number', key: 'from', label: 'From', unit: 's', least: 0, most: LIMITS.runtime.max, otherwise: '0' },
  {
    kind: 'number',
    key: 'until',
    label: 'Until',
    unit: 's',
    least: 0,
    most: LIMITS.runtime.max,
    empty: 'the end',
    otherwise: '',
  },
  ...choiceOfGround(transparent),
  {
    kind: 'number',
    key: 'shutter',
    label: 'Shutter',
    hint: 'Motion blur: how long the shutter is open, 360° for a whole frame; 0° for none',
    unit: '°',
    least: 0,
    most: 360,
    otherwise: '0',
  },
  {
    kind: 'number',
    key: 'samples',
    label: 'Moments a frame',
    hint: 'How many moments are put together where the shutter is open',
    unit: '',
    least: 2,
    most: 32,
    whole: true,
    otherwise: '8',
  },
];

export const STILL_GROUND = choiceOfGround(true);

const refused = (message: string): CoreError => new CoreError('output-refused', message);

/** The size of a picture: what is left out follows from the canvas, in proportion. `even`: rounded up to even numbers, as video wants them. */
export function sizeOf(
  { width, height }: { readonly width: number; readonly height: number },
  options: OutputOptions,
  even = false,
): { readonly width: number; readonly height: number } {
  const [w, h] = [options.width, options.height].map((text) => (text ? Number(text) : 0));
  const scale = w > 0 ? w / width : h > 0 ? h / height : 1;
  const whole = (value: number): number => {
    const rounded = Math.max(1, Math.round(value));
    return even ? rounded + (rounded % 2) : rounded;
  };
  const size = { width: whole(w > 0 ? w : width * scale), height: whole(h > 0 ? h : height * scale) };
  if (size.width > MOST_SIDE || size.height > MOST_SIDE || size.width * size.height > MOST_AREA)
    throw refused(
      `Expected a picture of at most ${MOST_SIDE} px a side and ${MOST_AREA / 1024 / 1024} million px; found ${size.width} × ${size.height}.`,
    );
  return size;
}

/** What lies behind: where the piece has no background nothing, or, where that cannot be, white. */
export function groundOf(
  { background, ground: lane }: CompiledPiece,
  { ground, matte }: OutputOptions,
  opaque?: FrameTraits['opaque'],
): RasterSettings['ground'] {
  if (ground === 'colour') return { colour: matte };
  if (ground !== 'none' && (background || lane)) return 'piece';
  return opaque === 'always' || (opaque && ground !== 'none') ? { colour: '#ffffff' } : 'none';
}

/** Frames per second that a form makes of a piece where no others are asked for: the piece's own, as far as the form can show them. */
export function defaultRate(form: FormId, { canvas: { rate } }: Piece): { readonly num: number; readonly den: number } {
  const { mostFps = Number.POSITIVE_INFINITY } = TRAITS[form] ?? {};
  return rate.num / rate.den > mostFps ? { num: mostFps, den: 1 } : rate;
}

/**
 * Reads the options of `frameFields` as a form takes them. A form that is played several times within its file has its frames as often.
 * @throws CoreError 'output-refused' for a size or a number of frames that cannot be, and for a stretch of time without length
 */
export function rasterSettings(
  form: FormId,
  piece: Piece,
  compiled: CompiledPiece,
  options: OutputOptions,
): RasterSettings {
  const { even = false, opaque } = TRAITS[form] ?? {};
  const loops = options.loops ? Number(options.loops) : 1;
  const rate = options.fps ? fraction(Number(options.fps)) : defaultRate(form, piece);
  const length = runLength(compiled);
  const from = Number(options.from);
  const until = Math.min(length, options.until ? Number(options.until) : length);
  // A piece without a duration is one frame.
  if (length > 0 && !(until > from))
    throw refused(`Expected a stretch of time within ${+length.toFixed(3)} s; found ${from} s until ${until} s.`);
  const count = Math.max(1, Math.ceil(((until - from) * rate.num) / rate.den - 1e-6));
  if (count * loops > MOST_FRAMES)
    throw refused(
      `Expected at most ${MOST_FRAMES} frames; this makes ${count * loops}. Choose fewer a second, or a shorter stretch.`,
    );
  const times = Array.from({ length: count * loops }, (_, k) => from + ((k % count) * rate.den) / rate.num);
  const degrees = Number(options.shutter);
  return {
    ...sizeOf(compiled, options, even),
    rate,
    times,
    ground: groundOf(compiled, options, opaque),
    shutter: { share: degrees / 360, samples: degrees > 0 ? Number(options.samples) : 1 },
  };
}

/** A rate as a fraction: rates of film with decimals are thousandths of 1001. */
function fraction(fps: number): { num: number; den: number } {
  const film = Math.round(fps * 1.001);
  if (!Number.isInteger(fps) && Math.abs(film / 1.001 - fps) < 0.005) return { num: film * 1000, den: 1001 };
  return { num: Math.round(fps * 1000), den: 1000 };
}
