// A spreadsheet of samples: chosen, looked at with its columns, taken in.
import type { ButtonProps } from '@mui/material/Button';
import { lazy, Suspense, useState } from 'react';
import { FileButton } from '../../parts/FileButton.tsx';

const SampleListDialog = lazy(async () => ({ default: (await import('./SampleListDialog.tsx')).SampleListDialog }));

export function SpreadsheetIn({ button = { variant: 'outlined' } }: { readonly button?: ButtonProps }) {
  const [file, setFile] = useState<File | null>(null);
  return (
    <>
      <FileButton
        label="List of samples"
        accept=".csv,.tsv,.txt"
        onFiles={([one]) => setFile(one ?? null)}
        button={button}
      >
        Take in a spreadsheet
      </FileButton>
      {file && (
        <Suspense fallback={null}>
          <SampleListDialog file={file} onClose={() => setFile(null)} />
        </Suspense>
      )}
    </>
  );
}
