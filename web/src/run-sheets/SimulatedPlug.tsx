// At the simulated bench a person's hand is a button: the device of this step into its port.
import type { SheetRun, SimulatedBenchState } from '@lastmark/contract/plan';
import type { SheetStep } from '@lastmark/core/plan';
import { formatPlain } from '@lastmark/core/quantity';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useMutation, useQuery } from '@tanstack/react-query';
import { api } from '../api/client.ts';
import { devicesQuery, dossierQuery, simulatedBenchQuery } from '../api/queries.ts';

/** A charge of hours passes in a minute or so. */
const SPEED = 600;
const USUAL_LEVEL = 0.2;

export function SimulatedPlug({ run, step }: { readonly run: SheetRun; readonly step: SheetStep<'charge'> }) {
  const { data: bench } = useQuery(simulatedBenchQuery);
  const { data: devices } = useQuery(devicesQuery);
  const { data: dossier } = useQuery(dossierQuery(run.sample.id));
  const device = devices?.items.find(({ id }) => id === step.deviceId)?.name;
  const level = step.startLevel ?? USUAL_LEVEL;
  const plug = useMutation({
    mutationFn: () =>
      api<SimulatedBenchState>(`/samples/${run.sample.id}/simulated-devices`, {
        method: 'POST',
        body: { port: step.port, device, level, speed: SPEED },
      }),
  });
  const model = dossier?.sample.model.model;
  if (!bench?.there || !device || !model || !bench.devices.includes(device) || !bench.chargers.includes(model))
    return null;
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 2 }}>
      <Button variant="outlined" onClick={() => plug.mutate()} disabled={plug.isPending}>
        Plug it in at the simulated bench
      </Button>
      {plug.isSuccess && (
        <span role="status">
          {device} is in {step.port} at {formatPlain(level, 'efficiency')}, at ×{SPEED}.
        </span>
      )}
      {plug.error && <Alert severity="error">{plug.error.message}</Alert>}
    </Box>
  );
}
