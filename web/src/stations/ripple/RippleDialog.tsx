// Takes in a record of ripple: at which port and level, under which load, from a file or read off by eye.
import { KIND_WORDS } from '@lastmark/core/capture';
import { loadWords, mainsLabel, parseLoads } from '@lastmark/core/reading';
import type { RippleWanted } from '@lastmark/core/ripple';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { RecordingButton } from '../../captures/RecordingParts.tsx';
import { Seen } from '../../captures/Seen.tsx';
import { useCapture } from '../../captures/useCapture.ts';
import { useRecording } from '../../captures/useRecording.ts';
import { typedSi } from '../../parts/fields.tsx';
import { FormDialog } from '../../parts/form/FormDialog.tsx';
import { ChoiceInput, QuantityInput, TextInput } from '../../parts/form/inputs.tsx';
import { useTyped } from '../../parts/form/useTyped.ts';
import { useSample, useSupplies } from '../../state/sample.tsx';

interface Form {
  port: string;
  load: string;
  supply: string;
  rigId: string;
  typed: string;
  note: string;
}

interface Props {
  /** What is missing and was chosen; null for anything. */
  readonly wanted: RippleWanted | null;
  readonly onClose: () => void;
}

export function RippleDialog({ wanted, onClose }: Props) {
  const { dossier } = useSample();
  const supplies = useSupplies();
  const { add } = useCapture();
  const ports = dossier.sample.model.ports.map(({ label }) => label);
  const form = useTyped<Form>({
    port: wanted?.port ?? ports[0] ?? '',
    load: wanted ? loadWords([wanted]).replace(', no load', '') : '',
    supply: wanted ? mainsLabel(wanted.mains) : supplies[0] ? mainsLabel(supplies[0]) : '',
    rigId: dossier.rigs.find(({ probe }) => probe)?.id ?? dossier.rigs[0]?.id ?? '',
    typed: '',
    note: '',
  });
  const { control, values } = form;
  const mains = supplies.find((one) => mainsLabel(one) === values.supply);
  const recording = useRecording(mains ? { kind: 'ripple', mains } : null);
  const [tried, setTried] = useState(false);
  const outputs = parseLoads(values.load, ports);
  const own = 'reason' in outputs ? undefined : outputs.find(({ port }) => port === values.port);
  const problem = 'reason' in outputs ? outputs.reason : own ? null : `Say at which level ${values.port} is.`;
  const volts = values.typed.trim() === '' ? null : typedSi(values.typed, 'voltage');
  const byEye = volts !== null && !Number.isNaN(volts);
  const scopes = dossier.instruments.filter((one) => one.class === 'oscilloscope' && one.address !== null);
  const [asking, setAsking] = useState<string | null>(null);
  const save = async (scopeId: string | null = null) => {
    setTried(true);
    if (problem || 'reason' in outputs || !mains) throw new Error(problem ?? 'Choose the supply.');
    const file = scopeId === null ? await recording.sent() : null;
    await add.mutateAsync({
      choice: {
        kind: 'ripple',
        mains,
        setupId: null,
        load: own && own.amps > 0 ? 1 : 0,
        port: values.port,
        attached: 'nothing',
        rigId: values.rigId,
        source: scopes.find(({ id }) => id === scopeId)?.name ?? recording.file?.name ?? 'by eye',
        note: values.note.trim(),
        outputs,
        ...(file || scopeId !== null ? {} : { typed: volts }),
      },
      file,
      scopeId,
    });
  };
  return (
    <FormDialog
      title="Take in a record of ripple"
      form={form}
      onSave={() => save()}
      onClose={onClose}
      action="Keep"
      ready={mains !== undefined && values.rigId !== '' && (recording.file ? recording.seen?.ok === true : byEye)}
      width="md"
      sx={{ gap: 2, gridTemplateColumns: 'repeat(3, minmax(0, 1fr))' }}
      more={
        <>
          {scopes.map(({ id, name }) => (
            <Button
              key={id}
              disabled={add.isPending || mains === undefined || values.rigId === ''}
              onClick={() => void save(id).then(onClose, ({ message }: Error) => setAsking(message))}
            >
              Take it from {name}
            </Button>
          ))}
          <RecordingButton label={`File of ${KIND_WORDS.ripple}`} recording={recording} />
        </>
      }
    >
      <ChoiceInput control={control} name="port" label="Probe at" options={ports} />
      <TextInput
        control={control}
        name="load"
        label="Levels and loads"
        max={200}
        required
        more={{
          placeholder: `${ports[0] ?? 'C1'} 20 V 3.25 A`,
          error: tried && problem !== null,
          helperText: tried && problem ? problem : 'No amps for no load; more ports with +',
          sx: { gridColumn: 'span 2' },
        }}
      />
      <ChoiceInput control={control} name="supply" label="Supply" options={supplies.map(mainsLabel)} />
      <ChoiceInput
        control={control}
        name="rigId"
        label="Rig"
        options={dossier.rigs.map(({ id, name }) => ({ value: id, label: name }))}
      />
      <QuantityInput control={control} name="typed" label="Or by eye, with mV" quantity="voltage" />
      <TextInput control={control} name="note" label="Note" max={400} more={{ sx: { gridColumn: '1 / -1' } }} />
      <Typography variant="body2" color="text.secondary" sx={{ gridColumn: '1 / -1' }}>
        A file has a column of volts against time, or its sample interval above; any dialect, any length. Binary samples
        come with the JSON that describes them. Read off by eye, only peak to peak is claimed.
      </Typography>
      <Seen recording={recording} problem={asking} />
    </FormDialog>
  );
}
