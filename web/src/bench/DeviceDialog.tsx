// A real device that serves as a load: what it takes at most, per connector and lead.
import type { DeviceInput, StoredDevice } from '@lastmark/contract/types';
import { DEVICE_KINDS } from '@lastmark/core/proof';
import { formatPlain } from '@lastmark/core/quantity';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useMutation } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { api, versionTag } from '../api/client.ts';
import { refreshAll } from '../api/queries.ts';
import { Choice, QuantityField, typedSi } from '../parts/fields.tsx';

interface CeilingText {
  readonly connector: string;
  readonly lead: string;
  readonly volts: string;
  readonly watts: string;
}

const NEW: CeilingText = { connector: 'C', lead: '', volts: '', watts: '' };

interface Props {
  readonly device: StoredDevice | null;
  readonly onClose: () => void;
}

export function DeviceDialog({ device, onClose }: Props) {
  const [name, setName] = useState(device?.name ?? '');
  const [kind, setKind] = useState<DeviceInput['kind']>(device?.kind ?? 'phone');
  const [battery, setBattery] = useState(device?.battery ? formatPlain(device.battery, 'energy', 'Wh') : '');
  const [baseline, setBaseline] = useState(device?.baseline ? formatPlain(device.baseline, 'power') : '');
  const [note, setNote] = useState(device?.note ?? '');
  const [ceilings, setCeilings] = useState<readonly CeilingText[]>(
    device?.ceilings.map(({ connector, lead, volts, watts }) => ({
      connector,
      lead,
      volts: volts === null ? '' : formatPlain(volts, 'voltage'),
      watts: formatPlain(watts, 'power'),
    })) ?? [NEW],
  );
  const change = (index: number, part: Partial<CeilingText>) =>
    setCeilings((before) => before.map((one, at) => (at === index ? { ...one, ...part } : one)));
  const save = useMutation({
    mutationFn: () => {
      const body: DeviceInput = {
        name: name.trim(),
        kind,
        battery: typedSi(battery, 'energy'),
        baseline: typedSi(baseline, 'power'),
        note,
        ceilings: ceilings
          .filter(({ lead, watts }) => lead.trim() || watts.trim())
          .map(({ connector, lead, volts, watts }) => ({
            connector: connector.trim(),
            lead: lead.trim(),
            volts: typedSi(volts, 'voltage'),
            watts: typedSi(watts, 'power') ?? 0,
          })),
      };
      return device
        ? api(`/devices/${device.id}`, { method: 'PUT', body, ifMatch: versionTag(device) })
        : api('/devices', { method: 'POST', body });
    },
    onSuccess: async () => {
      await refreshAll();
      onClose();
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    save.mutate();
  };
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth aria-labelledby="device-title">
      <form onSubmit={submit} noValidate>
        <DialogTitle id="device-title">{device ? 'Change the device' : 'Add a device'}</DialogTitle>
        <DialogContent sx={{ display: 'grid', gap: 1.5, '&&': { pt: 1 } }}>
          <Box sx={{ display: 'grid', gridTemplateColumns: '2fr 1fr', gap: 1.5 }}>
            <TextField
              label="Name"
              required
              autoFocus
              value={name}
              onChange={(event) => setName(event.target.value)}
              slotProps={{ htmlInput: { maxLength: 80 } }}
            />
            <Choice label="Kind" value={kind} options={DEVICE_KINDS} onChange={setKind} />
            <QuantityField
              label="Took alone on a strong charger, W"
              quantity="power"
              value={baseline}
              onChange={setBaseline}
            />
            <QuantityField label="Battery, Wh" quantity="energy" value={battery} onChange={setBattery} />
          </Box>
          <Box role="group" aria-label="What it takes at most">
            <Typography variant="h3" sx={{ mb: 1 }}>
              What it takes at most
            </Typography>
            {ceilings.map((one, index) => (
              <Box
                // biome-ignore lint/suspicious/noArrayIndexKey: ceilings have no identity but their place
                key={index}
                sx={{ display: 'grid', gridTemplateColumns: '90px 1fr 90px 90px', gap: 1 }}
              >
                <TextField
                  label="Connector"
                  value={one.connector}
                  onChange={(event) => change(index, { connector: event.target.value })}
                  slotProps={{ htmlInput: { maxLength: 40 } }}
                />
                <TextField
                  label="Lead"
                  value={one.lead}
                  onChange={(event) => change(index, { lead: event.target.value })}
                  slotProps={{ htmlInput: { maxLength: 80 } }}
                />
                <QuantityField
                  label="Level, V"
                  quantity="voltage"
                  value={one.volts}
                  onChange={(volts) => change(index, { volts })}
                />
                <QuantityField
                  label="W"
                  quantity="power"
                  value={one.watts}
                  onChange={(watts) => change(index, { watts })}
                />
              </Box>
            ))}
            <Button size="small" onClick={() => setCeilings((before) => [...before, NEW])}>
              Add a lead
            </Button>
          </Box>
          <TextField
            label="Note"
            value={note}
            onChange={(event) => setNote(event.target.value)}
            slotProps={{ htmlInput: { maxLength: 400 } }}
          />
          {save.error && <Alert severity="error">{save.error.message}</Alert>}
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={save.isPending || name.trim() === ''}>
            {device ? 'Save' : 'Add'}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
