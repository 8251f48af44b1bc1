// Efficiency against load: one line a mains, whiskers, limit lines; as picture and as data.
import type { SeriesResult } from '@lastmark/core/efficiency';
import { mainsLabel } from '@lastmark/core/reading';
import { expandedUncertainty } from '@lastmark/core/uncertainty';
import type { SetupLimits } from '@lastmark/core/verdict';
import { useTheme } from '@mui/material/styles';
import Typography from '@mui/material/Typography';
import {
  Chart,
  type ChartData,
  type ChartOptions,
  Legend,
  LinearScale,
  LineElement,
  type Plugin,
  PointElement,
  Tooltip,
} from 'chart.js';
import annotation, { type AnnotationOptions } from 'chartjs-plugin-annotation';
import { useRef } from 'react';
import { Line } from 'react-chartjs-2';
import { useOnBench } from '../../app/bench.tsx';
import { Figure } from '../../parts/Figure.tsx';

Chart.register(LinearScale, PointElement, LineElement, Legend, Tooltip, annotation);

const SHAPES = ['circle', 'rectRot', 'triangle', 'rect'] as const;
const DASHES = [[], [7, 4], [2, 3], [10, 3, 2, 3]];

interface LoadPoint {
  readonly x: number;
  readonly y: number;
  readonly u: number;
}

/** U as a whisker through each mark. */
const whiskers: Plugin<'line'> = {
  id: 'whiskers',
  afterDatasetsDraw: (chart) => {
    const { ctx, data, scales, chartArea } = chart;
    const { y } = scales;
    if (!y) return;
    data.datasets.forEach((dataset, index) => {
      const meta = chart.getDatasetMeta(index);
      if (meta.hidden) return;
      ctx.save();
      ctx.strokeStyle = String(dataset.borderColor);
      ctx.lineWidth = 1.4;
      meta.data.forEach((mark, at) => {
        const point = dataset.data[at] as unknown as LoadPoint;
        const top = Math.max(chartArea.top, y.getPixelForValue(point.y + point.u));
        const bottom = Math.min(chartArea.bottom, y.getPixelForValue(point.y - point.u));
        ctx.beginPath();
        ctx.moveTo(mark.x, top);
        ctx.lineTo(mark.x, bottom);
        for (const end of [top, bottom]) {
          ctx.moveTo(mark.x - 4, end);
          ctx.lineTo(mark.x + 4, end);
        }
        ctx.stroke();
      });
      ctx.restore();
    });
  },
};

const pointsOf = ({ loads }: SeriesResult['byMains'][number]): LoadPoint[] =>
  loads.map(({ load, efficiency }) => ({
    x: load * 100,
    y: efficiency.value * 100,
    u: expandedUncertainty(efficiency) * 100,
  }));

/** Limit lines of verdict sets: the average across 25–100 %, light load at 10 %. Equal limits share one line. */
function limitLines(limits: SetupLimits | undefined, colour: string, paper: string): Record<string, AnnotationOptions> {
  const merged = new Map<string, { at: number; light: boolean; titles: string[] }>();
  for (const { limit, quantity, title } of limits?.lines ?? []) {
    if (limit.kind !== 'at-least') continue;
    const light = quantity === 'light-load-efficiency';
    const key = `${light} ${limit.low.toFixed(6)}`;
    const line = merged.get(key) ?? { at: limit.low * 100, light, titles: [] };
    if (!line.titles.includes(title)) line.titles.push(title);
    merged.set(key, line);
  }
  return Object.fromEntries(
    [...merged.entries()].map(([key, { at, light, titles }], index) => [
      key,
      {
        type: 'line',
        yMin: at,
        yMax: at,
        xMin: light ? 4 : 25,
        xMax: light ? 16 : 100,
        borderColor: colour,
        borderWidth: 1.5,
        borderDash: [5, 4],
        label: {
          display: true,
          content: `${titles.join(', ')}${light ? ', 10 %' : ''} ${at.toFixed(1)} %`,
          position: light ? 'start' : index % 2 === 0 ? 'end' : 'center',
          yAdjust: light ? -11 : index % 2 === 0 ? 10 : -10,
          backgroundColor: paper,
          color: colour,
          font: { size: 11, weight: 'normal' },
          padding: 2,
        },
      } satisfies AnnotationOptions,
    ]),
  );
}

