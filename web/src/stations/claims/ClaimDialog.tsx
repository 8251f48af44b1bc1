// One claim by form: to add one that is no plain label line, and to change any.
import type { ClaimInput } from '@lastmark/contract/types';
import { type ClaimDuration, type Promised, sharePorts } from '@lastmark/core/claim';
import { formatPlain } from '@lastmark/core/quantity';
import { mainsLabel, RANGE_SUPPLIES, type RangeSupply, SUPPLY_WORDS } from '@lastmark/core/reading';
import { allModes } from '@lastmark/core/signal';
import Box from '@mui/material/Box';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import type { Control } from 'react-hook-form';
import { typedMinutes, typedSi } from '../../parts/fields.tsx';
import { FormDialog } from '../../parts/form/FormDialog.tsx';
import { ChoiceInput, QuantityInput, TextInput } from '../../parts/form/inputs.tsx';
import { useTyped } from '../../parts/form/useTyped.ts';
import { useSample, useSupplies } from '../../state/sample.tsx';

type Kind = Promised['kind'];

const KINDS: readonly { value: Kind; label: string }[] = [
  { value: 'port-line', label: 'Port line: volts and amps' },
  { value: 'range', label: 'Range: PPS or AVS' },
  { value: 'signal', label: 'Signalling outside PD' },
  { value: 'total', label: 'Total power' },
  { value: 'combination', label: 'Ports together' },
  { value: 'average-efficiency', label: 'Average efficiency' },
  { value: 'idle', label: 'Idle' },
  { value: 'ripple', label: 'Ripple' },
  { value: 'surface', label: 'Surface temperature' },
  { value: 'charge-time', label: 'Charge time of a device' },
  { value: 'wording', label: 'Words' },
];

const CABLE_KINDS: readonly { value: Kind; label: string }[] = [
  { value: 'cable-rating', label: 'What it carries: amps and volts' },
  { value: 'data-rate', label: 'Data rate' },
  { value: 'bends', label: 'Bends' },
  { value: 'wording', label: 'Words' },
];

/** The form holds text; which fields count depends on the kind. */
interface Form {
  readonly kind: Kind;
  readonly port: string;
  readonly volts: string;
  readonly amps: string;
  readonly supply: RangeSupply;
  /** Upper end of a range; its lower one is in `volts`. */
  readonly high: string;
  readonly mode: string;
  readonly watts: string;
  readonly ratio: string;
  readonly celsius: string;
  readonly device: string;
  readonly from: string;
  readonly to: string;
  readonly minutes: string;
  readonly text: string;
  readonly gigabits: string;
  readonly count: string;
  readonly shares: Readonly<Record<string, string>>;
  readonly mains: string;
  readonly lasts: ClaimDuration['kind'];
  readonly seconds: string;
  readonly printed: string;
}

function toForm(claim: ClaimInput | null, ports: readonly string[], first: Kind): Form {
  const promise = claim?.promise;
  const duration = claim?.duration;
  return {
    kind: promise?.kind ?? first,
    port: promise && 'port' in promise ? promise.port : (ports[0] ?? ''),
    volts:
      promise?.kind === 'port-line' || promise?.kind === 'cable-rating'
        ? formatPlain(promise.volts, 'voltage')
        : promise?.kind === 'range'
          ? formatPlain(promise.low, 'voltage')
          : promise?.kind === 'ripple'
            ? formatPlain(promise.volts, 'voltage', 'mV')
            : '',
    amps: promise && 'amps' in promise ? formatPlain(promise.amps, 'current') : '',
    supply: promise?.kind === 'range' ? promise.supply : 'pps',
    high: promise?.kind === 'range' ? formatPlain(promise.high, 'voltage') : '',
    mode: promise?.kind === 'signal' ? promise.mode : 'dcp',
    watts: promise?.kind === 'total' || promise?.kind === 'idle' ? formatPlain(promise.watts, 'power') : '',
    ratio: promise?.kind === 'average-efficiency' ? formatPlain(promise.ratio, 'efficiency') : '',
    celsius: promise?.kind === 'surface' ? `${promise.celsius} °C` : '',
    device: promise?.kind === 'charge-time' ? promise.device : '',
    from: promise?.kind === 'charge-time' ? formatPlain(promise.from, 'efficiency') : '0 %',
    to: promise?.kind === 'charge-time' ? formatPlain(promise.to, 'efficiency') : '',
    minutes: promise?.kind === 'charge-time' ? formatPlain(promise.seconds, 'duration', 'min') : '',
    gigabits: promise?.kind === 'data-rate' ? String(promise.bits / 1e9) : '',
    count: promise?.kind === 'bends' ? String(promise.count) : '',
    text: promise?.kind === 'wording' ? promise.text : '',
    shares:
      promise?.kind === 'combination'
        ? Object.fromEntries(
            promise.shares.flatMap((share) =>
              sharePorts(share).map((port, index) => [
                port,
                index === 0 ? formatPlain(share.watts, 'power') : `with ${share.port}`,
              ]),
            ),
          )
        : {},
    mains: promise && 'mains' in promise && promise.mains ? mainsLabel(promise.mains) : '',
    lasts: duration?.kind ?? 'unstated',
    seconds: duration?.kind === 'peak' ? formatPlain(duration.seconds, 'duration', 's') : '',
    printed: claim?.printed ?? 'label',
  };
}

