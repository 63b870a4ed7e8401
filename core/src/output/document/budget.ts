import { CoreError } from '../../errors';

/** Work that reading one file that moves may take: about two seconds. The longest table of the example pieces, two megabytes of paths by frame, takes nine tenths of it. */
const WORK_LIMIT = 24_000_000;

/** Work that may go into finding out what could be simpler, about a second, where so much is left of all. */
const EXTRA_LIMIT = 7_000_000;

/** What is counted: about a tenth of a microsecond each. */
export const READING_COST = {
  /** A look at a shape, whatever it says; each character of what it and the elements around it say; each of style sheets, once. */
  look: 1_500,
  character: 1,
  styleCharacter: 5,
  /** A character of a value that is put together, or of an outline that is taken apart to have one structure at all keys. */
  made: 3,
  /** A place on a curve, by its length. */
  curve: 150,
  /** A transform that is worked out by itself; a path of which only the points changed, and each number of it. */
  place: 90,
  path: 150,
  number: 3,
  /** A shape's way that is planned and held against the file, and what that grows by: with the pairs of contours, and with the pairs of segments. */
  plan: 500_000,
  planSegments: 100,
  /** A segment of an outline that is held against another. */
  pair: 0.3,
  /** A value that is looked at, at one time, and what it costs besides where it was not looked at before; an element around a shape that is read. */
  value: 8,
  newValue: 80,
  element: 400,
  /** A shape that is put in, with all its groups. */
  leaf: 3_000,
} as const;

/**
 * Counts the work of reading a file that moves. A small file can ask for any amount of it, by keys, copies, clips or rules; one that asks for too much is refused
 * after about as long as a large plain one takes. It counts work, not time: the same file is read, or refused, on every machine.
 */
export class ReadingBudget {
  private spent = 0;
  private extra = 0;

  /** Takes work for something that can be left out, if there is so much left for such things. */
  take(work: number): boolean {
    if (this.extra + work > EXTRA_LIMIT || this.spent + this.extra + work > WORK_LIMIT) return false;
    this.extra += work;
    return true;
  }

  /** @throws CoreError 'svg-too-complex' */
  spend(work: number): void {
    this.spent += work;
    if (this.spent <= WORK_LIMIT) return;
    throw new CoreError(
      'svg-too-complex',
      'Expected a file that moves and can be read in some seconds; this one has too many keys, copies, clips or style rules for that. Take it in as fewer shapes, or still.',
    );
  }
}
