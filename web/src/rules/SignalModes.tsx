// Names of signalling outside PD: the built-in ones, and those this bench adds.
import type { StoredProfile } from '@lastmark/contract/types';
import { allModes, SIGNAL_MODES } from '@lastmark/core/signal';
import type { Profile } from '@lastmark/core/verdict';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useMutation } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { api, versionTag } from '../api/client.ts';
import { refreshAll } from '../api/queries.ts';
import { QuietTable } from '../parts/QuietTable.tsx';

const idOf = (title: string): string =>
  title
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 34);

export function SignalModes({ profile }: { readonly profile: StoredProfile }) {
  const [title, setTitle] = useState('');
  const [how, setHow] = useState('');
  const save = useMutation({
    mutationFn: (signalModes: Profile['signalModes']) => {
      const { version: _, ...rest } = profile;
      return api('/profile', { method: 'PUT', body: { ...rest, signalModes }, ifMatch: versionTag(profile) });
    },
    onSuccess: async () => {
      setTitle('');
      setHow('');
      await refreshAll();
    },
  });
  const modes = allModes(profile.signalModes);
  const own = (id: string) => profile.signalModes.some((mode) => mode.id === id);
  const id = `own-${idOf(title)}`;
  const taken = modes.some((mode) => mode.id === id || mode.title.toLowerCase() === title.trim().toLowerCase());
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (title.trim() && how.trim() && !taken)
      save.mutate([...profile.signalModes, { id, title: title.trim(), how: how.trim() }]);
  };
  return (
    <Box component="section" aria-labelledby="signal-modes" sx={{ mt: 4 }}>
      <Typography variant="h2" id="signal-modes">
        Signalling outside PD
      </Typography>
      <Typography variant="body2" color="text.secondary" sx={{ mb: 1 }}>
        Named by how it works. {SIGNAL_MODES.length} are built in; add what your analyser can tell apart.
      </Typography>
      <QuietTable
        label="Signalling names"
        rows={modes}
        rowKey={(mode) => mode.id}
        columns={[
          { head: 'Name', cell: (mode) => mode.title },
          { head: 'How it works', cell: (mode) => mode.how },
          {
            head: 'Added here',
            cell: (mode) =>
              own(mode.id) ? (
                <Button
                  size="small"
                  aria-label={`Remove ${mode.title}`}
                  onClick={() => save.mutate(profile.signalModes.filter((one) => one.id !== mode.id))}
                >
                  Remove
                </Button>
              ) : null,
            empty: 'built in',
          },
        ]}
      />
      <Box
        component="form"
        onSubmit={submit}
        noValidate
        aria-label="Add a mode"
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '1fr', md: '260px 1fr auto' },
          gap: 1.5,
          mt: 1.5,
          alignItems: 'start',
        }}
      >
        <TextField
          label="Name"
          value={title}
          error={title.trim() !== '' && taken}
          helperText={title.trim() !== '' && taken ? 'There is one of this name.' : ' '}
          onChange={(event) => setTitle(event.target.value)}
          slotProps={{ htmlInput: { maxLength: 60 } }}
        />
        <TextField
          label="How it works"
          value={how}
          helperText=" "
          onChange={(event) => setHow(event.target.value)}
          slotProps={{ htmlInput: { maxLength: 200 } }}
        />
        <Button
          type="submit"
          variant="outlined"
          sx={{ height: 40 }}
          disabled={save.isPending || !title.trim() || !how.trim() || taken}
        >
          Add a mode
        </Button>
      </Box>
      {save.error && <Alert severity="error">{save.error.message}</Alert>}
    </Box>
  );
}
