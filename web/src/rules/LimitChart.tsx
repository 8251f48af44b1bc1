// The limits of a set against nameplate power, one line a formula of one quantity.
import { type LimitedQuantity, type LimitSet, limitAt, QUANTITY_WORDS } from '@lastmark/core/limits';
import {
  Chart,
  type ChartData,
  type ChartOptions,
  Legend,
  LinearScale,
  LineElement,
  LogarithmicScale,
  PointElement,
  Tooltip,
} from 'chart.js';
import { useRef } from 'react';
import { Line } from 'react-chartjs-2';
import { useChartStyle } from '../parts/chartStyle.ts';
import { Figure } from '../parts/Figure.tsx';

Chart.register(LinearScale, LogarithmicScale, PointElement, LineElement, Legend, Tooltip);

interface Spot {
  readonly x: number;
  readonly y: number;
}

const DASHES = [[], [7, 4], [2, 3]];
const STEPS = 160;
/** Nameplates drawn, W. */
const FROM = 0.5;
const TO = 300;

interface Props {
  readonly set: Pick<LimitSet, 'title' | 'formulas'>;
  readonly quantity: LimitedQuantity;
}

export function LimitChart({ set, quantity }: Props) {
  const { palette, axis, title, colourOf } = useChartStyle();
  const chart = useRef<Chart<'line', Spot[]>>(null);
  const scale = quantity === 'no-load-power' ? 1 : 100;
  const unit = quantity === 'no-load-power' ? 'W' : '%';
  const drawn = set.formulas.filter((formula) => formula.quantity === quantity);
  const curves = drawn.map(({ nameplateClass }) => ({
    nameplateClass,
    spots: Array.from({ length: STEPS + 1 }, (_, step) => FROM * (TO / FROM) ** (step / STEPS)).flatMap(
      (watts): Spot[] => {
        const at = limitAt(set, quantity, nameplateClass, watts);
        return at !== null && Number.isFinite(at) ? [{ x: watts, y: at * scale }] : [];
      },
    ),
  }));
  const data: ChartData<'line', Spot[]> = {
    datasets: curves.map(({ nameplateClass, spots }, index) => ({
      label: nameplateClass,
      data: spots,
      borderColor: colourOf(index),
      backgroundColor: colourOf(index),
      borderDash: DASHES[index % DASHES.length] ?? [],
      pointRadius: 0,
      borderWidth: 2,
    })),
  };
  const options: ChartOptions<'line'> = {
    animation: false,
    maintainAspectRatio: false,
    scales: {
      x: {
        ...axis,
        type: 'logarithmic',
        min: FROM,
        max: TO,
        ticks: {
          ...axis.ticks,
          callback: (value) => ([1, 2, 5, 10, 20, 50, 100, 200].includes(Number(value)) ? `${value}` : ''),
        },
        title: title('Nameplate output, W'),
      },
      y: {
        ...axis,
        grace: '8%',
        title: title(`Limit, ${unit}`),
      },
    },
    plugins: { legend: { position: 'top', align: 'start', labels: { color: palette.text.primary, boxHeight: 1 } } },
  };
  const rows = curves.flatMap(({ nameplateClass, spots }) => spots.map(({ x, y }) => [nameplateClass, x, y]));
  return (
    <Figure
      chart={chart}
      caption={`${set.title || 'New set'}: ${QUANTITY_WORDS[quantity]}`}
      table={[['class', 'nameplate_watts', `limit_${unit === '%' ? 'percent' : 'watts'}`], ...rows]}
      height={220}
    >
      <Line
        ref={chart}
        data={data}
        options={options}
        role="img"
        aria-label={`${QUANTITY_WORDS[quantity]} against nameplate power. ${curves
          .map(
            ({ nameplateClass, spots }) =>
              `${nameplateClass}: ${spots
                .filter((_, index) => index % 40 === 0)
                .map(({ x, y }) => `${x.toFixed(1)} W ${y.toFixed(2)} ${unit}`)
                .join(', ')}`,
          )
          .join('. ')}`}
      />
    </Figure>
  );
}
