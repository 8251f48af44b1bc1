// The question of the door, asked once per browser of a server that is open to the network: the token that was printed where it was started.
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useMutation } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { api } from '../api/client.ts';

export function DoorDialog() {
  const [token, setToken] = useState('');
  const enter = useMutation({
    mutationFn: () => api<void>('/door', { method: 'POST', body: { token: token.trim() } }),
    // Everything is asked for anew, the live numbers included.
    onSuccess: () => window.location.reload(),
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (token.trim()) enter.mutate();
  };
  return (
    <Dialog open maxWidth="xs" fullWidth aria-labelledby="door-title">
      <form onSubmit={submit} noValidate>
        <DialogTitle id="door-title">This bench is open to the network</DialogTitle>
        <DialogContent sx={{ display: 'grid', gap: 2 }}>
          <Typography>
            Whoever is let in can switch loads and mains. Type the token that was printed where Lastmark was started;
            this browser is asked once.
          </Typography>
          <TextField
            label="Token"
            autoFocus
            value={token}
            onChange={(event) => setToken(event.target.value)}
            error={enter.error !== null}
            helperText={enter.error?.message ?? ' '}
            slotProps={{ htmlInput: { autoComplete: 'off', spellCheck: false, maxLength: 200 } }}
          />
        </DialogContent>
        <DialogActions>
          <Button type="submit" variant="contained" disabled={enter.isPending || token.trim() === ''}>
            Let me in
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
