// A step of one's own, of any kind a sheet may have.
import type { StoredSheet } from '@lastmark/contract/plan';
import type { Bending } from '@lastmark/core/bends';
import { type Method, mainsOf, type SheetStep } from '@lastmark/core/plan';
import { ATTACHED, type Mains, mainsLabel } from '@lastmark/core/reading';
import Box from '@mui/material/Box';
import { useQuery } from '@tanstack/react-query';
import { ulid } from 'ulid';
import { devicesQuery } from '../api/queries.ts';
import { FormDialog } from '../parts/form/FormDialog.tsx';
import { ChoiceInput, QuantityInput, TextInput } from '../parts/form/inputs.tsx';
import { useTyped } from '../parts/form/useTyped.ts';
import { CAPTURES, fieldsOf, newKinds, newStep, type StepForm } from './newStep.ts';

interface Props {
  readonly sheet: StoredSheet;
  readonly method: Method;
  readonly ports: readonly string[];
  /** How this bench bends. */
  readonly bending: Bending;
  readonly onAdd: (step: SheetStep) => void;
  readonly onClose: () => void;
}

const CAPTURE_OPTIONS = Object.entries(CAPTURES).map(([value, label]) => ({ value, label }));
const STATION_OPTIONS = [
  { value: 'proof', label: 'Proof: no load or all of it' },
  { value: 'efficiency', label: 'Efficiency: any load' },
];

/** Supplies the sheet already uses, else those of its method. */
function suppliesOf({ steps }: StoredSheet, method: Method): readonly Mains[] {
  const used = steps.flatMap((step) => mainsOf(step) ?? []);
  const all = used.length > 0 ? used : method.mains;
  return all.filter((one, at) => all.findIndex((other) => mainsLabel(other) === mainsLabel(one)) === at);
}

export function AddStepDialog({ sheet, method, ports, bending, onAdd, onClose }: Props) {
  const supplies = suppliesOf(sheet, method);
  const [first] = supplies;
  const { data } = useQuery(devicesQuery);
  const devices = data?.items ?? [];
  const form = useTyped<StepForm>({
    kind: method.line ? 'resistance' : 'point',
    port: ports[0] ?? '',
    supply: first ? mainsLabel(first) : '',
    volts: '',
    amps: '',
    load: '100',
    station: 'proof',
    order: ports.slice(0, 2).join(' + '),
    attached: 'nothing',
    capture: 'waveform',
    device: '',
    lead: '',
    level: '0 %',
    time: '10 min',
    count: '',
    text: '',
  });
  const { control, values } = form;
  const mains = supplies.find((one) => mainsLabel(one) === values.supply) ?? first;
  const made = newStep(values, { method, mains, ports, devices, bending });
  const asked = fieldsOf(values);
  const asks = (field: (typeof asked)[number]) => asked.includes(field);
  return (
    <FormDialog
      title="Add a step"
      form={form}
      onSave={() => made && onAdd({ ...made, id: ulid() })}
      onClose={onClose}
      action="Add"
      ready={made !== null}
    >
      <ChoiceInput control={control} name="kind" label="What" options={newKinds(method)} />
      {asks('capture') && <ChoiceInput control={control} name="capture" label="Of what" options={CAPTURE_OPTIONS} />}
      {asks('device') && (
        <ChoiceInput control={control} name="device" label="Device" options={devices.map(({ name }) => name)} />
      )}
      {asks('order') && <TextInput control={control} name="order" label="Ports, as plugged in" max={120} />}
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
        {asks('port') && <ChoiceInput control={control} name="port" label="Port" options={ports} />}
        {asks('supply') && (
          <ChoiceInput control={control} name="supply" label="Supply" options={supplies.map(mainsLabel)} />
        )}
        {asks('volts') && <QuantityInput control={control} name="volts" label="Level, V" quantity="voltage" />}
        {asks('amps') && <QuantityInput control={control} name="amps" label="Current, A" quantity="current" />}
      </Box>
      {asks('lead') && <TextInput control={control} name="lead" label="Cable" max={80} />}
      {asks('level') && (
        <QuantityInput
          control={control}
          name="level"
          label="Level at the start, %; empty for whatever it is"
          quantity="efficiency"
        />
      )}
      {asks('station') && <ChoiceInput control={control} name="station" label="For" options={STATION_OPTIONS} />}
      {asks('load') && <TextInput control={control} name="load" label="Load, % of the current" max={8} />}
      {asks('attached') && (
        <ChoiceInput control={control} name="attached" label="What is attached" options={[...ATTACHED]} />
      )}
      {asks('time') && <QuantityInput control={control} name="time" label="For how long, min" quantity="duration" />}
      {asks('count') && <TextInput control={control} name="count" label="Bends altogether at its end" max={8} />}
      {asks('text') && <TextInput control={control} name="text" label="What to do" max={160} />}
    </FormDialog>
  );
}
