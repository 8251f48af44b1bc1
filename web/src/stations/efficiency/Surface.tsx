// The whole surface: every level and mains against load as a heat map, with losses, averages, light load and spread.
import { efficiencySurface, type LoadResult, type SurfacePoint, surfaceTable } from '@lastmark/core/efficiency';
import { formatMeasured, formatValue } from '@lastmark/core/quantity';
import { mainsLabel } from '@lastmark/core/reading';
import { expandedUncertainty, type Measured } from '@lastmark/core/uncertainty';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { alpha, useTheme } from '@mui/material/styles';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { lazy, useState } from 'react';
import { figureHeight } from '../../parts/heights.ts';
import { Later } from '../../parts/Later.tsx';
import { saveTable } from '../../parts/saveFile.ts';
import { useSample } from '../../state/sample.tsx';

const CurveChart = lazy(async () => ({ default: (await import('./CurveChart.tsx')).CurveChart }));

type Shown = 'efficiency' | 'loss';

/** The number of a cell, and what of it is drawn in the chart. */
const measureOf = (shown: Shown, { efficiency, loss }: LoadResult): Measured =>
  shown === 'efficiency' ? efficiency : loss;
const scaleOf = (shown: Shown): number => (shown === 'efficiency' ? 100 : 1);
const percent = (load: number): string => `${Math.round(load * 100)} %`;

function Spread({
  name,
  point,
  shown,
}: {
  readonly name: string;
  readonly point: SurfacePoint | null;
  readonly shown: Shown;
}) {
  if (!point) return null;
  const { row, at } = point;
  const value = measureOf(shown, at);
  return (
    <Box>
      {name} {formatMeasured(value.value, expandedUncertainty(value), shown === 'efficiency' ? 'efficiency' : 'power')}{' '}
      at {percent(at.load)} load, {row.name}, {mainsLabel(row.mains)}
    </Box>
  );
}

export function Surface() {
  const { dossier, verdict } = useSample();
  const { palette } = useTheme();
  const [shown, setShown] = useState<Shown>('efficiency');
  const surface = efficiencySurface(verdict.results.efficiency.series);
  const { loads, rows, best, worst, mostLoss } = surface;
  if (rows.length === 0)
    return <Typography color="text.secondary">The surface appears with the first complete load point.</Typography>;
  const values = rows.flatMap(({ cells }) => cells.flatMap((at) => (at ? [measureOf(shown, at).value] : [])));
  const low = Math.min(...values);
  const span = Math.max(1e-9, Math.max(...values) - low);
  const { sample } = dossier;
  const what = shown === 'efficiency' ? 'efficiency' : 'loss';
  const caption = `${sample.model.maker} ${sample.model.model}, unit ${sample.tag}: ${what} of every level and mains`;
  const average = (result: Measured | null) =>
    result ? formatMeasured(result.value, expandedUncertainty(result), 'efficiency') : '–';
  return (
    <>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, mb: 1 }}>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={shown}
          onChange={(_event, chosen: Shown | null) => chosen && setShown(chosen)}
          aria-label="What the surface shows"
        >
          <ToggleButton value="efficiency">Efficiency, %</ToggleButton>
          <ToggleButton value="loss">Loss, W</ToggleButton>
        </ToggleButtonGroup>
        <Box sx={{ flex: 1, fontSize: 14 }}>
          {shown === 'efficiency' ? (
            <>
              <Spread name="Best" point={best} shown={shown} />
              <Spread name="Worst" point={worst} shown={shown} />
            </>
          ) : (
            <>
              <Spread name="Most heat" point={mostLoss} shown={shown} />
              <Box sx={{ color: 'text.secondary' }}>What is lost becomes heat in the case.</Box>
            </>
          )}
        </Box>
        <Button size="small" onClick={() => saveTable(caption, surfaceTable(surface))}>
          Save as CSV
        </Button>
      </Box>
      <Box sx={{ overflowX: 'auto', mb: 2 }}>
        <Table size="small" aria-label="Efficiency surface" sx={{ '& td, & th': { whiteSpace: 'nowrap' } }}>
          <TableHead>
            <TableRow>
              <TableCell>Loading</TableCell>
              <TableCell>Mains</TableCell>
              {loads.map((load) => (
                <TableCell key={load} align="center">
                  {percent(load)}
                </TableCell>
              ))}
              <TableCell align="right">Average of four</TableCell>
              <TableCell align="right">At 10 %</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {rows.map(({ setupId, name, mains, cells, result }) => (
              <TableRow key={`${setupId} ${mainsLabel(mains)}`}>
                <TableCell>{name}</TableCell>
                <TableCell>{mainsLabel(mains)}</TableCell>
                {cells.map((at, index) => {
                  if (!at)
                    return (
                      <TableCell key={loads[index]} align="center" sx={{ color: 'text.secondary' }}>
                        –
                      </TableCell>
                    );
                  const value = measureOf(shown, at);
                  const depth = (value.value - low) / span;
                  return (
                    <TableCell
                      key={loads[index]}
                      align="center"
                      title={`${formatMeasured(at.efficiency.value, expandedUncertainty(at.efficiency), 'efficiency')}, input ${formatValue(at.input.value, 'power', 2)}, output ${formatValue(at.output.value, 'power', 2)}`}
                      sx={{ bgcolor: alpha(palette.primary.main, 0.04 + 0.3 * depth), fontWeight: 600 }}
                    >
                      {(value.value * scaleOf(shown)).toFixed(shown === 'efficiency' ? 1 : 2)}
                    </TableCell>
                  );
                })}
                <TableCell align="right">{average(result.average)}</TableCell>
                <TableCell align="right">{average(result.lightLoad)}</TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      </Box>
      <Later what="the chart" height={figureHeight(320)}>
        <CurveChart
          curves={rows.map(({ name, mains, cells }) => ({
            label: `${name}, ${mainsLabel(mains)}`,
            points: cells.flatMap((at) => {
              if (!at) return [];
              const value = measureOf(shown, at);
              const scale = scaleOf(shown);
              return [{ x: at.load * 100, y: value.value * scale, u: expandedUncertainty(value) * scale }];
            }),
          }))}
          caption={caption}
          title={shown === 'efficiency' ? 'Efficiency, %' : 'Loss, W'}
          unit={shown === 'efficiency' ? '%' : 'W'}
          table={surfaceTable(surface)}
        />
      </Later>
    </>
  );
}
