// Harmonics of the mains current as bars, against the fundamental.
import { harmonicParts, type WaveformFigures } from '@lastmark/core/capture';
import { BarElement, CategoryScale, Chart, type ChartOptions, LinearScale, Tooltip } from 'chart.js';
import { useRef } from 'react';
import { Bar } from 'react-chartjs-2';
import { useChartStyle } from '../parts/chartStyle.ts';
import { Figure } from '../parts/Figure.tsx';

Chart.register(BarElement, CategoryScale, LinearScale, Tooltip);

/** Harmonics drawn: the higher ones are listed in the data. */
const DRAWN = 25;

interface Props {
  readonly figures: WaveformFigures;
  readonly caption: string;
  readonly height: number;
}

export function Harmonics({ figures, caption, height }: Props) {
  const { axis, title, colourOf } = useChartStyle();
  const chart = useRef<Chart<'bar', number[]>>(null);
  const parts = harmonicParts(figures).map((part) => part * 100);
  const drawn = parts.slice(0, DRAWN);
  const options: ChartOptions<'bar'> = {
    animation: false,
    maintainAspectRatio: false,
    scales: {
      x: { ...axis, grid: { display: false }, title: title('Harmonic of the mains') },
      y: { ...axis, beginAtZero: true, title: title('% of the fundamental') },
    },
    plugins: { legend: { display: false } },
  };
  return (
    <Figure
      chart={chart}
      caption={`${caption}, harmonics of the current`}
      table={[
        ['harmonic', 'amps_rms', 'percent_of_fundamental'],
        ...figures.harmonics.map((amps, index) => [index + 1, amps, parts[index] ?? null]),
      ]}
      height={height}
    >
      <Bar
        ref={chart}
        data={{
          labels: drawn.map((_, index) => String(index + 1)),
          datasets: [{ data: drawn, backgroundColor: colourOf(0) }],
        }}
        options={options}
        role="img"
        aria-label={`Harmonics of the mains current: third ${(parts[2] ?? 0).toFixed(0)} %, fifth ${(parts[4] ?? 0).toFixed(0)} %, seventh ${(parts[6] ?? 0).toFixed(0)} % of the fundamental.`}
      />
    </Figure>
  );
}
