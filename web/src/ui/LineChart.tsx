import { Line, LineChart as Lines, ReferenceLine, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';

/** A small chart of one figure over progress 0 to 1, with its highest and lowest value; a place of it can be asked by pointer or arrow keys. */
export function LineChart({
  title,
  unit,
  points,
  digits = 0,
  limit,
}: {
  readonly title: string;
  readonly unit?: string;
  readonly points: readonly { readonly x: number; readonly y: number }[];
  readonly digits?: number;
  /** A level that is better not passed. */
  readonly limit?: number;
}) {
  const values = points.map(({ y }) => y);
  const text = (v: number): string => `${v.toFixed(digits)}${unit ? ` ${unit}` : ''}`;
  const top = Math.max(...values);
  const bottom = Math.min(...values);
  const high = Math.max(top, limit ?? -Infinity);
  const low = Math.min(0, bottom);
  return (
    <figure className="line-chart">
      <figcaption>
        {title}
        <span className="numbers">{top === bottom ? text(top) : `${text(bottom)} to ${text(top)}`}</span>
      </figcaption>
      <ResponsiveContainer width="100%" height={64}>
        <Lines data={[...points]} margin={{ top: 3, right: 4, bottom: 3, left: 4 }} title={title}>
          <XAxis dataKey="x" type="number" domain={[0, 1]} hide />
          <YAxis domain={[low, high > low ? high : low + 1]} hide />
          <ReferenceLine y={low} className="line-chart-floor" />
          {limit !== undefined && <ReferenceLine y={limit} className="line-chart-limit" />}
          <Tooltip
            isAnimationActive={false}
            formatter={(value) => [text(Number(value)), title]}
            labelFormatter={(x) => `at ${Math.round(100 * Number(x))} %`}
          />
          <Line
            dataKey="y"
            className="line-chart-line"
            stroke="var(--ink)"
            strokeWidth={2}
            dot={false}
            isAnimationActive={false}
            type="linear"
          />
        </Lines>
      </ResponsiveContainer>
    </figure>
  );
}