function usePromise(form: Form): Promised {
  const { profile } = useSample().dossier;
  const supplied = useSupplies();
  const mains = supplied.find((one) => mainsLabel(one) === form.mains) ?? null;
  const number = (text: string, quantity: 'voltage' | 'current' | 'power' | 'efficiency' | 'temperature') =>
    typedSi(text, quantity) ?? Number.NaN;
  switch (form.kind) {
    case 'port-line':
      return {
        kind: form.kind,
        port: form.port,
        volts: number(form.volts, 'voltage'),
        amps: number(form.amps, 'current'),
      };
    case 'range':
      return {
        kind: form.kind,
        port: form.port,
        supply: form.supply,
        low: number(form.volts, 'voltage'),
        high: number(form.high, 'voltage'),
        amps: number(form.amps, 'current'),
      };
    case 'signal': {
      const title = allModes(profile.signalModes).find(({ id }) => id === form.mode)?.title ?? form.mode;
      return { kind: form.kind, port: form.port, mode: form.mode, title };
    }
    case 'total':
      return { kind: form.kind, watts: number(form.watts, 'power') };
    case 'combination': {
      const filled = Object.entries(form.shares).filter(([, text]) => text.trim() !== '');
      const withOf = (text: string) => /^with\s+(.+)$/i.exec(text.trim())?.[1];
      const shares = filled.flatMap(([port, text]) => {
        if (withOf(text) !== undefined) return [];
        const others = filled.flatMap(([other, words]) => (withOf(words) === port ? [other] : []));
        return [{ port, ...(others.length > 0 ? { with: others } : {}), watts: number(text, 'power') }];
      });
      return { kind: form.kind, shares };
    }
    case 'average-efficiency':
      return { kind: form.kind, ratio: number(form.ratio, 'efficiency'), mains };
    case 'idle':
      return { kind: form.kind, watts: number(form.watts, 'power'), mains };
    case 'ripple':
      return { kind: form.kind, volts: number(form.volts, 'voltage'), mains };
    case 'surface':
      return { kind: form.kind, celsius: number(form.celsius, 'temperature') - 273.15 };
    case 'charge-time':
      return {
        kind: form.kind,
        device: form.device.trim(),
        from: number(form.from, 'efficiency'),
        to: number(form.to, 'efficiency'),
        seconds: typedMinutes(form.minutes) ?? Number.NaN,
      };
    case 'cable-rating':
      return { kind: form.kind, amps: number(form.amps, 'current'), volts: number(form.volts, 'voltage') };
    case 'data-rate':
      return { kind: form.kind, bits: Math.round(Number(form.gigabits.replace(',', '.')) * 1e9) };
    case 'bends':
      return { kind: form.kind, count: Number(form.count.replace(/\s/g, '')) };
    case 'wording':
      return { kind: form.kind, text: form.text.trim() };
  }
}

interface PromiseProps {
  readonly control: Control<Form>;
  readonly form: Form;
  readonly set: (part: Partial<Form>) => void;
}

