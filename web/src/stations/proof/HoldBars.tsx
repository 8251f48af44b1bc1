// Every hold as a bar: how long it was held, against how long it was to be held.
import { holdRows } from '@lastmark/core/proof';
import { formatPlain } from '@lastmark/core/quantity';
import { BarsChart } from '../../parts/BarsChart.tsx';
import { useSample } from '../../state/sample.tsx';

export function HoldBars() {
  const { dossier, verdict } = useSample();
  const { model, tag } = dossier.sample;
  const rows = holdRows(verdict.results.proof.holds);
  return (
    <BarsChart
      lines={rows.map(({ title, watts, held, planned, end, ended }) => ({
        name: `${formatPlain(watts, 'power')}, ${title}`,
        value: held / 60,
        outline: planned / 60,
        words: `${formatPlain(held, 'duration', held < 120 ? 's' : 'min')}, ${end}`,
        exception: ended,
      }))}
      caption={`${model.maker} ${model.model}, unit ${tag}: time held, the time planned as outline`}
      title="Held, min"
      table={[
        ['loading', 'watts', 'held_seconds', 'planned_seconds', 'end'],
        ...rows.map((row) => [row.title, row.watts, row.held, row.planned, row.end]),
      ]}
    />
  );
}
