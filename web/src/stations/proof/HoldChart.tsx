// Hold-time against power: filled marks held to the end, open ones did not.
import { Chart, type ChartOptions, Legend, LinearScale, LineElement, PointElement, Tooltip } from 'chart.js';
import { useRef } from 'react';
import { Scatter } from 'react-chartjs-2';
import { useChartStyle } from '../../parts/chartStyle.ts';
import { Figure } from '../../parts/Figure.tsx';
import { useSample } from '../../state/sample.tsx';

Chart.register(LinearScale, PointElement, LineElement, Legend, Tooltip);

interface Mark {
  readonly x: number;
  readonly y: number;
  readonly words: string;
}
const SHAPES = ['circle', 'rectRot', 'triangle', 'rect'] as const;

export function HoldChart() {
  const { dossier, verdict } = useSample();
  const { palette, axis, title, colourOf } = useChartStyle();
  const chart = useRef<Chart<'scatter', Mark[]>>(null);
  const { holds } = verdict.results.proof;
  const { model, tag } = dossier.sample;
  const datasets = holds.map(({ title, lines }, index) => {
    const colour = colourOf(index);
    return {
      label: title,
      data: lines.map(({ watts, run }): Mark => ({ x: watts, y: run.held / 60, words: run.end })),
      pointStyle: SHAPES[index % SHAPES.length] ?? 'circle',
      pointRadius: 7,
      pointBorderWidth: 2,
      borderColor: colour,
      backgroundColor: lines.map(({ ended }) => (ended ? palette.background.paper : colour)),
    };
  });
  const options: ChartOptions<'scatter'> = {
    animation: false,
    maintainAspectRatio: false,
    scales: {
      x: {
        ...axis,
        beginAtZero: true,
        grace: '8%',
        title: title('Power, W'),
      },
      y: {
        ...axis,
        beginAtZero: true,
        grace: '8%',
        title: title('Held, min'),
      },
    },
    plugins: {
      legend: {
        position: 'top',
        align: 'start',
        labels: { usePointStyle: true, boxHeight: 7, color: palette.text.primary },
      },
      tooltip: {
        callbacks: {
          label: ({ raw }) => {
            const { x, y, words } = raw as Mark;
            return `${x.toFixed(1)} W, ${y.toFixed(1)} min: ${words}`;
          },
        },
      },
    },
  };
  const caption = `${model.maker} ${model.model}, unit ${tag}: hold-time against power; filled marks held to the end`;
  const rows = holds.flatMap(({ title, lines }) => lines.map(({ watts, run }) => [title, watts, run.held, run.end]));
  return (
    <Figure chart={chart} caption={caption} table={[['loading', 'watts', 'held_seconds', 'end'], ...rows]} height={240}>
      <Scatter
        ref={chart}
        data={{ datasets }}
        options={options}
        role="img"
        aria-label="Hold-time against power. The list below holds the same runs."
      />
    </Figure>
  );
}
