import { HEALTH_LIMITS, type Health } from '@core';
import { LineChart } from '../../ui/LineChart';

/** What is measured over progress, and the figures of the whole shift. */
export default function MatchCharts({ health }: { readonly health: Health | undefined }) {
  if (!health) return <p className="details-note">Being measured …</p>;
  if (health.moments.length === 0) return <p className="details-note">Nothing changes shape.</p>;
  const over = (pick: (moment: Health['moments'][number]) => number) =>
    health.moments.map((moment) => ({ x: moment.progress, y: pick(moment) }));
  const percent = (v: number): string => `${Math.round(100 * v)} %`;
  const figures: readonly [string, string][] = [
    ['Folds in the worst frame', String(health.folds)],
    ['Crossings of contours', String(health.crossings)],
    ['Least area, of the smaller end', percent(health.areaDip)],
    ['Least area, of an even change', percent(health.evenDip)],
    ['Largest area, of the larger end', percent(health.swell)],
    ['Longest, of the longer end', percent(health.perimeter)],
    ['Outside both ends', percent(health.excursion)],
    ['Restlessness, of the livelier end', percent(health.restlessness)],
    ['Largest step', percent(health.largestStep)],
    ['Worst kink', `${health.kink.toFixed(1)}°`],
  ];
  return (
    <>
      <LineChart title="Area" unit="px²" points={over(({ area }) => area)} />
      <LineChart title="Length" unit="px" points={over(({ length }) => length)} />
      <LineChart title="Folds" points={over(({ folds }) => folds)} />
      <LineChart
        title="Largest step"
        unit="%"
        digits={1}
        limit={100 * HEALTH_LIMITS.largestStep}
        points={over(({ step }) => 100 * step)}
      />
      <dl className="match-figures">
        {figures.map(([name, value]) => (
          <div key={name}>
            <dt>{name}</dt>
            <dd className="numbers">{value}</dd>
          </div>
        ))}
      </dl>
    </>
  );
}
