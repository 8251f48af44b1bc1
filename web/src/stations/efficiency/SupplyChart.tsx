// Efficiency against the DC supply, one line a load.
import type { SeriesResult } from '@lastmark/core/efficiency';
import { mainsLabel } from '@lastmark/core/reading';
import { expandedUncertainty } from '@lastmark/core/uncertainty';
import Typography from '@mui/material/Typography';
import { useSample } from '../../state/sample.tsx';
import { type Curve, CurveChart } from './CurveChart.tsx';

export function SupplyChart({ series }: { readonly series: SeriesResult }) {
  const { sample } = useSample().dossier;
  const dc = series.byMains.filter(({ mains }) => mains.kind === 'dc').sort((a, b) => a.mains.volts - b.mains.volts);
  const loads = [...new Set(dc.flatMap((one) => one.loads.map(({ load }) => load)))].sort((a, b) => b - a);
  const curves = loads.flatMap((load): Curve[] => {
    const points = dc.flatMap(({ mains, loads: own }) => {
      const at = own.find((one) => one.load === load);
      return at ? [{ x: mains.volts, y: at.efficiency.value * 100, u: expandedUncertainty(at.efficiency) * 100 }] : [];
    });
    return points.length > 1 ? [{ label: `${Math.round(load * 100)} % load`, points }] : [];
  });
  if (curves.length === 0)
    return <Typography color="text.secondary">The curve appears with a second supply voltage.</Typography>;
  const all = curves.flatMap(({ points }) => points.map(({ x }) => x));
  return (
    <CurveChart
      curves={curves}
      caption={`${sample.model.maker} ${sample.model.model}, unit ${sample.tag}: efficiency over the supply, ${series.setup.name}`}
      title="Efficiency, %"
      unit="%"
      x={{ title: 'Supply, V', unit: 'V', min: Math.floor(Math.min(...all)), max: Math.ceil(Math.max(...all)) }}
      table={[
        ['supply', 'load_percent', 'efficiency_percent'],
        ...dc.flatMap(({ mains, loads: own }) =>
          own.map(({ load, efficiency }) => [mainsLabel(mains), load * 100, efficiency.value * 100]),
        ),
      ]}
    />
  );
}
