// Lines over load with U as whiskers and limit lines: as picture and as data.
import type { Table } from '@lastmark/core/table';
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
import type { AnnotationOptions } from 'chartjs-plugin-annotation';
import { useRef } from 'react';
import { Line } from 'react-chartjs-2';
import { useChartStyle } from '../../parts/chartStyle.ts';
import { Figure } from '../../parts/Figure.tsx';

Chart.register(LinearScale, PointElement, LineElement, Legend, Tooltip);

const SHAPES = ['circle', 'rectRot', 'triangle', 'rect', 'star', 'crossRot', 'rectRounded', 'dash'] as const;
const DASHES = [[], [7, 4], [2, 3], [10, 3, 2, 3]];

export interface CurvePoint {
  /** Load, % */
  readonly x: number;
  readonly y: number;
  /** Expanded uncertainty of y. */
  readonly u: number;
}

export interface Curve {
  readonly label: string;
  readonly points: readonly CurvePoint[];
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
        const point = dataset.data[at] as unknown as CurvePoint;
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

interface Props {
  readonly curves: readonly Curve[];
  readonly caption: string;
  /** What is drawn, with its unit: "Efficiency, %". */
  readonly title: string;
  readonly unit: string;
  readonly table: Table;
  readonly annotations?: Record<string, AnnotationOptions>;
  readonly height?: number;
  /** Somebody pressed a mark. */
  readonly onPick?: (curve: number, point: number) => void;
  /** The axis below; left out for load in per cent. */
  readonly x?: { readonly title: string; readonly unit: string; readonly min: number; readonly max: number };
}

const LOAD_AXIS = { title: 'Load, % of nameplate current', unit: '% load', min: 0, max: 100 };

export function CurveChart({
  curves,
  caption,
  title,
  unit,
  table,
  annotations = {},
  height = 320,
  onPick,
  x = LOAD_AXIS,
}: Props) {
  const { palette, axis, title: axisTitle, colourOf } = useChartStyle();
  const chart = useRef<Chart<'line', CurvePoint[]>>(null);
  const data: ChartData<'line', CurvePoint[]> = {
    datasets: curves.map(({ label, points }, index) => ({
      label,
      data: [...points],
      borderColor: colourOf(index),
      backgroundColor: colourOf(index),
      borderDash: DASHES[index % DASHES.length] ?? [],
      pointStyle: SHAPES[index % SHAPES.length] ?? 'circle',
      pointRadius: 6,
      borderWidth: 2,
    })),
  };
  const options: ChartOptions<'line'> = {
    animation: false,
    maintainAspectRatio: false,
    ...(onPick
      ? {
          onClick: (_event, [mark]) => mark && onPick(mark.datasetIndex, mark.index),
          onHover: (event, marks) => {
            const canvas = event.native?.target;
            if (canvas instanceof HTMLElement) canvas.style.cursor = marks.length > 0 ? 'pointer' : '';
          },
        }
      : null),
    // Marks at 100 % stand on the edge of the area and are drawn whole.
    clip: false,
    layout: { padding: { right: 16 } },
    scales: {
      x: {
        ...axis,
        type: 'linear',
        min: x.min,
        max: x.max,
        ticks: { ...axis.ticks, ...(x === LOAD_AXIS ? { stepSize: 25 } : {}) },
        title: axisTitle(x.title),
      },
      y: { ...axis, grace: '8%', title: axisTitle(title) },
    },
    plugins: {
      legend: {
        position: 'top',
        align: 'start',
        labels: { usePointStyle: true, pointStyleWidth: 14, boxHeight: 7, color: palette.text.primary },
      },
      tooltip: {
        callbacks: {
          title: ([item]) => `${(item?.raw as CurvePoint | undefined)?.x ?? ''} ${x.unit}`,
          label: ({ dataset, raw }) =>
            `${dataset.label}: ${(raw as CurvePoint).y.toFixed(2)} ± ${(raw as CurvePoint).u.toFixed(2)} ${unit}`,
        },
      },
      annotation: { annotations },
    },
  };
  const words = curves
    .map(
      ({ label, points }) =>
        `${label}: ${points.map((one) => `${Number(one.x.toFixed(1))} ${x.unit} ${one.y.toPrecision(3)} ${unit}`).join(', ')}`,
    )
    .join('. ');
  return (
    <Figure chart={chart} caption={caption} table={table} height={height}>
      <Line
        ref={chart}
        data={data}
        options={options}
        plugins={[whiskers]}
        role="img"
        aria-label={`${title.replace(/, [^,]*$/, '')} against ${x === LOAD_AXIS ? 'load' : x.title}. ${words}`}
      />
    </Figure>
  );
}
