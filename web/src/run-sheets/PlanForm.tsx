// Makes a sheet: which sample, by which method, on which rig.

import type { StoredSheet } from '@lastmark/contract/plan';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useMutation, useQuery } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { useNavigate } from 'react-router';
import { api } from '../api/client.ts';
import { dossierQuery, queryClient, rigsQuery } from '../api/queries.ts';
import { asMethod, methodsOfKind, methodsQuery } from '../methods/queries.ts';
import { Choice } from '../parts/fields.tsx';
import { type Chosen, SampleField } from '../parts/SampleField.tsx';
import { sampleName } from '../parts/sampleName.ts';

export function PlanForm({ sampleId }: { readonly sampleId: string | null }) {
  const navigate = useNavigate();
  const { data: dossier } = useQuery({ ...dossierQuery(sampleId ?? ''), enabled: sampleId !== null });
  const { data: rigs } = useQuery(rigsQuery);
  const [picked, setPicked] = useState<Chosen | null>(null);
  const given: Chosen | null = dossier
    ? {
        id: dossier.sample.id,
        kind: dossier.sample.model.kind,
        name: sampleName({ ...dossier.sample.model, serial: dossier.sample.unit.serial, tag: dossier.sample.tag }),
      }
    : null;
  const sample = picked ?? given;
  const { data: kept } = useQuery(methodsQuery);
  const methods = methodsOfKind(kept?.items ?? [], sample?.kind ?? 'wall').map(asMethod);
  const [methodId, setMethodId] = useState('');
  const method = methods.find(({ id }) => id === methodId) ?? methods[0];
  const fitting = (rigs?.items ?? []).filter(({ drives }) => method?.by === 'keypad' || drives?.load);
  const [rigId, setRigId] = useState('');
  const rig = fitting.find(({ id }) => id === rigId) ?? fitting[0];
  const make = useMutation({
    mutationFn: () =>
      api<StoredSheet>(`/samples/${sample?.id}/run-sheets`, {
        method: 'POST',
        body: { methodId: method?.id, rigId: rig?.id },
      }),
    onSuccess: async (sheet) => {
      await queryClient.invalidateQueries({ queryKey: ['run-sheets', 'list'] });
      void navigate(`/run-sheets/${sheet.id}`);
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    make.mutate();
  };
  return (
    <Box
      component="form"
      onSubmit={submit}
      aria-label="Plan a run"
      noValidate
      sx={{ p: 2, mb: 2, border: 1, borderColor: 'divider', borderRadius: 1, bgcolor: 'background.paper' }}
    >
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: 'repeat(auto-fit, minmax(190px, 1fr))',
          gap: 1.5,
          alignItems: 'start',
        }}
      >
        <SampleField key={given?.id ?? 'any'} chosen={sample} onChoose={setPicked} />
        <Choice
          label="Method"
          value={method?.id ?? ''}
          options={methods.map(({ id, title }) => ({ value: id, label: title }))}
          onChange={setMethodId}
        />
        <Choice
          label="Rig"
          value={rig?.id ?? ''}
          options={fitting.map(({ id, name }) => ({ value: id, label: name }))}
          onChange={setRigId}
        />
        <Button
          type="submit"
          variant="contained"
          disabled={!sample || !method || !rig || make.isPending}
          sx={{ height: 40 }}
        >
          Make the sheet
        </Button>
      </Box>
      <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
        {method?.says}
        {rigs && fitting.length === 0 && ' No rig has a load that runs by itself: choose its instruments at Bench.'}
      </Typography>
      {make.error && (
        <Alert severity="error" sx={{ mt: 1 }}>
          {make.error.message}
        </Alert>
      )}
    </Box>
  );
}
