// The frame of every run's form: title, caution, fields, and what the server says against it.
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import type { FormEvent, ReactNode } from 'react';
import { Caution } from '../../parts/Caution.tsx';
import { Choice } from '../../parts/fields.tsx';
import { useSample } from '../../state/sample.tsx';

/** What every run has. */
export interface RunHeadForm {
  readonly port: string;
  readonly rigId: string;
  readonly note: string;
}

export function useRunHead(): RunHeadForm {
  const { sample, rigs, points, runs } = useSample().dossier;
  const last = runs.at(-1)?.rigId ?? points.at(-1)?.rigId;
  return {
    port: sample.model.ports[0]?.label ?? '',
    rigId: rigs.find(({ id }) => id === last)?.id ?? rigs[0]?.id ?? '',
    note: '',
  };
}

interface Props {
  readonly title: string;
  readonly caution?: { readonly line: string; readonly more?: string };
  readonly head: RunHeadForm;
  readonly onHead: (part: Partial<RunHeadForm>) => void;
  readonly error: Error | null;
  readonly busy: boolean;
  readonly ready: boolean;
  readonly onSave: () => void;
  readonly onClose: () => void;
  readonly children: ReactNode;
}

export function RunDialog(props: Props) {
  const { title, caution, head, onHead, error, busy, ready, onSave, onClose, children } = props;
  const { sample, rigs } = useSample().dossier;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (ready) onSave();
  };
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth aria-labelledby="run-title">
      <form onSubmit={submit} noValidate>
        <DialogTitle id="run-title">{title}</DialogTitle>
        <DialogContent sx={{ display: 'grid', gap: 1.5, '&&': { pt: 1 } }}>
          {caution && <Caution {...caution} />}
          <Box sx={{ display: 'grid', gridTemplateColumns: '110px 1fr', gap: 1.5 }}>
            <Choice
              label="Port"
              value={head.port}
              options={sample.model.ports.map(({ label }) => label)}
              onChange={(port) => onHead({ port })}
            />
            <Choice
              label="Rig"
              value={head.rigId}
              options={rigs.map(({ id, name }) => ({ value: id, label: name }))}
              onChange={(rigId) => onHead({ rigId })}
            />
          </Box>
          {children}
          <TextField
            label="Note"
            value={head.note}
            onChange={(event) => onHead({ note: event.target.value })}
            slotProps={{ htmlInput: { maxLength: 400 } }}
          />
          {error && <Alert severity="error">{error.message}</Alert>}
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={busy || !ready}>
            Keep
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
