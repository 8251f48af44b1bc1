// Harmonics of the mains current as parts of what class A allows: bars to the order, the limit a line at 100 %.
import { formatPlain } from '@lastmark/core/quantity';
import { CLASS_A, harmonicSays, nearestToLimits } from '@lastmark/core/safety';
import Typography from '@mui/material/Typography';
import { BarController, BarElement, CategoryScale, Chart, LinearScale, Tooltip } from 'chart.js';
import { useRef } from 'react';
import { Bar } from 'react-chartjs-2';
import { useChartStyle } from '../../parts/chartStyle.ts';
import { Figure } from '../../parts/Figure.tsx';
import { useSample } from '../../state/sample.tsx';

Chart.register(BarController, BarElement, CategoryScale, LinearScale, Tooltip);

export function HarmonicsChart({ height }: { readonly height: number }) {
  const { verdict, dossier } = useSample();
  const { harmonics, limited } = verdict.results.safety;
  const { model, tag } = dossier.sample;
  const { palette, axis, title } = useChartStyle();
  const chart = useRef<Chart<'bar', number[], string>>(null);
  const worst = nearestToLimits(harmonics);
  if (!worst) return null;
  const percent = worst.lines.map(({ amps, most }) => (amps / most) * 100);
  return (
    <>
      <Typography variant="h2" sx={{ mt: 2, mb: 0.5 }}>
        Harmonics
      </Typography>
      <Typography sx={{ fontSize: 17, fontWeight: 600 }}>{harmonicSays(worst)}</Typography>
      <Typography variant="body2" color="text.secondary">
        {limited === true
          ? `Its rated input is above ${CLASS_A.from} W: class A counts, as currents; a power factor is not limited.`
          : `Whether its rated input is above ${CLASS_A.from} W is not known: then class A counts.`}{' '}
        {harmonics.length > 1 && `The capture nearest to its limits of ${harmonics.length}.`}
      </Typography>
      <Figure
        chart={chart}
        height={height}
        caption={`${model.maker} ${model.model}, unit ${tag}: harmonics of the mains current as parts of their limit; ${worst.conditions}`}
        table={[
          ['order', 'amps', 'limit_amps', 'state'],
          ...worst.lines.map(({ order, amps, most, state }) => [order, amps, most, state]),
        ]}
      >
        <Bar
          ref={chart}
          role="img"
          aria-label={`Harmonics as parts of their limit. ${worst.lines.map(({ order, amps, most }) => `${order}: ${formatPlain(amps, 'current', 'mA')} of ${formatPlain(most, 'current', 'mA')}`).join('. ')}`}
          data={{
            labels: worst.lines.map(({ order }) => String(order)),
            datasets: [
              {
                data: percent,
                backgroundColor: worst.lines.map(({ state }) =>
                  state === 'short' ? palette.error.main : (palette.series[0] ?? palette.text.primary),
                ),
              },
            ],
          }}
          options={{
            animation: false,
            maintainAspectRatio: false,
            scales: {
              x: { ...axis, grid: { display: false }, title: title('Order of the harmonic') },
              y: { ...axis, beginAtZero: true, suggestedMax: 115, title: title('Of its limit, %') },
            },
            plugins: {
              legend: { display: false },
              annotation: {
                annotations: [
                  {
                    type: 'line',
                    yMin: 100,
                    yMax: 100,
                    borderColor: palette.text.primary,
                    borderWidth: 2,
                  },
                ],
              },
            },
          }}
        />
      </Figure>
    </>
  );
}
