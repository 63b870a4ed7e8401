import type { OutputJob } from '../../state';
import { BarChart } from '../../ui/charts/BarChart';
import { sizeText } from './size-text';

/** How large the files of a piece are, beside each other. */
export default function SizeChart({ jobs }: { readonly jobs: readonly OutputJob[] }) {
  return (
    <BarChart
      title="Sizes of the files"
      bars={jobs.map(({ label, size }) => ({ name: label, value: size, text: sizeText(size) }))}
    />
  );
}
