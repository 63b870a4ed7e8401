import { HEALTH_LIMITS, type Health } from '@core';
import { LineChart } from '../../ui/charts/LineChart';

/** What is measured over progress, and the figures of the whole shift. */
export default function MatchCharts({ health }: { readonly health: Health | undefined }) {
  if (!health) return <p className="details-note">Being measured …</p>;
  if (health.moments.length === 0) return <p className="details-note">Nothing changes shape.</p>;
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
      <OverProgress title="Area" unit="px²" health={health} pick={({ area }) => area} />
      <OverProgress title="Length" unit="px" health={health} pick={({ length }) => length} />
      <OverProgress title="Folds" health={health} pick={({ folds }) => folds} />
      <OverProgress
        title="Largest step"
        unit="%"
        digits={1}
        limit={100 * HEALTH_LIMITS.largestStep}
        health={health}
        pick={({ step }) => 100 * step}
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

/** One figure at each moment of a shift that was measured. */
function OverProgress({
  title,
  unit,
  health: { moments },
  pick,
  digits = 0,
  limit,
}: {
  readonly title: string;
  readonly unit?: string;
  readonly health: Health;
  readonly pick: (moment: Health['moments'][number]) => number;
  readonly digits?: number;
  readonly limit?: number;
}) {
  const values = moments.map(pick);
  const text = (value: number): string => `${value.toFixed(digits)}${unit ? ` ${unit}` : ''}`;
  const [least, most] = [Math.min(...values), Math.max(...values)];
  return (
    <LineChart
      title={title}
      says={least === most ? text(most) : `${text(least)} to ${text(most)}`}
      places={moments.map(({ progress }) => progress)}
      placeText={(place) => `at ${Math.round(100 * place)} %`}
      lines={[{ name: title, values, text }]}
      limit={limit}
    />
  );
}
