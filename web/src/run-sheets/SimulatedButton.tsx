// The demo's one button: this sample onto the simulated bench, and the whole sheet at sixty times the speed.
import type { SheetRun } from '@lastmark/contract/plan';
import { methodsFor } from '@lastmark/core/plan';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { api } from '../api/client.ts';
import { dossierQuery, simulatedBenchQuery } from '../api/queries.ts';
import { useSettings } from '../state/settings.tsx';

const SPEED = 60;

export function SimulatedButton({ sampleId }: { readonly sampleId: string }) {
  const navigate = useNavigate();
  const { person } = useSettings();
  const { data: dossier } = useQuery(dossierQuery(sampleId));
  const { data: bench } = useQuery(simulatedBenchQuery);
  const run = useMutation({
    mutationFn: (methodId: string) =>
      api<SheetRun>(`/samples/${sampleId}/simulated-runs`, {
        method: 'POST',
        body: { methodId, person: person || 'Demo', speed: SPEED },
      }),
    onSuccess: ({ id }) => void navigate(`/runs/${id}`),
  });
  const model = dossier?.sample.model;
  const method = model && methodsFor(model.kind).find(({ by }) => by === 'instruments');
  if (!bench?.there || !model || !method || !(method.line ? bench.cables : bench.chargers).includes(model.model))
    return null;
  return (
    <Box
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 2,
        mb: 2,
        p: 2,
        border: 1,
        borderColor: 'divider',
        borderRadius: 1,
      }}
    >
      <Typography sx={{ flex: 1 }}>
        The simulated bench can play the {model.model}: {method.title},{' '}
        {method.line ? 'from the rig check to its resistance' : 'from the rig check to the judged claims'}, at ×{SPEED}.
      </Typography>
      {run.error && <Alert severity="error">{run.error.message}</Alert>}
      <Button variant="contained" disabled={run.isPending} onClick={() => run.mutate(method.id)}>
        Run it on the simulated bench
      </Button>
    </Box>
  );
}
