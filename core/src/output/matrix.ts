import { easingInFiles } from '../easing';
import type { CompiledPiece } from '../frame';
import {
  type GradientPlace,
  LANE_KIND_IDS,
  type Lane,
  type LaneKind,
  type LaneKindId,
  laneKind,
  PAINTLESS,
  type PaintLanes,
} from '../lane';
import { isShapeNumber, type Piece } from '../piece';
import { isCircle } from './lane-looks';

/** All forms of output. */
export const FORM_IDS = [
  'animated-svg',
  'css',
  'lottie',
  'element',
  'module',
  'path-data',
  'clip-path',
  'still-svg',
  'still-png',
  'png-sequence',
  'sprite-sheet',
  'apng',
  'gif',
  'mp4',
  'webm',
] as const;
export type FormId = (typeof FORM_IDS)[number];

/**
 * What happens to a feature in a form. It is kept *exact*. Or it is *baked* as keys or frames within a deviation. Or it is *refused*, and then nothing is
 * made. Or it is *beside* what the form is for, and then the rest is made without it.
 */
export type Cell =
  | { readonly kind: 'exact' }
  | { readonly kind: 'baked'; readonly deviation: string }
  | { readonly kind: 'refused' | 'beside'; readonly reason: string };

/** A feature of a piece that some form cannot keep exactly. */
interface Feature {
  readonly label: string;
  has(piece: Piece, compiled: CompiledPiece): boolean;
}

const lanesOf = (piece: Piece) => Object.values(piece.lanes);
const hasLane =
  (property: string) =>
  (piece: Piece): boolean =>
    lanesOf(piece).some((lane) => lane.property === property);
const partsOf = (compiled: CompiledPiece) =>
  compiled.figures.flatMap(({ spans, over, hidden }) =>
    hidden ? [] : spans.flatMap(({ parts }) => parts.map((part) => ({ part, over }))),
  );
const contoursOf = (compiled: CompiledPiece) =>
  compiled.figures.flatMap(({ spans }) => spans.flatMap(({ parts }) => parts.flatMap(({ plan }) => plan.contours)));
const moves = (lane: Lane): boolean => lane.ramps.some(({ blend }) => !blend.still);
const gradientsOf = (paint: PaintLanes | null | undefined): readonly GradientPlace[] =>
  paint?.kind === 'gradient' ? paint.places : [];
/** The paints in use: fills and stroke paints that no lane replaces. */
const paintsOf = (compiled: CompiledPiece) =>
  partsOf(compiled).flatMap(({ part, over }) => [
    ...(over?.fill ? [] : [{ paint: part.fill, pen: false }]),
    ...(over?.stroke ? [] : [{ paint: part.stroke?.paint, pen: true }]),
  ]);
const placesOf = (compiled: CompiledPiece) =>
  paintsOf(compiled).flatMap(({ paint, pen }) => gradientsOf(paint).map((place) => ({ place, pen })));

const isCentred = (focus: Lane): boolean =>
  focus.ramps.every(({ blend }) => {
    const out = new Float64Array(blend.size);
    blend.write(0, out, 0);
    return out.every((v) => v === 0);
  });
const placeMoves = (place: GradientPlace): boolean =>
  place.kind === 'linear' ? moves(place.line) : moves(place.ellipse) || moves(place.focus);
const goesBy =
  (files: ReturnType<typeof easingInFiles>) =>
  (piece: Piece): boolean =>
    [...Object.values(piece.shifts), ...lanesOf(piece).flatMap(({ keys }) => keys)].some(
      ({ easing }) => easing !== null && easingInFiles(easing) === files,
    );

/** A feature for each kind of lane. */
const LANE_FEATURES = Object.fromEntries(
  LANE_KIND_IDS.map((id): [LaneKindId, Feature] => [id, { label: laneKind(id).words.label, has: hasLane(id) }]),
) as Readonly<Record<LaneKindId, Feature>>;

