// Any measure against any other: a point a sample, its shape by kind, its size by a third, whiskers, and the not-beaten edge.
import type { SetMember } from '@lastmark/contract/types';
import { edgeOf } from '@lastmark/core/compare';
import type { Table } from '@lastmark/core/table';
import Box from '@mui/material/Box';
import {
  Chart,
  type ChartOptions,
  Legend,
  LinearScale,
  LineElement,
  PointElement,
  type PointStyle,
  ScatterController,
} from 'chart.js';
import { type KeyboardEvent, memo, useMemo, useRef, useState } from 'react';
import { Scatter as ScatterChart } from 'react-chartjs-2';
import { useNavigate } from 'react-router';
import { useChartStyle } from '../parts/chartStyle.ts';
import { Figure } from '../parts/Figure.tsx';
import { useMarks } from '../parts/useMarks.ts';
import { rangeOf } from './Held.tsx';
import { stampPoints } from './stamps.ts';
import { axisTitle, type MeasureView, sampleTitle, words } from './views.ts';

Chart.register(ScatterController, PointElement, LineElement, LinearScale, Legend);

/** Shapes that are told apart in grey too. */
const SHAPES: Readonly<Record<SetMember['kind'], PointStyle>> = {
  wall: 'circle',
  desktop: 'rect',
  car: 'triangle',
  cable: 'rectRot',
};
const KINDS = ['wall', 'desktop', 'car', 'cable'] as const;
/** Above so many points whiskers would only be a haze. */
const MOST_WHISKERS = 400;
/** From so many points on they are stamped. */
const MANY = 1000;
const LEAST_SHRUNK = 0.4;
const SMALLEST = 4;
const LARGEST = 14;

interface Props {
  readonly members: readonly SetMember[];
  readonly x: MeasureView;
  readonly y: MeasureView;
  readonly size: MeasureView | null;
  /** A sample that is marked. */
  readonly marked: string | null;
  readonly onMark: (id: string | null) => void;
}

interface Point {
  readonly member: SetMember;
  readonly x: number;
  readonly y: number;
  readonly radius: number;
  /** Half of each whisker in the unit shown; 0 for none. */
  readonly ux: number;
  readonly uy: number;
  readonly edge: boolean;
}

function pointsOf({ members, x, y, size }: Pick<Props, 'members' | 'x' | 'y' | 'size'>): readonly Point[] {
  const both = members.filter(({ id }) => x.byId.has(id) && y.byId.has(id));
  const pairs = both.map(
    ({ id }) => [x.byId.get(id)?.value ?? Number.NaN, y.byId.get(id)?.value ?? Number.NaN] as const,
  );
  const edge = new Set(x.better && y.better ? edgeOf(pairs, x.better, y.better) : []);
  const sizes = size ? both.map(({ id }) => size.byId.get(id)?.value ?? null) : [];
  const most = Math.max(0, ...sizes.map((one) => one ?? 0));
  return both.map((member, at) => {
    const [vx, vy] = [x.byId.get(member.id), y.byId.get(member.id)];
    const own = sizes[at];
    return {
      member,
      x: (vx?.value ?? 0) * x.factor,
      y: (vy?.value ?? 0) * y.factor,
      // Area goes with the value, as the eye reads it.
      radius:
        own == null || most <= 0 ? SMALLEST + 1 : SMALLEST + (LARGEST - SMALLEST) * Math.sqrt(Math.max(0, own) / most),
      ux: 2 * (vx?.u ?? 0) * Math.abs(x.factor),
      uy: 2 * (vy?.u ?? 0) * Math.abs(y.factor),
      edge: edge.has(at),
    };
  });
}

/** An axis spans all values of its measure: held to a range, the picture empties and stays where it is. */
function whole(view: MeasureView): { readonly suggestedMin?: number; readonly suggestedMax?: number } {
  const range = rangeOf(view);
  return range ? { suggestedMin: range[0] * view.factor, suggestedMax: range[1] * view.factor } : {};
}

/** What is said of a point: its name and both values. */
const pointWords = ({ member }: Point, x: MeasureView, y: MeasureView): string => {
  const [vx, vy] = [x.byId.get(member.id), y.byId.get(member.id)];
  return `${sampleTitle(member)}: ${x.title} ${vx ? words(x, vx) : '–'}, ${y.title} ${vy ? words(y, vy) : '–'}`;
};

