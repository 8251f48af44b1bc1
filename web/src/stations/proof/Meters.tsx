// The meter chain: what lies between the meters, and which of them disagrees.
import type { Chain } from '@lastmark/core/proof';
import { formatMeasured, formatPlain, formatValue } from '@lastmark/core/quantity';
import { expandedUncertainty } from '@lastmark/core/uncertainty';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { lazy } from 'react';
import { EmptyFigure } from '../../parts/EmptyFigure.tsx';
import { figureHeight } from '../../parts/heights.ts';
import { Later } from '../../parts/Later.tsx';
import { QuietTable } from '../../parts/QuietTable.tsx';
import { useSample } from '../../state/sample.tsx';

const ChainChart = lazy(async () => ({ default: (await import('./ChainChart.tsx')).ChainChart }));

function OneChain({ chain }: { readonly chain: Chain }) {
  const { rigs } = useSample().dossier;
  const rig = rigs.find(({ id }) => id === chain.rigId);
  const { resistance, offset, drops, findings } = chain;
  return (
    <Box component="section" aria-label={rig?.name ?? 'Rig'} sx={{ mb: 3 }}>
      <Typography variant="h2">{rig?.name}</Typography>
      <Typography sx={{ my: 1, fontSize: 18 }}>
        {resistance
          ? `Between the two meters: ${formatMeasured(resistance.value, expandedUncertainty(resistance), 'resistance')}${offset ? `, without current ${formatMeasured(offset.value, expandedUncertainty(offset), 'voltage', 'mV')}` : ' from one current'}.`
          : 'The resistance between port and load shows once both meters were read at two currents.'}
      </Typography>
      {findings.length === 0 && drops.length > 0 && <Typography>All meters agree within their specs.</Typography>}
      {findings.map((finding) => (
        <Alert key={finding} severity="warning" sx={{ mb: 1 }}>
          {finding}
        </Alert>
      ))}
      {drops.length > 0 && (
        <Later what="the chart" height={figureHeight(340)}>
          <ChainChart chain={chain} name={rig?.name ?? 'Rig'} />
        </Later>
      )}
      {drops.length > 0 && (
        <Box component="details" sx={{ mt: 1.5 }}>
          <Box component="summary" sx={{ cursor: 'pointer', mb: 1 }}>
            Every step
          </Box>

          <QuietTable
            label={`Drops on ${rig?.name ?? 'the rig'}`}
            rows={drops}
            rowKey={({ pointId, title }) => `${pointId} ${title}`}
            columns={[
              { head: 'Step', cell: ({ title }) => title },
              { head: 'Current', unit: 'A', number: true, cell: ({ amps }) => formatPlain(amps, 'current') },
              {
                head: 'Port less load end',
                unit: 'mV',
                number: true,
                cell: ({ drop }) => formatValue(drop, 'voltage', 0, 'mV'),
              },
              {
                head: 'Off the line',
                unit: 'mV',
                number: true,
                cell: ({ residual }) => formatValue(residual, 'voltage', 1, 'mV'),
              },
            ]}
          />
        </Box>
      )}
    </Box>
  );
}

export function Meters() {
  const { verdict } = useSample();
  const { chains, regulation } = verdict.results.proof;
  return (
    <>
      {chains.length === 0 && (
        <EmptyFigure says="Read a step with two meters and their differences show here: the lead, the rounding, or a meter that is off." />
      )}
      {chains.map((chain) => (
        <OneChain key={chain.rigId} chain={chain} />
      ))}
      {regulation.length > 0 && (
        <Box component="section" aria-labelledby="regulation">
          <Typography variant="h2" id="regulation" sx={{ mb: 1 }}>
            From no load to full load
          </Typography>
          <QuietTable
            label="Load regulation"
            rows={regulation}
            rowKey={({ port, volts, conditions }) => `${port} ${volts} ${conditions}`}
            columns={[
              { head: 'Level', cell: ({ conditions }) => conditions },
              {
                head: 'No load',
                unit: 'V',
                number: true,
                cell: ({ noLoad }) => formatMeasured(noLoad.value, expandedUncertainty(noLoad), 'voltage'),
              },
              { head: 'With load', cell: ({ sentence }) => sentence },
            ]}
          />
        </Box>
      )}
    </>
  );
}
