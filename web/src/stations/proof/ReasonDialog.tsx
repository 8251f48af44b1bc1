// A step beyond the rating of the line: refused, unless someone gives a reason that stays with the reading.
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { type FormEvent, useState } from 'react';
import { Caution } from '../../parts/Caution.tsx';

interface Props {
  readonly step: string;
  readonly refusal: string;
  readonly onGive: (reason: string) => void;
  readonly onClose: () => void;
}

export function ReasonDialog({ step, refusal, onGive, onClose }: Props) {
  const [reason, setReason] = useState('');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (reason.trim()) onGive(reason.trim());
  };
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth aria-labelledby="reason-title">
      <form onSubmit={submit} noValidate>
        <DialogTitle id="reason-title">Beyond the line: {step}</DialogTitle>
        <DialogContent sx={{ display: 'grid', gap: 1.5, '&&': { pt: 1 } }}>
          <Typography>{refusal}</Typography>
          <Caution
            line="A line carrying more than it is rated for heats, first at the plugs. Keep it to seconds and stay beside it."
            more="Lay it open, not coiled or covered; stop at smell, smoke or softening. Take a line that carries the current if there is one."
          />
          <TextField
            label="Reason"
            autoFocus
            required
            value={reason}
            onChange={(event) => setReason(event.target.value)}
            slotProps={{ htmlInput: { maxLength: 300 } }}
            helperText="It is kept with the reading and shown with the result."
          />
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={reason.trim() === ''}>
            Go beyond
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
