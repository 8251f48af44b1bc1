// Overrides the derived nameplate class, with the reason that stays with the loading.
import type { StoredSetup } from '@lastmark/contract/types';
import { type DerivedClass, NAMEPLATE_CLASSES, type NameplateClass } from '@lastmark/core/limits';
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
import { api, versionTag } from '../../api/client.ts';
import { refreshSample } from '../../api/queries.ts';
import { useOnBench } from '../../app/bench.tsx';
import { Choice } from '../../parts/fields.tsx';

interface Props {
  readonly setup: StoredSetup;
  readonly derived: DerivedClass;
  readonly onClose: () => void;
}

export function ClassDialog({ setup, derived, onClose }: Props) {
  const { sample } = useOnBench().dossier;
  const [chosen, setChosen] = useState<NameplateClass | 'derived'>(setup.nameplateClass ?? 'derived');
  const [reason, setReason] = useState(setup.classReason ?? '');
  const save = useMutation({
    mutationFn: () => {
      const { id, version, ...input } = setup;
      const own = chosen !== 'derived';
      const body = { ...input, nameplateClass: own ? chosen : null, classReason: own ? reason.trim() : null };
      return api(`/setups/${id}`, { method: 'PUT', body, ifMatch: versionTag({ version }) });
    },
    onSuccess: async () => {
      await refreshSample(sample.id);
      onClose();
    },
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
              helperText="Stays with the loading and is shown beside its limits."
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
