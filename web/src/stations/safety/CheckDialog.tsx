// One check of the safety look. What is read near mains asks first who reads it.

import { mainsLabel } from '@lastmark/core/reading';
import {
  CHECK_WORDS,
  type CheckKind,
  CURRENT_FORMS,
  EARTHS,
  HOLDS,
  METERED,
  NETWORK_WORDS,
  NETWORKS,
  POLARITIES,
  type SafetyCheck,
  STANDINGS,
} from '@lastmark/core/safety';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { Control } from 'react-hook-form';
import { Caution } from '../../parts/Caution.tsx';
import { FormDialog } from '../../parts/form/FormDialog.tsx';
import { ChoiceInput, QuantityInput, TextInput } from '../../parts/form/inputs.tsx';
import { useTyped } from '../../parts/form/useTyped.ts';
import { TakenInput } from '../../parts/TakenInput.tsx';
import { takenOf, toTaken } from '../../parts/taken.ts';
import { useSample } from '../../state/sample.tsx';
import {
  accuracyExample,
  type CheckForm,
  fieldsOf,
  formOf,
  isNamed,
  touchSupplies,
  typedAccuracy,
  USUAL,
} from './checkForm.ts';
import { useAddCheck, useChecks } from './useChecks.ts';

const GRID = {
  display: 'grid',
  gridTemplateColumns: 'repeat(3, minmax(0, 1fr))',
  gap: 1.5,
  alignItems: 'start',
} as const;
const TITLE: Readonly<Record<CheckKind, string>> = {
  touch: 'Enter a touch current',
  earth: 'Enter earth continuity',
  bond: 'Enter output to earth',
  fit: 'Enter how it sits',
  mark: 'Enter a mark',
};

interface PartProps {
  readonly control: Control<CheckForm>;
  readonly locked: boolean;
}

function TouchFields({ control, locked }: PartProps) {
  const { sample, profile } = useSample().dossier;
  const earthed = sample.model.plugEarthed;
  const more = { disabled: locked };
  return (
    <Box sx={GRID}>
      <QuantityInput
        control={control}
        name="amps"
        label="Touch current, µA"
        quantity="current"
        usual={USUAL.amps}
        required
        more={more}
      />
      <ChoiceInput control={control} name="form" label="Read as" options={CURRENT_FORMS} more={more} />
      <ChoiceInput
        control={control}
        name="network"
        label="Network"
        options={NETWORKS.map((value) => ({ value, label: NETWORK_WORDS[value] }))}
        more={more}
      />
      <ChoiceInput
        control={control}
        name="mains"
        label="Mains"
        options={touchSupplies(sample.model.kind, profile.mains).map(mainsLabel)}
        more={more}
      />
      <ChoiceInput control={control} name="polarity" label="Plug" options={POLARITIES} more={more} />
      <ChoiceInput
        control={control}
        name="earth"
        label="Earth"
        options={EARTHS.filter((one) => (one === 'none') !== earthed)}
        more={more}
      />
      <TextInput control={control} name="from" label="From" max={80} more={more} />
      <ChoiceInput control={control} name="loaded" label="Outputs" options={['no load', 'rated load']} more={more} />
    </Box>
  );
}

function EarthFields({ control, locked }: PartProps) {
  const more = { disabled: locked };
  return (
    <Box sx={GRID}>
      <QuantityInput
        control={control}
        name="ohms"
        label="Resistance, mΩ"
        quantity="resistance"
        usual={USUAL.earth}
        required
        more={more}
      />
      <QuantityInput
        control={control}
        name="testAmps"
        label="Test current, A"
        quantity="current"
        required
        more={more}
      />
      <TextInput control={control} name="to" label="From the earth pin to" max={80} required more={more} />
    </Box>
  );
}

function BondFields({ control, locked }: PartProps) {
  const { ports } = useSample().dossier.sample.model;
  const more = { disabled: locked };
  return (
    <Box sx={GRID}>
      <ChoiceInput
        control={control}
        name="port"
        label="Ground of"
        options={ports.map(({ label }) => label)}
        more={more}
      />
      <QuantityInput
        control={control}
        name="ohms"
        label="To the earth pin, MΩ"
        quantity="resistance"
        usual={USUAL.bond}
        required
        more={more}
      />
      <ChoiceInput
        control={control}
        name="range"
        label="It shows"
        options={['within the range', 'over the range']}
        more={more}
      />
    </Box>
  );
}

