// An adjustable level moved while loaded: did the output break?
import Box from '@mui/material/Box';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { QuantityField, typedSi } from '../../parts/fields.tsx';
import { RunDialog, useRunHead } from './RunDialog.tsx';
import { useAddRun } from './useRuns.ts';

export function MoveDialog({ onClose }: { readonly onClose: () => void }) {
  const [form, setForm] = useState({
    ...useRunHead(),
    from: '5',
    to: '11',
    amps: '',
    breaks: '0',
    longest: '',
    lowest: '',
  });
  const set = (part: Partial<typeof form>) => setForm((before) => ({ ...before, ...part }));
  const add = useAddRun('move', onClose);
  const run = {
    port: form.port,
    rigId: form.rigId,
    note: form.note.trim(),
    fromVolts: typedSi(form.from, 'voltage') ?? Number.NaN,
    toVolts: typedSi(form.to, 'voltage') ?? Number.NaN,
    amps: typedSi(form.amps, 'current') ?? Number.NaN,
    breaks: Number(form.breaks),
    longest: typedSi(form.longest, 'duration'),
    lowest: typedSi(form.lowest, 'voltage'),
  };
  const numbers = [run.fromVolts, run.toVolts, run.amps, run.longest ?? 0, run.lowest ?? 0];
  const counted = /^\d+$/.test(form.breaks.trim());
  return (
    <RunDialog
      title="Enter a move under load"
      head={form}
      onHead={set}
      error={add.error}
      busy={add.isPending}
      ready={numbers.every(Number.isFinite) && counted}
      onSave={() => add.mutate(run)}
      onClose={onClose}
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', gap: 1.5 }}>
        <QuantityField label="From, V" quantity="voltage" value={form.from} onChange={(from) => set({ from })} />
        <QuantityField label="To, V" quantity="voltage" value={form.to} onChange={(to) => set({ to })} />
        <QuantityField label="Load, A" quantity="current" value={form.amps} onChange={(amps) => set({ amps })} />
        <TextField
          label="Breaks"
          value={form.breaks}
          error={!counted}
          helperText={counted ? ' ' : 'A whole number; 0 when it never broke.'}
          onChange={(event) => set({ breaks: event.target.value })}
          slotProps={{ htmlInput: { inputMode: 'numeric', autoComplete: 'off' } }}
        />
        <QuantityField
          label="Longest (200 ms)"
          quantity="duration"
          value={form.longest}
          onChange={(longest) => set({ longest })}
        />
        <QuantityField
          label="Lowest, V"
          quantity="voltage"
          value={form.lowest}
          onChange={(lowest) => set({ lowest })}
        />
      </Box>
    </RunDialog>
  );
}
