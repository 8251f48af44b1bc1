// A step of one's own: a load point, a hold, or something to do by hand.
import type { StoredSheet } from '@lastmark/contract/plan';
import {
  holdStep,
  type Method,
  mainsOf,
  type NewStep,
  proofPoint,
  type SheetStep,
  stepBase,
} from '@lastmark/core/plan';
import { type Mains, mainsLabel } from '@lastmark/core/reading';
import Box from '@mui/material/Box';
import { ulid } from 'ulid';
import { typedSi } from '../parts/fields.tsx';
import { FormDialog } from '../parts/form/FormDialog.tsx';
import { ChoiceInput, QuantityInput, TextInput } from '../parts/form/inputs.tsx';
import { useTyped } from '../parts/form/useTyped.ts';

const KINDS = [
  { value: 'point', label: 'Load point' },
  { value: 'hold', label: 'Hold' },
  { value: 'cool', label: 'Cool down' },
  { value: 'by hand', label: 'By hand' },
] as const;

interface Form {
  kind: (typeof KINDS)[number]['value'];
  port: string;
  supply: string;
  volts: string;
  amps: string;
  time: string;
  text: string;
}

interface Props {
  readonly sheet: StoredSheet;
  readonly method: Method;
  readonly ports: readonly string[];
  readonly onAdd: (step: SheetStep) => void;
  readonly onClose: () => void;
}

/** Supplies the sheet already uses, else those of its method. */
function suppliesOf({ steps }: StoredSheet, method: Method): readonly Mains[] {
  const used = steps.flatMap((step) => mainsOf(step) ?? []);
  const all = used.length > 0 ? used : method.mains;
  return all.filter((one, at) => all.findIndex((other) => mainsLabel(other) === mainsLabel(one)) === at);
}

/** @returns null while something is missing */
function stepOf(
  { kind, port, volts, amps, time, text }: Form,
  method: Method,
  mains: Mains | undefined,
): NewStep | null {
  const output = { port, volts: typedSi(volts, 'voltage') ?? 0, amps: typedSi(amps, 'current') ?? 0 };
  const seconds = typedSi(time, 'duration') ?? 0;
  const loaded = output.volts > 0 && output.amps > 0;
  if (kind === 'point') return mains && loaded ? proofPoint(method.by, mains, [output], 1) : null;
  if (kind === 'hold')
    return mains && loaded && seconds > 0 ? holdStep({ ...method, hold: seconds }, mains, [output]) : null;
  if (kind === 'cool')
    return seconds > 0
      ? { ...stepBase('cool', method.by, `Loads off, let it cool ${time}`), dwell: seconds, attended: false }
      : null;
  return text.trim() === '' ? null : stepBase('by hand', 'keypad', text.trim());
}

export function AddStepDialog({ sheet, method, ports, onAdd, onClose }: Props) {
  const supplies = suppliesOf(sheet, method);
  const [first] = supplies;
  const form = useTyped<Form>({
    kind: 'point',
    port: ports[0] ?? '',
    supply: first ? mainsLabel(first) : '',
    volts: '',
    amps: '',
    time: '10 min',
    text: '',
  });
  const { control, values } = form;
  const { kind } = values;
  const made = stepOf(values, method, supplies.find((one) => mainsLabel(one) === values.supply) ?? first);
  return (
    <FormDialog
      title="Add a step"
      form={form}
      onSave={() => made && onAdd({ ...made, id: ulid() })}
      onClose={onClose}
      action="Add"
      ready={made !== null}
    >
      <ChoiceInput control={control} name="kind" label="What" options={KINDS} />
      {(kind === 'point' || kind === 'hold') && (
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
          <ChoiceInput control={control} name="port" label="Port" options={ports} />
          <ChoiceInput control={control} name="supply" label="Supply" options={supplies.map(mainsLabel)} />
          <QuantityInput control={control} name="volts" label="Level, V" quantity="voltage" />
          <QuantityInput control={control} name="amps" label="Current, A" quantity="current" />
        </Box>
      )}
      {(kind === 'hold' || kind === 'cool') && (
        <QuantityInput control={control} name="time" label="For how long, min" quantity="duration" />
      )}
      {kind === 'by hand' && <TextInput control={control} name="text" label="What to do" max={160} />}
    </FormDialog>
  );
}
