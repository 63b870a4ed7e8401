import { HEALTH_LIMITS, type HealthFigures, SAID_LIMITS, type Verdict, type WorstMoment } from './health-figures';

interface Told {
  readonly verdict: Verdict;
  readonly sentence: string;
  readonly worst?: WorstMoment;
}

/** What of a plan decides how strictly its figures are seen. */
export interface HealthKind {
  /** Has it several contours? They may move further and be more restless. */
  readonly several: boolean;
  /** Are all of them lines? They have no area. */
  readonly open: boolean;
  /** Does one come, or go, alone? */
  readonly coming: boolean;
}

/** The verdict on a shift's figures with one sentence on the worst of them; `box` is that of both ends, minX, minY, maxX, maxY. */
export function healthSentence(
  figures: HealthFigures,
  worst: ReadonlyMap<keyof HealthFigures, WorstMoment>,
  { several, open, coming }: HealthKind,
  box: Float64Array,
): Told {
  const at = (figure: keyof HealthFigures): string => `at ${Math.round(100 * (worst.get(figure)?.progress ?? 0))} %`;
  const near = (figure: keyof HealthFigures): string => {
    const place = placeWords(worst.get(figure), box);
    return place ? `${at(figure)}, ${place}` : at(figure);
  };
  const told = (verdict: Verdict, figure: keyof HealthFigures, sentence: string): Told => ({
    verdict,
    sentence,
    worst: worst.get(figure),
  });
  const limits = HEALTH_LIMITS;
  if (figures.folds > 0)
    return told(
      'broken',
      'folds',
      `The outline folds over itself ${near('folds')}. Try the other direction, another alternative or a tie there, or smooth the in-between.`,
    );
  if (figures.inverted > limits.inverted)
    return told(
      'broken',
      'inverted',
      `A part turns inside out ${at('inverted')}: a hole leaves its solid. Pair it with another contour, or let it go alone.`,
    );
  const room = coming ? SAID_LIMITS.coming : SAID_LIMITS.even;
  const percent = (share: number): string => `${Math.round(100 * share)} %`;
  /** Area or length that is lost, gained, or travelled: said from the first limit on, broken from the second. */
  const dip = (verdict: Verdict): Told =>
    told(
      verdict,
      'areaDip',
      `The ${open ? 'line' : 'shape'} shrinks to ${percent(figures.areaDip)} of its ${open ? 'length' : 'area'} ${at('areaDip')}. Try a fuller alternative, the other direction or another start.`,
    );
  const stretch = (verdict: Verdict): Told =>
    told(
      verdict,
      'perimeter',
      `The outline gets ${percent(figures.perimeter - 1)} longer than both ends ${at('perimeter')}: points travel across. Try a tie or another start.`,
    );
  const lump = (verdict: Verdict): Told =>
    told(
      verdict,
      'swell',
      `The shape swells to ${percent(figures.swell)} of the larger end ${at('swell')}. Straight ways swell less.`,
    );
  if (figures.areaDip < 1 - room.broken) return dip('broken');
  if (figures.perimeter > 1 + room.broken) return stretch('broken');
  if (!open && figures.swell > 1 + room.broken) return lump('broken');
  if (figures.endError > limits.endError)
    return told(
      'look',
      'endError',
      `Even spacing leaves the outline by up to ${figures.endError.toFixed(2)} px. Use more points to get closer.`,
    );
  if (figures.areaDip < 1 - room.look) return dip('look');
  if (figures.evenDip < 1 - room.evenDip)
    return told(
      'look',
      'evenDip',
      `The shape shrinks ${at('evenDip')} to ${percent(figures.evenDip)} of the area between both ends. Try a fuller alternative, other pairs or another start.`,
    );
  if (figures.perimeter > 1 + room.look) return stretch('look');
  if (!open && figures.swell > 1 + room.look) return lump('look');
  if (figures.excursion > limits.excursion)
    return told(
      'look',
      'excursion',
      `It leaves the room of both ends by ${Math.round(100 * figures.excursion)} % of its size ${at('excursion')}. Straight ways stay inside.`,
    );
  if (figures.restlessness > (several ? limits.restlessnessOfSeveral : limits.restlessness))
    return told(
      'look',
      'restlessness',
      `The outline is more jagged than both ends ${at('restlessness')}. A tie at a corner, or a softer middle, calms it.`,
    );
  if (figures.largestStep > (several ? limits.largestStepOfSeveral : limits.largestStep))
    return told(
      'look',
      'largestStep',
      `Something moves ${Math.round(100 * figures.largestStep)} % of the size at once ${at('largestStep')}. Give it more time, or pair it nearer.`,
    );
  const measure = open ? 'length' : 'area';
  // Where contours come and go more may be missing; then it is said how much.
  if (figures.areaDip < 1 - SAID_LIMITS.even.look)
    return told(
      'good',
      'areaDip',
      `Good: no folds; while contours come and go the ${measure} is ${percent(figures.areaDip)} of the smaller end ${at('areaDip')}.`,
    );
  if (figures.crossings > 0)
    return { ...told('good', 'crossings', `Good; two contours pass over each other ${near('crossings')}.`) };
  return { verdict: 'good', sentence: `Good: no folds, and the ${measure} stays even.` };
}

/** Which part of the picture a place is in, in words; empty for the middle or without a place. */
function placeWords(place: WorstMoment | undefined, box: Float64Array): string {
  if (place?.x === undefined || place.y === undefined) return '';
  const third = (value: number, low: number, high: number): -1 | 0 | 1 => {
    const share = high > low ? (value - low) / (high - low) : 0.5;
    return share < 0.36 ? -1 : share > 0.64 ? 1 : 0;
  };
  const x = third(place.x, box[0], box[2]);
  const y = third(place.y, box[1], box[3]);
  const vertical = y < 0 ? 'top' : y > 0 ? 'bottom' : '';
  const level = x < 0 ? 'left' : x > 0 ? 'right' : '';
  if (!vertical && !level) return 'in the middle';
  return `at the ${[vertical, level].filter(Boolean).join(' ')}`;
}
