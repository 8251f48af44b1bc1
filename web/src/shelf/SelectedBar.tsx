// What is done with several samples at once: labels, archive, a comparison; each filing can be undone.
import type { Filing, SampleRow } from '@lastmark/contract/types';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { apiUrl, PRACTISING } from '../api/world.ts';
import { useNotify } from '../state/notices.tsx';

interface Props {
  readonly selected: readonly SampleRow[];
  /** Whether archived ones are shown: they are brought back then. */
  readonly archived: boolean;
  readonly onDone: () => void;
}

const file = (filings: readonly Filing[]) =>
  api<{ before: Filing[] }>('/filings', { method: 'POST', body: { filings: [...filings] } });
const refresh = () => queryClient.invalidateQueries({ queryKey: ['samples'] });

export function SelectedBar({ selected, archived, onDone }: Props) {
  const notify = useNotify();
  const navigate = useNavigate();
  const [label, setLabel] = useState('');
  const undo = async (before: readonly Filing[]) => {
    await file(before);
    await refresh();
  };
  const change = useMutation({
    mutationFn: async ({ said, of }: { said: string; of: (row: SampleRow) => Filing }) => {
      const { before } = await file(selected.map(of));
      await refresh();
      notify(said, () => void undo(before));
    },
    onError: (error) => notify(error.message),
  });
  const many = selected.length === 1 ? 'One sample' : `${selected.length} samples`;
  const typed = label.trim();
  const none = selected.length === 0 || change.isPending;
  const labelled = (add: boolean) => {
    change.mutate({
      said: `${many}: ${add ? 'labelled' : 'no longer labelled'} ${typed}.`,
      of: ({ id, labels, archived: put }) => ({
        id,
        labels: add ? [...new Set([...labels, typed])] : labels.filter((one) => one !== typed),
        archived: put,
      }),
    });
    setLabel('');
  };
  return (
    <Box
      role="region"
      aria-label="Selected"
      sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, alignItems: 'center', mb: 1.5 }}
    >
      <Typography role="status" sx={{ fontWeight: 600, minWidth: 110 }}>
        {selected.length === 0 ? 'None selected' : many}
      </Typography>
      <TextField
        label="Label"
        value={label}
        onChange={(event) => setLabel(event.target.value)}
        slotProps={{ htmlInput: { maxLength: 40 } }}
        sx={{ width: 160 }}
      />
      <Button disabled={none || typed === ''} onClick={() => labelled(true)}>
        Add label
      </Button>
      <Button disabled={none || typed === ''} onClick={() => labelled(false)}>
        Take label away
      </Button>
      <Button
        disabled={none}
        onClick={() =>
          change.mutate({
            said: `${many}: ${archived ? 'back on the shelf' : 'archived'}.`,
            of: ({ id, labels }) => ({ id, labels, archived: !archived }),
          })
        }
      >
        {archived ? 'Bring back' : 'Archive'}
      </Button>
      <Button
        disabled={selected.length < 2}
        onClick={() => void navigate('/compare/new', { state: { picks: selected.map(({ id }) => id) } })}
      >
        Compare them
      </Button>
      <Button
        component="a"
        href={apiUrl(`/study.zip?samples=${selected.map(({ id }) => id).join(',')}`)}
        disabled={PRACTISING || selected.length === 0}
      >
        Package
      </Button>
      <Button onClick={onDone} sx={{ ml: 'auto' }}>
        Done
      </Button>
    </Box>
  );
}