interface Props {
  readonly series: SeriesResult;
  readonly limits: SetupLimits | undefined;
}

export function LoadChart({ series, limits }: Props) {
  const { sample } = useOnBench().dossier;
  const { palette, typography } = useTheme();
  const chart = useRef<Chart<'line', LoadPoint[]>>(null);
  const { byMains, setup } = series;
  if (byMains.length === 0) {
    return <Typography color="text.secondary">The curve appears with the first complete load point.</Typography>;
  }
  const caption = `${sample.model.maker} ${sample.model.model}, unit ${sample.tag}: efficiency against load, ${setup.name}`;
  const data: ChartData<'line', LoadPoint[]> = {
    datasets: byMains.map((one, index) => ({
      label: mainsLabel(one.mains),
      data: pointsOf(one),
      borderColor: palette.series[index % palette.series.length] ?? palette.text.primary,
      backgroundColor: palette.series[index % palette.series.length] ?? palette.text.primary,
      borderDash: DASHES[index % DASHES.length] ?? [],
      pointStyle: SHAPES[index % SHAPES.length] ?? 'circle',
      pointRadius: 6,
      borderWidth: 2,
    })),
  };
  Chart.defaults.font.family = typography.fontFamily ?? 'sans-serif';
  Chart.defaults.font.size = 13;
  const axis = {
    grid: { color: palette.line },
    ticks: { color: palette.text.secondary },
    border: { color: palette.line },
  };
  const options: ChartOptions<'line'> = {
    animation: false,
    maintainAspectRatio: false,
    // Marks at 100 % stand on the edge of the area and are drawn whole.
    clip: false,
    layout: { padding: { right: 16 } },
    scales: {
      x: {
        ...axis,
        type: 'linear',
        min: 0,
        max: 100,
        ticks: { ...axis.ticks, stepSize: 25 },
        title: { display: true, text: 'Load, % of nameplate current', color: palette.text.secondary },
      },
      y: { ...axis, grace: '8%', title: { display: true, text: 'Efficiency, %', color: palette.text.secondary } },
    },
    plugins: {
      legend: {
        position: 'top',
        align: 'start',
        labels: { usePointStyle: true, pointStyleWidth: 14, boxHeight: 7, color: palette.text.primary },
      },
      tooltip: {
        callbacks: {
          title: ([item]) => `${(item?.raw as LoadPoint | undefined)?.x ?? ''} % load`,
          label: ({ dataset, raw }) =>
            `${dataset.label}: ${(raw as LoadPoint).y.toFixed(2)} ± ${(raw as LoadPoint).u.toFixed(2)} %`,
        },
      },
      annotation: { annotations: limitLines(limits, palette.text.secondary, palette.background.paper) },
    },
  };
  const rows = byMains.flatMap((one) => pointsOf(one).map(({ x, y, u }) => `${mainsLabel(one.mains)},${x},${y},${u}`));
  const words = byMains
    .map(
      (one) =>
        `${mainsLabel(one.mains)}: ${pointsOf(one)
          .map(({ x, y }) => `${Math.round(x)} % load ${y.toFixed(1)} %`)
          .join(', ')}`,
    )
    .join('. ');
  return (
    <Figure
      chart={chart}
      caption={caption}
      csv={['mains,load_percent,efficiency_percent,expanded_uncertainty_percent', ...rows]}
    >
      <Line
        ref={chart}
        data={data}
        options={options}
        plugins={[whiskers]}
        role="img"
        aria-label={`Efficiency against load. ${words}`}
      />
    </Figure>
  );
}
