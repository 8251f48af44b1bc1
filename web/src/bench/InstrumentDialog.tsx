// An instrument: what it is, when its calibration is due, how accurate its maker says it is.

import { INSTRUMENT_CLASSES, instrumentInput } from '@lastmark/contract/schemas';
import type { InstrumentInput, StoredInstrument } from '@lastmark/contract/types';
import { validate } from '@lastmark/contract/validate';
import { formatPlain } from '@lastmark/core/quantity';
import type { Sees } from '@lastmark/core/read-out';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, versionTag } from '../api/client.ts';
import { benchesQuery, refreshAll } from '../api/queries.ts';
import { typedSi } from '../parts/fields.tsx';
import { FormDialog } from '../parts/form/FormDialog.tsx';
import { ChoiceInput, QuantityInput, TextInput } from '../parts/form/inputs.tsx';
import { useTyped } from '../parts/form/useTyped.ts';
import { AccuracyLines } from './AccuracyLines.tsx';
import { LinkFields } from './LinkFields.tsx';
import { SEES_NOTHING_ELSE, SeesFields } from './SeesFields.tsx';
import { SPEC_QUANTITIES, SpecFields, type SpecQuantity } from './SpecFields.tsx';
import { fromSpecText, type SpecText, toSpecText } from './spec.ts';

const RATED = [
  ['volts', 'voltage', 'Takes at most, V'],
  ['amps', 'current', 'Takes at most, A'],
  ['watts', 'power', 'Takes at most, W'],
] as const;

/** The bench of a new one, until it is chosen. */
const NOT_SAID = '?';

interface Form {
  name: string;
  bench: string;
  class: InstrumentInput['class'];
  firmware: string;
  calibrationDue: string;
  calibratedOn: string;
  address: string;
  profileId: string;
  sees: Sees;
  specs: Record<SpecQuantity, SpecText>;
  ratings: Record<(typeof RATED)[number][0], string>;
}

function toForm(instrument: StoredInstrument | null): Form {
  const { specs = {}, ratings } = instrument ?? {};
  const shown = (value: number | null | undefined, quantity: 'voltage' | 'current' | 'power') =>
    value == null ? '' : formatPlain(value, quantity);
  return {
    name: instrument?.name ?? '',
    bench: instrument?.bench ?? NOT_SAID,
    class: instrument?.class ?? 'power analyser',
    firmware: instrument?.firmware ?? '',
    calibrationDue: instrument?.calibrationDue ?? '',
    calibratedOn: instrument?.calibratedOn ?? '',
    address: instrument?.address ?? '',
    profileId: instrument?.profileId ?? '',
    sees: instrument?.sees ?? SEES_NOTHING_ELSE,
    specs: {
      power: toSpecText(specs.power, 'power'),
      voltage: toSpecText(specs.voltage, 'voltage'),
      current: toSpecText(specs.current, 'current'),
    },
    ratings: {
      volts: shown(ratings?.volts, 'voltage'),
      amps: shown(ratings?.amps, 'current'),
      watts: shown(ratings?.watts, 'power'),
    },
  };
}

/** @throws Error in words when something typed cannot be */
function toInput({ specs, ratings, ...form }: Form): InstrumentInput {
  const typed = SPEC_QUANTITIES.flatMap((quantity) => {
    const spec = fromSpecText(specs[quantity], quantity);
    return spec ? [[quantity, spec] as const] : [];
  });
  const checked = validate<InstrumentInput>(instrumentInput, {
    name: form.name.trim(),
    // Left out, it stands where the server does that is asked.
    ...(form.bench === NOT_SAID ? {} : { bench: form.bench }),
    class: form.class,
    firmware: form.firmware.trim(),
    calibrationDue: form.calibrationDue.trim() || null,
    calibratedOn: form.calibratedOn.trim() || null,
    address: form.address.trim() || null,
    profileId: form.address.trim() ? form.profileId || null : null,
    sees: form.class === 'PD analyser' ? form.sees : null,
    specs: Object.fromEntries(typed),
    ratings: RATED.every(([key]) => ratings[key].trim() === '')
      ? null
      : Object.fromEntries(RATED.map(([key, quantity]) => [key, typedSi(ratings[key], quantity)])),
  });
  if (!checked.ok) throw new Error(checked.errors.map(({ message }) => message).join(' · '));
  return checked.value;
}

