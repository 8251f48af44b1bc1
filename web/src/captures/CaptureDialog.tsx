// Takes in a capture: which kind, under which conditions, from a file or from the scope, looked at before it is kept.
import {
  CAPTURE_COLUMNS,
  type CaptureKind,
  COLUMN_WORDS,
  captureContradiction,
  captureSays,
  KIND_WORDS,
} from '@lastmark/core/capture';
import { ATTACHED, type Attached, type Mains, mainsLabel } from '@lastmark/core/reading';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { proxy, wrap } from 'comlink';
import { lazy, Suspense, useEffect, useState } from 'react';
import { FileButton } from '../parts/FileButton.tsx';
import { typedSi } from '../parts/fields.tsx';
import { FormDialog } from '../parts/form/FormDialog.tsx';
import { ChoiceInput, QuantityInput, TextInput } from '../parts/form/inputs.tsx';
import { useTyped } from '../parts/form/useTyped.ts';
import { Loading } from '../parts/QueryGate.tsx';
import { useSample } from '../state/sample.tsx';
import type { CapturePreview, CaptureWork } from '../workers/capture.worker.ts';
import { Reading } from './Reading.tsx';
import { useCapture } from './useCapture.ts';

const CaptureChart = lazy(async () => ({ default: (await import('./CaptureChart.tsx')).CaptureChart }));

/** A larger file is sent as its samples alone, which are read already. */
const SENT_WHOLE = 4 * 1024 * 1024;

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

function useWork() {
  const [{ worker, work }] = useState(() => {
    const started = new Worker(new URL('../workers/capture.worker.ts', import.meta.url), { type: 'module' });
    return { worker: started, work: wrap<CaptureWork>(started) };
  });
  useEffect(() => () => worker.terminate(), [worker]);
  return work;
}

export function CaptureDialog({ kinds, supplies, onClose }: Props) {
  const { dossier } = useSample();
  const work = useWork();
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
  const [file, setFile] = useState<File | null>(null);
  const [read, setRead] = useState(0);
  const [problem, setProblem] = useState<string | null>(null);
  const preview = useQuery({
    queryKey: ['capture-preview', kind, values.supply, file?.name, file?.size, file?.lastModified],
    enabled: file !== null && mains !== undefined,
    gcTime: 0,
    retry: false,
    queryFn: async (): Promise<CapturePreview> =>
      file && mains
        ? work.preview({ kind, mains }, file, proxy(setRead))
        : { ok: false, reason: 'Choose a supply first.' },
  });
  const scopes = dossier.instruments.filter((one) => one.class === 'oscilloscope' && one.address !== null);
  const loaded = kind === 'waveform' || kind === 'sweep' || kind === 'dip';
  const atPort = kind === 'fading' || kind === 'dip' || kind === 'sweep';
  const keep = async (chosen: File | null, scopeId: string | null) => {
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
    const samples = chosen && chosen.size > SENT_WHOLE ? await work.packed() : null;
    await add.mutateAsync({ choice, file: samples ? new Blob([samples as Uint8Array<ArrayBuffer>]) : chosen, scopeId });
  };
  const take = ([first]: readonly File[]) => {
    if (!first) return;
    setProblem(null);
    setRead(0);
    setFile(first);
  };
  const needed = ['time', ...CAPTURE_COLUMNS[kind].map((name) => COLUMN_WORDS[name])].join(', ');
  const seen = preview.data;
  const contradiction = seen?.ok && mains ? captureContradiction(mains, seen.figures) : null;
  const refused = problem ?? contradiction ?? (seen && !seen.ok ? seen.reason : null);
  return (
    <FormDialog
      title="Take in a capture"
      form={form}
      onSave={() => keep(file, null)}
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
                onClick={() => void keep(null, id).then(onClose, ({ message }: Error) => setProblem(message))}
                disabled={add.isPending || rigId === ''}
              >
                Take it from {name}
              </Button>
            ))}
          <FileButton
            label="Capture file"
            accept=".csv,.tsv,.txt"
            onFiles={take}
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
        A file has evenly spaced lines with {needed}, in any dialect; units in the header, such as time [ms].
      </Typography>
      {preview.isFetching && file && <Reading name={file.name} done={read} total={file.size} />}
      {seen?.ok && file && (
        <>
          <Alert severity="success" sx={{ gridColumn: '1 / -1' }}>
            {file.name}: {seen.samples} samples. {captureSays(seen.figures)} {seen.figures.findings.join(' ')}
          </Alert>
          <Suspense fallback={<Loading what="the chart" />}>
            <div style={{ gridColumn: '1 / -1' }}>
              <CaptureChart caption={file.name} columns={seen.columns} height={180} />
            </div>
          </Suspense>
        </>
      )}
      {refused && (
        <Alert severity="error" sx={{ gridColumn: '1 / -1' }}>
          {refused}
        </Alert>
      )}
    </FormDialog>
  );
}
