// A capture against time, column by column, with as many points as the screen can show.
import { COLUMN_WORDS, type ColumnName } from '@lastmark/core/capture';
import { CHANNEL_UNITS, type ChannelQuantity } from '@lastmark/core/trace';
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
import { Pointing } from './Pointing.tsx';
import type { Move, Stretch } from './stretch.ts';

Chart.register(LinearScale, PointElement, LineElement, Legend, Tooltip);

interface Spot {
  readonly x: number;
  readonly y: number;
}

interface Column {
  readonly name: string;
  readonly quantity: ChannelQuantity | null;
  readonly unit: string;
  readonly points: readonly Spot[];
}

interface Props {
  readonly caption: string;
  readonly columns: readonly Column[];
  readonly height?: number;
  /** The stretch of time it shows, s; left out, all there is. */
  readonly range?: Stretch;
  /** Shows another stretch; left out where there is only one. */
  readonly onShow?: (move: Move) => void;
}

const plainUnit = ({ quantity, unit }: Column): string => (quantity ? CHANNEL_UNITS[quantity] : unit);

/** Small volts and amps are read in thousandths. */
const isSmall = ({ quantity, points }: Column): boolean =>
  (quantity === 'voltage' || quantity === 'current') && points.every(({ y }) => Math.abs(y) < 1);
const unitOf = (column: Column): string => `${isSmall(column) ? 'm' : ''}${plainUnit(column)}`;
const factorOf = (column: Column): number => (isSmall(column) ? 1000 : 1);
const wordOf = ({ name }: Column): string => COLUMN_WORDS[name as ColumnName] ?? name;
const DASHES = [[], [6, 3]];

/** Time in the unit that keeps its numbers short. */
function timeUnit(span: number): { readonly unit: string; readonly factor: number } {
  if (span < 0.01) return { unit: 'µs', factor: 1e6 };
  if (span < 5) return { unit: 'ms', factor: 1e3 };
  return span > 600 ? { unit: 'min', factor: 1 / 60 } : { unit: 's', factor: 1 };
}

export function CaptureChart({ caption, columns, height = 220, range, onShow }: Props) {
  const { palette, axis, title, colourOf } = useChartStyle();
  const chart = useRef<Chart<'line', Spot[]>>(null);
  const end = range?.to ?? Math.max(0, ...columns.map(({ points }) => points.at(-1)?.x ?? 0));
  const begin = range?.from ?? 0;
  const span = end - begin;
  const { unit, factor } = timeUnit(span);
  const unitAt = (index: number) => {
    const column = columns[index];
    return column ? unitOf(column) : '';
  };
  // A second quantity has an axis of its own; volts beside supply volts share one.
  const axisOf = (index: number) => (index > 0 && unitAt(index) !== unitAt(0) ? 'other' : 'y');
  const data: ChartData<'line', Spot[]> = {
    datasets: columns.map((column, index) => ({
      label: `${wordOf(column)}, ${unitOf(column)}`,
      data: column.points.map(({ x, y }) => ({ x: x * factor, y: y * factorOf(column) })),
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
        min: begin * factor,
        max: end * factor,
        ticks: { ...axis.ticks, includeBounds: false },
        title: title(`Time, ${unit}`),
      },
      y: { ...axis, grace: '5%', title: title(unitAt(0)) },
      ...(other > 0
        ? {
            other: {
              ...axis,
              position: 'right' as const,
              grace: '5%',
              grid: { display: false },
              title: title(unitAt(other)),
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
    .map((column) => {
      const values = column.points.map(({ y }) => y);
      return `${wordOf(column)} from ${Math.min(...values).toPrecision(4)} to ${Math.max(...values).toPrecision(4)}`;
    })
    .join(', ');
  const line = <Line ref={chart} data={data} options={options} role="img" aria-label={`${caption}: ${words}.`} />;
  return (
    <Figure chart={chart} caption={caption} table={[['column', 'seconds', 'value'], ...rows]} height={height}>
      {onShow ? (
        <Pointing chart={chart} shown={{ from: begin, to: end }} onShow={onShow}>
          {line}
        </Pointing>
      ) : (
        line
      )}
    </Figure>
  );
}
