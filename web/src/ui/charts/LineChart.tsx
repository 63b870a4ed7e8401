import { Line, LineChart as Lines, ReferenceLine, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import './charts.scss';

/** One line of a chart: a value for each place, and what is said of a value. */
export interface ChartLine {
  readonly name: string;
  readonly values: readonly number[];
  readonly text: (value: number) => string;
  /** A companion of the others, drawn lighter. */
  readonly dashed?: boolean;
}

/**
 * A small chart of lines over time or progress; a place of it can be asked by pointer or arrow keys.
 *
 * @param places where the values stand, ascending
 * @param limit a level that is better not passed
 */
export function LineChart({
  title,
  says,
  lines,
  places,
  placeText,
  limit,
}: {
  readonly title: string;
  readonly says: string;
  readonly lines: readonly ChartLine[];
  readonly places: readonly number[];
  readonly placeText: (place: number) => string;
  readonly limit?: number;
}) {
  const all = lines.flatMap(({ values }) => values);
  const high = Math.max(...all, limit ?? -Infinity);
  const low = Math.min(0, ...all);
  const rows = places.map((place, k) => ({ place, ...lines.map(({ values }) => values[k]) }));
  return (
    <figure className="line-chart">
      <figcaption>
        {title}
        <span className="numbers">{says}</span>
      </figcaption>
      <ResponsiveContainer width="100%" height={64}>
        <Lines data={rows} margin={{ top: 3, right: 4, bottom: 3, left: 4 }} title={title}>
          <XAxis dataKey="place" type="number" domain={[places[0], places[places.length - 1]]} hide />
          <YAxis domain={[low, high > low ? high : low + 1]} hide />
          <ReferenceLine y={low} className="line-chart-floor" />
          {limit !== undefined && <ReferenceLine y={limit} className="line-chart-limit" />}
          <Tooltip
            isAnimationActive={false}
            formatter={(value, name, item) => [lines[Number(item.dataKey)].text(Number(value)), name]}
            labelFormatter={(place) => placeText(Number(place))}
          />
          {lines.map(({ name, dashed }, i) => (
            <Line
              key={name}
              dataKey={String(i)}
              name={name}
              stroke={dashed ? 'var(--cobalt)' : 'var(--ink)'}
              strokeWidth={dashed ? 1.5 : 2}
              {...(dashed && { strokeDasharray: '3 3' })}
              dot={false}
              isAnimationActive={false}
              type="linear"
            />
          ))}
        </Lines>
      </ResponsiveContainer>
    </figure>
  );
}
