// An adjustable level moved while loaded: did the output break?
import Box from '@mui/material/Box';
import { typedSi } from '../../parts/fields.tsx';
import { QuantityInput, TextInput } from '../../parts/form/inputs.tsx';
import { useTyped } from '../../parts/form/useTyped.ts';
import { RunDialog, useRunHead } from './RunDialog.tsx';
import { useAddRun } from './useRuns.ts';

export function MoveDialog({ onClose }: { readonly onClose: () => void }) {
  const head = useRunHead();
  const form = useTyped({ ...head, from: '5', to: '11', amps: '', breaks: '0', longest: '', lowest: '' });
  const { control, values } = form;
  const add = useAddRun('move');
  const run = {
    port: values.port,
    rigId: values.rigId,
    note: values.note.trim(),
    fromVolts: typedSi(values.from, 'voltage') ?? Number.NaN,
    toVolts: typedSi(values.to, 'voltage') ?? Number.NaN,
    amps: typedSi(values.amps, 'current') ?? Number.NaN,
    breaks: Number(values.breaks),
    longest: typedSi(values.longest, 'duration'),
    lowest: typedSi(values.lowest, 'voltage'),
  };
  const numbers = [run.fromVolts, run.toVolts, run.amps, run.longest ?? 0, run.lowest ?? 0];
  const counted = /^\d+$/.test(values.breaks.trim());
  return (
    <RunDialog
      title="Enter a move under load"
      form={form}
      ready={numbers.every(Number.isFinite) && counted}
      onSave={() => add(run)}
      onClose={onClose}
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', gap: 1.5 }}>
        <QuantityInput control={control} name="from" label="From, V" quantity="voltage" />
        <QuantityInput control={control} name="to" label="To, V" quantity="voltage" />
        <QuantityInput control={control} name="amps" label="Load, A" quantity="current" />
        <TextInput
          control={control}
          name="breaks"
          label="Breaks"
          max={12}
          more={{ error: !counted, helperText: counted ? ' ' : 'A whole number; 0 when it never broke.' }}
        />
        <QuantityInput control={control} name="longest" label="Longest (200 ms)" quantity="duration" />
        <QuantityInput control={control} name="lowest" label="Lowest, V" quantity="voltage" />
      </Box>
    </RunDialog>
  );
}