export const FEATURES = {
  outline: { label: 'Outlines', has: (_piece, { figures }) => figures.length > 0 },
  ...LANE_FEATURES,
  opacity: {
    label: 'Opacity',
    has: (piece) => hasLane('opacity')(piece) || Object.values(piece.figures).some(({ opacity }) => opacity < 1),
  },
  fill: { label: 'Fill', has: (_piece, compiled) => partsOf(compiled).some(({ part }) => part.fill !== null) },
  stroke: { label: 'Stroke', has: (_piece, compiled) => partsOf(compiled).some(({ part }) => part.stroke !== null) },
  dash: {
    label: 'Dashes',
    has: (_piece, compiled) => partsOf(compiled).some(({ part }) => (part.stroke?.properties.dash.size ?? 0) > 0),
  },
  pen: {
    label: 'Caps and joins that change',
    has: (_piece, compiled) =>
      partsOf(compiled).some(
        ({ part: { stroke } }) => stroke && (moves(stroke.properties.cap) || moves(stroke.properties.join)),
      ),
  },
  miter: {
    label: 'A limit of mitres that changes',
    has: (_piece, compiled) => partsOf(compiled).some(({ part }) => part.stroke && moves(part.stroke.properties.miter)),
  },
  shapeNumbers: {
    label: 'Numbers of shapes',
    has: (piece) => lanesOf(piece).some(({ property }) => isShapeNumber(property)),
  },
  background: { label: 'Background that changes', has: hasLane('background') },
  gradient: { label: 'Gradients', has: (_piece, compiled) => placesOf(compiled).length > 0 },
  movingGradient: {
    label: 'Gradients that move',
    has: (_piece, compiled) => placesOf(compiled).some(({ place }) => placeMoves(place)),
  },
  ellipse: {
    label: 'Gradients of two radii that move or paint a line',
    has: (_piece, compiled) =>
      placesOf(compiled).some(
        ({ place, pen }) => place.kind === 'radial' && !isCircle(place.ellipse) && (pen || moves(place.ellipse)),
      ),
  },
  focus: {
    label: 'Radial gradients that start off their middle',
    has: (_piece, compiled) =>
      placesOf(compiled).some(
        ({ place }) => place.kind === 'radial' && (moves(place.focus) || !isCentred(place.focus)),
      ),
  },
  unpaired: {
    label: 'Contours that come and go',
    has: (_piece, compiled) => contoursOf(compiled).some(({ role }) => role !== 'pair'),
  },
  slits: {
    label: 'Slits and cuts',
    has: (_piece, compiled) =>
      contoursOf(compiled).some(({ bridgesA, bridgesB }) => bridgesA.length + bridgesB.length > 0),
  },
  melt: {
    label: 'Contours that melt',
    has: (_piece, compiled) => contoursOf(compiled).some(({ keys, wipe }) => keys !== undefined || wipe !== undefined),
  },
  clip: { label: 'Seen inside another figure', has: (_piece, { figures }) => figures.some(({ clip }) => clip >= 0) },
  curves: { label: 'Easing by a curve', has: goesBy('curves') },
  springs: { label: 'Springs and bounces', has: goesBy('springs') },
  steps: { label: 'Steps and holds', has: goesBy('steps') },
  follow: {
    label: 'Following another figure',
    has: (piece) => lanesOf(piece).some(({ follow }) => follow !== undefined),
  },
  drift: { label: 'Drift', has: (piece) => lanesOf(piece).some(({ drift }) => drift !== undefined) },
  pulse: { label: 'Pulse', has: (piece) => lanesOf(piece).some(({ pulse }) => pulse !== undefined) },
  loop: { label: 'Plays again and again', has: ({ playback }) => playback === 'loop' },
  back: { label: 'Plays there and back', has: ({ playback }) => playback === 'back' },
  stretch: { label: 'Plays a stretch again', has: ({ playback }) => playback === 'stretch' },
} as const satisfies Readonly<Record<string, Feature>>;
export type FeatureId = keyof typeof FEATURES;
export const FEATURE_IDS = Object.keys(FEATURES) as readonly FeatureId[];

const EXACT: Cell = { kind: 'exact' };
const baked = (deviation: string): Cell => ({ kind: 'baked', deviation });
const refused = (reason: string): Cell => ({ kind: 'refused', reason });
const beside = (reason: string): Cell => ({ kind: 'beside', reason });

/** A cell for every feature. The type makes sure that none is forgotten. */
type Row = Readonly<Record<FeatureId, Cell>>;

const laneCells = (cellOfKind: (kind: LaneKind) => Cell): Readonly<Record<LaneKindId, Cell>> =>
  Object.fromEntries(LANE_KIND_IDS.map((id) => [id, cellOfKind(laneKind(id))])) as Record<LaneKindId, Cell>;

/** Pictures that the program renders itself: they show everything. */
const PICTURE: Row = {
  ...laneCells(() => EXACT),
  outline: EXACT,
  dash: EXACT,
  pen: EXACT,
  miter: EXACT,
  shapeNumbers: EXACT,
  gradient: EXACT,
  movingGradient: EXACT,
  ellipse: EXACT,
  focus: EXACT,
  unpaired: EXACT,
  slits: EXACT,
  melt: EXACT,
  clip: EXACT,
  curves: EXACT,
  springs: EXACT,
  steps: EXACT,
  follow: EXACT,
  drift: EXACT,
  pulse: EXACT,
  loop: EXACT,
  back: EXACT,
  stretch: EXACT,
};

