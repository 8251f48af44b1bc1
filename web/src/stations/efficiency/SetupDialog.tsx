// A loading: which ports, at which level, up to which current, with which rig and kind of load.
import type { SetupInput, StoredSetup } from '@lastmark/contract/types';
import { nameplateWatts, sharedLoadFactor } from '@lastmark/core/efficiency';
import { formatPlain } from '@lastmark/core/quantity';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useMutation } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { Link } from 'react-router';
import { api, versionTag } from '../../api/client.ts';
import { refreshSample } from '../../api/queries.ts';
import { Choice, QuantityField, typedSi } from '../../parts/fields.tsx';
import { useSample } from '../../state/sample.tsx';

interface OutputText {
  readonly on: boolean;
  readonly volts: string;
  readonly amps: string;
}

type Outputs = Readonly<Record<string, OutputText>>;

/** The highest promised level of each port is what one usually loads. */
function useStartingOutputs(setup: StoredSetup | null): Outputs {
  const { sample, claims } = useSample().dossier;
  return Object.fromEntries(
    sample.model.ports.map(({ label }, index) => {
      const stored = setup?.outputs.find(({ port }) => port === label);
      const lines = claims.flatMap(({ promise }) =>
        promise.kind === 'port-line' && promise.port === label ? [promise] : [],
      );
      const highest = lines.sort((a, b) => b.volts - a.volts)[0];
      const from = stored ?? highest;
      const on = setup ? stored !== undefined : index === 0;
      return [
        label,
        {
          on,
          volts: from ? formatPlain(from.volts, 'voltage') : '',
          amps: from ? formatPlain(from.amps, 'current') : '',
        },
      ];
    }),
  );
}

interface Props {
  readonly setup: StoredSetup | null;
  readonly onSaved: (id: string) => void;
  readonly onClose: () => void;
}

export function SetupDialog({ setup, onSaved, onClose }: Props) {
  const { dossier, verdict } = useSample();
  const { sample, rigs, points } = dossier;
  const [outputs, setOutputs] = useState(useStartingOutputs(setup));
  const [name, setName] = useState(setup?.name ?? '');
  const [evidence, setEvidence] = useState(setup?.evidence ?? 'load');
  const [rigId, setRigId] = useState(setup?.rigId ?? rigs[0]?.id ?? '');
  const measured = setup !== null && points.some(({ setupId }) => setupId === setup.id);
  const chosen = Object.entries(outputs).flatMap(([port, { on, volts, amps }]) =>
    on ? [{ port, volts: typedSi(volts, 'voltage') ?? Number.NaN, amps: typedSi(amps, 'current') ?? Number.NaN }] : [],
  );
  const autoName = chosen
    .map(({ port, volts }) => `${port} ${Number.isNaN(volts) ? '?' : formatPlain(volts, 'voltage')}`)
    .join(' + ');
  const factor = sharedLoadFactor(chosen, verdict.figures.watts ?? 0);
  const set = (port: string, part: Partial<OutputText>) =>
    setOutputs((before) => ({ ...before, [port]: { ...(before[port] as OutputText), ...part } }));
  const save = useMutation({
    mutationFn: async () => {
      const input: SetupInput = {
        purpose: 'efficiency',
        name: name.trim() || autoName,
        outputs: chosen,
        evidence,
        rigId,
        nameplateClass: setup?.nameplateClass ?? null,
        classReason: setup?.classReason ?? null,
      };
      return setup
        ? api<StoredSetup>(`/setups/${setup.id}`, { method: 'PUT', body: input, ifMatch: versionTag(setup) })
        : api<StoredSetup>(`/samples/${sample.id}/setups`, { method: 'POST', body: input });
    },
    onSuccess: async ({ id }) => {
      await refreshSample(sample.id);
      onSaved(id);
    },
  });
  const remove = useMutation({
    mutationFn: (one: StoredSetup) => api<void>(`/setups/${one.id}`, { method: 'DELETE', ifMatch: versionTag(one) }),
    onSuccess: async () => {
      await refreshSample(sample.id);
      onClose();
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    save.mutate();
  };
  const complete = chosen.length > 0 && chosen.every(({ volts, amps }) => volts > 0 && amps > 0) && rigId !== '';
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth aria-labelledby="setup-title">
      <form onSubmit={submit} noValidate>
        <DialogTitle id="setup-title">{setup ? 'Change the loading' : 'Add a loading'}</DialogTitle>
        <DialogContent sx={{ display: 'grid', gap: 2, '&&': { pt: 1 } }}>
          {measured && (
            <Alert severity="info">
              Readings were taken with this loading: its outputs stay. Name, rig and class can change.
            </Alert>
          )}
          <Box>
            {sample.model.ports.map(({ label }) => {
              const output = outputs[label];
              if (!output) return null;
              return (
                <Box
                  key={label}
                  sx={{ display: 'grid', gridTemplateColumns: '110px 1fr 1fr', gap: 1.5, alignItems: 'start' }}
                >
                  <FormControlLabel
                    label={label}
                    control={
                      <Checkbox
                        checked={output.on}
                        disabled={measured}
                        onChange={(event) => set(label, { on: event.target.checked })}
                      />
                    }
                  />
                  <QuantityField
                    label={`${label} level, V`}
                    quantity="voltage"
                    value={output.volts}
                    onChange={(volts) => set(label, { volts })}
                    more={{ disabled: !output.on || measured }}
                  />
                  <QuantityField
                    label={`${label} at 100 %, A`}
                    quantity="current"
                    value={output.amps}
                    onChange={(amps) => set(label, { amps })}
                    more={{ disabled: !output.on || measured }}
                  />
                </Box>
              );
            })}
            {complete && (
              <Typography variant="body2" color="text.secondary">
                100 % is {formatPlain(nameplateWatts(chosen), 'power')}.
                {factor < 1 &&
                  ` That is above the nameplate: the common procedure scales every current by ${factor.toFixed(3)}.`}
              </Typography>
            )}
            {factor < 1 && complete && !measured && (
              <Button
                size="small"
                onClick={() => {
                  for (const { port, amps } of chosen) set(port, { amps: formatPlain(amps * factor, 'current') });
                }}
              >
                Scale the currents
              </Button>
            )}
          </Box>
          <TextField
            label="Name"
            value={name}
            placeholder={autoName}
            onChange={(event) => setName(event.target.value)}
            slotProps={{ htmlInput: { maxLength: 80 }, inputLabel: { shrink: true } }}
          />
          <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
            <Choice
              label="Loaded by"
              value={evidence}
              options={[
                { value: 'load', label: 'electronic load' },
                { value: 'device', label: 'a real device' },
              ]}
              onChange={setEvidence}
              more={{
                disabled: measured,
                helperText: evidence === 'device' ? 'Proves at least what it took; never refutes.' : ' ',
              }}
            />
            <Choice
              label="Rig"
              value={rigId}
              options={rigs.map(({ id, name: title }) => ({ value: id, label: title }))}
              onChange={setRigId}
            />
          </Box>
          {rigs.length === 0 && (
            <Alert severity="warning">
              No rig yet: readings need to know their meters.{' '}
              <Link to="/bench">Add instruments and a rig at Bench</Link>.
            </Alert>
          )}
          {(save.error ?? remove.error) && <Alert severity="error">{(save.error ?? remove.error)?.message}</Alert>}
        </DialogContent>
        <DialogActions>
          {setup && !measured && (
            <Button color="error" onClick={() => remove.mutate(setup)} sx={{ mr: 'auto' }}>
              Remove
            </Button>
          )}
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={!complete || save.isPending}>
            {setup ? 'Save' : 'Add'}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
