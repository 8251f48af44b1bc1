// How quick each kind of copy was, as bars with their 95 % interval.
import { rateWords } from '@lastmark/core/copy';
import { BarsChart } from '../../parts/BarsChart.tsx';
import { useSample } from '../../state/sample.tsx';

const MEGABYTE = 8e6;

export function CopyBars() {
  const { verdict, dossier } = useSample();
  const { groups } = verdict.results.data;
  const { model, tag } = dossier.sample;
  return (
    <BarsChart
      lines={groups.map(({ mix, direction, bends, rate, errors, fellBack }) => ({
        name: `${mix}, ${direction}${bends > 0 ? `, ${bends} bends` : ''}`,
        value: rate.mean / MEGABYTE,
        ...(rate.interval
          ? { known: [Math.max(0, rate.interval[0]) / MEGABYTE, rate.interval[1] / MEGABYTE] as const }
          : {}),
        words: rateWords(rate.mean),
        exception: errors > 0 || fellBack,
      }))}
      caption={`${model.maker} ${model.model}, unit ${tag}: files copied over it; whiskers: 95 % of the mean`}
      title="MB/s"
      table={[
        ['files', 'direction', 'host', 'bends', 'copies', 'mean_bits_per_second', 'low', 'high', 'host_link', 'failed'],
        ...groups.map(({ mix, direction, host, bends, rate, link, errors }) => [
          mix,
          direction,
          host,
          bends,
          rate.count,
          rate.mean,
          rate.interval?.[0] ?? '',
          rate.interval?.[1] ?? '',
          link ?? '',
          errors,
        ]),
      ]}
    />
  );
}
