// The level map: voltage across, current up. Levels as marks, ranges as areas, promises as outlines, proof on top.
import { describeOffer, edgeOf, fixedWatts, mostWatts } from '@lastmark/core/pd';
import { offersOf, type ReadOut } from '@lastmark/core/read-out';
import { alpha } from '@mui/material/styles';
import {
  Chart,
  type ChartDataset,
  type ChartOptions,
  Filler,
  Legend,
  LinearScale,
  LineElement,
  type Plugin,
  PointElement,
  Tooltip,
} from 'chart.js';
import { useRef } from 'react';
import { Line } from 'react-chartjs-2';
import { useChartStyle } from '../../parts/chartStyle.ts';
import { Figure } from '../../parts/Figure.tsx';
import { useSample } from '../../state/sample.tsx';
import { provenPoints } from './provenPoints.ts';

Chart.register(LinearScale, PointElement, LineElement, Legend, Tooltip, Filler);

const SHAPES = ['circle', 'rectRot', 'triangle', 'rect'] as const;
const POWERS = [15, 27, 45, 60, 100, 140, 180, 240];

interface MapPoint {
  readonly x: number;
  readonly y: number;
  readonly words: string;
}
type Dataset = ChartDataset<'line', MapPoint[]> & { readonly watts?: number };

/** The power written at the upper end of its curve. */
const curveNames: Plugin<'line'> = {
  id: 'curveNames',
  afterDatasetsDraw: (chart) => {
    const { ctx, data, chartArea } = chart;
    ctx.save();
    ctx.font = `11px ${Chart.defaults.font.family}`;
    ctx.textAlign = 'left';
    data.datasets.forEach((dataset, index) => {
      const { watts, borderColor } = dataset as unknown as Dataset;
      if (!watts) return;
      const marks = chart.getDatasetMeta(index).data;
      const last = marks.findLast(({ x, y }) => x <= chartArea.right - 34 && y >= chartArea.top);
      if (!last) return;
      ctx.fillStyle = String(borderColor);
      ctx.fillText(`${watts} W`, last.x + 3, Math.max(chartArea.top + 10, last.y - 3));
    });
    ctx.restore();
  },
};

interface Props {
  readonly readOuts: readonly ReadOut[];
  readonly caption: string;
}

