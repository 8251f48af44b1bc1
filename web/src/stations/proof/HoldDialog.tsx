// One hold: what was drawn, for how long, and how it ended.
import { HOLD_ENDS, type HoldRun } from '@lastmark/core/proof';
import { parseCelsius, ROOM_RANGE, SURFACE_RANGE } from '@lastmark/core/quantity';
import Box from '@mui/material/Box';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Choice, QuantityField, typedSi } from '../../parts/fields.tsx';
import { useDraft } from '../../parts/useDraft.ts';
import { useSample } from '../../state/sample.tsx';
import { RunDialog, useRunHead } from './RunDialog.tsx';
import { useAddRun } from './useRuns.ts';

interface Form {
  readonly port: string;
  readonly rigId: string;
  readonly note: string;
  readonly volts: string;
  readonly amps: string;
  readonly planned: string;
  readonly held: string;
  readonly end: HoldRun['end'];
  readonly hottest: string;
  readonly ambient: string;
  readonly after: string;
  /** Volts and amps of other ports loaded at the same time. */
  readonly others: Readonly<Record<string, { volts: string; amps: string }>>;
}

/** A temperature field that takes °C only and says what a °F reading would be. */
function Celsius(props: {
  readonly label: string;
  readonly value: string;
  readonly range: typeof ROOM_RANGE | typeof SURFACE_RANGE;
  readonly what: string;
  readonly onChange: (value: string) => void;
}) {
  const { label, value, range, what, onChange } = props;
  const parsed = value.trim() === '' ? null : parseCelsius(value, range, what);
  return (
    <TextField
      label={label}
      value={value}
      error={parsed !== null && !parsed.ok}
      helperText={parsed && !parsed.ok ? parsed.reason : ' '}
      onChange={(event) => onChange(event.target.value)}
      slotProps={{ htmlInput: { inputMode: 'decimal', autoComplete: 'off' } }}
    />
  );
}

const kelvin = (text: string, range: typeof ROOM_RANGE | typeof SURFACE_RANGE, what: string): number | null => {
  if (text.trim() === '') return null;
  const parsed = parseCelsius(text, range, what);
  return parsed.ok ? parsed.value : Number.NaN;
};

export function HoldDialog({ onClose }: { readonly onClose: () => void }) {
  const { sample, profile } = useSample().dossier;
  const start: Form = {
    ...useRunHead(),
    volts: '20',
    amps: '',
    planned: String(profile.continuous / 60),
    held: '',
    end: 'held to the end',
    hottest: '',
    ambient: '',
    after: '',
    others: {},
  };
  const draft = useDraft<Form>(`hold-${sample.id}`, start);
  const form = draft.value;
  const set = (part: Partial<Form>) => draft.set({ ...form, ...part });
  const [shared, setShared] = useState(Object.keys(form.others).length > 0);
  const close = () => {
    draft.clear();
    onClose();
  };
  const add = useAddRun('hold', close);
  const others = Object.entries(form.others).flatMap(([port, one]) => {
    const volts = typedSi(one.volts, 'voltage');
    const amps = typedSi(one.amps, 'current');
    return port !== form.port && volts && amps ? [{ port, volts, amps }] : [];
  });
  const run = {
    port: form.port,
    rigId: form.rigId,
    note: form.note.trim(),
    volts: typedSi(form.volts, 'voltage') ?? Number.NaN,
    amps: typedSi(form.amps, 'current') ?? Number.NaN,
    others,
    planned: typedSi(form.planned, 'duration') ?? Number.NaN,
    held: typedSi(form.held, 'duration') ?? Number.NaN,
    end: form.end,
    hottest: kelvin(form.hottest, SURFACE_RANGE, 'hottest spot'),
    ambient: kelvin(form.ambient, ROOM_RANGE, 'room'),
    after: form.end === 'folded back' ? typedSi(form.after, 'power') : null,
  };
  const numbers = [run.volts, run.amps, run.planned, run.held, run.hottest ?? 0, run.ambient ?? 0, run.after ?? 0];
  return (
    <RunDialog
      title="Enter a hold"
      caution={{
        line: 'Never leave a soak alone: fire-safe surface, smoke alarm and a cut-off. Surfaces burn; let them cool.',
        more: 'Stop at smell, smoke, swelling or noise. A result from Lastmark is not a safety certification.',
      }}
      head={form}
      onHead={set}
      error={add.error}
      busy={add.isPending}
      ready={numbers.every(Number.isFinite)}
      onSave={() => add.mutate(run)}
      onClose={close}
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(4, 1fr)', gap: 1.5 }}>
        <QuantityField label="Volts" quantity="voltage" value={form.volts} onChange={(volts) => set({ volts })} />
        <QuantityField label="Amps" quantity="current" value={form.amps} onChange={(amps) => set({ amps })} />
        <QuantityField
          label="Planned, min"
          quantity="duration"
          value={form.planned}
          onChange={(planned) => set({ planned })}
        />
        <QuantityField label="Held, min" quantity="duration" value={form.held} onChange={(held) => set({ held })} />
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: '2fr 1fr 1fr', gap: 1.5 }}>
        <Choice label="How it ended" value={form.end} options={HOLD_ENDS} onChange={(end) => set({ end })} />
        <Celsius
          label="Hottest, °C"
          value={form.hottest}
          range={SURFACE_RANGE}
          what="hottest spot"
          onChange={(hottest) => set({ hottest })}
        />
        <Celsius
          label="Room, °C"
          value={form.ambient}
          range={ROOM_RANGE}
          what="room"
          onChange={(ambient) => set({ ambient })}
        />
      </Box>
      {form.end === 'folded back' && (
        <QuantityField label="Power left, W" quantity="power" value={form.after} onChange={(after) => set({ after })} />
      )}
      {sample.model.ports.length > 1 && (
        <details open={shared} onToggle={(event) => setShared(event.currentTarget.open)}>
          <summary>Other ports loaded at the same time</summary>
          <Typography variant="body2" color="text.secondary" sx={{ mb: 1 }}>
            Leave empty what was not loaded.
          </Typography>
          {sample.model.ports
            .filter(({ label }) => label !== form.port)
            .map(({ label }) => {
              const own = form.others[label] ?? { volts: '', amps: '' };
              const change = (part: Partial<typeof own>) =>
                set({ others: { ...form.others, [label]: { ...own, ...part } } });
              return (
                <Box key={label} sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
                  <QuantityField
                    label={`${label}, V`}
                    quantity="voltage"
                    value={own.volts}
                    onChange={(volts) => change({ volts })}
                  />
                  <QuantityField
                    label={`${label}, A`}
                    quantity="current"
                    value={own.amps}
                    onChange={(amps) => change({ amps })}
                  />
                </Box>
              );
            })}
        </details>
      )}
    </RunDialog>
  );
}
