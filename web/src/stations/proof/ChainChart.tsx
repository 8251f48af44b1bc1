// Drop against current with the line through all steps, and below it what each step lies off that line.
import type { Chain } from '@lastmark/core/proof';
import { fixed } from '@lastmark/core/quantity';
import { Chart, type ChartOptions, Legend, LinearScale, LineElement, PointElement, Tooltip } from 'chart.js';
import { useRef } from 'react';
import { Scatter } from 'react-chartjs-2';
import { useChartStyle } from '../../parts/chartStyle.ts';
import { Figure } from '../../parts/Figure.tsx';
import { focusEntry } from '../../parts/focusEntry.ts';

Chart.register(LinearScale, PointElement, LineElement, Legend, Tooltip);

interface Mark {
  readonly x: number;
  readonly y: number;
}

interface Props {
  readonly chain: Chain;
  readonly name: string;
}

export function ChainChart({ chain, name }: Props) {
  const { palette, axis, title, colourOf } = useChartStyle();
  const chart = useRef<Chart<'scatter', Mark[]>>(null);
  const { drops, resistance, offset } = chain;
  const most = Math.max(0, ...drops.map(({ amps }) => amps)) * 1.05;
  const ohms = resistance?.value ?? 0;
  const start = offset?.value ?? 0;
  const line = [0, most].map((x) => ({ x, y: (start + ohms * x) * 1000 }));
  const ticks = { ...axis.ticks, callback: (value: number | string) => fixed(Number(value), 0) };
  const options: ChartOptions<'scatter'> = {
    animation: false,
    maintainAspectRatio: false,
    onClick: (_event, [mark]) => {
      const drop = drops[mark?.index ?? -1];
      if (drop) focusEntry(`${drop.title},`);
    },
    scales: {
      x: { ...axis, beginAtZero: true, grace: '4%', title: title('Current, A') },
      off: { ...axis, ticks, stack: 'chain', stackWeight: 1.4, offset: true, grace: '12%', title: title('Off, mV') },
      y: { ...axis, ticks, stack: 'chain', stackWeight: 3, title: title('Drop, mV') },
    },
    plugins: {
      legend: {
        position: 'top',
        align: 'start',
        labels: { usePointStyle: true, boxHeight: 7, color: palette.text.primary },
      },
      tooltip: {
        callbacks: {
          label: ({ dataIndex, datasetIndex, raw }) => {
            const { x, y } = raw as Mark;
            const said = `${x.toFixed(3)} A, ${y.toFixed(1)} mV`;
            return datasetIndex === 1 ? said : `${drops[dataIndex]?.title ?? ''}: ${said}`;
          },
        },
      },
    },
  };
  return (
    <Figure
      chart={chart}
      caption={`${name}: drop between port and load end against current`}
      height={340}
      table={[
        ['step', 'amps', 'drop_volts', 'off_the_line_volts'],
        ...drops.map(({ title: step, amps, drop, residual }) => [step, amps, drop, residual]),
      ]}
    >
      <Scatter
        ref={chart}
        data={{
          datasets: [
            {
              label: 'read',
              data: drops.map(({ amps, drop }) => ({ x: amps, y: drop * 1000 })),
              pointRadius: 6,
              pointBorderWidth: 2,
              borderColor: colourOf(0),
              backgroundColor: palette.background.paper,
            },
            ...(resistance
              ? [
                  {
                    label: 'the line through all steps',
                    data: line,
                    showLine: true,
                    pointRadius: 0,
                    borderWidth: 2,
                    borderDash: [6, 4],
                    borderColor: palette.text.primary,
                    backgroundColor: palette.text.primary,
                    pointStyle: 'line' as const,
                  },
                ]
              : []),
            {
              label: 'off the line',
              yAxisID: 'off',
              data: drops.map(({ amps, residual }) => ({ x: amps, y: residual * 1000 })),
              pointRadius: 5,
              pointStyle: 'rectRot' as const,
              borderColor: colourOf(1),
              backgroundColor: colourOf(1),
            },
          ],
        }}
        options={options}
        role="img"
        aria-label={`Drop against current. ${drops.map(({ title: step, amps, drop }) => `${step}: ${(drop * 1000).toFixed(0)} mV at ${amps.toFixed(2)} A`).join('. ')}`}
      />
    </Figure>
  );
}
