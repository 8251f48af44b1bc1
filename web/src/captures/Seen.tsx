// What was read of a file before it is kept: how far, what it says, its picture, or why it cannot be taken.
import { captureSays } from '@lastmark/core/capture';
import Alert from '@mui/material/Alert';
import { lazy } from 'react';
import { figureHeight } from '../parts/heights.ts';
import { Later } from '../parts/Later.tsx';
import { ColumnsRead } from './ColumnsRead.tsx';
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

export function Seen({ recording, problem = null }: Props) {
  const { file, read, reading, seen } = recording;
  const refused = problem ?? (seen && !seen.ok ? `${file ? `${file.name}: ` : ''}${seen.reason}` : null);
  return (
    <>
      {reading && file && <Reading name={file.name} done={read} total={file.size} />}
      <ColumnsRead recording={recording} />
      {seen?.ok && file && (
        <>
          <Alert severity="success" sx={WHOLE}>
            {file.name}: {seen.samples} samples. {captureSays(seen.figures)} {seen.figures.findings.join(' ')}
          </Alert>
          <div style={WHOLE}>
            <Later what="the picture" height={figureHeight(HEIGHT)}>
              <CaptureChart caption={file.name} columns={seen.columns} height={HEIGHT} />
            </Later>
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
