// Efficiency of one loading against load: one line a mains, with the limit lines.
import type { MainsResult, SeriesResult } from '@lastmark/core/efficiency';
import { mainsLabel } from '@lastmark/core/reading';
import { expandedUncertainty } from '@lastmark/core/uncertainty';
import type { SetupLimits } from '@lastmark/core/verdict';
import { useTheme } from '@mui/material/styles';
import type { AnnotationOptions } from 'chartjs-plugin-annotation';
import { EmptyFigure } from '../../parts/EmptyFigure.tsx';
import { focusEntry } from '../../parts/focusEntry.ts';
import { useSample } from '../../state/sample.tsx';
import { CurveChart, type CurvePoint } from './CurveChart.tsx';

const pointsOf = ({ loads }: MainsResult): CurvePoint[] =>
  loads.map(({ load, efficiency }) => ({
    x: load * 100,
    y: efficiency.value * 100,
    u: expandedUncertainty(efficiency) * 100,
  }));

/** Limit lines of verdict sets: the average across 25–100 %, light load at 10 %. Equal limits share one line. */
function limitLines(limits: SetupLimits | undefined, colour: string, paper: string): Record<string, AnnotationOptions> {
  const merged = new Map<string, { at: number; light: boolean; titles: string[] }>();
  for (const { limit, quantity, title } of limits?.lines ?? []) {
    if (limit.kind !== 'at-least') continue;
    const light = quantity === 'light-load-efficiency';
    const key = `${light} ${limit.low.toFixed(6)}`;
    const line = merged.get(key) ?? { at: limit.low * 100, light, titles: [] };
    if (!line.titles.includes(title)) line.titles.push(title);
    merged.set(key, line);
  }
  return Object.fromEntries(
    [...merged.entries()].map(([key, { at, light, titles }], index) => [
      key,
      {
        type: 'line',
        yMin: at,
        yMax: at,
        xMin: light ? 4 : 25,
        xMax: light ? 16 : 100,
        borderColor: colour,
        borderWidth: 1.5,
        borderDash: [5, 4],
        label: {
          display: true,
          content: `${titles.join(', ')}${light ? ', 10 %' : ''} ${at.toFixed(1)} %`,
          position: light ? 'start' : index % 2 === 0 ? 'end' : 'center',
          yAdjust: light ? -11 : index % 2 === 0 ? 10 : -10,
          backgroundColor: paper,
          color: colour,
          font: { size: 11, weight: 'normal' },
          padding: 2,
        },
      } satisfies AnnotationOptions,
    ]),
  );
}

interface Props {
  readonly series: SeriesResult;
  readonly limits: SetupLimits | undefined;
}

export function LoadChart({ series, limits }: Props) {
  const { sample } = useSample().dossier;
  const { palette } = useTheme();
  const { byMains, setup } = series;
  if (byMains.length === 0) return <EmptyFigure says="The curve starts with the first complete load point." />;
  const rows = byMains.flatMap((one) => pointsOf(one).map(({ x, y, u }) => [mainsLabel(one.mains), x, y, u]));
  return (
    <CurveChart
      curves={byMains.map((one) => ({ label: mainsLabel(one.mains), points: pointsOf(one) }))}
      caption={`${sample.model.maker} ${sample.model.model}, unit ${sample.tag}: efficiency against load, ${setup.name}`}
      title="Efficiency, %"
      unit="%"
      table={[['mains', 'load_percent', 'efficiency_percent', 'expanded_uncertainty_percent'], ...rows]}
      height={300}
      onPick={(curve, at) => {
        const one = byMains[curve];
        const load = one?.loads[at]?.load;
        if (one && load !== undefined) focusEntry(`${mainsLabel(one.mains)}, ${Math.round(load * 100)} %, `);
      }}
      annotations={limitLines(limits, palette.text.secondary, palette.background.paper)}
    />
  );
}