interface Props {
  readonly instrument: StoredInstrument | null;
  readonly onClose: () => void;
}

export function InstrumentDialog({ instrument, onClose }: Props) {
  const benches = useQuery(benchesQuery).data?.items ?? [];
  const form = useTyped<Form>(toForm(instrument));
  const { control, values, set } = form;
  // A new one is asked three things; what is there already is shown whole.
  const [more, setMore] = useState(instrument !== null);
  const save = async (typed: Form) => {
    const body = toInput(typed);
    await (instrument
      ? api(`/instruments/${instrument.id}`, { method: 'PUT', body, ifMatch: versionTag(instrument) })
      : api('/instruments', { method: 'POST', body }));
    await refreshAll();
  };
  const day = { slotProps: { inputLabel: { shrink: true } } };
  return (
    <FormDialog
      title={instrument ? 'Change the instrument' : 'Add an instrument'}
      form={form}
      onSave={save}
      onClose={onClose}
      action={instrument ? 'Save' : 'Add'}
      width="md"
      sx={{ gap: 2 }}
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fit, minmax(220px, 1fr))', gap: 1.5 }}>
        <TextInput control={control} name="name" label="Name" max={80} required />
        <ChoiceInput control={control} name="class" label="Class" options={INSTRUMENT_CLASSES} />
        {benches.length > 1 && (
          <ChoiceInput
            control={control}
            name="bench"
            label="Bench"
            options={[
              ...(instrument ? [] : [{ value: NOT_SAID, label: 'Where this server stands' }]),
              ...benches.map(({ name, there }) => ({
                value: name,
                label: `${name || 'no bench'}${there ? '' : ', no server beside it'}`,
              })),
            ]}
          />
        )}
      </Box>
      <AccuracyLines kind={values.class} specs={values.specs} onChange={(specs) => set({ specs })} />
      <Box>
        <Button size="small" aria-expanded={more} onClick={() => setMore(!more)}>
          {more ? 'Fewer fields' : 'More: calibration, connection, ranges, what it can take'}
        </Button>
      </Box>
      {more && (
        <>
          <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fit, minmax(170px, 1fr))', gap: 1.5 }}>
            <TextInput control={control} name="firmware" label="Firmware" max={40} />
            <TextInput
              control={control}
              name="calibratedOn"
              label="Calibrated"
              max={40}
              more={{ ...day, placeholder: '2026-06-01' }}
            />
            <TextInput
              control={control}
              name="calibrationDue"
              label="Calibration due"
              max={40}
              more={{ ...day, placeholder: '2027-05-31' }}
            />
          </Box>
          <LinkFields
            kind={values.class}
            address={values.address}
            profileId={values.profileId}
            onAddress={(address) => set({ address })}
            onProfile={(profileId) => set({ profileId })}
          />
          {values.class === 'PD analyser' && <SeesFields sees={values.sees} onChange={(sees) => set({ sees })} />}
          <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', gap: 1.5 }}>
            {RATED.map(([key, quantity, label]) => (
              <QuantityInput key={key} control={control} name={`ratings.${key}`} label={label} quantity={quantity} />
            ))}
          </Box>
          {SPEC_QUANTITIES.map((quantity) => (
            <SpecFields
              key={quantity}
              quantity={quantity}
              spec={values.specs[quantity]}
              onChange={(spec) => set({ specs: { ...values.specs, [quantity]: spec } })}
            />
          ))}
        </>
      )}
      <Typography variant="body2" color="text.secondary">
        ±(% of reading + % of range + a fixed part). With no coverage stated the limit is taken as rectangular, u =
        limit/√3. Leave a quantity empty that it does not measure. Readings taken before keep the uncertainty they were
        accepted with; those that had none take this one.
      </Typography>
    </FormDialog>
  );
}
