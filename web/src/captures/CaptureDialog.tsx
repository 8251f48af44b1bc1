// Takes in a capture: which kind, under which conditions, from a file or from the scope, looked at before it is kept.
import {
  CAPTURE_COLUMNS,
  type CaptureKind,
  COLUMN_WORDS,
  captureContradiction,
  KIND_WORDS,
  needsFixedRate,
} from '@lastmark/core/capture';
import { ATTACHED, type Attached, type Mains, mainsLabel } from '@lastmark/core/reading';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { FileButton } from '../parts/FileButton.tsx';
import { typedSi } from '../parts/fields.tsx';
import { FormDialog } from '../parts/form/FormDialog.tsx';
import { ChoiceInput, QuantityInput, TextInput } from '../parts/form/inputs.tsx';
import { useTyped } from '../parts/form/useTyped.ts';
import { useSample } from '../state/sample.tsx';
import { RECORDING_ACCEPTS } from './recordingFiles.ts';
import { Seen } from './Seen.tsx';
import { useCapture } from './useCapture.ts';
import { useRecording } from './useRecording.ts';

interface Form {
  kind: CaptureKind;
  supply: string;
  setupId: string;
  load: string;
  port: string;
  attached: Attached;
  rigId: string;
  note: string;
}

interface Props {
  readonly kinds: readonly CaptureKind[];
  readonly supplies: readonly Mains[];
  readonly onClose: () => void;
}

export function CaptureDialog({ kinds, supplies, onClose }: Props) {
  const { dossier } = useSample();
  const { add } = useCapture();
  const setups = dossier.setups.filter(({ purpose }) => purpose === 'efficiency');
  const ports = dossier.sample.model.ports.map(({ label }) => label);
  const form = useTyped<Form>({
    kind: kinds[0] ?? 'waveform',
    supply: mainsLabel(supplies[0] ?? { kind: 'dc', volts: 13.8 }),
    setupId: setups[0]?.id ?? '',
    load: '100',
    port: ports[0] ?? '',
    attached: 'nothing',
    rigId: setups[0]?.rigId ?? dossier.rigs[0]?.id ?? '',
    note: '',
  });
  const { control, values } = form;
  const { kind, rigId } = values;
  const mains = supplies.find((one) => mainsLabel(one) === values.supply);
  const recording = useRecording(mains ? { kind, mains } : null);
  const { file, seen } = recording;
  const [problem, setProblem] = useState<string | null>(null);
  const scopes = dossier.instruments.filter((one) => one.class === 'oscilloscope' && one.address !== null);
  const loaded = kind === 'waveform' || kind === 'sweep' || kind === 'dip';
  const atPort = kind === 'fading' || kind === 'dip' || kind === 'sweep';
  const keep = async (scopeId: string | null) => {
    const load = loaded ? typedSi(values.load, 'efficiency') : 0;
    if (!mains || load === null || Number.isNaN(load)) throw new Error('Give supply and load first.');
    const choice = {
      kind,
      mains,
      setupId: kind === 'waveform' && values.setupId ? values.setupId : null,
      load,
      port: atPort ? values.port : null,
      attached: kind === 'idle' ? values.attached : ('nothing' as const),
      rigId,
      source: file?.name ?? scopes.find(({ id }) => id === scopeId)?.name ?? '',
      note: values.note.trim(),
    };
    await add.mutateAsync({ choice, file: scopeId === null ? await recording.sent() : null, scopeId });
  };
  const needed = ['time', ...CAPTURE_COLUMNS[kind].map((name) => COLUMN_WORDS[name])].join(', ');
  const contradiction = seen?.ok && mains ? captureContradiction(mains, seen.figures) : null;
  return (
    <FormDialog
      title="Take in a capture"
      form={form}
      onSave={() => keep(null)}
      onClose={onClose}
      action="Keep"
      ready={file !== null && seen?.ok === true && contradiction === null && rigId !== ''}
      width="md"
      sx={{ gap: 2, gridTemplateColumns: 'repeat(3, minmax(0, 1fr))' }}
      more={
        <>
          {(kind === 'waveform' || kind === 'inrush') &&
            scopes.map(({ id, name }) => (
              <Button
                key={id}
                onClick={() => void keep(id).then(onClose, ({ message }: Error) => setProblem(message))}
                disabled={add.isPending || rigId === ''}
              >
                Take it from {name}
              </Button>
            ))}
          <FileButton
            label="Capture file"
            accept={RECORDING_ACCEPTS}
            multiple
            onFiles={(files) => {
              setProblem(null);
              recording.take(files);
            }}
            button={{ variant: 'outlined', sx: { mr: 'auto' } }}
          >
            {file ? 'Another file' : 'Choose a file'}
          </FileButton>
        </>
      }
    >
      <ChoiceInput
        control={control}
        name="kind"
        label="What was recorded"
        options={kinds.map((one) => ({ value: one, label: KIND_WORDS[one] }))}
      />
      <ChoiceInput control={control} name="supply" label="Supply" options={supplies.map(mainsLabel)} />
      <ChoiceInput
        control={control}
        name="rigId"
        label="Rig"
        options={dossier.rigs.map(({ id, name }) => ({ value: id, label: name }))}
      />
      {kind === 'waveform' && setups.length > 0 && (
        <ChoiceInput
          control={control}
          name="setupId"
          label="Loading"
          options={setups.map(({ id, name }) => ({ value: id, label: name }))}
        />
      )}
      {loaded && <QuantityInput control={control} name="load" label="Load, %" quantity="efficiency" />}
      {atPort && <ChoiceInput control={control} name="port" label="Port" options={ports} />}
      {kind === 'idle' && <ChoiceInput control={control} name="attached" label="Attached" options={ATTACHED} />}
      <TextInput control={control} name="note" label="Note" max={400} />
      <Typography variant="body2" color="text.secondary" sx={{ gridColumn: '1 / -1' }}>
        A file has {needsFixedRate(kind) ? 'evenly spaced ' : ''}lines with {needed}, in any dialect; units in the
        header, such as time [ms].
      </Typography>
      <Seen recording={recording} problem={problem ?? contradiction} />
    </FormDialog>
  );
}
