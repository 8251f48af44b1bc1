// A step is left out with a reason, which the record keeps.
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import { type FormEvent, useState } from 'react';

interface Props {
  readonly title: string;
  readonly heading?: string;
  readonly label?: string;
  readonly action?: string;
  readonly onSkip: (reason: string) => void;
  readonly onClose: () => void;
}

export function SkipDialog({
  title,
  heading = 'Leave out',
  label = 'Reason',
  action = 'Leave it out',
  onSkip,
  onClose,
}: Props) {
  const [reason, setReason] = useState('');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (reason.trim()) onSkip(reason.trim());
  };
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth aria-labelledby="skip-title">
      <form onSubmit={submit} noValidate>
        <DialogTitle id="skip-title">
          {heading}: {title}
        </DialogTitle>
        <DialogContent sx={{ '&&': { pt: 1 } }}>
          <TextField
            label={label}
            autoFocus
            required
            value={reason}
            onChange={(event) => setReason(event.target.value)}
            slotProps={{ htmlInput: { maxLength: 200 } }}
          />
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={reason.trim() === ''}>
            {action}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
