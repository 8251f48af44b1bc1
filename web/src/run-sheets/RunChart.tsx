// What was told lately, rolling: input power and, where a load is on, output power.

import type { RunSample, RunTrace, SheetRun } from '@lastmark/contract/plan';
import type { LiveEvent } from '@lastmark/contract/types';
import { toldNumber } from '@lastmark/core/instrument';
import Box from '@mui/material/Box';
import { useQuery } from '@tanstack/react-query';
import { Chart, type ChartOptions, Legend, LinearScale, LineElement, PointElement } from 'chart.js';
import { useEffect, useMemo, useRef } from 'react';
import { Line } from 'react-chartjs-2';
import { api } from '../api/client.ts';
import { instrumentsQuery } from '../api/queries.ts';
import { useChartStyle } from '../parts/chartStyle.ts';
import { listenLive } from '../state/liveSource.ts';

Chart.register(LinearScale, PointElement, LineElement, Legend);

/** s of instrument time in sight. */
const SHOWN_SECONDS = 600;
const DRAW_MILLISECONDS = 250;

interface Mark {
  x: number;
  y: number;
}

/** A meter's noise about nothing would stretch the axis below zero; power that really flows back is shown. */
const steady = (watts: number): number => (watts > -0.1 && watts < 0 ? 0 : watts);

/** A number per instrument: input of the mains meter, output of everything a load draws. */
function markOf(
  kind: string,
  values: LiveEvent['values'],
): { readonly series: 0 | 1; readonly at: number; readonly watts: number } | null {
  const at = toldNumber(kind, values, 'time');
  if (at === null) return null;
  if (kind === 'power analyser') {
    const watts = toldNumber(kind, values, 'power');
    return watts === null ? null : { series: 0, at, watts: steady(watts) };
  }
  if (kind === 'inline USB meter') {
    const [volts, amps] = [toldNumber(kind, values, 'voltage'), toldNumber(kind, values, 'current')];
    return volts === null || amps === null ? null : { series: 1, at, watts: steady(volts * amps) };
  }
  if (kind !== 'DC load') return null;
  let watts = 0;
  for (let channel = 1; channel * 2 < values.length; channel += 1)
    watts += (toldNumber(kind, values, 'voltage', channel) ?? 0) * (toldNumber(kind, values, 'current', channel) ?? 0);
  return { series: 1, at, watts: steady(watts) };
}

export function RunChart({ run }: { readonly run: SheetRun }) {
  const { palette, axis, title, colourOf } = useChartStyle();
  const chart = useRef<Chart<'line', Mark[]>>(null);
  const marks = useRef<[Mark[], Mark[]]>([[], []]);
  const firstStep = useRef(run.stepId);
  const { data: instruments } = useQuery(instrumentsQuery);
  const ids = run.instrumentIds.join();
  useEffect(() => {
    const classes = new Map(instruments?.items.map((one) => [one.id, one.class]) ?? []);
    const own = new Set(ids.split(','));
    const take = ({ instrumentId, values }: Pick<RunSample, 'instrumentId' | 'values'>) => {
      const mark = own.has(instrumentId) ? markOf(classes.get(instrumentId) ?? '', values) : null;
      if (!mark) return;
      const line = marks.current[mark.series];
      // Another run of the clock: what was before belongs to another time.
      if ((line.at(-1)?.x ?? 0) > mark.at + 1) line.length = 0;
      line.push({ x: mark.at, y: mark.watts });
      while ((line[0]?.x ?? mark.at) < mark.at - SHOWN_SECONDS) line.shift();
    };
    let gone = false;
    const step = firstStep.current;
    // What was told before this page came, so that the picture is whole.
    void api<RunTrace>(`/sheet-runs/${run.id}/trace${step ? `?step=${step}` : ''}`)
      .then(({ items }) => {
        if (!gone && marks.current[0].length < 5) for (const sample of items.slice(-4000)) take(sample);
      })
      .catch(() => undefined);
    const stop = listenLive(take, [...own]);
    const draw = setInterval(() => {
      const now = chart.current;
      if (!now) return;
      const end = Math.max(marks.current[0].at(-1)?.x ?? 0, marks.current[1].at(-1)?.x ?? 0);
      for (const [index, line] of marks.current.entries()) {
        const set = now.data.datasets[index];
        if (set) set.data = line.map(({ x, y }) => ({ x: x - end, y }));
      }
      now.update('none');
    }, DRAW_MILLISECONDS);
    return () => {
      gone = true;
      stop();
      clearInterval(draw);
    };
  }, [run.id, ids, instruments]);
  const [input, output] = [colourOf(0), colourOf(1)];
  // Made once for its colours: a page that is drawn anew would empty the lines until they are next drawn.
  const data = useMemo(() => {
    const line = (label: string, colour: string, borderDash: number[]) => ({
      label,
      data: [] as Mark[],
      borderColor: colour,
      backgroundColor: colour,
      borderWidth: 2,
      borderDash,
      pointRadius: 0,
    });
    return { datasets: [line('Input, W', input, []), line('Output, W', output, [6, 4])] };
  }, [input, output]);
  const options: ChartOptions<'line'> = {
    animation: false,
    maintainAspectRatio: false,
    parsing: false,
    scales: {
      x: {
        ...axis,
        type: 'linear',
        min: -SHOWN_SECONDS,
        max: 0,
        ticks: { ...axis.ticks, stepSize: 120, callback: (value) => `${Number(value) / 60} min` },
      },
      y: {
        ...axis,
        beginAtZero: true,
        grace: '10%',
        title: title('W'),
      },
    },
    plugins: {
      legend: { position: 'top', align: 'start', labels: { boxHeight: 1, boxWidth: 28, color: palette.text.primary } },
    },
  };
  return (
    <Box sx={{ flex: 1, minHeight: 130, maxHeight: 360, position: 'relative' }}>
      <Line
        ref={chart}
        data={data}
        options={options}
        role="img"
        aria-label="Input and output power of the last ten minutes. The live numbers above tell the newest."
      />
    </Box>
  );
}