/** Drawn again only when what it shows is another: a range that is being moved is not yet. */
export const Scatter = memo(function Scatter({ members, x, y, size, marked, onMark }: Props) {
  const { palette, axis, title, colourOf } = useChartStyle();
  const chart = useRef<Chart<'scatter'>>(null);
  const navigate = useNavigate();
  const points = useMemo(() => pointsOf({ members, x, y, size }), [members, x, y, size]);
  const [hovered, setHovered] = useState<string | null>(null);
  const shown = points.find(({ member }) => member.id === (hovered ?? marked)) ?? null;
  const edge = points.filter((one) => one.edge).sort((a, b) => a.x - b.x);
  const named =
    points.length <= 14 ? points : points.filter((one) => one.edge || one.member.id === marked).slice(0, 14);

  const many = points.length >= MANY;
  // Smaller and lighter the more there are: how close they lie is what is to be seen then.
  const shrunk = many ? Math.max(LEAST_SHRUNK, Math.sqrt(MANY / points.length)) : 1;
  const looks = KINDS.filter((kind) => points.some(({ member }) => member.kind === kind)).map((kind, at) => {
    const own = points.filter(({ member }) => member.kind === kind);
    // One radius for all is one set of options for all; a list is one for each of ten thousand.
    const colour = colourOf(at);
    const look = many
      ? { style: SHAPES[kind], fill: `${colour}30`, border: `${colour}60` }
      : { style: SHAPES[kind], fill: `${colour}b0`, border: colour };
    return {
      kind,
      own,
      radii: size ? own.map(({ radius }) => radius * shrunk) : (SMALLEST + 1) * shrunk,
      look,
      colour,
    };
  });
  const marks = useMarks<'scatter'>({
    id: 'compare-marks',
    beforeDatasetsDraw: (drawn) => {
      if (many) stampPoints(drawn as unknown as Chart, looks);
    },
    afterDatasetsDraw: ({ ctx, scales, chartArea }) => {
      const { x: sx, y: sy } = scales;
      if (!sx || !sy) return;
      ctx.save();
      ctx.beginPath();
      ctx.rect(chartArea.left, chartArea.top, chartArea.width, chartArea.height);
      ctx.clip();
      if (points.length <= MOST_WHISKERS) {
        ctx.strokeStyle = palette.text.secondary;
        ctx.lineWidth = 1;
        ctx.beginPath();
        for (const { x: px, y: py, ux, uy } of points) {
          if (ux > 0) {
            ctx.moveTo(sx.getPixelForValue(px - ux), sy.getPixelForValue(py));
            ctx.lineTo(sx.getPixelForValue(px + ux), sy.getPixelForValue(py));
          }
          if (uy > 0) {
            ctx.moveTo(sx.getPixelForValue(px), sy.getPixelForValue(py - uy));
            ctx.lineTo(sx.getPixelForValue(px), sy.getPixelForValue(py + uy));
          }
        }
        ctx.stroke();
      }
      ctx.font = `500 12px ${Chart.defaults.font.family}`;
      ctx.fillStyle = palette.text.primary;
      ctx.textBaseline = 'middle';
      // Names beside their points, where they do not lie over one another.
      const taken: { x: number; y: number; width: number }[] = [];
      for (const { member, x: px, y: py, radius } of named) {
        const text = member.model;
        const width = ctx.measureText(text).width;
        const at = { x: sx.getPixelForValue(px) + radius + 4, y: sy.getPixelForValue(py) };
        if (at.x + width > chartArea.right) at.x = sx.getPixelForValue(px) - radius - 4 - width;
        if (taken.some((one) => Math.abs(one.y - at.y) < 13 && at.x < one.x + one.width && one.x < at.x + width))
          continue;
        taken.push({ ...at, width });
        ctx.fillText(text, at.x, at.y);
      }
      if (shown) {
        ctx.strokeStyle = palette.text.primary;
        ctx.lineWidth = 2.5;
        ctx.beginPath();
        ctx.arc(sx.getPixelForValue(shown.x), sy.getPixelForValue(shown.y), shown.radius + 5, 0, 2 * Math.PI);
        ctx.stroke();
      }
      ctx.restore();
    },
  });

  const options: ChartOptions<'scatter'> = {
    animation: false,
    maintainAspectRatio: false,
    normalized: true,
    parsing: false,
    onHover: (_event, [mark], { data }) => {
      const own =
        mark && (data.datasets[mark.datasetIndex]?.data[mark.index] as unknown as { id?: string } | undefined);
      setHovered(own?.id ?? null);
    },
    onClick: (_event, [mark], { data }) => {
      const own =
        mark && (data.datasets[mark.datasetIndex]?.data[mark.index] as unknown as { id?: string } | undefined);
      onMark(own?.id ?? null);
    },
    scales: {
      x: { ...axis, ...whole(x), grace: '8%', title: title(axisTitle(x)) },
      y: { ...axis, ...whole(y), grace: '8%', title: title(axisTitle(y)) },
    },
    plugins: {
      legend: { display: true, labels: { usePointStyle: true, color: palette.text.primary } },
      tooltip: { enabled: false },
    },
  };
  const data = {
    datasets: [
      ...looks.map(({ kind, own, radii, look, colour }) => ({
        label: kind,
        data: own.map(({ member, x: px, y: py }) => ({ x: px, y: py, id: member.id })),
        pointStyle: look.style,
        // Stamped points are not drawn again, and are pointed at all the same.
        ...(many
          ? { pointRadius: 0, pointHoverRadius: 0, pointHitRadius: SMALLEST + 2 }
          : { pointRadius: radii, pointHoverRadius: radii }),
        // The legend shows them as few ones look.
        backgroundColor: `${colour}b0`,
        borderColor: colour,
      })),
      ...(edge.length > 1
        ? [
            {
              label: 'beaten by none',
              data: edge.map(({ x: px, y: py }) => ({ x: px, y: py })),
              showLine: true,
              pointRadius: 0,
              pointHitRadius: 0,
              pointStyle: 'line' as const,
              stepped: false,
              borderDash: [5, 4],
              borderColor: palette.text.secondary,
            },
          ]
        : []),
    ],
  };
  const caption = `${y.title} against ${x.title}${size ? `, size by ${size.title}` : ''}: ${points.length} samples`;
  const inOrder = () => [...points].sort((a, b) => a.x - b.x || a.y - b.y);
  const table = (): Table => [
    ['sample', axisTitle(x), `U of ${x.title}`, axisTitle(y), `U of ${y.title}`, 'beaten_by_none'],
    ...inOrder().map(({ member, x: px, y: py, ux, uy, edge: own }) => [sampleTitle(member), px, ux, py, uy, own]),
  ];
  const step = (by: number) => {
    const all = inOrder();
    const at = all.findIndex(({ member }) => member.id === marked);
    const next = all[Math.min(all.length - 1, Math.max(0, at === -1 ? 0 : at + by))];
    if (next) onMark(next.member.id);
  };
  const keys = (event: KeyboardEvent) => {
    if (event.key === 'ArrowRight' || event.key === 'ArrowUp') step(1);
    else if (event.key === 'ArrowLeft' || event.key === 'ArrowDown') step(-1);
    else if (event.key === 'Enter' && marked) void navigate(`/samples/${marked}/verdict`);
    else return;
    event.preventDefault();
  };
  return (
    <Figure chart={chart} caption={caption} table={table} height={400}>
      <Box
        tabIndex={0}
        role="application"
        aria-label={`${caption}. Arrow keys go from sample to sample, Enter opens it.`}
        onKeyDown={keys}
        sx={{ height: 'calc(100% - 24px)', '&:focus-visible': { outlineOffset: -3 } }}
      >
        <ScatterChart ref={chart} data={data as never} options={options} plugins={marks} aria-hidden />
      </Box>
      <Box
        role="status"
        sx={{ height: 24, fontSize: 14, overflow: 'hidden', whiteSpace: 'nowrap', textOverflow: 'ellipsis' }}
      >
        {shown ? pointWords(shown, x, y) : 'Point at a sample, or go along them with the arrow keys.'}
      </Box>
    </Figure>
  );
});
