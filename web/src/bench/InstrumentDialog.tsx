// An instrument: what it is, when its calibration is due, how accurate its maker says it is.

import { INSTRUMENT_CLASSES, instrumentInput } from '@lastmark/contract/schemas';
import type { InstrumentInput, StoredInstrument } from '@lastmark/contract/types';
import { validate } from '@lastmark/contract/validate';
import { formatPlain } from '@lastmark/core/quantity';
import type { Sees } from '@lastmark/core/read-out';
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
import { LinkFields } from './LinkFields.tsx';
import { SEES_NOTHING_ELSE, SeesFields } from './SeesFields.tsx';
import { SPEC_QUANTITIES, SpecFields, type SpecQuantity } from './SpecFields.tsx';
import { fromSpecText, type SpecText, toSpecText } from './spec.ts';

const RATED = [
  ['volts', 'voltage', 'Takes at most, V'],
  ['amps', 'current', 'Takes at most, A'],
  ['watts', 'power', 'Takes at most, W'],
] as const;

interface Props {
  readonly instrument: StoredInstrument | null;
  readonly onClose: () => void;
}

export function InstrumentDialog({ instrument, onClose }: Props) {
  const [name, setName] = useState(instrument?.name ?? '');
  const [kind, setKind] = useState<InstrumentInput['class']>(instrument?.class ?? 'power analyser');
  const [firmware, setFirmware] = useState(instrument?.firmware ?? '');
  const [sees, setSees] = useState<Sees>(instrument?.sees ?? SEES_NOTHING_ELSE);
  const [address, setAddress] = useState(instrument?.address ?? '');
  const [profileId, setProfileId] = useState(instrument?.profileId ?? '');
  const [due, setDue] = useState(instrument?.calibrationDue ?? '');
  const [calibrated, setCalibrated] = useState(instrument?.calibratedOn ?? '');
  const [specs, setSpecs] = useState<Record<SpecQuantity, SpecText>>({
    power: toSpecText(instrument?.specs.power, 'power'),
    voltage: toSpecText(instrument?.specs.voltage, 'voltage'),
    current: toSpecText(instrument?.specs.current, 'current'),
  });
  const [ratings, setRatings] = useState<Record<(typeof RATED)[number][0], string>>(() => {
    const shown = (value: number | null | undefined, quantity: 'voltage' | 'current' | 'power') =>
      value == null ? '' : formatPlain(value, quantity);
    const known = instrument?.ratings;
    return {
      volts: shown(known?.volts, 'voltage'),
      amps: shown(known?.amps, 'current'),
      watts: shown(known?.watts, 'power'),
    };
  });
  const save = useMutation({
    mutationFn: async () => {
      const typed = SPEC_QUANTITIES.flatMap((quantity) => {
        const spec = fromSpecText(specs[quantity], quantity);
        return spec ? [[quantity, spec] as const] : [];
      });
      const input = {
        name: name.trim(),
        class: kind,
        firmware: firmware.trim(),
        calibrationDue: due.trim() || null,
        calibratedOn: calibrated.trim() || null,
        address: address.trim() || null,
        profileId: address.trim() ? profileId || null : null,
        sees: kind === 'PD analyser' ? sees : null,
        specs: Object.fromEntries(typed),
        ratings: RATED.every(([key]) => ratings[key].trim() === '')
          ? null
          : Object.fromEntries(RATED.map(([key, quantity]) => [key, typedSi(ratings[key], quantity)])),
      };
      const checked = validate<InstrumentInput>(instrumentInput, input);
      if (!checked.ok)
        throw new Error(
          checked.errors.map(({ path, message }) => message.replace(path, path.replace('specs.', ''))).join(' · '),
        );
      return instrument
        ? api(`/instruments/${instrument.id}`, { method: 'PUT', body: checked.value, ifMatch: versionTag(instrument) })
        : api('/instruments', { method: 'POST', body: checked.value });
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
    <Dialog open onClose={onClose} maxWidth="md" fullWidth aria-labelledby="instrument-title">
      <form onSubmit={submit} noValidate>
        <DialogTitle id="instrument-title">{instrument ? 'Change the instrument' : 'Add an instrument'}</DialogTitle>
        <DialogContent sx={{ display: 'grid', gap: 2, '&&': { pt: 1 } }}>
          <Box sx={{ display: 'grid', gridTemplateColumns: '1.6fr 1fr 100px 130px 140px', gap: 1.5 }}>
            <TextField
              label="Name"
              required
              value={name}
              onChange={(event) => setName(event.target.value)}
              slotProps={{ htmlInput: { maxLength: 80 } }}
            />
            <Choice label="Class" value={kind} options={INSTRUMENT_CLASSES} onChange={setKind} />
            <TextField
              label="Firmware"
              value={firmware}
              onChange={(event) => setFirmware(event.target.value)}
              slotProps={{ htmlInput: { maxLength: 40 } }}
            />
            <TextField
              label="Calibrated"
              placeholder="2026-06-01"
              value={calibrated}
              onChange={(event) => setCalibrated(event.target.value)}
              slotProps={{ inputLabel: { shrink: true } }}
            />
            <TextField
              label="Calibration due"
              placeholder="2027-05-31"
              value={due}
              onChange={(event) => setDue(event.target.value)}
              slotProps={{ inputLabel: { shrink: true } }}
            />
          </Box>
          <LinkFields
            kind={kind}
            address={address}
            profileId={profileId}
            onAddress={setAddress}
            onProfile={setProfileId}
          />
          {kind === 'PD analyser' && <SeesFields sees={sees} onChange={setSees} />}
          <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', gap: 1.5 }}>
            {RATED.map(([key, quantity, label]) => (
              <QuantityField
                key={key}
                label={label}
                quantity={quantity}
                value={ratings[key]}
                onChange={(text) => setRatings((before) => ({ ...before, [key]: text }))}
              />
            ))}
          </Box>
          {SPEC_QUANTITIES.map((quantity) => (
            <SpecFields
              key={quantity}
              quantity={quantity}
              spec={specs[quantity]}
              onChange={(spec) => setSpecs((before) => ({ ...before, [quantity]: spec }))}
            />
          ))}
          <Typography variant="body2" color="text.secondary">
            ±(% of reading + % of range + a fixed part). With no coverage stated the limit is taken as rectangular, u =
            limit/√3. Leave a quantity empty that it does not measure. Readings taken before keep the uncertainty they
            were accepted with; those that had none take this one.
          </Typography>
          {save.error && <Alert severity="error">{save.error.message}</Alert>}
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={save.isPending}>
            {instrument ? 'Save' : 'Add'}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
