// One claim by form: to add one that is no plain label line, and to change any.
import type { ClaimInput } from '@lastmark/contract/types';
import { type ClaimDuration, type Promised, sharePorts } from '@lastmark/core/claim';
import { formatPlain } from '@lastmark/core/quantity';
import { mainsLabel, RANGE_SUPPLIES, type RangeSupply, SUPPLY_WORDS } from '@lastmark/core/reading';
import { allModes } from '@lastmark/core/signal';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { type FormEvent, useState } from 'react';
import { Choice, QuantityField, typedSi } from '../../parts/fields.tsx';
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
  readonly text: string;
  readonly shares: Readonly<Record<string, string>>;
  readonly mains: string;
  readonly lasts: ClaimDuration['kind'];
  readonly seconds: string;
  readonly printed: string;
}

function toForm(claim: ClaimInput | null, ports: readonly string[]): Form {
  const promise = claim?.promise;
  const duration = claim?.duration;
  return {
    kind: promise?.kind ?? 'port-line',
    port: promise && 'port' in promise ? promise.port : (ports[0] ?? ''),
    volts:
      promise?.kind === 'port-line'
        ? formatPlain(promise.volts, 'voltage')
        : promise?.kind === 'range'
          ? formatPlain(promise.low, 'voltage')
          : '',
    amps: promise && 'amps' in promise ? formatPlain(promise.amps, 'current') : '',
    supply: promise?.kind === 'range' ? promise.supply : 'pps',
    high: promise?.kind === 'range' ? formatPlain(promise.high, 'voltage') : '',
    mode: promise?.kind === 'signal' ? promise.mode : 'dcp',
    watts: promise?.kind === 'total' || promise?.kind === 'idle' ? formatPlain(promise.watts, 'power') : '',
    ratio: promise?.kind === 'average-efficiency' ? formatPlain(promise.ratio, 'efficiency') : '',
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
    mains:
      (promise?.kind === 'idle' || promise?.kind === 'average-efficiency') && promise.mains
        ? mainsLabel(promise.mains)
        : '',
    lasts: duration?.kind ?? 'unstated',
    seconds: duration?.kind === 'peak' ? formatPlain(duration.seconds, 'duration', 's') : '',
    printed: claim?.printed ?? 'label',
  };
}

function usePromise(form: Form): Promised {
  const { profile } = useSample().dossier;
  const supplied = useSupplies();
  const mains = supplied.find((one) => mainsLabel(one) === form.mains) ?? null;
  const number = (text: string, quantity: 'voltage' | 'current' | 'power' | 'efficiency') =>
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
    case 'wording':
      return { kind: form.kind, text: form.text.trim() };
  }
}

interface Props {
  readonly claim: ClaimInput | null;
  readonly error: string | undefined;
  readonly busy: boolean;
  readonly onSave: (input: ClaimInput) => void;
  readonly onClose: () => void;
}

