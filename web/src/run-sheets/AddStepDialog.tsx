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
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import { type FormEvent, useState } from 'react';
import { ulid } from 'ulid';
import { Choice, QuantityField, typedSi } from '../parts/fields.tsx';

const KINDS = [
  { value: 'point', label: 'Load point' },
  { value: 'hold', label: 'Hold' },
  { value: 'cool', label: 'Cool down' },
  { value: 'by hand', label: 'By hand' },
] as const;
type Kind = (typeof KINDS)[number]['value'];

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

export function AddStepDialog({ sheet, method, ports, onAdd, onClose }: Props) {
  const [kind, setKind] = useState<Kind>('point');
  const [port, setPort] = useState(ports[0] ?? '');
  const [volts, setVolts] = useState('');
  const [amps, setAmps] = useState('');
  const [minutes, setMinutes] = useState('10 min');
  const [text, setText] = useState('');
  const supplies = suppliesOf(sheet, method);
  const [first] = supplies;
  const [supply, setSupply] = useState(first ? mainsLabel(first) : '');
  const mains = supplies.find((one) => mainsLabel(one) === supply) ?? first;
  const output = { port, volts: typedSi(volts, 'voltage') ?? 0, amps: typedSi(amps, 'current') ?? 0 };
  const seconds = typedSi(minutes, 'duration') ?? 0;
  const loads = kind === 'point' || kind === 'hold';
  const times = kind === 'hold' || kind === 'cool';
  const complete =
    (!loads || (output.volts > 0 && output.amps > 0 && mains)) &&
    (!times || seconds > 0) &&
    (kind !== 'by hand' || text.trim() !== '');
  const made = (): NewStep => {
    if (kind === 'point' && mains) return proofPoint(method.by, mains, [output], 1);
    if (kind === 'hold' && mains) return holdStep({ ...method, hold: seconds }, mains, [output]);
    if (kind === 'cool')
      return { ...stepBase('cool', method.by, `Loads off, let it cool ${minutes}`), dwell: seconds, attended: false };
    return stepBase('by hand', 'keypad', text.trim());
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (complete) onAdd({ ...made(), id: ulid() });
  };
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth aria-labelledby="add-step-title">
      <form onSubmit={submit} noValidate>
        <DialogTitle id="add-step-title">Add a step</DialogTitle>
        <DialogContent sx={{ display: 'grid', gap: 1.5, '&&': { pt: 1 } }}>
          <Choice label="What" value={kind} options={KINDS} onChange={setKind} />
          {loads && (
            <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
              <Choice label="Port" value={port} options={ports} onChange={setPort} />
              <Choice label="Supply" value={supply} options={supplies.map(mainsLabel)} onChange={setSupply} />
              <QuantityField label="Level, V" quantity="voltage" value={volts} onChange={setVolts} />
              <QuantityField label="Current, A" quantity="current" value={amps} onChange={setAmps} />
            </Box>
          )}
          {times && (
            <QuantityField label="For how long, min" quantity="duration" value={minutes} onChange={setMinutes} />
          )}
          {kind === 'by hand' && (
            <TextField
              label="What to do"
              value={text}
              onChange={(event) => setText(event.target.value)}
              slotProps={{ htmlInput: { maxLength: 160 } }}
            />
          )}
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={!complete}>
            Add
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