const driven = baked('0.02 px or half a level of 255');
/** Keys where the value bends; the format moves in straight lines between them. */
const KEYED: Row = {
  ...laneCells(({ files }) => baked(files.deviation)),
  outline: baked('0.1 px'),
  dash: baked('0.05 px'),
  pen: EXACT,
  miter: baked('0.01'),
  shapeNumbers: baked('0.1 px'),
  gradient: EXACT,
  movingGradient: baked('0.05 px'),
  ellipse: baked('0.05 px'),
  focus: baked('0.1 % of the radius'),
  unpaired: EXACT,
  slits: EXACT,
  melt: baked('0.1 px'),
  clip: EXACT,
  curves: EXACT,
  springs: baked('a curve for each swing, within 0.1 px'),
  steps: EXACT,
  follow: driven,
  drift: driven,
  pulse: driven,
  loop: EXACT,
  back: EXACT,
  stretch: EXACT,
};
const ONE_PICTURE: Row = {
  ...PICTURE,
  loop: beside('It is one picture.'),
  back: beside('It is one picture.'),
  stretch: beside('It is one picture.'),
};
const frames = baked('a key for each frame');
const paintless = beside(PAINTLESS);
const FILM: Row = {
  ...PICTURE,
  outline: baked('what the codec loses'),
  loop: beside('Its player decides whether it plays again.'),
  stretch: beside('It is played up to the end of the stretch.'),
};
const begunAgain = refused('An animated picture begins again at its first frame, not at the stretch.');

/** The matrix: what happens to each feature in each form. */
const ROWS: Readonly<Record<FormId, Row>> = {
  'animated-svg': KEYED,
  css: {
    ...KEYED,
    movingGradient: baked(
      '0.05 px, by animation of SVG itself: CSS has no property for it, and it goes on where less motion is asked for',
    ),
    ellipse: baked('0.05 px, by animation of SVG itself'),
  },
  element: KEYED,
  module: KEYED,
  lottie: {
    ...KEYED,
    ...laneCells(({ files }) => (files.lottie === null ? baked(files.deviation) : refused(files.lottie))),
    miter: refused('What plays Lottie knows one limit of mitres for the whole file.'),
    focus: refused('What plays Lottie lets a radial gradient start in its middle, whatever the file says.'),
    ellipse: refused(
      'Lottie 1.0 has radial gradients of one radius; one of two can stand still in an area, but not move and not paint a line.',
    ),
    loop: beside('Its player decides whether it plays again.'),
    stretch: baked('none up to the end of the stretch, which a marker named “again” tells its player'),
  },
  'path-data': PICTURE,
  'clip-path': {
    ...PICTURE,
    ...laneCells(({ files }) => (files.clipPath === null ? frames : beside(files.clipPath))),
    outline: baked('0.1 px'),
    melt: baked('0.1 px'),
    shapeNumbers: baked('0.1 px'),
    springs: baked('0.1 px'),
    follow: frames,
    drift: frames,
    pulse: frames,
    dash: paintless,
    pen: paintless,
    miter: paintless,
    gradient: paintless,
    movingGradient: paintless,
    ellipse: paintless,
    focus: paintless,
    clip: beside('One figure is taken, without what it is seen inside.'),
  },
  'still-svg': ONE_PICTURE,
  'still-png': ONE_PICTURE,
  'png-sequence': {
    ...PICTURE,
    loop: beside('Image sequences have no loop.'),
    stretch: beside('Image sequences have no loop.'),
  },
  'sprite-sheet': PICTURE,
  apng: { ...PICTURE, stretch: begunAgain },
  gif: {
    ...PICTURE,
    opacity: baked('256 colours; with transparency each pixel is seen or not'),
    gradient: baked('256 colours, dithered where chosen'),
    softness: baked('256 colours, dithered where chosen'),
    stretch: begunAgain,
  },
  mp4: FILM,
  webm: FILM,
};

/** What happens to a feature in a form. */
export const cellOf = (form: FormId, feature: FeatureId): Cell => ROWS[form][feature];

/** The features that a piece uses. */
export const featuresOf = (piece: Piece, compiled: CompiledPiece): FeatureId[] =>
  FEATURE_IDS.filter((id) => (FEATURES[id] as Feature).has(piece, compiled));

/** What a form refuses of a piece, with reasons; empty if it can be made. */
export const refusalsOf = (
  form: FormId,
  features: readonly FeatureId[],
): { readonly feature: FeatureId; readonly reason: string }[] =>
  features.flatMap((feature) => {
    const cell = cellOf(form, feature);
    return cell.kind === 'refused' ? [{ feature, reason: cell.reason }] : [];
  });
