import { CoreError } from '../../errors';

/** Work that reading one file may take. A file of the largest size with one long path takes two thirds of it. */
const WORK_LIMIT = 24_000_000;

/**
 * Counts the work of reading a file. References let a small file ask for any amount of it; a file that asks for too much is refused after about as long as
 * one of the largest size takes.
 */
export class WorkBudget {
  private spent = 0;

  /** @throws CoreError 'svg-too-complex' */
  spend(work: number, line: number): void {
    this.spent += work;
    if (this.spent <= WORK_LIMIT) return;
    throw new CoreError(
      'svg-too-complex',
      `Expected an SVG whose elements, style rules, clips and uses can be read in a moment; this one multiplies them beyond that (reached in line ${line}).`,
      `line ${line}`,
    );
  }
}
