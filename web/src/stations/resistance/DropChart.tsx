// Drop against current: readings, the line through them, and what each side may drop.
import { SIDES } from '@lastmark/core/cable';
import { formatMeasured } from '@lastmark/core/quantity';
import { MOST_DROP, type ResistanceSeries, SIDE_WORDS } from '@lastmark/core/resistance';
import { expandedUncertainty } from '@lastmark/core/uncertainty';
import { Chart, Legend, LinearScale, LineElement, PointElement, ScatterController, Tooltip } from 'chart.js';
import { useRef } from 'react';
import { Scatter } from 'react-chartjs-2';
import { useChartStyle } from '../../parts/chartStyle.ts';
import { Figure } from '../../parts/Figure.tsx';
import { useSample } from '../../state/sample.tsx';

Chart.register(ScatterController, LinearScale, PointElement, LineElement, Tooltip, Legend);

const SHAPES = ['circle', 'rect', 'triangle', 'rectRot', 'crossRot', 'star'] as const;
const STEPS = 24;

const nameOf = ({ side, bends }: ResistanceSeries): string =>
  `${SIDE_WORDS[side]}${bends > 0 ? `, after ${bends} bends` : ''}`;

/** The line as it was fitted, from nought to the highest current. */
function lineOf({ result, readings }: ResistanceSeries) {
  const most = Math.max(...readings.map(({ amps }) => amps));
  const bend = result.curvature?.value ?? 0;
  return Array.from({ length: STEPS + 1 }, (_, at) => {
    const x = (most * at) / STEPS;
    return { x, y: (result.offset + result.ohms.value * x + bend * x ** 3) * 1000 };
  });
}

export function DropChart({ height }: { readonly height: number }) {
  const { verdict, dossier } = useSample();
  const { series: found, rated } = verdict.results.resistance;
  const series = [...found].sort((a, b) => SIDES.indexOf(a.side) - SIDES.indexOf(b.side));
  const { model, tag } = dossier.sample;
  const { palette, axis, title, colourOf } = useChartStyle();
  const chart = useRef<Chart<'scatter'>>(null);
  const data = {
    datasets: series.flatMap((one, index) => [
      {
        label: nameOf(one),
        data: one.readings.map(({ amps, drop }) => ({ x: amps, y: drop * 1000 })),
        pointStyle: SHAPES[index % SHAPES.length] ?? 'circle',
        pointRadius: 5,
        borderColor: colourOf(index),
        backgroundColor: 'transparent',
        borderWidth: 2,
      },
      {
        label: '',
        data: lineOf(one),
        showLine: true,
        pointRadius: 0,
        pointHitRadius: 0,
        borderColor: colourOf(index),
        borderWidth: 1.5,
      },
    ]),
  };
  const limits = [...new Set(series.map(({ side }) => side))].map((side) => ({
    type: 'line' as const,
    yMin: MOST_DROP[side] * 1000,
    yMax: MOST_DROP[side] * 1000,
    borderColor: palette.text.primary,
    borderDash: [6, 4],
    borderWidth: 1.5,
    label: {
      display: true,
      content: `most along ${SIDE_WORDS[side]}`,
      position: 'start' as const,
      yAdjust: -10,
      backgroundColor: palette.background.paper,
      color: palette.text.primary,
      font: { size: 12 },
    },
  }));
  const [first] = series;
  return (
    <Figure
      chart={chart}
      height={height}
      caption={`${model.maker} ${model.model}, unit ${tag}: drop against current${first ? `, ${SIDE_WORDS[first.side]} ${formatMeasured(first.ohms.value, expandedUncertainty(first.ohms), 'resistance')}` : ''}; dashed: most it may drop at ${rated.amps} A`}
      table={[
        ['conductors', 'bends', 'amps', 'drop_volts', 'celsius', 'off_the_line_volts'],
        ...series.flatMap((one) =>
          one.readings.map(({ amps, drop, celsius }, at) => [
            SIDE_WORDS[one.side],
            one.bends,
            amps,
            drop,
            celsius ?? '',
            one.result.residuals[at] ?? '',
          ]),
        ),
      ]}
    >
      <Scatter
        ref={chart}
        data={data}
        aria-label="Drop against current"
        options={{
          responsive: true,
          maintainAspectRatio: false,
          animation: false,
          scales: {
            x: { ...axis, title: title('Current, A'), min: 0, suggestedMax: rated.amps },
            y: { ...axis, title: title('Drop, mV'), min: 0 },
          },
          plugins: {
            legend: {
              position: 'top',
              align: 'start',
              labels: { usePointStyle: true, color: palette.text.primary, filter: ({ text }) => text !== '' },
            },
            tooltip: {
              filter: ({ dataset }) => dataset.label !== '',
              callbacks: { label: ({ parsed }) => `${parsed.x} A: ${Number(parsed.y?.toPrecision(4))} mV` },
            },
            annotation: { annotations: limits },
          },
        }}
      />
    </Figure>
  );
}
