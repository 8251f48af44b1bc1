// Every load step at a glance: where its voltage stands in its tolerance, what fell short, and what was not read.
import { marksOf, type StepResult } from '@lastmark/core/proof';
import { fixed } from '@lastmark/core/quantity';
import {
  CategoryScale,
  Chart,
  type ChartOptions,
  Legend,
  LinearScale,
  LineElement,
  PointElement,
  Tooltip,
} from 'chart.js';
import { useRef } from 'react';
import { Line } from 'react-chartjs-2';
import { useChartStyle } from '../../parts/chartStyle.ts';
import { Figure } from '../../parts/Figure.tsx';
import { focusEntry } from '../../parts/focusEntry.ts';
import { isLoud } from '../../parts/StateMark.tsx';
import { useMarks } from '../../parts/useMarks.ts';
import { useSample } from '../../state/sample.tsx';

Chart.register(CategoryScale, LinearScale, PointElement, LineElement, Legend, Tooltip);

const MOST_SIGNS = 16;
const shortened = (title: string): string => (title.length > MOST_SIGNS ? `${title.slice(0, MOST_SIGNS - 1)}…` : title);

export function StepMap({ results }: { readonly results: readonly StepResult[] }) {
  const { sample } = useSample().dossier;
  const { palette, axis, title, colourOf } = useChartStyle();
  const chart = useRef<Chart<'line', (number | null)[], string>>(null);
  const marks = results.flatMap(marksOf);
  const loud = (index: number) => isLoud(marks[index]?.state ?? 'not tested');
  const whiskers = useMarks<'line'>({
    id: 'step-whiskers',
    beforeDatasetsDraw: ({ ctx, scales, chartArea }) => {
      const { x, y } = scales;
      if (!x || !y) return;
      ctx.save();
      ctx.strokeStyle = palette.text.primary;
      ctx.lineWidth = 1.3;
      marks.forEach(({ place, u }, index) => {
        if (place === null || u === null) return;
        const at = x.getPixelForValue(index);
        const ends = [place + u, place - u].map((end) =>
          Math.min(chartArea.bottom, Math.max(chartArea.top, y.getPixelForValue(end))),
        );
        ctx.beginPath();
        ctx.moveTo(at, ends[0] ?? 0);
        ctx.lineTo(at, ends[1] ?? 0);
        ctx.stroke();
      });
      ctx.restore();
    },
  });
  const options: ChartOptions<'line'> = {
    animation: false,
    maintainAspectRatio: false,
    onClick: (_event, [mark]) => {
      const step = marks[mark?.index ?? -1];
      if (step) focusEntry(`${step.title},`);
    },
    scales: {
      x: {
        ...axis,
        grid: { display: false },
        offset: true,
        ticks: {
          ...axis.ticks,
          maxRotation: 60,
          font: { size: 11 },
          callback: (_value, index) => shortened(marks[index]?.title ?? ''),
        },
      },
      y: {
        ...axis,
        ticks: { ...axis.ticks, callback: (value) => fixed(Number(value), 0) },
        suggestedMin: -130,
        suggestedMax: 130,
        title: title('% of tolerance'),
      },
    },
    plugins: {
      legend: { display: false },
      tooltip: {
        callbacks: {
          label: ({ dataIndex }) => {
            const mark = marks[dataIndex];
            if (!mark) return '';
            return mark.volts === null ? 'not read' : `${mark.volts.toFixed(3)} V, ${mark.state}`;
          },
        },
      },
      annotation: {
        annotations: {
          band: {
            type: 'box',
            yMin: -100,
            yMax: 100,
            backgroundColor: `${palette.line}44`,
            borderWidth: 0,
            drawTime: 'beforeDraw',
          },
          ...Object.fromEntries(
            [-100, 100].map((at) => [
              `end ${at}`,
              { type: 'line' as const, yMin: at, yMax: at, borderColor: palette.text.primary, borderWidth: 1.5 },
            ]),
          ),
        },
      },
    },
  };
  return (
    <Figure
      chart={chart}
      caption={`${sample.model.maker} ${sample.model.model}, unit ${sample.tag}: voltage of each step in its tolerance; hollow: not read`}
      height={280}
      table={[
        ['step', 'port', 'volts', 'percent_of_tolerance', 'state'],
        ...marks.map(({ title: step, port, volts, place, state }) => [step, port, volts ?? '', place ?? '', state]),
      ]}
    >
      <Line
        ref={chart}
        data={{
          labels: marks.map(({ title: step }) => step),
          datasets: [
            {
              data: marks.map(({ place }) => place ?? 0),
              showLine: false,
              pointRadius: marks.map((_mark, index) => (loud(index) ? 8 : 6)),
              pointHoverRadius: 9,
              pointBorderWidth: 2,
              pointStyle: marks.map((mark, index) =>
                loud(index)
                  ? 'triangle'
                  : mark.place === null
                    ? 'circle'
                    : mark.port === marks[0]?.port
                      ? 'circle'
                      : 'rectRot',
              ),
              pointRotation: marks.map((_mark, index) => (loud(index) ? 180 : 0)),
              borderColor: marks.map((mark, index) =>
                loud(index) ? palette.error.main : mark.place === null ? palette.text.secondary : colourOf(0),
              ),
              backgroundColor: marks.map((mark, index) =>
                mark.place === null ? palette.background.paper : loud(index) ? palette.error.main : colourOf(0),
              ),
            },
          ],
        }}
        options={options}
        plugins={whiskers}
        role="img"
        aria-label={`Voltage of each step in its tolerance. ${marks.map(({ title: step, volts, state }) => `${step}: ${volts === null ? 'not read' : `${volts.toFixed(2)} V`}, ${state}`).join('. ')}`}
      />
    </Figure>
  );
}
