// The next run of a trial, readable from a metre away: what to take, what is held, and one field for what was measured.
import type { StoredTrial } from '@lastmark/contract/types';
import { quantityOf } from '@lastmark/core/quantity';
import { nextSlot, type Slot, standingRuns, type TrialRun, trialOrder } from '@lastmark/core/trial';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useMutation } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { ulid } from 'ulid';
import { api } from '../api/client.ts';
import { queryClient, trialQuery } from '../api/queries.ts';
import { slotWords, valueTyped } from './trialForm.ts';

/** Sends one run; what comes back is shown at once. */
export function useAddTrialRun(trialId: string) {
  return useMutation({
    mutationFn: (run: TrialRun) => api<StoredTrial>(`/trials/${trialId}/runs`, { method: 'POST', body: { run } }),
    onSuccess: (stored) => {
      queryClient.setQueryData(trialQuery(trialId).queryKey, stored);
      void queryClient.invalidateQueries({ queryKey: ['trials', 'list'] });
    },
  });
}

function Entry({ stored, slot }: { readonly stored: StoredTrial; readonly slot: Slot }) {
  const { trial } = stored;
  const [id] = useState(ulid);
  const [value, setValue] = useState('');
  const [note, setNote] = useState('');
  const [held, setHeld] = useState(trial.held);
  const add = useAddTrialRun(stored.id);
  const si = valueTyped(value, trial.measure.quantity);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (si === null || !Number.isFinite(si)) return;
    add.mutate({
      id,
      ...slot,
      value: si,
      held,
      note: note.trim(),
      takenAt: new Date().toISOString(),
      supersedes: null,
      withdrawn: false,
    });
  };
  const { usual } = quantityOf(trial.measure.quantity);
  return (
    <Box component="form" onSubmit={submit} noValidate>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mb: 1.5 }}>
        {held.map((one, at) => (
          <TextField
            key={one.name}
            label={one.name}
            value={one.value}
            onChange={(event) =>
              setHeld(held.map((other, index) => (index === at ? { ...other, value: event.target.value } : other)))
            }
            color={one.value === trial.held[at]?.value ? 'primary' : 'warning'}
            helperText={one.value === trial.held[at]?.value ? 'held' : `held at ${trial.held[at]?.value}`}
            sx={{ width: 160 }}
          />
        ))}
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: '220px minmax(0, 1fr) auto', gap: 1.5, alignItems: 'start' }}>
        <TextField
          autoFocus
          label={usual ? `${trial.measure.name}, ${usual}` : trial.measure.name}
          value={value}
          error={Number.isNaN(si)}
          helperText={Number.isNaN(si) ? 'This cannot be read.' : ' '}
          onChange={(event) => setValue(event.target.value)}
          slotProps={{ htmlInput: { inputMode: 'decimal', autoComplete: 'off' } }}
        />
        <TextField
          label="Note"
          value={note}
          onChange={(event) => setNote(event.target.value)}
          slotProps={{ htmlInput: { maxLength: 400 } }}
        />
        <Button
          type="submit"
          variant="contained"
          sx={{ height: 40 }}
          disabled={si === null || !Number.isFinite(si) || add.isPending}
        >
          Keep
        </Button>
      </Box>
      {add.error && <Alert severity="error">{add.error.message}</Alert>}
    </Box>
  );
}

export function NextRun({ stored }: { readonly stored: StoredTrial }) {
  const { trial, runs, letters } = stored;
  const slot = nextSlot(trial, runs);
  const done = standingRuns(runs).length;
  const all = trialOrder(trial).length;
  if (!slot) return null;
  const block = trial.kind === 'blocks' ? (trial.arms.length === 2 ? 'pair' : 'block') : 'repeat';
  return (
    <Box
      component="section"
      aria-label="Next run"
      sx={{ p: 2, mb: 2, border: 2, borderColor: 'primary.main', borderRadius: 1, bgcolor: 'background.paper' }}
    >
      <Typography color="text.secondary">
        Run {done + 1} of {all}, {block} {slot.block + 1}
      </Typography>
      <Typography sx={{ fontSize: 34, fontWeight: 600, lineHeight: 1.2, mb: 1.5, overflowWrap: 'anywhere' }}>
        {slotWords(trial, slot.cell, letters)}
      </Typography>
      <Entry key={`${slot.block} ${slot.cell.join('-')} ${runs.length}`} stored={stored} slot={slot} />
    </Box>
  );
}
