/** A small chart of one figure over progress 0 to 1, with its highest and lowest value and where the reader is. */
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
  const high = Math.max(...values, limit ?? -Infinity);
  const low = Math.min(0, ...values);
  const span = high > low ? high - low : 1;
  const x = (v: number): number => 4 + 232 * v;
  const y = (v: number): number => 60 - (54 * (v - low)) / span;
  const line = points
    .map((point, i) => `${i === 0 ? 'M' : 'L'}${x(point.x).toFixed(1)} ${y(point.y).toFixed(1)}`)
    .join('');
  const text = (v: number): string => `${v.toFixed(digits)}${unit ? ` ${unit}` : ''}`;
  const top = Math.max(...values);
  const bottom = Math.min(...values);
  return (
    <figure className="line-chart">
      <figcaption>
        {title}
        <span className="numbers">{top === bottom ? text(top) : `${text(bottom)} to ${text(top)}`}</span>
      </figcaption>
      <svg viewBox="0 0 240 64" role="img" aria-label={`${title}: ${text(bottom)} to ${text(top)}`}>
        <path className="line-chart-floor" d="M4 60H236" />
        {limit !== undefined && <path className="line-chart-limit" d={`M4 ${y(limit)}H236`} />}
        <path className="line-chart-line" d={line} />
      </svg>
    </figure>
  );
}
