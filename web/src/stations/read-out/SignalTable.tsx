// Signalling outside PD: seen, not seen, or invisible to the analyser, port by port.
import { currentReadOuts, type ReadOut } from '@lastmark/core/read-out';
import { allModes, type SignalResult } from '@lastmark/core/signal';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { QuietTable } from '../../parts/QuietTable.tsx';
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
        <QuietTable
          label="Signalling outside PD"
          rows={modes}
          rowKey={({ id }) => id}
          columns={[
            {
              head: 'Mode',
              cell: ({ title, how }) => (
                <>
                  {title}
                  <Box sx={{ fontSize: 13, fontWeight: 400, color: 'text.secondary' }}>{how}</Box>
                </>
              ),
            },
            ...ports.map((port, index) => ({
              head: port,
              cell: ({ results }: (typeof modes)[number]) => {
                const result = results[index];
                return result ? SHOWN[result] : null;
              },
              empty: 'not looked for',
            })),
          ]}
        />
      )}
    </Box>
  );
}
