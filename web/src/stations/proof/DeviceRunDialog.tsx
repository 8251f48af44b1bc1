// One device run: which device, over which lead, how it was used, what it took once settled.
import { type DeviceRun, OUTCOMES, WORKLOADS } from '@lastmark/core/proof';
import { formatPlain } from '@lastmark/core/quantity';
import Box from '@mui/material/Box';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { Choice, QuantityField, typedSi } from '../../parts/fields.tsx';
import { useSample } from '../../state/sample.tsx';
import { RunDialog, useRunHead } from './RunDialog.tsx';
import { useAddRun } from './useRuns.ts';

export function DeviceRunDialog({ onClose }: { readonly onClose: () => void }) {
  const { devices } = useSample().dossier;
  const [form, setForm] = useState({
    ...useRunHead(),
    deviceId: devices[0]?.id ?? '',
    ceiling: '0',
    workload: 'screen on' as DeviceRun['workload'],
    charge: '',
    settled: '3 min',
    place: 'port' as DeviceRun['place'],
    volts: '',
    watts: '',
    outcome: 'charging' as DeviceRun['outcome'],
    message: '',
  });
  const set = (part: Partial<typeof form>) => setForm((before) => ({ ...before, ...part }));
  const add = useAddRun('device', onClose);
  const device = devices.find(({ id }) => id === form.deviceId);
  const ceilings = device?.ceilings ?? [];
  const ceiling = ceilings[Number(form.ceiling)];
  const run = {
    port: form.port,
    rigId: form.rigId,
    note: form.note.trim(),
    deviceId: form.deviceId,
    connector: ceiling?.connector ?? 'C',
    lead: ceiling?.lead ?? 'its own lead',
    workload: form.workload,
    charge: typedSi(form.charge, 'efficiency'),
    settled: typedSi(form.settled, 'duration') ?? Number.NaN,
    place: form.place,
    volts: typedSi(form.volts, 'voltage'),
    watts: typedSi(form.watts, 'power') ?? Number.NaN,
    outcome: form.outcome,
    message: form.message.trim(),
  };
  const numbers = [run.settled, run.watts, run.volts ?? 0, run.charge ?? 0];
  return (
    <RunDialog
      title="Enter a device run"
      caution={{ line: 'Never charge a battery unattended: fire-safe surface, smoke alarm, and someone near.' }}
      head={form}
      onHead={set}
      error={add.error}
      busy={add.isPending}
      ready={numbers.every(Number.isFinite) && device !== undefined}
      onSave={() => add.mutate(run)}
      onClose={onClose}
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
        <Choice
          label="Device"
          value={form.deviceId}
          options={devices.map(({ id, name }) => ({ value: id, label: name }))}
          onChange={(deviceId) => set({ deviceId, ceiling: '0' })}
        />
        <Choice
          label="Connector and lead"
          value={ceilings.length > 0 ? form.ceiling : ''}
          options={ceilings.map(({ connector, lead, watts }, index) => ({
            value: String(index),
            label: `${connector}, ${lead}: at most ${formatPlain(watts, 'power')}`,
          }))}
          onChange={(index) => set({ ceiling: index })}
        />
        <Choice label="Workload" value={form.workload} options={WORKLOADS} onChange={(workload) => set({ workload })} />
        <QuantityField
          label="Level at the start, %"
          quantity="efficiency"
          value={form.charge}
          onChange={(charge) => set({ charge })}
        />
        <QuantityField
          label="Settled for"
          quantity="duration"
          value={form.settled}
          onChange={(settled) => set({ settled })}
        />
        <Choice
          label="Read"
          value={form.place}
          options={[
            { value: 'port', label: 'at the port' },
            { value: 'mains', label: 'at the socket' },
          ]}
          onChange={(place) => set({ place })}
        />
        <QuantityField
          label={form.place === 'port' ? 'Level, V' : 'Level, V (if known)'}
          quantity="voltage"
          value={form.volts}
          onChange={(volts) => set({ volts })}
        />
        <QuantityField label="Plateau, W" quantity="power" value={form.watts} onChange={(watts) => set({ watts })} />
        <Choice label="What happens" value={form.outcome} options={OUTCOMES} onChange={(outcome) => set({ outcome })} />
        <TextField
          label="What the device says"
          value={form.message}
          onChange={(event) => set({ message: event.target.value })}
          slotProps={{ htmlInput: { maxLength: 200 } }}
        />
      </Box>
    </RunDialog>
  );
}
