// What rides on an output by frequency: the stretch its trace shows, with the lines that stand out named.
import type { TraceSpectrum } from '@lastmark/contract/types';
import { hertzWords, LINE_WORDS, type RippleLine } from '@lastmark/core/ripple';
import { keepPreviousData, useQueries } from '@tanstack/react-query';
import {
  Chart,
  type ChartData,
  type ChartOptions,
  Legend,
  LineElement,
  LogarithmicScale,
  PointElement,
  Tooltip,
} from 'chart.js';
import type { AnnotationOptions } from 'chartjs-plugin-annotation';
import { useRef } from 'react';
import { Line } from 'react-chartjs-2';
import { api } from '../api/client.ts';
import { useChartStyle } from '../parts/chartStyle.ts';
import { Figure } from '../parts/Figure.tsx';
import { QueryGate } from '../parts/QueryGate.tsx';
import type { Shown } from './TraceView.tsx';

Chart.register(LogarithmicScale, PointElement, LineElement, Legend, Tooltip);

interface Props {
  readonly traces: readonly Shown[];
  /** The stretch, as the query asks for it. */
  readonly query: string;
  readonly caption: string;
  readonly height: number;
  /** What is kept for it while it is asked for, px. */
  readonly room: number;
}

const MOST_NAMED = 4;
/** Room a name needs, decades. */
const NAME_DECADES = 1.1;
const MILLI = 1000;
/** Decades below the largest line that are drawn. */
const DEPTH = 1e-4;

/** A frequency at a tick of a logarithmic scale: decades only. */
const tick = (value: number | string): string => {
  const hertz = Number(value);
  const decade = Math.log10(hertz);
  return Math.abs(decade - Math.round(decade)) < 1e-9 ? hertzWords(hertz) : '';
};

/** The lines worth naming, none so near another that their names would meet: what multiples come from, not the multiples. */
function apart(lines: readonly RippleLine[]): readonly RippleLine[] {
  const causes = lines.filter(({ kind }) => kind !== 'harmonic' && kind !== 'other');
  const kept: RippleLine[] = [];
  for (const line of causes.length > 0 ? causes : lines)
    if (kept.every((one) => Math.abs(Math.log10(one.hertz / line.hertz)) > NAME_DECADES)) kept.push(line);
  return kept.slice(0, MOST_NAMED);
}

export function SpectrumChart({ query, room, ...props }: Props) {
  const { traces } = props;
  const found = useQueries({
    queries: traces.map(({ id }) => ({
      queryKey: ['capture-spectrum', id, query],
      staleTime: Number.POSITIVE_INFINITY,
      placeholderData: keepPreviousData,
      queryFn: ({ signal }: { signal: AbortSignal }) =>
        api<TraceSpectrum>(`/captures/${id}/spectrum?${query.slice(1)}`, { signal }),
    })),
  });
  const failed = found.find(({ error }) => error);
  const asked = failed ?? found.find(({ data }) => !data) ?? found[0];
  return (
    asked && (
      <QueryGate query={asked} what="the spectrum" height={room}>
        {() => <Drawn {...props} found={found.flatMap(({ data }) => data ?? [])} />}
      </QueryGate>
    )
  );
}

interface DrawnProps extends Omit<Props, 'query' | 'room'> {
  /** In the order of the traces. */
  readonly found: readonly TraceSpectrum[];
}

function Drawn({ traces, caption, height, found }: DrawnProps) {
  const { palette, axis, title, colourOf } = useChartStyle();
  const chart = useRef<Chart<'line', { x: number; y: number }[]>>(null);
  const top = Math.max(1e-9, ...found.flatMap(({ points }) => points.map(({ y }) => y))) * MILLI;
  const data: ChartData<'line', { x: number; y: number }[]> = {
    datasets: found.map(({ points }, index) => ({
      label: traces[index]?.label ?? '',
      data: points.map(({ x, y }) => ({ x, y: Math.max(y * MILLI, top * DEPTH) })),
      borderColor: colourOf(index),
      backgroundColor: colourOf(index),
      borderDash: index > 0 ? [6, 3] : [],
      borderWidth: 1.3,
      pointRadius: 0,
    })),
  };
  const named = apart(found[0]?.lines ?? []);
  const notes = named.map(({ hertz, peakToPeak, kind }, index): [string, AnnotationOptions] => [
    `line${index}`,
    {
      type: 'label',
      xValue: hertz,
      yValue: Math.min(top, peakToPeak * MILLI),
      content: [`${hertzWords(hertz)} ${LINE_WORDS[kind]}`],
      color: palette.text.primary,
      backgroundColor: palette.background.paper,
      font: { size: 12 },
      padding: 2,
      position: { x: 'start', y: 'end' },
      xAdjust: 6,
      yAdjust: -4,
    },
  ]);
  const options: ChartOptions<'line'> = {
    animation: false,
    parsing: false,
    normalized: true,
    maintainAspectRatio: false,
    layout: { padding: { top: 18, right: 84 } },
    scales: {
      x: {
        ...axis,
        type: 'logarithmic',
        ticks: { ...axis.ticks, callback: tick, autoSkip: false, maxRotation: 0 },
        grid: { display: false },
        title: title('Frequency'),
      },
      y: {
        ...axis,
        type: 'logarithmic',
        min: top * DEPTH,
        title: title('mV peak to peak'),
        ticks: {
          ...axis.ticks,
          callback: (value) => (Math.abs(Math.log10(Number(value)) % 1) < 1e-9 ? String(value) : ''),
        },
      },
    },
    plugins: {
      legend: {
        // The trace beside it names both; here their names would lie over the lines'.
        display: false,
      },
      annotation: { clip: false, annotations: Object.fromEntries(notes) },
    },
  };
  const rows = found.flatMap(({ points }, index) =>
    points.map(({ x, y }) => [traces[index]?.label ?? '', x, y * MILLI]),
  );
  const words = named
    .map(
      ({ hertz, peakToPeak, kind }) =>
        `${hertzWords(hertz)}, ${LINE_WORDS[kind]}, ${(peakToPeak * MILLI).toPrecision(3)} mV`,
    )
    .join('; ');
  return (
    <Figure
      chart={chart}
      caption={traces[1] ? `${caption}; dashed: ${traces[1].label}` : caption}
      table={[['record', 'hertz', 'millivolts peak to peak'], ...rows]}
      height={height}
    >
      <Line
        ref={chart}
        data={data}
        options={options}
        role="img"
        aria-label={`${caption}. ${words === '' ? 'No line stands out of the noise.' : words}.`}
      />
    </Figure>
  );
}
