// A step of one's own: any port, level and current.
import type { StoredRig, StoredSetup } from '@lastmark/contract/types';
import { stepTitle } from '@lastmark/core/proof';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useMutation } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { api } from '../../api/client.ts';
import { refreshSample } from '../../api/queries.ts';
import { Choice, QuantityField, typedSi } from '../../parts/fields.tsx';
import { useSample } from '../../state/sample.tsx';

export function AddStep({ rig }: { readonly rig: StoredRig }) {
  const { sample } = useSample().dossier;
  const labels = sample.model.ports.map(({ label }) => label);
  const [port, setPort] = useState(labels[0] ?? '');
  const [volts, setVolts] = useState('');
  const [amps, setAmps] = useState('');
  const output = { port, volts: typedSi(volts, 'voltage') ?? 0, amps: typedSi(amps, 'current') ?? 0 };
  const add = useMutation({
    mutationFn: () =>
      api<StoredSetup>(`/samples/${sample.id}/setups`, {
        method: 'POST',
        body: {
          name: stepTitle({ outputs: [output], load: 1 }),
          purpose: 'proof',
          outputs: [output],
          evidence: 'load',
          rigId: rig.id,
          nameplateClass: null,
        },
      }),
    onSuccess: async () => {
      // What was typed meanwhile stays.
      setVolts((now) => (now === volts ? '' : now));
      setAmps((now) => (now === amps ? '' : now));
      await refreshSample(sample.id);
    },
  });
  if (labels.length === 0) return null;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    add.mutate();
  };
  return (
    <Box component="form" onSubmit={submit} aria-label="Add a step" noValidate sx={{ mt: 2 }}>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, 130px)', gap: 1.5, alignItems: 'start' }}>
        <Choice label="Port" value={port} options={labels} onChange={setPort} />
        <QuantityField label="Set, V" quantity="voltage" value={volts} onChange={setVolts} />
        <QuantityField label="Load, A" quantity="current" value={amps} onChange={setAmps} />
        <Button
          type="submit"
          variant="outlined"
          sx={{ height: 40 }}
          disabled={add.isPending || !(output.volts > 0) || !(output.amps > 0)}
        >
          Add a step
        </Button>
      </Box>
      {add.error && <Alert severity="error">{add.error.message}</Alert>}
    </Box>
  );
}
