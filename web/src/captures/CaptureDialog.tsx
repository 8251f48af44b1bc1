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
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { wrap } from 'comlink';
import { lazy, Suspense, useEffect, useState } from 'react';
import { FileButton } from '../parts/FileButton.tsx';
import { Choice, QuantityField, typedSi } from '../parts/fields.tsx';
import { Loading } from '../parts/QueryGate.tsx';
import { useSample } from '../state/sample.tsx';
import type { CapturePreview, CaptureWork } from '../workers/capture.worker.ts';
import { useCapture } from './useCapture.ts';

const CaptureChart = lazy(async () => ({ default: (await import('./CaptureChart.tsx')).CaptureChart }));

/** Largest file taken, bytes. */
const LARGEST = 48 * 1024 * 1024;

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
  const [kind, setKind] = useState<CaptureKind>(kinds[0] ?? 'waveform');
  const [label, setLabel] = useState(mainsLabel(supplies[0] ?? { kind: 'dc', volts: 13.8 }));
  const [setupId, setSetupId] = useState(setups[0]?.id ?? '');
  const [load, setLoad] = useState('100');
  const [port, setPort] = useState(ports[0] ?? '');
  const [attached, setAttached] = useState<Attached>('nothing');
  const [rigId, setRigId] = useState(setups[0]?.rigId ?? dossier.rigs[0]?.id ?? '');
  const [note, setNote] = useState('');
  const [file, setFile] = useState<{ name: string; text: string } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const preview = useQuery({
    queryKey: ['capture-preview', kind, file?.name, file?.text.length],
    enabled: file !== null,
    gcTime: 0,
    retry: false,
    queryFn: async (): Promise<CapturePreview> => work.preview(kind, file?.text ?? ''),
  });
  const scopes = dossier.instruments.filter((one) => one.class === 'oscilloscope' && one.address !== null);
  const loaded = kind === 'waveform' || kind === 'sweep' || kind === 'dip';
  const atPort = kind === 'fading' || kind === 'dip' || kind === 'sweep';
  const mains = supplies.find((one) => mainsLabel(one) === label);
  const keep = (text: string | null, scopeId: string | null) => {
    const share = loaded ? typedSi(load, 'efficiency') : 0;
    if (!mains || share === null || Number.isNaN(share)) return setProblem('Give supply and load first.');
    setProblem(null);
    add.mutate(
      {
        choice: {
          kind,
          mains,
          setupId: kind === 'waveform' && setupId ? setupId : null,
          load: share,
          port: atPort ? port : null,
          attached: kind === 'idle' ? attached : 'nothing',
          rigId,
          source: file?.name ?? scopes.find(({ id }) => id === scopeId)?.name ?? '',
          note: note.trim(),
        },
        text,
        scopeId,
      },
      { onSuccess: onClose },
    );
  };
  const take = async ([first]: readonly File[]) => {
    if (!first) return;
    if (first.size > LARGEST) return setProblem(`${first.name} is larger than 48 MB. Cut it, or sample slower.`);
    setProblem(null);
    setFile({ name: first.name, text: await first.text() });
  };
  const needed = ['time', ...CAPTURE_COLUMNS[kind].map((name) => COLUMN_WORDS[name])].join(', ');
  const seen = preview.data;
  const contradiction = seen?.ok && mains ? captureContradiction(mains, seen.figures) : null;
  return (
    <Dialog open onClose={onClose} maxWidth="md" fullWidth aria-labelledby="capture-title">
      <DialogTitle id="capture-title">Take in a capture</DialogTitle>
      <DialogContent
        sx={{ display: 'grid', gap: 2, gridTemplateColumns: 'repeat(3, minmax(0, 1fr))', '&&': { pt: 1 } }}
      >
        <Choice
          label="What was recorded"
          value={kind}
          options={kinds.map((one) => ({ value: one, label: KIND_WORDS[one] }))}
          onChange={setKind}
        />
        <Choice label="Supply" value={label} options={supplies.map(mainsLabel)} onChange={setLabel} />
        <Choice
          label="Rig"
          value={rigId}
          options={dossier.rigs.map(({ id, name }) => ({ value: id, label: name }))}
          onChange={setRigId}
        />
        {kind === 'waveform' && setups.length > 0 && (
          <Choice
            label="Loading"
            value={setupId}
            options={setups.map(({ id, name }) => ({ value: id, label: name }))}
            onChange={setSetupId}
          />
        )}
        {loaded && <QuantityField label="Load, %" quantity="efficiency" value={load} onChange={setLoad} />}
        {atPort && <Choice label="Port" value={port} options={ports} onChange={setPort} />}
        {kind === 'idle' && <Choice label="Attached" value={attached} options={ATTACHED} onChange={setAttached} />}
        <TextField
          label="Note"
          value={note}
          onChange={(event) => setNote(event.target.value)}
          slotProps={{ htmlInput: { maxLength: 400 } }}
        />
        <Typography variant="body2" color="text.secondary" sx={{ gridColumn: '1 / -1' }}>
          A file has a header line and evenly spaced lines with {needed}; units in the header, such as time [ms].
        </Typography>
        {preview.isFetching && <Typography sx={{ gridColumn: '1 / -1' }}>Reading {file?.name} …</Typography>}
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
        {(problem || contradiction || (seen && !seen.ok) || add.error) && (
          <Alert severity="error" sx={{ gridColumn: '1 / -1' }}>
            {problem ?? contradiction ?? (seen && !seen.ok ? seen.reason : add.error?.message)}
          </Alert>
        )}
      </DialogContent>
      <DialogActions>
        {(kind === 'waveform' || kind === 'inrush') &&
          scopes.map(({ id, name }) => (
            <Button
              key={id}
              onClick={() => keep(null, id)}
              disabled={add.isPending || rigId === ''}
              sx={{ mr: 'auto' }}
            >
              Take it from {name}
            </Button>
          ))}
        <Button onClick={onClose}>Cancel</Button>
        <FileButton
          label="Capture file"
          accept=".csv,.tsv,.txt"
          onFiles={(files) => void take(files)}
          button={{ variant: 'outlined' }}
        >
          {file ? 'Another file' : 'Choose a file'}
        </FileButton>
        <Button
          variant="contained"
          disabled={!file || !seen?.ok || contradiction !== null || add.isPending || rigId === ''}
          onClick={() => keep(file?.text ?? null, null)}
        >
          Keep
        </Button>
      </DialogActions>
    </Dialog>
  );
}
