// Bars from the left, a line each: what was reached as fill, what was asked for as an outline, limits as ticks, the
// uncertainty as a whisker, and the number in words at the end.
import type { Table } from '@lastmark/core/table';
import { BarController, BarElement, CategoryScale, Chart, type ChartOptions, LinearScale } from 'chart.js';
import { useRef } from 'react';
import { Bar } from 'react-chartjs-2';
import { useChartStyle } from './chartStyle.ts';
import { Figure } from './Figure.tsx';
import { barsHeight } from './heights.ts';
import { useMarks } from './useMarks.ts';

Chart.register(BarController, BarElement, CategoryScale, LinearScale);

export interface BarLine {
  readonly name: string;
  /** What was reached; null where nothing is known. */
  readonly value: number | null;
  /** Both ends of what is known, where that is more than a value. */
  readonly known?: readonly [number, number];
  /** What was asked for or promised. */
  readonly outline?: number | null;
  /** Limits it is held against. */
  readonly limits?: readonly number[];
  /** The number and what there is to say of it. */
  readonly words: string;
  /** Somebody must see it. */
  readonly exception?: boolean;
}

interface Props {
  readonly lines: readonly BarLine[];
  readonly caption: string;
  /** What is drawn, with its unit: "Power, W". */
  readonly title: string;
  readonly table: Table;
  /** Nothing can be more: the axis is not told beyond it. */
  readonly most?: number;
  readonly onPick?: (line: number) => void;
}

/** The axis goes so far beyond the longest bar, for the words behind it. */
const ROOM = 1.45;

export function BarsChart({ lines, caption, title, table, most, onPick }: Props) {
  const { palette, axis, title: axisTitle } = useChartStyle();
  const chart = useRef<Chart<'bar', (number | null)[], string>>(null);
  const marks = useMarks<'bar'>({
    id: 'marks',
    afterDatasetsDraw: ({ ctx, scales, chartArea }) => {
      const { x, y } = scales;
      if (!x || !y) return;
      ctx.save();
      lines.forEach(({ value, known, outline, limits = [], words, exception = false }, index) => {
        const middle = y.getPixelForValue(index);
        const at = (one: number) => Math.min(chartArea.right, Math.max(chartArea.left, x.getPixelForValue(one)));
        if (outline != null) {
          ctx.strokeStyle = palette.text.primary;
          ctx.lineWidth = 1.5;
          ctx.setLineDash(value === null ? [4, 3] : []);
          ctx.strokeRect(chartArea.left, middle - 9, at(outline) - chartArea.left, 18);
          ctx.setLineDash([]);
        }
        ctx.strokeStyle = palette.text.primary;
        ctx.lineWidth = 2.5;
        for (const limit of limits) {
          ctx.beginPath();
          ctx.moveTo(at(limit), middle - 12);
          ctx.lineTo(at(limit), middle + 12);
          ctx.stroke();
        }
        if (known) {
          const [low, high] = [at(known[0]), at(known[1])];
          ctx.lineWidth = 1.5;
          ctx.beginPath();
          ctx.moveTo(low, middle);
          ctx.lineTo(high, middle);
          for (const end of [low, high]) {
            ctx.moveTo(end, middle - 5);
            ctx.lineTo(end, middle + 5);
          }
          ctx.stroke();
        }
        ctx.fillStyle = exception ? palette.error.main : palette.text.primary;
        ctx.font = `${exception ? 700 : 500} 13px ${Chart.defaults.font.family}`;
        ctx.textBaseline = 'middle';
        const text = exception ? `▼ ${words}` : words;
        const room = ctx.measureText(text).width;
        const after = Math.max(at(value ?? 0), at(outline ?? 0), at(known?.[1] ?? 0)) + 8;
        // Where there is no room behind the bar it stands in it, on the paper's own ground.
        const free = limits
          .map(at)
          .reduce((from, tick) => (tick > from - 6 && tick < from + room + 6 ? tick + 8 : from), after);
        const start = free + room <= chartArea.right + 4 ? free : Math.max(chartArea.left + 6, chartArea.right - room);
        if (start !== free) {
          ctx.fillStyle = palette.background.paper;
          ctx.fillRect(start - 3, middle - 8, room + 6, 16);
          ctx.fillStyle = exception ? palette.error.main : palette.text.primary;
        }
        ctx.fillText(text, start, middle);
      });
      ctx.restore();
    },
  });
  const largest = Math.max(
    0,
    ...lines.flatMap(({ value, outline, known, limits = [] }) => [
      value ?? 0,
      outline ?? 0,
      known?.[1] ?? 0,
      ...limits,
    ]),
  );
  const options: ChartOptions<'bar'> = {
    animation: false,
    maintainAspectRatio: false,
    indexAxis: 'y',
    ...(onPick ? { onClick: (_event, [mark]) => mark && onPick(mark.index) } : null),
    scales: {
      x: {
        ...axis,
        beginAtZero: true,
        suggestedMax: largest * ROOM,
        title: axisTitle(title),
        ...(most === undefined
          ? null
          : { ticks: { ...axis.ticks, callback: (value: string | number) => (Number(value) > most ? '' : value) } }),
      },
      y: { ...axis, grid: { display: false }, ticks: { ...axis.ticks, color: palette.text.primary, autoSkip: false } },
    },
    plugins: { legend: { display: false }, tooltip: { enabled: false } },
  };
  return (
    <Figure chart={chart} caption={caption} table={table} height={barsHeight(lines.length)}>
      <Bar
        ref={chart}
        data={{
          labels: lines.map(({ name }) => name),
          datasets: [
            {
              data: lines.map(({ value }) => value),
              backgroundColor: palette.series[0] ?? palette.text.primary,
              barThickness: 12,
            },
          ],
        }}
        options={options}
        plugins={marks}
        role="img"
        aria-label={`${title}. ${lines.map(({ name, words }) => `${name}: ${words}`).join('. ')}`}
      />
    </Figure>
  );
}
