// Instrument profiles: what ships, and what this bench made.
import type { StoredInstrumentProfile } from '@lastmark/contract/types';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useMutation } from '@tanstack/react-query';
import { api } from '../api/client.ts';
import { refreshAll } from '../api/queries.ts';
import { FileButton } from '../parts/FileButton.tsx';
import { QuietTable } from '../parts/QuietTable.tsx';
import { saveFile } from '../parts/saveFile.ts';
import { profileFile, profileIn } from './profileForm.ts';

/** Commands shown of each. */
const SHOWN = 4;

interface Props {
  readonly items: readonly StoredInstrumentProfile[];
  readonly onOpen: (one: StoredInstrumentProfile) => void;
}

export function Profiles({ items, onOpen }: Props) {
  const takeIn = useMutation({
    mutationFn: async (file: File) =>
      api<StoredInstrumentProfile>('/instrument-profiles', { method: 'POST', body: profileIn(await file.text()) }),
    onSuccess: () => refreshAll(),
  });
  return (
    <>
      <QuietTable<StoredInstrumentProfile>
        label="Profiles"
        rows={items}
        rowKey={({ id }) => id}
        columns={[
          { head: 'Name', cell: ({ title }) => title },
          { head: 'Class', cell: (one) => one.class },
          {
            head: 'Commands',
            cell: ({ commands }) =>
              commands
                .slice(0, SHOWN)
                .map(({ command }) => command)
                .join(' · ') + (commands.length > SHOWN ? ` and ${commands.length - SHOWN} more` : ''),
            empty: 'none yet',
          },
          {
            head: '',
            cell: (one) => (
              <Box sx={{ whiteSpace: 'nowrap' }}>
                <Button
                  size="small"
                  onClick={() => saveFile(`${one.title}.json`, profileFile(one))}
                  aria-label={`Save ${one.title} as a file`}
                >
                  File
                </Button>
                <Button
                  size="small"
                  onClick={() => onOpen(one)}
                  aria-label={`${one.builtIn ? 'Copy' : 'Change'} ${one.title}`}
                >
                  {one.builtIn ? 'Copy' : 'Change'}
                </Button>
              </Box>
            ),
          },
        ]}
      />
      <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', p: 1 }}>
        <FileButton
          label="File of a profile"
          accept=".json,application/json"
          onFiles={([file]) => file && takeIn.mutate(file)}
        >
          Take in a profile
        </FileButton>
        <Box role="status" sx={{ fontSize: 14 }}>
          {takeIn.isSuccess && `"${takeIn.data.title}" is kept. Nothing was sent anywhere.`}
        </Box>
        {takeIn.error && <Alert severity="error">{takeIn.error.message}</Alert>}
      </Box>
    </>
  );
}
