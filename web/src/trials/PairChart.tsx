// A trial as paired lines: each pair a line from one to the other, and what their difference comes to.
import { findUnit, fromSi, quantityOf } from '@lastmark/core/quantity';
import { type BlockResult, type BlockTrial, standingRuns, type TrialRun } from '@lastmark/core/trial';
import {
  CategoryScale,
  Chart,
  Legend,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
} from 'chart.js';
import { useRef } from 'react';
import { Line } from 'react-chartjs-2';
import { useChartStyle } from '../parts/chartStyle.ts';
import { Figure } from '../parts/Figure.tsx';
import { useMarks } from '../parts/useMarks.ts';
import { measureWords } from './trialForm.ts';

Chart.register(LineController, CategoryScale, LinearScale, PointElement, LineElement, Tooltip, Legend);

interface Props {
  readonly trial: BlockTrial;
  readonly runs: readonly TrialRun[];
  readonly names: readonly string[];
  readonly result: BlockResult;
  readonly height: number;
}

export function PairChart({ trial, runs, names, result, height }: Props) {
  const { palette, axis, title, colourOf } = useChartStyle();
  const chart = useRef<Chart<'line', (number | null)[], string>>(null);
  const { quantity } = trial.measure;
  const unit = findUnit(quantity, quantityOf(quantity).usual);
  const shown = (si: number) => (unit ? fromSi(si, unit) : si);
  const standing = standingRuns(runs);
  const blocks = [...new Set(standing.map(({ block }) => block))].sort((a, b) => a - b);
  const at = (block: number, arm: number) => {
    const run = standing.find((one) => one.block === block && one.cell[0] === arm);
    return run ? shown(run.value) : null;
  };
  const means = useMarks<'line'>({
    id: 'means',
    afterDatasetsDraw: ({ ctx, scales }) => {
      const { x, y } = scales;
      if (!x || !y) return;
      ctx.save();
      ctx.strokeStyle = palette.text.primary;
      ctx.lineWidth = 3;
      result.arms.forEach((arm, index) => {
        if (!arm) return;
        const middle = x.getPixelForValue(index);
        const level = y.getPixelForValue(shown(arm.mean));
        ctx.beginPath();
        ctx.moveTo(middle - 26, level);
        ctx.lineTo(middle + 26, level);
        ctx.stroke();
      });
      ctx.restore();
    },
  });
  const [first] = result.comparisons;
  return (
    <Figure
      chart={chart}
      height={height}
      caption={`${trial.question} Each line is a ${trial.arms.length === 2 ? 'pair' : 'block'}; ${trial.arms.length === 2 ? 'triangles rise, circles fall; ' : ''}bars: means${first ? `. ${first.sentence}` : ''}`}
      table={[
        ['block', ...names.map((name) => `${name}_${quantityOf(quantity).usual || 'ratio'}`)],
        ...blocks.map((block) => [block + 1, ...names.map((_, arm) => at(block, arm) ?? '')]),
      ]}
    >
      <Line
        ref={chart}
        aria-label="Pairs"
        plugins={means}
        data={{
          labels: [...names],
          datasets: blocks.map((block) => {
            const values = names.map((_, arm) => at(block, arm));
            const rises = (values[1] ?? 0) > (values[0] ?? 0);
            return {
              label: `${block + 1}`,
              data: values,
              borderColor: colourOf(rises ? 1 : 0),
              backgroundColor: palette.background.paper,
              pointStyle: rises ? 'triangle' : 'circle',
              pointRadius: 5,
              borderWidth: 1.5,
              spanGaps: false,
            };
          }),
        }}
        options={{
          responsive: true,
          maintainAspectRatio: false,
          animation: false,
          scales: {
            x: { ...axis, offset: true },
            y: { ...axis, title: title(measureWords(trial.measure)), grace: '10%' },
          },
          plugins: {
            legend: { display: false },
            tooltip: {
              callbacks: { label: ({ dataset, formattedValue }) => `${Number(dataset.label)}: ${formattedValue}` },
            },
          },
        }}
      />
    </Figure>
  );
}
