// Resistance against bends, with whiskers, and where a cable counts as worn.
import { SIDE_WORDS } from '@lastmark/core/resistance';
import { expandedUncertainty, isStated } from '@lastmark/core/uncertainty';
import { Chart, Legend, LinearScale, LineController, LineElement, PointElement, Tooltip } from 'chart.js';
import { useRef } from 'react';
import { Line } from 'react-chartjs-2';
import { useChartStyle } from '../../parts/chartStyle.ts';
import { Figure } from '../../parts/Figure.tsx';
import { useMarks } from '../../parts/useMarks.ts';
import { useSample } from '../../state/sample.tsx';

Chart.register(LineController, LinearScale, PointElement, LineElement, Tooltip, Legend);

const SHAPES = ['circle', 'rect', 'triangle'] as const;

export function WearChart({ height }: { readonly height: number }) {
  const { verdict, dossier } = useSample();
  const { series } = verdict.results.resistance;
  const { plan, failed } = verdict.results.bends;
  const { model, tag } = dossier.sample;
  const { palette, axis, title, colourOf } = useChartStyle();
  const chart = useRef<Chart<'line', { x: number; y: number }[]>>(null);
  const sides = [...new Set(series.map(({ side }) => side))];
  const lines = sides.map((side) =>
    series
      .filter((one) => one.side === side)
      .map(({ bends, at20, ohms }) => {
        const shown = at20 ?? ohms;
        const u = isStated(shown) ? expandedUncertainty(shown) * 1000 : 0;
        return { x: bends, y: shown.value * 1000, u };
      }),
  );
  const whiskers = useMarks<'line'>({
    id: 'whiskers',
    afterDatasetsDraw: ({ ctx, scales }) => {
      const { x, y } = scales;
      if (!x || !y) return;
      ctx.save();
      lines.forEach((points, index) => {
        ctx.strokeStyle = colourOf(index);
        ctx.lineWidth = 1.5;
        for (const one of points) {
          const at = x.getPixelForValue(one.x);
          const [low, high] = [y.getPixelForValue(one.y - one.u), y.getPixelForValue(one.y + one.u)];
          ctx.beginPath();
          ctx.moveTo(at, low);
          ctx.lineTo(at, high);
          for (const end of [low, high]) {
            ctx.moveTo(at - 5, end);
            ctx.lineTo(at + 5, end);
          }
          ctx.stroke();
        }
      });
      ctx.restore();
    },
  });
  const ends = lines.flat().flatMap((one) => [one.y - one.u, one.y + one.u]);
  const worn = lines.flatMap((points) => {
    const first = points.find(({ x }) => x === 0);
    return first ? [first.y * 1.1] : [];
  });
  return (
    <Figure
      chart={chart}
      height={height}
      caption={`${model.maker} ${model.model}, unit ${tag}: resistance at 20 °C against bends; dashed: worn, a tenth more`}
      table={[
        ['conductors', 'bends', 'milliohms', 'expanded_uncertainty_milliohms'],
        ...lines.flatMap((points, at) =>
          points.map(({ x, y, u }) => [SIDE_WORDS[sides[at] as (typeof sides)[number]], x, y, u]),
        ),
      ]}
    >
      <Line
        ref={chart}
        aria-label="Resistance against bends"
        data={{
          datasets: lines.map((points, index) => ({
            label: SIDE_WORDS[sides[index] as (typeof sides)[number]],
            data: points.map(({ x, y }) => ({ x, y })),
            pointStyle: SHAPES[index % SHAPES.length] ?? 'circle',
            pointRadius: 5,
            borderColor: colourOf(index),
            backgroundColor: palette.background.paper,
            borderWidth: 2,
          })),
        }}
        plugins={whiskers}
        options={{
          responsive: true,
          maintainAspectRatio: false,
          animation: false,
          parsing: false,
          scales: {
            x: {
              ...axis,
              type: 'linear',
              title: title('Bends'),
              min: 0,
              suggestedMax: plan.count,
              ticks: { ...axis.ticks, callback: (value) => String(value) },
            },
            y: {
              ...axis,
              title: title('R at 20 °C, mΩ'),
              suggestedMin: Math.min(...ends),
              suggestedMax: Math.max(...ends),
              grace: '5%',
            },
          },
          plugins: {
            legend: { position: 'top', align: 'start', labels: { usePointStyle: true, color: palette.text.primary } },
            annotation: {
              annotations: [
                ...worn.map((yMin) => ({
                  type: 'line' as const,
                  yMin,
                  yMax: yMin,
                  borderColor: palette.text.primary,
                  borderDash: [6, 4],
                  borderWidth: 1.5,
                })),
                ...(failed
                  ? [
                      {
                        type: 'line' as const,
                        xMin: failed.count,
                        xMax: failed.count,
                        borderColor: palette.error.main,
                        borderWidth: 2,
                        label: {
                          display: true,
                          content: failed.fault,
                          position: 'end' as const,
                          backgroundColor: palette.background.paper,
                          color: palette.error.main,
                        },
                      },
                    ]
                  : []),
              ],
            },
          },
        }}
      />
    </Figure>
  );
}
