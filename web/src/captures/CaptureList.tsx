// Captures of some kinds, the newest first: what each shows, its trace on demand, and taking it back.
import { type Capture, type CaptureKind, captureSays, currentCaptures, KIND_WORDS } from '@lastmark/core/capture';
import { type Mains, mainsLabel } from '@lastmark/core/reading';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { lazy, useState } from 'react';
import { apiUrl } from '../api/world.ts';
import { figureHeight } from '../parts/heights.ts';
import { Later } from '../parts/Later.tsx';
import { useNotify } from '../state/notices.tsx';
import { useSample } from '../state/sample.tsx';
import { CaptureDialog } from './CaptureDialog.tsx';
import { TraceGate } from './TraceGate.tsx';
import { useCapture } from './useCapture.ts';

const CaptureChart = lazy(async () => ({ default: (await import('./CaptureChart.tsx')).CaptureChart }));
const Harmonics = lazy(async () => ({ default: (await import('./Harmonics.tsx')).Harmonics }));

const BUCKETS = 800;
const TRACE_HEIGHT = 220;
const HARMONICS_HEIGHT = 180;

function Trace({ capture, caption }: { readonly capture: Capture; readonly caption: string }) {
  const room = figureHeight(TRACE_HEIGHT) + (capture.figures.kind === 'waveform' ? figureHeight(HARMONICS_HEIGHT) : 0);
  return (
    <TraceGate id={capture.id} buckets={BUCKETS} what="the trace" height={room}>
      {({ columns }) => (
        <Later what="the chart" height={room}>
          <CaptureChart caption={caption} columns={columns} height={TRACE_HEIGHT} />
          {capture.figures.kind === 'waveform' && (
            <Harmonics figures={capture.figures} caption={caption} height={HARMONICS_HEIGHT} />
          )}
        </Later>
      )}
    </TraceGate>
  );
}

/** Under which conditions, in a few words. */
function conditions({ kind, mains, load, port, attached, setupId }: Capture, nameOf: (id: string) => string): string {
  return [
    mainsLabel(mains),
    setupId ? `${nameOf(setupId)}, ${Math.round(load * 100)} %` : load > 0 ? `${Math.round(load * 100)} % load` : '',
    port ?? '',
    kind === 'idle' ? `${attached} attached` : '',
  ]
    .filter(Boolean)
    .join(', ');
}

interface Props {
  readonly kinds: readonly CaptureKind[];
  readonly supplies: readonly Mains[];
  /** What to do first when there is none. */
  readonly empty: string;
}

export function CaptureList({ kinds, supplies, empty }: Props) {
  const { dossier } = useSample();
  const notify = useNotify();
  const { takeBack } = useCapture();
  const [adding, setAdding] = useState(false);
  const [open, setOpen] = useState<string | null>(null);
  const { sample } = dossier;
  const own = [...currentCaptures(dossier.captures)].filter(({ kind }) => kinds.includes(kind)).reverse();
  const nameOf = (id: string) => dossier.setups.find((one) => one.id === id)?.name ?? 'a loading';
  return (
    <Box>
      {own.length === 0 && (
        <Typography color="text.secondary" sx={{ mb: 1 }}>
          {empty}
        </Typography>
      )}
      {own.map((capture) => {
        const at = conditions(capture, nameOf);
        const shown = open === capture.id;
        return (
          <Box key={capture.id} sx={{ borderTop: 1, borderColor: 'divider', py: 1 }}>
            <Box sx={{ display: 'flex', gap: 1, alignItems: 'baseline' }}>
              <Box sx={{ flex: 1, minWidth: 0 }}>
                <Box sx={{ fontWeight: 600 }}>{captureSays(capture.figures)}</Box>
                <Box sx={{ fontSize: 13, color: 'text.secondary' }}>
                  {KIND_WORDS[capture.kind]}, {at}, {capture.takenAt.slice(0, 10)}
                  {capture.source ? `, ${capture.source}` : ''}
                  {capture.note ? `. ${capture.note}` : ''}
                </Box>
                {capture.figures.findings.map((finding) => (
                  <Box key={finding} sx={{ fontSize: 13, color: 'warning.main' }}>
                    {finding}
                  </Box>
                ))}
              </Box>
              <Button size="small" aria-expanded={shown} onClick={() => setOpen(shown ? null : capture.id)}>
                {shown ? 'Hide' : 'Show'}
              </Button>
              <Button size="small" component="a" href={apiUrl(`/captures/${capture.id}/trace.csv`)}>
                CSV
              </Button>
              <Button
                size="small"
                color="error"
                disabled={takeBack.isPending}
                onClick={() => takeBack.mutate(capture, { onError: (error) => notify(error.message) })}
              >
                Take back
              </Button>
            </Box>
            {shown && (
              <Box sx={{ mt: 1, display: 'grid', gap: 1 }}>
                <Trace
                  capture={capture}
                  caption={`${sample.model.maker} ${sample.model.model}, unit ${sample.tag}: ${KIND_WORDS[capture.kind]}, ${at}`}
                />
              </Box>
            )}
          </Box>
        );
      })}
      <Button variant="outlined" sx={{ mt: 1 }} onClick={() => setAdding(true)} disabled={dossier.rigs.length === 0}>
        Take in a capture
      </Button>
      {adding && <CaptureDialog kinds={kinds} supplies={supplies} onClose={() => setAdding(false)} />}
    </Box>
  );
}
