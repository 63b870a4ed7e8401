import { readPathData } from '../svg';
import { evaluate } from './evaluate';
import { inBetweenPathData } from './plan-outline';
import { rankAlternatives } from './rank';

export interface MorphPathsOptions {
  /** Decimals of the written numbers, 0 to 12. Default 3. */
  readonly digits?: number;
}

/**
 * Two path strings in, path data out as a function of progress; all decisions automatic. The returned function gives the same
 * commands at every progress.
 *
 * @throws CoreError as `readPathData` does
 */
export function morphPaths(dA: string, dB: string, options: MorphPathsOptions = {}): (progress: number) => string {
  const [{ plan }] = rankAlternatives(readPathData(dA), readPathData(dB));
  const inBetween = new Float64Array(plan.from.length);
  return (progress) => inBetweenPathData(plan, evaluate(plan, progress, inBetween), options.digits ?? 3);
}
