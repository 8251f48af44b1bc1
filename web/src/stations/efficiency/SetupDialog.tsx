// A loading: which ports, at which level, up to which current, with which rig and kind of load.
import type { SetupInput, StoredSetup } from '@lastmark/contract/types';
import { nameplateWatts, sharedLoadFactor } from '@lastmark/core/efficiency';
import { formatPlain } from '@lastmark/core/quantity';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import Typography from '@mui/material/Typography';
import { useMutation } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api, versionTag } from '../../api/client.ts';
import { refreshSample } from '../../api/queries.ts';
import { typedSi } from '../../parts/fields.tsx';
import { FormDialog } from '../../parts/form/FormDialog.tsx';
import { ChoiceInput, QuantityInput, TextInput } from '../../parts/form/inputs.tsx';
import { useTyped } from '../../parts/form/useTyped.ts';
import { useSample } from '../../state/sample.tsx';

interface OutputText {
  port: string;
  on: boolean;
  volts: string;
  amps: string;
}

interface Form {
  /** One for each port, in physical order. */
  outputs: OutputText[];
  name: string;
  evidence: SetupInput['evidence'];
  rigId: string;
}

/** The highest promised level of each port is what one usually loads. */
function useStartingOutputs(setup: StoredSetup | null): OutputText[] {
  const { sample, claims } = useSample().dossier;
  return sample.model.ports.map(({ label: port }, index) => {
    const stored = setup?.outputs.find((one) => one.port === port);
    const lines = claims.flatMap(({ promise }) =>
      promise.kind === 'port-line' && promise.port === port ? [promise] : [],
    );
    const highest = lines.sort((a, b) => b.volts - a.volts)[0];
    const from = stored ?? highest;
    return {
      port,
      on: setup ? stored !== undefined : index === 0,
      volts: from ? formatPlain(from.volts, 'voltage') : '',
      amps: from ? formatPlain(from.amps, 'current') : '',
    };
  });
}

interface Props {
  readonly setup: StoredSetup | null;
  readonly onSaved: (id: string) => void;
  readonly onClose: () => void;
}

export function SetupDialog({ setup, onSaved, onClose }: Props) {
  const { dossier, verdict } = useSample();
  const { sample, rigs, points } = dossier;
  const form = useTyped<Form>({
    outputs: useStartingOutputs(setup),
    name: setup?.name ?? '',
    evidence: setup?.evidence ?? 'load',
    rigId: setup?.rigId ?? rigs[0]?.id ?? '',
  });
  const { control, values, set } = form;
  const { outputs, rigId } = values;
  const measured = setup !== null && points.some(({ setupId }) => setupId === setup.id);
  const chosen = outputs.flatMap(({ port, on, volts, amps }) =>
    on ? [{ port, volts: typedSi(volts, 'voltage') ?? Number.NaN, amps: typedSi(amps, 'current') ?? Number.NaN }] : [],
  );
  const autoName = chosen
    .map(({ port, volts }) => `${port} ${Number.isNaN(volts) ? '?' : formatPlain(volts, 'voltage')}`)
    .join(' + ');
  const factor = sharedLoadFactor(chosen, verdict.figures.watts ?? 0);
  const scaled = outputs.map((output) => {
    const amps = typedSi(output.amps, 'current');
    return output.on && amps !== null ? { ...output, amps: formatPlain(amps * factor, 'current') } : output;
  });
  const save = async ({ name, evidence }: Form) => {
    const input: SetupInput = {
      purpose: 'efficiency',
      name: name.trim() || autoName,
      outputs: chosen,
      evidence,
      rigId,
      nameplateClass: setup?.nameplateClass ?? null,
      classReason: setup?.classReason ?? null,
    };
    const { id } = await (setup
      ? api<StoredSetup>(`/setups/${setup.id}`, { method: 'PUT', body: input, ifMatch: versionTag(setup) })
      : api<StoredSetup>(`/samples/${sample.id}/setups`, { method: 'POST', body: input }));
    await refreshSample(sample.id);
    onSaved(id);
  };
  const remove = useMutation({
    mutationFn: (one: StoredSetup) => api<void>(`/setups/${one.id}`, { method: 'DELETE', ifMatch: versionTag(one) }),
    onSuccess: async () => {
      await refreshSample(sample.id);
      onClose();
    },
  });
  const complete = chosen.length > 0 && chosen.every(({ volts, amps }) => volts > 0 && amps > 0) && rigId !== '';
  return (
    <FormDialog
      title={setup ? 'Change the loading' : 'Add a loading'}
      form={form}
      onSave={save}
      onClose={onClose}
      action={setup ? 'Save' : 'Add'}
      ready={complete}
      sx={{ gap: 2 }}
      more={
        setup &&
        !measured && (
          <Button color="error" onClick={() => remove.mutate(setup)} sx={{ mr: 'auto' }}>
            Remove
          </Button>
        )
      }
    >
      {measured && (
        <Alert severity="info">
          Readings were taken with this loading: its outputs stay. Name, rig and class can change.
        </Alert>
      )}
      <Box>
        {outputs.map(({ port, on }, index) => (
          <Box key={port} sx={{ display: 'grid', gridTemplateColumns: '110px 1fr 1fr', gap: 1.5, alignItems: 'start' }}>
            <FormControlLabel
              label={port}
              control={
                <Checkbox
                  checked={on}
                  disabled={measured}
                  onChange={(event) =>
                    form.setValue(`outputs.${index}.on`, event.target.checked, { shouldDirty: true })
                  }
                />
              }
            />
            <QuantityInput
              control={control}
              name={`outputs.${index}.volts`}
              label={`${port} level, V`}
              quantity="voltage"
              more={{ disabled: !on || measured }}
            />
            <QuantityInput
              control={control}
              name={`outputs.${index}.amps`}
              label={`${port} at 100 %, A`}
              quantity="current"
              more={{ disabled: !on || measured }}
            />
          </Box>
        ))}
        {complete && (
          <Typography variant="body2" color="text.secondary">
            100 % is {formatPlain(nameplateWatts(chosen), 'power')}.
            {factor < 1 &&
              ` That is above the nameplate: the common procedure scales every current by ${factor.toFixed(3)}.`}
          </Typography>
        )}
        {factor < 1 && complete && !measured && (
          <Button size="small" onClick={() => set({ outputs: scaled })}>
            Scale the currents
          </Button>
        )}
      </Box>
      <TextInput
        control={control}
        name="name"
        label="Name"
        max={80}
        more={{ placeholder: autoName, slotProps: { inputLabel: { shrink: true } } }}
      />
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5 }}>
        <ChoiceInput
          control={control}
          name="evidence"
          label="Loaded by"
          options={[
            { value: 'load', label: 'electronic load' },
            { value: 'device', label: 'a real device' },
          ]}
          more={{
            disabled: measured,
            helperText: values.evidence === 'device' ? 'Proves at least what it took; never refutes.' : ' ',
          }}
        />
        <ChoiceInput
          control={control}
          name="rigId"
          label="Rig"
          options={rigs.map(({ id, name: title }) => ({ value: id, label: title }))}
        />
      </Box>
      {rigs.length === 0 && (
        <Alert severity="warning">
          No rig yet: readings need to know their meters. <Link to="/bench">Add instruments and a rig at Bench</Link>.
        </Alert>
      )}
      {remove.error && <Alert severity="error">{remove.error.message}</Alert>}
    </FormDialog>
  );
}
