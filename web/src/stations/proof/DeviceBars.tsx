// What each device took, against the most it takes anywhere: a lower bound of what the port gives.
import { formatPlain } from '@lastmark/core/quantity';
import { BarsChart } from '../../parts/BarsChart.tsx';
import { useSample } from '../../state/sample.tsx';

export function DeviceBars() {
  const { dossier, verdict } = useSample();
  const { model, tag } = dossier.sample;
  const rows = verdict.results.proof.devices.map(({ run }) => {
    const device = dossier.devices.find(({ id }) => id === run.deviceId);
    const most = Math.max(0, ...(device?.ceilings ?? []).map(({ watts }) => watts));
    return { run, name: device?.name ?? 'device', most: most > 0 ? most : null };
  });
  return (
    <BarsChart
      lines={rows.map(({ run, name, most }) => ({
        name: `${name}, ${run.port}`,
        value: run.watts,
        outline: most,
        words: `${run.place === 'mains' ? 'socket ' : ''}${formatPlain(run.watts, 'power')}${run.volts === null ? '' : ` at ${formatPlain(run.volts, 'voltage')}`}, ${run.outcome}`,
        exception: run.outcome === 'not charging',
      }))}
      caption={`${model.maker} ${model.model}, unit ${tag}: power devices took, the most they take anywhere as outline`}
      title="Power, W"
      table={[
        ['device', 'port', 'watts', 'most_watts', 'place', 'outcome'],
        ...rows.map(({ run, name, most }) => [name, run.port, run.watts, most, run.place, run.outcome]),
      ]}
    />
  );
}
