// An instrument: what it is, when its calibration is due, how accurate its maker says it is.

import { INSTRUMENT_CLASSES, instrumentInput } from '@lastmark/contract/schemas';
import type { InstrumentInput, StoredInstrument } from '@lastmark/contract/types';
import { validate } from '@lastmark/contract/validate';
import { type QuantityId, quantityOf } from '@lastmark/core/quantity';
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
import { Choice } from '../parts/fields.tsx';
import { LinkFields } from './LinkFields.tsx';
import { SEES_NOTHING_ELSE, SeesFields } from './SeesFields.tsx';
import { fromSpecText, type SpecText, toSpecText } from './spec.ts';

const SPEC_QUANTITIES = ['power', 'voltage', 'current'] as const satisfies readonly QuantityId[];
type SpecQuantity = (typeof SPEC_QUANTITIES)[number];

const PARTS: readonly (readonly [Exclude<keyof SpecText, 'coverage'>, string])[] = [
  ['readingPercent', '% of reading'],
  ['rangePercent', '% of range'],
  ['range', 'Range'],
  ['offset', 'Plus'],
  ['resolution', 'Resolution'],
  ['floor', 'Reads from'],
];

function SpecFields({
  quantity,
  spec,
  onChange,
}: {
  readonly quantity: SpecQuantity;
  readonly spec: SpecText;
  readonly onChange: (spec: SpecText) => void;
}) {
  const { label, si } = quantityOf(quantity);
  return (
    <Box role="group" aria-label={`${label} accuracy`}>
      <Typography variant="h3" sx={{ mb: 1 }}>
        {label}
      </Typography>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(6, 1fr) 150px', gap: 1 }}>
        {PARTS.map(([name, title]) => (
          <TextField
            key={name}
            label={name.endsWith('Percent') ? title : `${title}, ${si}`}
            value={spec[name]}
            onChange={(event) => onChange({ ...spec, [name]: event.target.value })}
            slotProps={{ htmlInput: { inputMode: 'decimal', 'aria-label': `${label}: ${title}` } }}
          />
        ))}
        <Choice
          label="Stated at"
          value={spec.coverage}
          options={['not stated', 'k = 2 or 95 %']}
          onChange={(coverage) => onChange({ ...spec, coverage })}
        />
      </Box>
    </Box>
  );
}

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
  const [specs, setSpecs] = useState<Record<SpecQuantity, SpecText>>({
    power: toSpecText(instrument?.specs.power, 'power'),
    voltage: toSpecText(instrument?.specs.voltage, 'voltage'),
    current: toSpecText(instrument?.specs.current, 'current'),
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
        address: address.trim() || null,
        profileId: address.trim() ? profileId || null : null,
        sees: kind === 'PD analyser' ? sees : null,
        specs: Object.fromEntries(typed),
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
          <Box sx={{ display: 'grid', gridTemplateColumns: '1.6fr 1fr 120px 170px', gap: 1.5 }}>
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
            were accepted with.
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
