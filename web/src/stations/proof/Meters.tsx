// The meter chain: what lies between the meters, and which of them disagrees.
import type { Chain } from '@lastmark/core/proof';
import { formatMeasured, formatPlain, formatValue } from '@lastmark/core/quantity';
import { expandedUncertainty } from '@lastmark/core/uncertainty';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Typography from '@mui/material/Typography';
import { useSample } from '../../state/sample.tsx';

const frame = {
  border: 1,
  borderColor: 'divider',
  borderRadius: 1,
  bgcolor: 'background.paper',
  overflowX: 'auto',
} as const;

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
        <Box sx={frame}>
          <Table size="small" aria-label={`Drops on ${rig?.name ?? 'the rig'}`}>
            <TableHead>
              <TableRow>
                {['Step', 'Current', 'Port less load end', 'Off the line'].map((head) => (
                  <TableCell key={head}>{head}</TableCell>
                ))}
              </TableRow>
            </TableHead>
            <TableBody>
              {drops.map(({ pointId, title, amps, drop, residual }) => (
                <TableRow key={`${pointId} ${title}`}>
                  <TableCell>{title}</TableCell>
                  <TableCell>{formatPlain(amps, 'current')}</TableCell>
                  <TableCell>{formatValue(drop, 'voltage', 0, 'mV')}</TableCell>
                  <TableCell>{formatValue(residual, 'voltage', 1, 'mV')}</TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
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
        <Typography color="text.secondary" sx={{ my: 2 }}>
          Read a step with two meters and their differences show here: the lead, the rounding, or a meter that is off.
        </Typography>
      )}
      {chains.map((chain) => (
        <OneChain key={chain.rigId} chain={chain} />
      ))}
      {regulation.length > 0 && (
        <Box component="section" aria-labelledby="regulation">
          <Typography variant="h2" id="regulation" sx={{ mb: 1 }}>
            From no load to full load
          </Typography>
          <Box sx={frame}>
            <Table size="small" aria-label="Load regulation">
              <TableHead>
                <TableRow>
                  {['Level', 'No load', 'With load'].map((head) => (
                    <TableCell key={head}>{head}</TableCell>
                  ))}
                </TableRow>
              </TableHead>
              <TableBody>
                {regulation.map(({ port, volts, conditions, noLoad, sentence }) => (
                  <TableRow key={`${port} ${volts} ${conditions}`}>
                    <TableCell sx={{ fontWeight: 600 }}>{conditions}</TableCell>
                    <TableCell>{formatMeasured(noLoad.value, expandedUncertainty(noLoad), 'voltage')}</TableCell>
                    <TableCell>{sentence}</TableCell>
                  </TableRow>
                ))}
              </TableBody>
            </Table>
          </Box>
        </Box>
      )}
    </>
  );
}
