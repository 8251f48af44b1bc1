// A profile: the command of every action of a class. What ships is copied; a copy is changed.
import type { InstrumentProfileInput, StoredInstrumentProfile } from '@lastmark/contract/types';
import { ACTIONS, profileProblems } from '@lastmark/core/instrument';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useMutation } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { api, versionTag } from '../api/client.ts';
import { refreshAll } from '../api/queries.ts';

interface Props {
  readonly profile: StoredInstrumentProfile;
  readonly onClose: () => void;
}

export function ProfileDialog({ profile, onClose }: Props) {
  const [title, setTitle] = useState(profile.builtIn ? `${profile.title}, copy` : profile.title);
  const [commands, setCommands] = useState<Readonly<Record<string, string>>>(
    Object.fromEntries(profile.commands.map(({ action, command }) => [action, command])),
  );
  const filled = Object.fromEntries(Object.entries(commands).filter(([, command]) => command.trim() !== ''));
  const problems = profileProblems({ title, class: profile.class, commands: filled });
  const save = useMutation({
    mutationFn: () => {
      const body: InstrumentProfileInput = {
        title: title.trim(),
        class: profile.class,
        commands: Object.entries(filled).map(([action, command]) => ({ action, command: command.trim() })),
      };
      return profile.builtIn
        ? api('/instrument-profiles', { method: 'POST', body })
        : api(`/instrument-profiles/${profile.id}`, { method: 'PUT', body, ifMatch: versionTag(profile) });
    },
    onSuccess: async () => {
      await refreshAll();
      onClose();
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (problems.length === 0 && title.trim()) save.mutate();
  };
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth aria-labelledby="profile-title">
      <form onSubmit={submit} noValidate>
        <DialogTitle id="profile-title">
          {profile.builtIn ? 'Copy the profile' : 'Change the profile'}: {profile.class}
        </DialogTitle>
        <DialogContent sx={{ display: 'grid', gap: 1.5, '&&': { pt: 1 } }}>
          <TextField
            label="Name"
            required
            value={title}
            onChange={(event) => setTitle(event.target.value)}
            slotProps={{ htmlInput: { maxLength: 80 } }}
          />
          <Typography variant="body2" color="text.secondary">
            Values stand in braces, in SI: CURR {'{amps}'}. Leave an action empty that the instrument cannot do.
          </Typography>
          {Object.entries(ACTIONS[profile.class]).map(([action, shape]) => (
            <Box key={action} sx={{ display: 'grid', gridTemplateColumns: '1fr 1.2fr', gap: 1, alignItems: 'center' }}>
              <span>
                {shape.title}
                {shape.takes.length > 0 && (
                  <Box component="span" sx={{ color: 'text.secondary' }}>
                    {' '}
                    {shape.takes.map((name) => `{${name}}`).join(' ')}
                  </Box>
                )}
              </span>
              <TextField
                value={commands[action] ?? ''}
                onChange={(event) => setCommands((before) => ({ ...before, [action]: event.target.value }))}
                slotProps={{
                  htmlInput: { 'aria-label': `Command to ${shape.title}`, maxLength: 200, spellCheck: false },
                }}
              />
            </Box>
          ))}
          {problems.map((problem) => (
            <Alert key={problem} severity="warning">
              {problem}
            </Alert>
          ))}
          {save.error && <Alert severity="error">{save.error.message}</Alert>}
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={save.isPending || problems.length > 0 || !title.trim()}>
            {profile.builtIn ? 'Keep the copy' : 'Save'}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