function PromiseFields({ control, form, set }: PromiseProps) {
  const { sample, profile } = useSample().dossier;
  const supplied = useSupplies();
  const ports = sample.model.ports.map(({ label }) => label);
  const port = <ChoiceInput control={control} name="port" label="Port" options={ports} />;
  const quantity = (
    name: 'volts' | 'high' | 'amps' | 'watts' | 'ratio' | 'celsius' | 'from' | 'to',
    label: string,
    of: 'voltage' | 'current' | 'power' | 'efficiency' | 'temperature',
  ) => <QuantityInput control={control} name={name} label={label} quantity={of} required />;
  if (form.kind === 'port-line')
    return (
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr 1fr', gap: 1.5 }}>
        {port}
        {quantity('volts', 'Volts', 'voltage')}
        {quantity('amps', 'Amps', 'current')}
      </Box>
    );
  if (form.kind === 'range')
    return (
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', gap: 1.5 }}>
        {port}
        <ChoiceInput
          control={control}
          name="supply"
          label="Kind"
          options={RANGE_SUPPLIES.map((value) => ({ value, label: SUPPLY_WORDS[value] }))}
        />
        <span />
        {quantity('volts', 'From, V', 'voltage')}
        {quantity('high', 'To, V', 'voltage')}
        {quantity('amps', 'Amps', 'current')}
      </Box>
    );
  if (form.kind === 'signal') {
    const modes = allModes(profile.signalModes).map(({ id, title }) => ({ value: id, label: title }));
    return (
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 2fr', gap: 1.5 }}>
        {port}
        <ChoiceInput control={control} name="mode" label="Mode" options={modes} />
      </Box>
    );
  }
  if (form.kind === 'combination')
    return (
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', gap: 1.5 }}>
        <Typography variant="body2" color="text.secondary" sx={{ gridColumn: '1 / -1' }}>
          A port that shares another’s watts: “with {ports[0]}”.
        </Typography>
        {ports.map((label) => (
          <TextField
            key={label}
            label={`${label}, W`}
            value={form.shares[label] ?? ''}
            onChange={(event) => set({ shares: { ...form.shares, [label]: event.target.value } })}
            slotProps={{ htmlInput: { autoComplete: 'off' } }}
          />
        ))}
      </Box>
    );
  if (form.kind === 'charge-time')
    return (
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', gap: 1.5 }}>
        <TextInput
          control={control}
          name="device"
          label="Device, as on the bench"
          max={60}
          more={{ placeholder: 'any', sx: { gridColumn: '1 / -1' } }}
        />
        {quantity('from', 'From, %', 'efficiency')}
        {quantity('to', 'To, %', 'efficiency')}
        <TextInput control={control} name="minutes" label="Time, min" max={20} required />
      </Box>
    );
  if (form.kind === 'cable-rating')
    return (
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
        {quantity('amps', 'Amps', 'current')}
        {quantity('volts', 'Volts', 'voltage')}
      </Box>
    );
  if (form.kind === 'data-rate')
    return <TextInput control={control} name="gigabits" label="Gbit/s" max={12} required />;
  if (form.kind === 'bends') return <TextInput control={control} name="count" label="Bends" max={12} required />;
  if (form.kind === 'wording')
    return <TextInput control={control} name="text" label="Words as printed" max={300} required />;
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
      {form.kind === 'average-efficiency'
        ? quantity('ratio', 'Efficiency, %', 'efficiency')
        : form.kind === 'ripple'
          ? quantity('volts', 'Peak to peak, with mV or V', 'voltage')
          : form.kind === 'surface'
            ? quantity('celsius', 'Hottest spot, °C', 'temperature')
            : quantity('watts', 'Watts', 'power')}
      {form.kind !== 'total' && form.kind !== 'surface' && (
        <ChoiceInput
          control={control}
          name="mains"
          label="At mains"
          options={[{ value: '', label: 'any' }, ...supplied.map(mainsLabel)]}
        />
      )}
    </Box>
  );
}

interface Props {
  readonly claim: ClaimInput | null;
  readonly onSave: (input: ClaimInput) => Promise<unknown>;
  readonly onClose: () => void;
}

export function ClaimDialog({ claim, onSave, onClose }: Props) {
  const { sample } = useSample().dossier;
  const cable = sample.model.kind === 'cable';
  const form = useTyped<Form>(
    toForm(
      claim,
      sample.model.ports.map(({ label }) => label),
      cable ? 'cable-rating' : 'port-line',
    ),
  );
  const { control, values, set } = form;
  const promise = usePromise(values);
  const timed = values.kind === 'port-line' || values.kind === 'total' || values.kind === 'combination';
  const save = ({ seconds, lasts, printed }: Form) => {
    const duration: ClaimDuration =
      timed && lasts === 'peak'
        ? { kind: 'peak', seconds: typedSi(seconds, 'duration') ?? Number.NaN }
        : { kind: timed && lasts === 'continuous' ? 'continuous' : 'unstated' };
    return onSave({ promise, duration, printed: printed.trim() });
  };
  return (
    <FormDialog
      title={claim ? 'Change the claim' : 'Add a claim'}
      form={form}
      onSave={save}
      onClose={onClose}
      action={claim ? 'Save' : 'Add'}
      sx={{ gap: 2 }}
    >
      <ChoiceInput control={control} name="kind" label="Promises" options={cable ? CABLE_KINDS : KINDS} />
      <PromiseFields control={control} form={values} set={set} />
      {timed && (
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
          <ChoiceInput
            control={control}
            name="lasts"
            label="For how long"
            options={[
              { value: 'unstated', label: 'not stated' },
              { value: 'continuous', label: 'continuous' },
              { value: 'peak', label: 'a peak' },
            ]}
          />
          {values.lasts === 'peak' && (
            <QuantityInput
              control={control}
              name="seconds"
              label="Lasting (600 s, 10 min)"
              quantity="duration"
              required
            />
          )}
        </Box>
      )}
      <TextInput control={control} name="printed" label="Printed on" max={120} required />
    </FormDialog>
  );
}
