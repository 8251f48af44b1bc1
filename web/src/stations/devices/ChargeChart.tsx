// A charge as a picture: power and level against time, its stages named along the top, its end marked.
import type { TraceWindow } from '@lastmark/contract/types';
import { intoDevice, type SessionResult, type Stage } from '@lastmark/core/charge';
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
  readonly shown: SessionResult;
  readonly caption: string;
  readonly height: number;
}

const MINUTE = 60;
const BUCKETS = 500;
/** Part of the picture a letter of a name needs; a stage narrower than its name is shaded without it. */
const LETTER = 0.0095;

export function ChargeChart(props: Props) {
  const { captureId } = props.shown;
  return (
    <TraceGate id={captureId} buckets={BUCKETS} what="the charge" height={figureHeight(props.height)}>
      {(trace) => <Drawn {...props} trace={trace} />}
    </TraceGate>
  );
}

function Drawn({ shown, caption, height, trace }: Props & { readonly trace: TraceWindow }) {
  const { palette, axis, title, colourOf } = useChartStyle();
  const chart = useRef<Chart<'line', Spot[]>>(null);
  const { session } = shown;
  const { length, columns } = trace;
  const power = intoDevice(columns.find(({ quantity }) => quantity === 'power')?.points ?? []);
  const level = session.curve;
  const line = (points: readonly Spot[]) => points.map(({ x, y }) => ({ x: x / MINUTE, y }));
  const common = { pointRadius: 0, borderWidth: 1.8, tension: 0 };
  const data: ChartData<'line', Spot[]> = {
    datasets: [
      ...(power.length > 0
        ? [{ ...common, label: 'power, W', data: line(power), borderColor: colourOf(0), backgroundColor: colourOf(0) }]
        : []),
      ...(level
        ? [
            {
              ...common,
              label: `level, %${session.level === 'energy' ? ', by delivered energy' : session.level === 'typed' ? ', as typed' : ''}`,
              data: level.times.map((x, at) => ({ x: x / MINUTE, y: (level.levels[at] ?? 0) * 100 })),
              yAxisID: 'level',
              borderColor: colourOf(1),
              backgroundColor: colourOf(1),
              borderDash: [7, 4],
              ...(session.level === 'typed' ? { pointRadius: 3 } : {}),
            },
          ]
        : []),
    ],
  };
  const stage = ({ from, to, kind }: Stage, index: number): [string, AnnotationOptions] => [
    `stage${index}`,
    {
      type: 'box',
      xMin: from / MINUTE,
      xMax: to / MINUTE,
      backgroundColor: index % 2 === 0 ? palette.action.hover : 'transparent',
      borderWidth: 0,
      drawTime: 'beforeDatasetsDraw',
      label: {
        display: (to - from) / length > LETTER * kind.length,
        content: kind,
        position: { x: 'center', y: 'start' },
        color: palette.text.primary,
        font: { size: 12 },
      },
    },
  ];
  const end: [string, AnnotationOptions][] = session.end
    ? [
        [
          'end',
          {
            type: 'line',
            xMin: session.end.at / MINUTE,
            xMax: session.end.at / MINUTE,
            borderColor: palette.text.secondary,
            borderWidth: 1,
            borderDash: [3, 3],
          },
        ],
      ]
    : [];
  const options: ChartOptions<'line'> = {
    animation: false,
    parsing: false,
    normalized: true,
    maintainAspectRatio: false,
    scales: {
      x: { ...axis, type: 'linear', min: 0, max: length / MINUTE, title: title('Time, min') },
      ...(power.length > 0 ? { y: { ...axis, min: 0, grace: '12%', title: title('Power, W') } } : {}),
      ...(level
        ? {
            level: {
              ...axis,
              position: power.length > 0 ? ('right' as const) : ('left' as const),
              min: 0,
              max: 112,
              grid: { display: power.length === 0 },
              ticks: { ...axis.ticks, callback: (value: number | string) => (Number(value) > 100 ? '' : value) },
              title: title('Level, %'),
            },
          }
        : {}),
    },
    plugins: {
      legend: { position: 'bottom', align: 'start', labels: { color: palette.text.primary, boxHeight: 1 } },
      annotation: { annotations: Object.fromEntries([...session.stages.map(stage), ...end]) },
    },
  };
  const words = session.stages
    .map(
      ({ kind, from, to, watts }) =>
        `${kind} ${watts.toFixed(1)} W, ${(from / MINUTE).toFixed(0)} to ${(to / MINUTE).toFixed(0)} min`,
    )
    .join('; ');
  const rows = [
    ...power.map(({ x, y }) => ['power', x, y] as const),
    ...(level ? level.times.map((x, at) => ['level', x, level.levels[at] ?? 0] as const) : []),
  ];
  return (
    <Figure chart={chart} caption={caption} table={[['column', 'seconds', 'value'], ...rows]} height={height}>
      <Line
        ref={chart}
        data={data}
        options={options}
        role="img"
        aria-label={`${caption}. ${words || 'Typed levels'}. ${shown.sentence}`}
      />
    </Figure>
  );
}