/** Meter and accuracy of what is read. */
function MeterFields({ control, locked, kind, text }: PartProps & { readonly kind: CheckKind; readonly text: string }) {
  const { instruments } = useSample().dossier;
  const read = typedAccuracy(text, kind);
  return (
    <Box sx={{ ...GRID, gridTemplateColumns: '1fr 2fr' }}>
      <ChoiceInput
        control={control}
        name="instrumentId"
        label="Meter"
        options={[
          { value: '', label: 'none of the bench’s' },
          ...instruments.map(({ id, name }) => ({ value: id, label: name })),
        ]}
        more={{ disabled: locked }}
      />
      <TextInput
        control={control}
        name="accuracy"
        label="Its accuracy, as printed in its manual"
        max={120}
        more={{
          disabled: locked,
          placeholder: accuracyExample(kind),
          error: typeof read === 'string',
          helperText:
            typeof read === 'string' ? read : 'Empty: as stated at Bench. Where nobody states one, nothing is decided.',
        }}
      />
    </Box>
  );
}

function Who({ control, named }: { readonly control: Control<CheckForm>; readonly named: boolean }) {
  return (
    <>
      <Caution line="For licensed or trained persons, by local codes. The enclosure stays closed, and nothing here certifies anything." />
      <Box sx={{ ...GRID, gridTemplateColumns: '1fr 1fr' }}>
        <TextInput control={control} name="person" label="Measured by" max={80} required more={{ autoFocus: true }} />
        <ChoiceInput
          control={control}
          name="standing"
          label="Who is"
          options={[{ value: '', label: 'say which' }, ...STANDINGS]}
          more={{ required: true }}
        />
      </Box>
      {!named && (
        <Typography variant="body2" color="text.secondary">
          Name who measured first: then values can be entered.
        </Typography>
      )}
    </>
  );
}

interface Props {
  readonly kind: CheckKind;
  readonly check: SafetyCheck | null;
  readonly onClose: () => void;
}

export function CheckDialog({ kind, check, onClose }: Props) {
  const { sample, profile } = useSample().dossier;
  const { current } = useChecks();
  const supplies = touchSupplies(sample.model.kind, profile.mains);
  const start = formOf(kind, check, current, {
    earthed: sample.model.plugEarthed,
    mains: supplies,
    ports: sample.model.ports.map(({ label }) => label),
  });
  const form = useTyped<CheckForm>(
    check ? { ...start, taken: toTaken(check.takenAt) } : start,
    check ? undefined : `check-${kind}-${sample.id}`,
  );
  const { control, values } = form;
  const add = useAddCheck(check);
  const metered = METERED.includes(kind);
  const locked = metered && !isNamed(values);
  const fields = fieldsOf(kind, values, supplies, check);
  const part = { control, locked };
  return (
    <FormDialog
      title={check ? `Correct: ${CHECK_WORDS[kind]}` : TITLE[kind]}
      form={form}
      onSave={() => fields && add(fields, takenOf(values.taken))}
      onClose={onClose}
      action="Keep"
      ready={fields !== null}
      width="md"
    >
      {metered && <Who control={control} named={!locked} />}
      {kind === 'touch' && <TouchFields {...part} />}
      {kind === 'earth' && <EarthFields {...part} />}
      {kind === 'bond' && <BondFields {...part} />}
      {metered && <MeterFields {...part} kind={kind} text={values.accuracy} />}
      {kind === 'fit' && (
        <Box sx={GRID}>
          <ChoiceInput control={control} name="hold" label="It sits" options={HOLDS} more={{ autoFocus: true }} />
          <QuantityInput
            control={control}
            name="reach"
            label="Centre of gravity from the socket, mm"
            quantity="length"
          />
        </Box>
      )}
      {kind === 'mark' && (
        <Box sx={GRID}>
          <TextInput control={control} name="mark" label="Mark, as seen" max={60} required more={{ autoFocus: true }} />
          <TextInput control={control} name="printed" label="Printed on" max={120} required />
          <QuantityInput control={control} name="ambient" label="Stated up to, °C" quantity="temperature" />
        </Box>
      )}
      <Box sx={{ ...GRID, gridTemplateColumns: 'minmax(0, 1fr) 220px' }}>
        <TextInput control={control} name="note" label="Note" max={400} />
        <TakenInput control={control} taken={values.taken} />
      </Box>
    </FormDialog>
  );
}
