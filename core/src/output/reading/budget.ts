import { CoreError } from '../../errors';

/** Work that reading one file that moves may take: about two seconds. The longest table of the example pieces, two megabytes of paths by frame, takes nine tenths of it. */
const WORK_LIMIT = 24_000_000;

/** What is counted: about a tenth of a microsecond each. */
export const READING_COST = {
  /** A look at a shape, whatever it says; each character of what it and the elements around it say; each of style sheets, once. */
  look: 500,
  character: 1,
  styleCharacter: 5,
  /** A transform that is worked out by itself; a path of which only the points changed, and each number of it. */
  place: 60,
  path: 150,
  number: 3,
  /** A shape that is put in, with all its groups. */
  leaf: 3_000,
} as const;

/**
 * Counts the work of reading a file that moves. A small file can ask for any amount of it, by keys, copies, clips or rules; one that asks for too much is refused
 * after about as long as a large plain one takes. It counts work, not time: the same file is read, or refused, on every machine.
 */
export class ReadingBudget {
  private spent = 0;

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
