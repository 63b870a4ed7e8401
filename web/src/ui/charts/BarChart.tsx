import { Bar, BarChart as Bars, LabelList, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import './charts.scss';

const ROW_PX = 24;

/** Bars one below the other, each with its name and its value in words, the largest as wide as there is room. */
export function BarChart({
  title,
  bars,
}: {
  readonly title: string;
  readonly bars: readonly { readonly name: string; readonly value: number; readonly text: string }[];
}) {
  return (
    <figure className="bar-chart" aria-label={title}>
      <ResponsiveContainer width="100%" height={ROW_PX * bars.length}>
        <Bars data={[...bars]} layout="vertical" margin={{ top: 0, right: 76, bottom: 0, left: 0 }} title={title}>
          <XAxis type="number" domain={[0, 'dataMax']} hide />
          <YAxis dataKey="name" type="category" width={128} axisLine={false} tickLine={false} interval={0} />
          <Bar dataKey="value" fill="var(--ink)" barSize={10} radius={3} isAnimationActive={false}>
            <LabelList dataKey="text" position="right" className="numbers" />
          </Bar>
        </Bars>
      </ResponsiveContainer>
    </figure>
  );
}
