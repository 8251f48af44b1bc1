// The evening: level of every device over the hours, when each is full, and what was interrupted.

import { fixed } from '@lastmark/core/quantity';
import { type Evening, type PlugDevice, readyAt, USUAL_PROFILE } from '@lastmark/core/split';
import Box from '@mui/material/Box';
import { Chart, type ChartOptions, Legend, LinearScale, LineElement, PointElement, Tooltip } from 'chart.js';
import { useRef } from 'react';
import { Line } from 'react-chartjs-2';
import { useChartStyle } from '../../parts/chartStyle.ts';
import { Figure } from '../../parts/Figure.tsx';
import { QuietTable } from '../../parts/QuietTable.tsx';
import { useSample } from '../../state/sample.tsx';

Chart.register(LinearScale, PointElement, LineElement, Legend, Tooltip);

interface Mark {
  readonly x: number;
  readonly y: number;
}

const DASHES = [[], [7, 4], [2, 3], [10, 3, 2, 3], [4, 2], [12, 4]] as const;

const clock = (seconds: number): string =>
  `${Math.floor(seconds / 3600)} h ${String(Math.round((seconds % 3600) / 60)).padStart(2, '0')} min`;

/** Where the curves come from. */
function byWhat(devices: readonly PlugDevice[]): string {
  const usual = devices.filter(({ profile, battery }) => battery !== null && profile === USUAL_PROFILE).length;
  if (usual === 0) return 'by their own charges';
  return usual === devices.length
    ? 'by our usual charge curve'
    : 'by their own charges, and by our usual curve where there are none';
}

/** Whether a device has the level it needs by the time it needs it. */
function inTime(evening: Evening, device: PlugDevice | undefined, levels: readonly number[]): string | null {
  const needs = device?.needs;
  if (!needs) return null;
  const at = readyAt(evening, device, levels);
  const what = `${fixed(needs.level * 100, 0)} % by ${clock(needs.by)}`;
  if (at === null) return `▼ ${what}: never`;
  return at <= needs.by ? `● ${what}` : `▼ ${what}: at ${clock(at)}`;
}

export function EveningView({
  evening,
  devices,
}: {
  readonly evening: Evening;
  readonly devices: readonly PlugDevice[];
}) {
  const { dossier } = useSample();
  const { palette, axis, title, colourOf } = useChartStyle();
  const chart = useRef<Chart<'line', Mark[]>>(null);
  const named = (id: string) => devices.find((one) => one.id === id)?.name ?? id;
  const charged = evening.devices.filter(({ id }) => devices.find((one) => one.id === id)?.battery !== null);
  const datasets = charged.map(({ id, levels }, index) => {
    const colour = colourOf(index);
    return {
      label: named(id),
      data: levels.flatMap((level, at): Mark[] =>
        at % 5 === 0 ? [{ x: (evening.moments[at] ?? 0) / 3600, y: level * 100 }] : [],
      ),
      borderColor: colour,
      backgroundColor: colour,
      borderDash: [...(DASHES[index % DASHES.length] ?? [])],
      borderWidth: 2,
      pointRadius: 0,
    };
  });
  const options: ChartOptions<'line'> = {
    animation: false,
    maintainAspectRatio: false,
    parsing: false,
    scales: {
      x: {
        ...axis,
        type: 'linear',
        min: 0,
        max: 12,
        title: title('Hours'),
      },
      y: { ...axis, min: 0, max: 100, title: title('Level, %') },
    },
    plugins: {
      legend: { position: 'top', align: 'start', labels: { boxHeight: 1, boxWidth: 28, color: palette.text.primary } },
    },
  };
  const { model, tag } = dossier.sample;
  const rows = evening.moments.flatMap((moment, at) =>
    at % 5 === 0
      ? [[moment / 60, ...evening.devices.map(({ levels }) => Number(((levels[at] ?? 0) * 100).toFixed(1)))]]
      : [],
  );
  return (
    <Box sx={{ mt: 1.5 }}>
      <Figure
        chart={chart}
        caption={`${model.maker} ${model.model}, unit ${tag}: an evening of 12 h, ${fixed(evening.energy / 3600, 0)} Wh out of the charger, ${byWhat(devices)}`}
        table={[['minutes', ...evening.devices.map(({ id }) => named(id))], ...rows]}
        height={240}
      >
        <Line
          ref={chart}
          data={{ datasets }}
          options={options}
          role="img"
          aria-label="Level of each device over the evening. The table below holds when each is full."
        />
      </Figure>
      <Box sx={{ mt: 1 }}>
        <QuietTable
          label="The evening"
          rows={evening.devices}
          rowKey={({ id }) => id}
          columns={[
            { head: 'Device', cell: ({ id }) => named(id) },
            { head: 'Port', cell: ({ port }) => port, empty: 'waits' },
            { head: 'Energy', unit: 'Wh', number: true, cell: ({ energy }) => fixed(energy / 3600, 1) },
            {
              head: 'Full after',
              cell: ({ id, fullAt }) =>
                fullAt === null ? null : clock(fullAt - (devices.find((one) => one.id === id)?.comes ?? 0)),
              empty: 'not full',
            },
            {
              head: 'Level at the end',
              cell: ({ id, levels }) =>
                devices.find((one) => one.id === id)?.battery === null
                  ? 'no battery'
                  : `${fixed((levels.at(-1) ?? 0) * 100, 0)} %`,
            },
            ...(devices.some(({ needs }) => needs)
              ? [
                  {
                    head: 'In time',
                    cell: ({ id, levels }: Evening['devices'][number]) =>
                      inTime(
                        evening,
                        devices.find((one) => one.id === id),
                        levels,
                      ),
                    empty: 'any time',
                  },
                ]
              : []),
            {
              head: 'Interrupted by',
              cell: ({ id }) =>
                evening.breaks
                  .filter((one) => one.id === id)
                  .map(({ at, by }) => `${named(by)} at ${clock(at)}`)
                  .join(', '),
              empty: 'nothing',
            },
          ]}
        />
      </Box>
    </Box>
  );
}