export function LevelMap({ readOuts, caption }: Props) {
  const { dossier, verdict } = useSample();
  const { palette, axis, title, colourOf } = useChartStyle();
  const chart = useRef<Chart<'line', MapPoint[]>>(null);
  const shown = readOuts.map((readOut) => {
    const offers = offersOf(readOut).map(({ object }) => object);
    return { readOut, offers, watts: fixedWatts(offers) };
  });
  const ports = shown.map(({ readOut }) => readOut.port);
  const promises = dossier.claims.flatMap(({ promise }) =>
    promise.kind === 'port-line' && ports.includes(promise.port) ? [promise] : [],
  );
  const highest = Math.max(
    20,
    ...shown.flatMap(({ offers }) => offers.flatMap((object) => edgeOf(object).map(({ volts }) => volts))),
    ...promises.map(({ volts }) => volts),
  );
  const maxVolts = Math.ceil((highest + 1) / 2) * 2;
  const most = Math.max(...shown.flatMap(({ offers, watts }) => offers.map((object) => mostWatts(object, watts))), 15);
  const curves = POWERS.filter((watts) => watts <= most * 1.35).slice(-5);
  const perPort = shown.flatMap(({ readOut: { port }, offers, watts }, index): Dataset[] => {
    const own = colourOf(index);
    const fixed = offers.flatMap((object) =>
      object.kind === 'fixed' ? [{ x: object.volts, y: object.amps, words: describeOffer(object) }] : [],
    );
    const ranges = offers.filter(({ kind }) => kind !== 'fixed');
    return [
      {
        label: `${port} offers`,
        data: fixed,
        showLine: false,
        borderColor: own,
        backgroundColor: own,
        pointStyle: SHAPES[index % SHAPES.length] ?? 'circle',
        // Marks of several ports on one level stay apart: the first ones are larger.
        pointRadius: 5 + 2 * (shown.length - 1 - index),
        pointHoverRadius: 8 + 2 * (shown.length - 1 - index),
      },
      ...ranges.map(
        (object): Dataset => ({
          label: `${port} ${describeOffer(object)}`,
          data: edgeOf(object, watts).map(({ volts, amps }) => ({ x: volts, y: amps, words: describeOffer(object) })),
          borderColor: own,
          backgroundColor: alpha(own, object.kind === 'pps' ? 0.1 : 0.18),
          borderDash: object.kind === 'pps' ? [6, 3] : object.kind === 'spr-avs' ? [2, 3] : [10, 3, 2, 3],
          borderWidth: 1.6,
          fill: 'origin',
          pointRadius: 0,
          pointHitRadius: 6,
        }),
      ),
    ];
  });
  const constant = curves.map(
    (watts): Dataset => ({
      label: `${watts} W`,
      watts,
      data: Array.from({ length: 60 }, (_, step) => {
        const x = Math.max(watts / 5.4, 3) + (step / 59) * (maxVolts - Math.max(watts / 5.4, 3));
        return { x, y: watts / x, words: `${watts} W` };
      }),
      borderColor: palette.soft,
      borderWidth: 0.8,
      pointRadius: 0,
      pointHitRadius: 0,
    }),
  );
  const promised: Dataset = {
    label: 'label promises',
    data: promises.map(({ volts, amps, port }) => ({ x: volts, y: amps, words: `${port}: promised` })),
    showLine: false,
    borderColor: palette.text.primary,
    backgroundColor: 'transparent',
    pointStyle: 'rect',
    pointRadius: 12,
    pointBorderWidth: 1.6,
  };
  const points = provenPoints(verdict, ports);
  const proven: Dataset = {
    label: 'proven',
    data: points.map(({ volts, amps, port }) => ({ x: volts, y: amps, words: `${port}: proven` })),
    showLine: false,
    borderColor: palette.success.main,
    backgroundColor: palette.success.main,
    pointStyle: 'crossRot',
    pointRadius: 9,
    pointBorderWidth: 2.6,
  };
  const options: ChartOptions<'line'> = {
    animation: false,
    maintainAspectRatio: false,
    layout: { padding: { right: 8 } },
    scales: {
      x: {
        ...axis,
        type: 'linear',
        min: 0,
        max: maxVolts,
        title: title('Voltage, V'),
      },
      y: {
        ...axis,
        type: 'linear',
        min: 0,
        max: 5.5,
        title: title('Current, A'),
      },
    },
    plugins: {
      legend: {
        position: 'top',
        align: 'start',
        labels: {
          usePointStyle: true,
          boxHeight: 7,
          color: palette.text.primary,
          filter: ({ text }) => /offers$|promises|proven/.test(text),
        },
      },
      tooltip: {
        filter: ({ dataset }) => !(dataset as unknown as Dataset).watts,
        callbacks: {
          title: () => '',
          label: ({ raw }) => {
            const { x, y, words } = raw as MapPoint;
            return `${words}: ${x.toFixed(1)} V, ${y.toFixed(2)} A, ${(x * y).toFixed(1)} W`;
          },
        },
      },
    },
  };
  // Drawn from the back: curves, areas and marks, outlines, proof.
  const datasets = [
    ...constant,
    ...perPort,
    ...(promised.data.length > 0 ? [promised] : []),
    ...(proven.data.length > 0 ? [proven] : []),
  ];
  datasets.forEach((dataset, index) => {
    dataset.order = datasets.length - index;
  });
  const rows = shown.flatMap(({ readOut: { port }, offers, watts }) =>
    offers.flatMap((object) =>
      edgeOf(object, watts, 10).map(({ volts, amps }) => [port, describeOffer(object), volts, amps]),
    ),
  );
  return (
    <Figure chart={chart} caption={caption} table={[['port', 'offer', 'volts', 'amps'], ...rows]} height={330}>
      <Line
        ref={chart}
        data={{ datasets: datasets as ChartDataset<'line', MapPoint[]>[] }}
        options={options}
        plugins={[curveNames]}
        role="img"
        aria-label={`Level map of ${ports.join(', ')}. The table below holds the same levels.`}
      />
    </Figure>
  );
}
