// A rig: which meter reads what, where the output is sensed, and the lead between.
import type { RigInput, StoredInstrument, StoredRig } from '@lastmark/contract/types';
import { formatPlain } from '@lastmark/core/quantity';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import { useMutation } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { api, versionTag } from '../api/client.ts';
import { refreshAll } from '../api/queries.ts';
import { Choice, QuantityField, typedSi } from '../parts/fields.tsx';
import { type ElementText, fromElementText, LineFields, toElementText } from './LineFields.tsx';

/** Instruments with an address that a run sheet can set by itself. */
const DRIVES = [
  ['source', 'Supply set by', 'AC source'],
  ['load', 'Load set by', 'DC load'],
  ['analyser', 'Offers read by', 'PD analyser'],
  ['thermometer', 'Heat read by', 'thermometer'],
  ['scope', 'Mains current by', 'oscilloscope'],
] as const;

const NO_DRIVES = { source: null, load: null, thermometer: null, analyser: null, scope: null };

interface Props {
  readonly rig: StoredRig | null;
  readonly instruments: readonly StoredInstrument[];
  readonly onClose: () => void;
}

export function RigDialog({ rig, instruments, onClose }: Props) {
  const measures = (quantity: 'power' | 'voltage' | 'current') => instruments.filter(({ specs }) => specs[quantity]);
  const [name, setName] = useState(rig?.name ?? '');
  const [meters, setMeters] = useState<RigInput['meters']>(
    rig?.meters ?? {
      mains: measures('power')[0]?.id ?? '',
      outputVolts: measures('voltage')[0]?.id ?? '',
      outputAmps: measures('current')[0]?.id ?? '',
      loadEnd: null,
    },
  );
  const [place, setPlace] = useState<RigInput['outputPlace']>(rig?.outputPlace ?? 'port');
  const [lead, setLead] = useState(rig?.leadOhms ? formatPlain(rig.leadOhms, 'resistance') : '');
  const [leadU, setLeadU] = useState(rig?.leadUOhms ? formatPlain(rig.leadUOhms, 'resistance') : '');
  const [elements, setElements] = useState<readonly ElementText[]>((rig?.elements ?? []).map(toElementText));
  const [drives, setDrives] = useState<NonNullable<RigInput['drives']>>({ ...NO_DRIVES, ...rig?.drives });
  const [note, setNote] = useState(rig?.note ?? '');
  const save = useMutation({
    mutationFn: () => {
      const body: RigInput = {
        name: name.trim(),
        meters,
        outputPlace: place,
        leadOhms: typedSi(lead, 'resistance') ?? 0,
        leadUOhms: typedSi(leadU, 'resistance') ?? 0,
        elements: elements.map(fromElementText),
        drives: Object.values(drives).some((id) => id !== null) ? drives : null,
        note,
      };
      return rig
        ? api(`/rigs/${rig.id}`, { method: 'PUT', body, ifMatch: versionTag(rig) })
        : api('/rigs', { method: 'POST', body });
    },
    onSuccess: async () => {
      await refreshAll();
      onClose();
    },
  });
  const choose = (
    label: string,
    key: 'mains' | 'outputVolts' | 'outputAmps',
    quantity: 'power' | 'voltage' | 'current',
  ) => (
    <Choice
      label={label}
      value={meters[key]}
      options={measures(quantity).map(({ id, name: title }) => ({ value: id, label: title }))}
      onChange={(id) => setMeters((before) => ({ ...before, [key]: id }))}
    />
  );
  const complete =
    name.trim() !== '' &&
    [meters.mains, meters.outputVolts, meters.outputAmps].every(Boolean) &&
    elements.every((element) => element.name.trim() !== '');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    save.mutate();
  };
  return (
    <Dialog open onClose={onClose} maxWidth="md" fullWidth aria-labelledby="rig-title">
      <form onSubmit={submit} noValidate>
        <DialogTitle id="rig-title">{rig ? 'Change the rig' : 'Add a rig'}</DialogTitle>
        <DialogContent sx={{ display: 'grid', gap: 2, '&&': { pt: 1 } }}>
          <TextField
            label="Name"
            required
            value={name}
            onChange={(event) => setName(event.target.value)}
            slotProps={{ htmlInput: { maxLength: 80 } }}
          />
          {choose('Input watts by', 'mains', 'power')}
          {choose('Output volts by', 'outputVolts', 'voltage')}
          {choose('Output amps by', 'outputAmps', 'current')}
          <Choice
            label="Output volts sensed"
            value={place}
            options={[
              { value: 'port', label: 'at the port' },
              { value: 'load-end', label: 'at the load end of the lead' },
            ]}
            onChange={setPlace}
          />
          {place === 'port' && (
            <Choice
              label="A second meter at the load end"
              value={meters.loadEnd ?? ''}
              options={[
                { value: '', label: 'none' },
                ...instruments
                  .filter(({ specs }) => specs.voltage && specs.current)
                  .map(({ id, name: title }) => ({ value: id, label: title })),
              ]}
              onChange={(id) => setMeters((before) => ({ ...before, loadEnd: id || null }))}
            />
          )}
          {place === 'load-end' && (
            <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
              <QuantityField
                label="Lead and cable, both ways, mΩ"
                quantity="resistance"
                value={lead}
                onChange={setLead}
              />
              <QuantityField
                label="its standard uncertainty, mΩ"
                quantity="resistance"
                value={leadU}
                onChange={setLeadU}
              />
            </Box>
          )}
          <Box
            role="group"
            aria-label="Runs by itself"
            sx={{ display: 'grid', gridTemplateColumns: 'repeat(5, 1fr)', gap: 1.5 }}
          >
            {DRIVES.map(([key, label, kind]) => (
              <Choice
                key={key}
                label={label}
                value={drives[key] ?? ''}
                options={[
                  { value: '', label: 'by hand' },
                  ...instruments
                    .filter((one) => one.class === kind && one.address !== null)
                    .map(({ id, name: title }) => ({ value: id, label: title })),
                ]}
                onChange={(id) => setDrives((before) => ({ ...before, [key]: id || null }))}
              />
            ))}
          </Box>
          <LineFields elements={elements} onChange={setElements} />
          <TextField
            label="Note"
            value={note}
            onChange={(event) => setNote(event.target.value)}
            slotProps={{ htmlInput: { maxLength: 400 } }}
          />
          {instruments.length === 0 && <Alert severity="info">Add the instruments first.</Alert>}
          {save.error && <Alert severity="error">{save.error.message}</Alert>}
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={!complete || save.isPending}>
            {rig ? 'Save' : 'Add'}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
