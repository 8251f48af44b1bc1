// A capture against time, column by column, with as many points as the screen can show.
import { COLUMN_WORDS, type ColumnName } from '@lastmark/core/capture';
import {
  Chart,
  type ChartData,
  type ChartOptions,
  Legend,
  LinearScale,
  LineElement,
  PointElement,
  Tooltip,
} from 'chart.js';
import { useRef } from 'react';
import { Line } from 'react-chartjs-2';
import { useChartStyle } from '../parts/chartStyle.ts';
import { Figure } from '../parts/Figure.tsx';

Chart.register(LinearScale, PointElement, LineElement, Legend, Tooltip);

interface Spot {
  readonly x: number;
  readonly y: number;
}

interface Props {
  readonly caption: string;
  readonly columns: readonly { readonly name: ColumnName; readonly points: readonly Spot[] }[];
  readonly height?: number;
}

const UNIT: Readonly<Record<ColumnName, string>> = { volts: 'V', amps: 'A', watts: 'W', supply: 'V' };
const DASHES = [[], [6, 3]];

/** Time in the unit that keeps its numbers short. */
function timeUnit(span: number): { readonly unit: string; readonly factor: number } {
  if (span < 0.01) return { unit: 'µs', factor: 1e6 };
  if (span < 5) return { unit: 'ms', factor: 1e3 };
  return span > 600 ? { unit: 'min', factor: 1 / 60 } : { unit: 's', factor: 1 };
}

export function CaptureChart({ caption, columns, height = 220 }: Props) {
  const { palette, axis, title, colourOf } = useChartStyle();
  const chart = useRef<Chart<'line', Spot[]>>(null);
  const span = Math.max(0, ...columns.map(({ points }) => points.at(-1)?.x ?? 0));
  const { unit, factor } = timeUnit(span);
  // A second quantity has an axis of its own; volts beside supply volts share one.
  const axisOf = (index: number) =>
    index > 0 && UNIT[columns[index]?.name ?? 'volts'] !== UNIT[columns[0]?.name ?? 'volts'] ? 'other' : 'y';
  const data: ChartData<'line', Spot[]> = {
    datasets: columns.map(({ name, points }, index) => ({
      label: `${COLUMN_WORDS[name]}, ${UNIT[name]}`,
      data: points.map(({ x, y }) => ({ x: x * factor, y })),
      yAxisID: axisOf(index),
      borderColor: colourOf(index),
      backgroundColor: colourOf(index),
      borderDash: DASHES[index % DASHES.length] ?? [],
      pointRadius: 0,
      borderWidth: 1.5,
    })),
  };
  const other = columns.findIndex((_, index) => axisOf(index) === 'other');
  const options: ChartOptions<'line'> = {
    animation: false,
    parsing: false,
    normalized: true,
    maintainAspectRatio: false,
    scales: {
      x: {
        ...axis,
        type: 'linear',
        max: span * factor,
        ticks: { ...axis.ticks, includeBounds: false },
        title: title(`Time, ${unit}`),
      },
      y: { ...axis, grace: '5%', title: title(UNIT[columns[0]?.name ?? 'volts']) },
      ...(other > 0
        ? {
            other: {
              ...axis,
              position: 'right' as const,
              grace: '5%',
              grid: { display: false },
              title: title(UNIT[columns[other]?.name ?? 'amps']),
            },
          }
        : {}),
    },
    plugins: {
      legend: {
        display: columns.length > 1,
        position: 'top',
        align: 'start',
        labels: { color: palette.text.primary, boxHeight: 1 },
      },
    },
  };
  const rows = columns.flatMap(({ name, points }) => points.map(({ x, y }) => [name, x, y]));
  const words = columns
    .map(({ name, points }) => {
      const values = points.map(({ y }) => y);
      return `${COLUMN_WORDS[name]} from ${Math.min(...values).toPrecision(4)} to ${Math.max(...values).toPrecision(4)}`;
    })
    .join(', ');
  return (
    <Figure chart={chart} caption={caption} table={[['column', 'seconds', 'value'], ...rows]} height={height}>
      <Line ref={chart} data={data} options={options} role="img" aria-label={`${caption}: ${words}.`} />
    </Figure>
  );
}
