// Starting a run: who, what really stands on the bench, and whether it may be left alone.
import type { SheetRun, StartInput } from '@lastmark/contract/plan';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import { useMutation, useQuery } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { useNavigate } from 'react-router';
import { api } from '../api/client.ts';
import { leasesQuery, queryClient, rigsQuery, runQuery } from '../api/queries.ts';
import { apiUrl, PRACTISING } from '../api/world.ts';
import { Caution } from '../parts/Caution.tsx';
import { useSettings } from '../state/settings.tsx';

interface Props {
  readonly sampleId: string;
  readonly rigId: string;
  /** Where it is asked for: a new run of a sheet, or one taken up again. */
  readonly path: string;
  readonly action: string;
}

export function StartForm({ sampleId, rigId, path, action }: Props) {
  const navigate = useNavigate();
  const { person, change } = useSettings();
  const [tag, setTag] = useState('');
  const [alone, setAlone] = useState(false);
  const { data: leases } = useQuery({ ...leasesQuery, refetchInterval: 3000 });
  const { data: rigs } = useQuery(rigsQuery);
  const rig = rigs?.items.find(({ id }) => id === rigId);
  const own = new Set([...Object.values(rig?.meters ?? {}), ...Object.values(rig?.drives ?? {})]);
  const taken = leases?.items.find(({ instrumentId }) => own.has(instrumentId));
  const start = useMutation({
    mutationFn: () => {
      const body: StartInput = { person: person.trim(), tag: tag.trim(), watched: !alone };
      return api<SheetRun>(path, { method: 'POST', body });
    },
    onSuccess: async (run) => {
      await queryClient.invalidateQueries({ queryKey: ['leases'] });
      queryClient.setQueryData(runQuery(run.id).queryKey, run);
      void navigate(`/runs/${run.id}`);
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    start.mutate();
  };
  return (
    <Box
      component="form"
      onSubmit={submit}
      noValidate
      aria-label={action}
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
        <TextField
          label="Who runs it"
          required
          value={person}
          onChange={(event) => change({ person: event.target.value })}
          slotProps={{ htmlInput: { maxLength: 60 } }}
        />
        <TextField
          label="Tag of the sample"
          required
          value={tag}
          onChange={(event) => setTag(event.target.value)}
          helperText="On the bench: scan its label, or type what is printed on it."
          slotProps={{ htmlInput: { maxLength: 40, autoComplete: 'off', spellCheck: false } }}
        />
        {!PRACTISING && (
          <Button href={apiUrl(`/samples/${sampleId}/label.pdf`)} target="_blank" sx={{ height: 40 }}>
            Print the label
          </Button>
        )}
        <Button
          type="submit"
          variant="contained"
          size="large"
          disabled={person.trim() === '' || tag.trim() === '' || taken !== undefined || start.isPending}
          sx={{ height: 40 }}
        >
          {action}
        </Button>
      </Box>
      <FormControlLabel
        control={<Checkbox checked={alone} onChange={(event) => setAlone(event.target.checked)} />}
        label="It may be left alone: fire-safe surface, smoke alarm and cut-off are in place"
      />
      {!alone && (
        <Box sx={{ color: 'text.secondary', fontSize: 13 }}>Loads go off when nobody is at the console for 10 s.</Box>
      )}
      <Caution
        line="Mains stays closed. Hot surfaces. Stop at smell, smoke, swelling or noise."
        more="Work on mains wiring follows local codes and is for licensed people. Use an isolated supply and a residual-current device."
      />
      {taken && (
        <Alert severity="info">
          The rig belongs to {taken.person}’s run “{taken.title}”. It is free once that run is done or stopped.
        </Alert>
      )}
      {start.error && <Alert severity="error">{start.error.message}</Alert>}
    </Box>
  );
}