function PromiseFields({ form, set }: { readonly form: Form; readonly set: (part: Partial<Form>) => void }) {
  const { sample, profile } = useSample().dossier;
  const supplied = useSupplies();
  const ports = sample.model.ports.map(({ label }) => label);
  const quantity = (
    name: 'volts' | 'high' | 'amps' | 'watts' | 'ratio',
    label: string,
    of: 'voltage' | 'current' | 'power' | 'efficiency',
  ) => (
    <QuantityField
      label={label}
      quantity={of}
      value={form[name]}
      required
      onChange={(value) => set({ [name]: value })}
    />
  );
  const mains = (
    <Choice
      label="At mains"
      value={form.mains}
      options={[{ value: '', label: 'any' }, ...supplied.map(mainsLabel)]}
      onChange={(value) => set({ mains: value })}
    />
  );
  if (form.kind === 'port-line') {
    return (
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr 1fr', gap: 1.5 }}>
        <Choice label="Port" value={form.port} options={ports} onChange={(port) => set({ port })} />
        {quantity('volts', 'Volts', 'voltage')}
        {quantity('amps', 'Amps', 'current')}
      </Box>
    );
  }
  if (form.kind === 'range') {
    return (
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', gap: 1.5 }}>
        <Choice label="Port" value={form.port} options={ports} onChange={(port) => set({ port })} />
        <Choice
          label="Kind"
          value={form.supply}
          options={RANGE_SUPPLIES.map((value) => ({ value, label: SUPPLY_WORDS[value] }))}
          onChange={(supply) => set({ supply })}
        />
        <span />
        {quantity('volts', 'From, V', 'voltage')}
        {quantity('high', 'To, V', 'voltage')}
        {quantity('amps', 'Amps', 'current')}
      </Box>
    );
  }
  if (form.kind === 'signal') {
    const modes = allModes(profile.signalModes).map(({ id, title }) => ({ value: id, label: title }));
    return (
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 2fr', gap: 1.5 }}>
        <Choice label="Port" value={form.port} options={ports} onChange={(port) => set({ port })} />
        <Choice label="Mode" value={form.mode} options={modes} onChange={(mode) => set({ mode })} />
      </Box>
    );
  }
  if (form.kind === 'combination') {
    return (
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', gap: 1.5 }}>
        <Typography variant="body2" color="text.secondary" sx={{ gridColumn: '1 / -1' }}>
          A port that shares another’s watts: “with {ports[0]}”.
        </Typography>
        {ports.map((port) => (
          <TextField
            key={port}
            label={`${port}, W`}
            value={form.shares[port] ?? ''}
            onChange={(event) => set({ shares: { ...form.shares, [port]: event.target.value } })}
            slotProps={{ htmlInput: { autoComplete: 'off' } }}
          />
        ))}
      </Box>
    );
  }
  if (form.kind === 'wording') {
    return (
      <TextField
        label="Words as printed"
        value={form.text}
        required
        onChange={(event) => set({ text: event.target.value })}
        slotProps={{ htmlInput: { maxLength: 300 } }}
      />
    );
  }
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
      {form.kind === 'average-efficiency'
        ? quantity('ratio', 'Efficiency, %', 'efficiency')
        : quantity('watts', 'Watts', 'power')}
      {form.kind !== 'total' && mains}
    </Box>
  );
}

export function ClaimDialog({ claim, error, busy, onSave, onClose }: Props) {
  const { sample } = useSample().dossier;
  const [form, setForm] = useState(() =>
    toForm(
      claim,
      sample.model.ports.map(({ label }) => label),
    ),
  );
  const set = (part: Partial<Form>) => setForm((before) => ({ ...before, ...part }));
  const promise = usePromise(form);
  const timed = form.kind === 'port-line' || form.kind === 'total' || form.kind === 'combination';
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const seconds = typedSi(form.seconds, 'duration') ?? Number.NaN;
    const duration: ClaimDuration =
      timed && form.lasts === 'peak'
        ? { kind: 'peak', seconds }
        : { kind: timed && form.lasts === 'continuous' ? 'continuous' : 'unstated' };
    onSave({ promise, duration, printed: form.printed.trim() });
  };
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth aria-labelledby="claim-title">
      <form onSubmit={submit} noValidate>
        <DialogTitle id="claim-title">{claim ? 'Change the claim' : 'Add a claim'}</DialogTitle>
        <DialogContent sx={{ display: 'grid', gap: 2, '&&': { pt: 1 } }}>
          <Choice label="Promises" value={form.kind} options={KINDS} onChange={(kind) => set({ kind })} />
          <PromiseFields form={form} set={set} />
          {timed && (
            <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
              <Choice
                label="For how long"
                value={form.lasts}
                options={[
                  { value: 'unstated', label: 'not stated' },
                  { value: 'continuous', label: 'continuous' },
                  { value: 'peak', label: 'a peak' },
                ]}
                onChange={(lasts) => set({ lasts })}
              />
              {form.lasts === 'peak' && (
                <QuantityField
                  label="Lasting (600 s, 10 min)"
                  quantity="duration"
                  value={form.seconds}
                  required
                  onChange={(seconds) => set({ seconds })}
                />
              )}
            </Box>
          )}
          <TextField
            label="Printed on"
            value={form.printed}
            required
            onChange={(event) => set({ printed: event.target.value })}
            slotProps={{ htmlInput: { maxLength: 120 } }}
          />
          {error && <Alert severity="error">{error}</Alert>}
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={busy}>
            {claim ? 'Save' : 'Add'}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
