// What was read of a file before it is kept: how far, what it says, its picture, or why it cannot be taken.
import { captureSays } from '@lastmark/core/capture';
import Alert from '@mui/material/Alert';
import { lazy, Suspense } from 'react';
import { figureHeight } from '../parts/heights.ts';
import { Reading } from './Reading.tsx';
import type { Recording } from './useRecording.ts';

const CaptureChart = lazy(async () => ({ default: (await import('./CaptureChart.tsx')).CaptureChart }));

interface Props {
  readonly recording: Recording;
  /** What else speaks against it. */
  readonly problem?: string | null;
}

const WHOLE = { gridColumn: '1 / -1' } as const;
const HEIGHT = 180;
/** The room of the picture with its frame is kept while it comes: what stands below it stays under the finger. */
const PICTURE = { ...WHOLE, minHeight: figureHeight(HEIGHT) } as const;

export function Seen({ recording: { file, read, reading, seen }, problem = null }: Props) {
  const refused = problem ?? (seen && !seen.ok ? `${file ? `${file.name}: ` : ''}${seen.reason}` : null);
  return (
    <>
      {reading && file && <Reading name={file.name} done={read} total={file.size} />}
      {seen?.ok && file && (
        <>
          <Alert severity="success" sx={WHOLE}>
            {file.name}: {seen.samples} samples. {captureSays(seen.figures)} {seen.figures.findings.join(' ')}
          </Alert>
          <div style={PICTURE}>
            <Suspense fallback={null}>
              <CaptureChart caption={file.name} columns={seen.columns} height={HEIGHT} />
            </Suspense>
          </div>
        </>
      )}
      {refused && (
        <Alert severity="error" sx={WHOLE}>
          {refused}
        </Alert>
      )}
    </>
  );
}
