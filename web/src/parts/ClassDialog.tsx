// Overrides a derived nameplate class, with the reason that stays with it.
import { NAMEPLATE_CLASSES, type NameplateClass } from '@lastmark/core/limits';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useMutation } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { Choice } from './fields.tsx';

export interface ClassChoice {
  readonly nameplateClass: NameplateClass;
  readonly reason: string;
}

interface Props {
  readonly derived: { readonly nameplateClass: NameplateClass; readonly why: string };
  readonly chosen: ClassChoice | null;
  /** Where the reason is shown. */
  readonly stays: string;
  /** @param choice null takes the derived one */
  readonly onSave: (choice: ClassChoice | null) => Promise<void>;
  readonly onClose: () => void;
}

export function ClassDialog({ derived, chosen: before, stays, onSave, onClose }: Props) {
  const [chosen, setChosen] = useState<NameplateClass | 'derived'>(before?.nameplateClass ?? 'derived');
  const [reason, setReason] = useState(before?.reason ?? '');
  const save = useMutation({
    mutationFn: () => onSave(chosen === 'derived' ? null : { nameplateClass: chosen, reason: reason.trim() }),
    onSuccess: onClose,
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    save.mutate();
  };
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth aria-labelledby="class-title">
      <form onSubmit={submit} noValidate>
        <DialogTitle id="class-title">Nameplate class</DialogTitle>
        <DialogContent sx={{ display: 'grid', gap: 2, '&&': { pt: 1 } }}>
          <Typography>{derived.why}</Typography>
          <Choice
            label="Judged as"
            value={chosen}
            options={[
              { value: 'derived' as const, label: `derived: ${derived.nameplateClass}` },
              ...NAMEPLATE_CLASSES.map((one) => ({ value: one, label: one })),
            ]}
            onChange={setChosen}
          />
          {chosen !== 'derived' && (
            <TextField
              label="Why"
              required
              value={reason}
              onChange={(event) => setReason(event.target.value)}
              helperText={stays}
              slotProps={{ htmlInput: { maxLength: 300 } }}
            />
          )}
          {save.error && <Alert severity="error">{save.error.message}</Alert>}
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Cancel</Button>
          <Button
            type="submit"
            variant="contained"
            disabled={save.isPending || (chosen !== 'derived' && reason.trim() === '')}
          >
            Save
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
