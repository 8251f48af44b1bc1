// A soak as a picture: temperatures, the curve they follow on to where it leads with its interval, limits, and the output.
import type { TraceWindow } from '@lastmark/contract/types';
import { EVENT_WORDS, type SoakResult, warmAt } from '@lastmark/core/heat';
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
import type { AnnotationOptions } from 'chartjs-plugin-annotation';
import { useRef } from 'react';
import { Line } from 'react-chartjs-2';
import { TraceGate } from '../../captures/TraceGate.tsx';
import { useChartStyle } from '../../parts/chartStyle.ts';
import { Figure } from '../../parts/Figure.tsx';
import { figureHeight } from '../../parts/heights.ts';

Chart.register(LinearScale, PointElement, LineElement, Legend, Tooltip);

interface Spot {
  readonly x: number;
  readonly y: number;
}

interface Props {
  readonly soak: SoakResult;
  readonly caption: string;
  readonly height: number;
}

const MINUTE = 60;
const BUCKETS = 400;
const DASHES = [[], [7, 4], [2, 3], [10, 3, 2, 3]];
/** How far beyond its end the curve is drawn, as a part of the soak. */
const ONWARD = 0.5;

export function SoakChart(props: Props) {
  const { captureId } = props.soak;
  return (
    <TraceGate id={captureId} buckets={BUCKETS} what="the soak" height={figureHeight(props.height)}>
      {(trace) => <Drawn {...props} trace={trace} />}
    </TraceGate>
  );
}

function Drawn({ soak, caption, height, trace }: Props & { readonly trace: TraceWindow }) {
  const { palette, axis, title, colourOf } = useChartStyle();
  const chart = useRef<Chart<'line', Spot[]>>(null);
  const { hottest, figures, touch } = soak;
  const { length, columns } = trace;
  const warm = columns.filter(
    ({ quantity, name }) => quantity === 'temperature' || figures.sensors.some((one) => one.name === name),
  );
  const output = columns.find(({ quantity }) => quantity === 'power');
  const fit = hottest?.fit ?? null;
  const base = fit && hottest?.steady != null ? hottest.steady - fit.steady : 0;
  const end = length * (1 + ONWARD);
  const curve: Spot[] =
    fit && hottest && fit.timeConstants.length > 0
      ? Array.from({ length: 121 }, (_, at) => {
          const seconds = hottest.from + ((end - hottest.from) * at) / 120;
          return { x: seconds / MINUTE, y: base + warmAt(fit, seconds - hottest.from) };
        })
      : [];
  const line = (points: readonly Spot[]) => points.map(({ x, y }) => ({ x: x / MINUTE, y }));
  const common = { pointRadius: 0, borderWidth: 1.8, tension: 0 };
  const data: ChartData<'line', Spot[]> = {
    datasets: [
      ...warm.map((column, index) => ({
        ...common,
        label: `${column.name}, °C`,
        data: line(column.points),
        borderColor: colourOf(index),
        backgroundColor: colourOf(index),
        borderDash: DASHES[index % DASHES.length] ?? [],
      })),
      ...(curve.length > 0
        ? [
            {
              ...common,
              label: `${hottest?.name ?? ''}, fitted`,
              data: curve,
              borderColor: palette.text.primary,
              backgroundColor: palette.text.primary,
              borderDash: [2, 4],
              borderWidth: 1.4,
            },
          ]
        : []),
      ...(output
        ? [
            {
              ...common,
              label: 'output, W',
              data: line(output.points),
              yAxisID: 'watts',
              borderColor: palette.text.secondary,
              backgroundColor: palette.text.secondary,
              borderDash: [1, 2],
              borderWidth: 1.2,
            },
          ]
        : []),
    ],
  };
  const [low, high] = hottest?.steadyInterval ?? [null, null];
  const label = (content: string, at: 'start' | 'end') => ({
    display: true,
    content,
    position: at,
    color: palette.text.primary,
    backgroundColor: palette.background.paper,
    font: { size: 12 },
    padding: 2,
  });
  const notes: [string, AnnotationOptions][] = [
    ...(low !== null && high !== null
      ? ([
          [
            'interval',
            { type: 'box', yMin: low, yMax: high, backgroundColor: `${palette.text.primary}1f`, borderWidth: 0 },
          ],
        ] satisfies [string, AnnotationOptions][])
      : []),
    ...(hottest?.steady != null
      ? ([
          [
            'steady',
            {
              type: 'line',
              yMin: hottest.steady,
              yMax: hottest.steady,
              borderColor: palette.text.primary,
              borderWidth: 1,
              borderDash: [2, 4],
              label: label(`leads to ${hottest.steady.toFixed(1)} °C`, 'end'),
            },
          ],
        ] satisfies [string, AnnotationOptions][])
      : []),
    ...figures.events.map(({ kind, at }, index): [string, AnnotationOptions] => [
      `event${index}`,
      {
        type: 'line',
        xMin: at / MINUTE,
        xMax: at / MINUTE,
        borderColor: palette.error.main,
        borderWidth: 1.5,
        label: label(EVENT_WORDS[kind], 'start'),
      },
    ]),
  ];
  const limit = touch[0]?.high;
  const top = Math.max(...warm.flatMap(({ points }) => points.map(({ y }) => y)), hottest?.steady ?? 0);
  if (limit !== undefined && limit < top + 15)
    notes.push([
      'limit',
      {
        type: 'line',
        yMin: limit,
        yMax: limit,
        borderColor: palette.error.main,
        borderWidth: 1.5,
        borderDash: [8, 4],
        label: label(`may be gripped up to ${limit} °C`, 'start'),
      },
    ]);
  const options: ChartOptions<'line'> = {
    animation: false,
    parsing: false,
    normalized: true,
    maintainAspectRatio: false,
    scales: {
      x: {
        ...axis,
        type: 'linear',
        min: 0,
        max: (curve.length > 0 ? end : length) / MINUTE,
        ticks: { ...axis.ticks, includeBounds: false },
        title: title('Time, min'),
      },
      y: { ...axis, grace: '6%', title: title('°C') },
      ...(output
        ? {
            watts: {
              ...axis,
              position: 'right' as const,
              min: 0,
              grace: '20%',
              grid: { display: false },
              title: title('W'),
            },
          }
        : {}),
    },
    plugins: {
      legend: { position: 'top', align: 'start', labels: { color: palette.text.primary, boxHeight: 1 } },
      annotation: { annotations: Object.fromEntries(notes) },
    },
  };
  const rows = columns.flatMap(({ name, points }) => points.map(({ x, y }) => [name, x / MINUTE, y]));
  return (
    <Figure chart={chart} caption={caption} table={[['column', 'minutes', 'value'], ...rows]} height={height}>
      <Line
        ref={chart}
        data={data}
        options={options}
        role="img"
        aria-label={`${caption}: ${warm.map(({ name, points }) => `${name} from ${points[0]?.y.toFixed(1)} to ${points.at(-1)?.y.toFixed(1)} °C`).join(', ')}.`}
      />
    </Figure>
  );
}
