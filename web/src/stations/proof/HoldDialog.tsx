// One hold: what was drawn, for how long, and how it ended.
import type { StoredRun } from '@lastmark/contract/types';
import { HOLD_ENDS, type HoldRun } from '@lastmark/core/proof';
import { formatPlain, parseCelsius, ROOM_RANGE, SURFACE_RANGE } from '@lastmark/core/quantity';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import type { Control } from 'react-hook-form';
import { QuantityField, typedSi } from '../../parts/fields.tsx';
import { ChoiceInput, QuantityInput, TextInput } from '../../parts/form/inputs.tsx';
import { useTyped } from '../../parts/form/useTyped.ts';
import { takenOf } from '../../parts/taken.ts';
import { useSample } from '../../state/sample.tsx';
import { RunDialog, type RunHeadForm, useRunHead } from './RunDialog.tsx';
import { useAddRun } from './useRuns.ts';

interface Form extends RunHeadForm {
  volts: string;
  amps: string;
  planned: string;
  held: string;
  end: HoldRun['end'];
  hottest: string;
  ambient: string;
  after: string;
  /** Volts and amps of other ports loaded at the same time. */
  others: Readonly<Record<string, { volts: string; amps: string }>>;
}

type Range = typeof ROOM_RANGE | typeof SURFACE_RANGE;

/** A temperature field that takes °C only and says what a °F reading would be. */
function Celsius(props: {
  readonly control: Control<Form>;
  readonly name: 'hottest' | 'ambient';
  readonly label: string;
  readonly value: string;
  readonly range: Range;
  readonly what: string;
}) {
  const { control, name, label, value, range, what } = props;
  const parsed = value.trim() === '' ? null : parseCelsius(value, range, what);
  const wrong = parsed !== null && !parsed.ok;
  return (
    <TextInput
      control={control}
      name={name}
      label={label}
      max={40}
      more={wrong ? { error: true, helperText: parsed.reason } : { helperText: ' ' }}
    />
  );
}

const kelvin = (text: string, range: Range, what: string): number | null => {
  if (text.trim() === '') return null;
  const parsed = parseCelsius(text, range, what);
  return parsed.ok ? parsed.value : Number.NaN;
};

const NEW: Omit<Form, keyof RunHeadForm> = {
  volts: '20',
  amps: '',
  planned: '',
  held: '',
  end: 'held to the end',
  hottest: '',
  ambient: '',
  after: '',
  others: {},
};

type StoredHold = Extract<StoredRun, { kind: 'hold' }>;

interface Props {
  /** The hold that is corrected; left out for a new one. */
  readonly run?: StoredHold | null;
  readonly onClose: () => void;
}

const celsius = (kelvins: number | null): string => (kelvins === null ? '' : formatPlain(kelvins, 'temperature', '°C'));

/** A hold as it was typed. */
const textOf = (run: StoredHold): Omit<Form, keyof RunHeadForm> => ({
  volts: formatPlain(run.volts, 'voltage'),
  amps: formatPlain(run.amps, 'current'),
  planned: formatPlain(run.planned, 'duration'),
  held: formatPlain(run.held, 'duration'),
  end: run.end,
  hottest: celsius(run.hottest),
  ambient: celsius(run.ambient),
  after: run.after === null ? '' : formatPlain(run.after, 'power'),
  others: Object.fromEntries(
    run.others.map(({ port, volts, amps }) => [
      port,
      { volts: formatPlain(volts, 'voltage'), amps: formatPlain(amps, 'current') },
    ]),
  ),
});

export function HoldDialog({ run: corrected = null, onClose }: Props) {
  const { sample, profile } = useSample().dossier;
  const start: Form = {
    ...useRunHead(corrected),
    ...(corrected ? textOf(corrected) : NEW),
    ...(corrected ? null : { planned: String(profile.continuous / 60) }),
  };
  const form = useTyped<Form>(start, corrected ? undefined : `hold-${sample.id}`);
  const { control, values, set } = form;
  const [shared, setShared] = useState(Object.keys(values.others).length > 0);
  const add = useAddRun('hold', corrected);
  const others = Object.entries(values.others).flatMap(([port, one]) => {
    const volts = typedSi(one.volts, 'voltage');
    const amps = typedSi(one.amps, 'current');
    return port !== values.port && volts && amps ? [{ port, volts, amps }] : [];
  });
  const run = {
    port: values.port,
    rigId: values.rigId,
    note: values.note.trim(),
    volts: typedSi(values.volts, 'voltage') ?? Number.NaN,
    amps: typedSi(values.amps, 'current') ?? Number.NaN,
    others,
    planned: typedSi(values.planned, 'duration') ?? Number.NaN,
    held: typedSi(values.held, 'duration') ?? Number.NaN,
    end: values.end,
    hottest: kelvin(values.hottest, SURFACE_RANGE, 'hottest spot'),
    ambient: kelvin(values.ambient, ROOM_RANGE, 'room'),
    after: values.end === 'folded back' ? typedSi(values.after, 'power') : null,
  };
  const numbers = [run.volts, run.amps, run.planned, run.held, run.hottest ?? 0, run.ambient ?? 0, run.after ?? 0];
  return (
    <RunDialog
      title={corrected ? 'Correct the hold' : 'Enter a hold'}
      caution={{
        line: 'Never leave a soak alone: fire-safe surface, smoke alarm and a cut-off. Surfaces burn; let them cool.',
        more: 'Stop at smell, smoke, swelling or noise. A result from Lastmark is not a safety certification.',
      }}
      form={form}
      ready={numbers.every(Number.isFinite)}
      onSave={() => add(run, takenOf(values.taken))}
      onClose={onClose}
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(4, 1fr)', gap: 1.5 }}>
        <QuantityInput control={control} name="volts" label="Volts" quantity="voltage" />
        <QuantityInput control={control} name="amps" label="Amps" quantity="current" />
        <QuantityInput control={control} name="planned" label="Planned, min" quantity="duration" />
        <QuantityInput control={control} name="held" label="Held, min" quantity="duration" />
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: '2fr 1fr 1fr', gap: 1.5 }}>
        <ChoiceInput control={control} name="end" label="How it ended" options={HOLD_ENDS} />
        <Celsius
          control={control}
          name="hottest"
          label="Hottest, °C"
          value={values.hottest}
          range={SURFACE_RANGE}
          what="hottest spot"
        />
        <Celsius
          control={control}
          name="ambient"
          label="Room, °C"
          value={values.ambient}
          range={ROOM_RANGE}
          what="room"
        />
      </Box>
      {values.end === 'folded back' && (
        <QuantityInput control={control} name="after" label="Power left, W" quantity="power" />
      )}
      {sample.model.ports.length > 1 && (
        <details open={shared} onToggle={(event) => setShared(event.currentTarget.open)}>
          <summary>Other ports loaded at the same time</summary>
          <Typography variant="body2" color="text.secondary" sx={{ mb: 1 }}>
            Leave empty what was not loaded.
          </Typography>
          {sample.model.ports
            .filter(({ label }) => label !== values.port)
            .map(({ label }) => {
              const own = values.others[label] ?? { volts: '', amps: '' };
              const change = (part: Partial<typeof own>) =>
                set({ others: { ...values.others, [label]: { ...own, ...part } } });
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
