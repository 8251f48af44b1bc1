// Signalling outside PD: seen, not seen, or invisible to the analyser, port by port.
import { currentReadOuts, type ReadOut } from '@lastmark/core/read-out';
import { allModes, type SignalResult } from '@lastmark/core/signal';
import Box from '@mui/material/Box';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Typography from '@mui/material/Typography';
import { useSample } from '../../state/sample.tsx';

const SHOWN: Readonly<Record<SignalResult, string>> = {
  seen: '● seen',
  'not seen': '○ not seen',
  'cannot see': '– analyser cannot see it',
};

/** The newest result of a mode on a port; one that was looked for beats one that could not be. */
function resultOf(readOuts: readonly ReadOut[], port: string, mode: string): SignalResult | null {
  const own = currentReadOuts(readOuts)
    .filter((one) => one.port === port)
    .flatMap(({ signals }) => signals.filter((one) => one.mode === mode).map(({ result }) => result));
  return own.findLast((one) => one !== 'cannot see') ?? own.at(-1) ?? null;
}

export function SignalTable({ readOuts }: { readonly readOuts: readonly ReadOut[] }) {
  const { dossier } = useSample();
  const ports = dossier.sample.model.ports
    .map(({ label }) => label)
    .filter((port) => readOuts.some((one) => one.port === port));
  const modes = allModes(dossier.profile.signalModes)
    .map((mode) => ({ ...mode, results: ports.map((port) => resultOf(readOuts, port, mode.id)) }))
    .filter(({ results }) => results.some((one) => one !== null));
  return (
    <Box component="section" aria-labelledby="outside-pd" sx={{ mt: 3 }}>
      <Typography variant="h2" id="outside-pd" sx={{ mb: 1 }}>
        Outside PD
      </Typography>
      {modes.length === 0 ? (
        <Typography variant="body2" color="text.secondary">
          Nothing was looked for outside PD yet.
        </Typography>
      ) : (
        <Box
          sx={{ border: 1, borderColor: 'divider', borderRadius: 1, bgcolor: 'background.paper', overflowX: 'auto' }}
        >
          <Table size="small" aria-label="Signalling outside PD">
            <TableHead>
              <TableRow>
                <TableCell>Mode</TableCell>
                {ports.map((port) => (
                  <TableCell key={port}>{port}</TableCell>
                ))}
              </TableRow>
            </TableHead>
            <TableBody>
              {modes.map(({ id, title, how, results }) => (
                <TableRow key={id}>
                  <TableCell>
                    <Box sx={{ fontWeight: 600 }}>{title}</Box>
                    <Box sx={{ fontSize: 13, color: 'text.secondary' }}>{how}</Box>
                  </TableCell>
                  {results.map((result, index) => (
                    <TableCell key={ports[index]}>{result ? SHOWN[result] : 'not looked for'}</TableCell>
                  ))}
                </TableRow>
              ))}
            </TableBody>
          </Table>
        </Box>
      )}
    </Box>
  );
}
