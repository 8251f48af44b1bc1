// Charges of one device over the levels all of them went through, each from the moment it was at the first of them.
import { type Compared, levelSince, type SessionResult } from '@lastmark/core/charge';
import { Chart, type ChartOptions, Legend, LinearScale, LineElement, PointElement, Tooltip } from 'chart.js';
import { useRef } from 'react';
import { Line } from 'react-chartjs-2';
import { useChartStyle } from '../../parts/chartStyle.ts';
import { Figure } from '../../parts/Figure.tsx';

Chart.register(LinearScale, PointElement, LineElement, Legend, Tooltip);

interface Spot {
  readonly x: number;
  readonly y: number;
}

const DASHES = [[], [7, 4]] as const;
const SHAPES = ['circle', 'rectRot'] as const;

interface Props {
  readonly compared: Compared;
  readonly sessions: readonly SessionResult[];
  readonly height: number;
}

export function CompareChart({ compared, sessions, height }: Props) {
  const { palette, axis, title, colourOf } = useChartStyle();
  const chart = useRef<Chart<'line', Spot[]>>(null);
  const { from, to, captureIds, sentence } = compared;
  const lines = captureIds.flatMap((ids, side) =>
    ids.flatMap((id) => {
      const found = sessions.find(({ captureId }) => captureId === id);
      const curve = found?.session.curve;
      const since = curve ? levelSince(curve, from) : null;
      if (!found || !curve || since === null) return [];
      const inside = curve.times
        .map((x, at): Spot => ({ x: (x - since) / 60, y: (curve.levels[at] ?? 0) * 100 }))
        .filter(({ x, y }) => x >= 0 && y <= to * 100 + 1e-9);
      const last = inside.findIndex(({ y }) => y >= to * 100 - 1e-9);
      const data = [{ x: 0, y: from * 100 }, ...(last < 0 ? inside : inside.slice(0, last + 1))];
      return [{ name: found.place, side, data }];
    }),
  );
  const datasets = lines.map(({ name, side, data }) => ({
    label: name,
    data,
    borderColor: colourOf(side),
    backgroundColor: colourOf(side),
    borderDash: [...(DASHES[side] ?? [])],
    borderWidth: 1.8,
    pointStyle: SHAPES[side],
    pointRadius: data.map((_, at) => (at === data.length - 1 ? 4 : 0)),
  }));
  const options: ChartOptions<'line'> = {
    animation: false,
    parsing: false,
    maintainAspectRatio: false,
    scales: {
      x: { ...axis, type: 'linear', min: 0, title: title(`Time from ${Math.round(from * 100)} %, min`) },
      y: { ...axis, min: Math.floor(from * 20) * 5, max: Math.ceil(to * 20) * 5, title: title('Level, %') },
    },
    plugins: {
      legend: {
        position: 'bottom',
        align: 'start',
        labels: { color: palette.text.primary, boxHeight: 1, boxWidth: 28 },
      },
    },
  };
  return (
    <Figure
      chart={chart}
      caption={sentence}
      table={[
        ['charge', 'minutes', 'level'],
        ...lines.flatMap(({ name, data }) => data.map(({ x, y }) => [name, x, y])),
      ]}
      height={height}
    >
      <Line ref={chart} data={{ datasets }} options={options} role="img" aria-label={sentence} />
    </Figure>
  );
}
