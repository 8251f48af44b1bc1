// The intake of the sample on the bench, edited in place.
import type { Sample } from '@lastmark/contract/types';
import type { FieldError } from '@lastmark/contract/validate';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useMutation } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { useNavigate } from 'react-router';
import { ApiProblem, api } from '../../api/client.ts';
import { queryClient, refreshSample } from '../../api/queries.ts';
import { SamplePlace } from '../../collections/PlaceField.tsx';
import { Ask } from '../../parts/Ask.tsx';
import { Attachments } from '../../parts/Attachments.tsx';
import { useDraft } from '../../parts/useDraft.ts';
import { useNotify } from '../../state/notices.tsx';
import { useSample } from '../../state/sample.tsx';
import { ConflictDialog } from './ConflictDialog.tsx';
import { EMPTY_UNIT, formMessage, fromForm, type IntakeForm, toForm } from './form.ts';
import { IntakeFields, Section } from './IntakeFields.tsx';

interface Draft {
  readonly form: IntakeForm;
  /** Version the form started from, so that an old draft cannot overwrite a newer save unseen. */
  readonly etag: string;
}

function useUnits(sample: Sample) {
  const navigate = useNavigate();
  const notify = useNotify();
  const addUnit = useMutation({
    mutationFn: () => api<Sample>(`/samples/${sample.id}/units`, { method: 'POST', body: { unit: EMPTY_UNIT } }),
    onSuccess: async ({ id, tag }) => {
      await queryClient.invalidateQueries();
      notify(`Unit ${tag} taken in. Type its serial.`);
      // At once: nobody types into the page of one unit under the address of another.
      void navigate(`/samples/${id}/intake`, { flushSync: true });
    },
    onError: (error) => notify(error.message),
  });
  const remove = useMutation({
    mutationFn: () => api<void>(`/samples/${sample.id}`, { method: 'DELETE', ifMatch: sample.etag }),
    onSuccess: async () => {
      await queryClient.invalidateQueries({ queryKey: ['samples'] });
      void navigate('/');
    },
    onError: (error) => notify(error.message),
  });
  return { addUnit, remove };
}

const counted = (count: number, what: string): string => `${count} ${what}${count === 1 ? '' : 's'}`;

export function IntakePage() {
  const { dossier } = useSample();
  const { sample } = dossier;
  const measured = [
    { count: dossier.points.length, what: 'point' },
    { count: dossier.readOuts.length, what: 'read-out' },
    { count: dossier.runs.length + dossier.cableRuns.length, what: 'run' },
    { count: dossier.captures.length, what: 'capture' },
  ].filter(({ count }) => count > 0);
  const one = measured.length === 1 && measured[0]?.count === 1;
  const standing = measured.map(({ count, what }) => counted(count, what)).join(', ');
  const claims = sample.units.length > 1 ? '' : ` and ${counted(dossier.claims.length, 'claim')}`;
  const gone = `This unit of ${sample.model.model}, its files${claims} go`;
  const notify = useNotify();
  const { value, set, clear, restored } = useDraft<Draft>(`intake-${sample.id}`, {
    form: toForm(sample),
    etag: sample.etag,
  });
  const [changed, setChanged] = useState(restored);
  const [errors, setErrors] = useState<readonly FieldError[]>([]);
  const { addUnit, remove } = useUnits(sample);
  // Until something is typed the form follows what is stored.
  const { form, etag } = changed ? value : { form: toForm(sample), etag: sample.etag };
  const change = (next: IntakeForm) => {
    setChanged(true);
    set({ form: next, etag });
  };
  const settle = () => {
    clear();
    setChanged(false);
    setErrors([]);
  };
  const save = useMutation({
    mutationFn: (over: string) => {
      const result = fromForm(form);
      if ('errors' in result)
        throw new ApiProblem({
          type: '',
          title: '',
          status: 422,
          detail: 'Some fields are wrong.',
          errors: [...result.errors],
        });
      return api<Sample>(`/samples/${sample.id}`, { method: 'PUT', body: result.input, ifMatch: over });
    },
    onSuccess: async () => {
      await refreshSample(sample.id);
      settle();
      notify('Saved.');
    },
    onError: (error) => setErrors((error instanceof ApiProblem && error.problem.errors) || []),
  });
  const conflict = save.error instanceof ApiProblem && save.error.status === 412;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    save.mutate(etag);
  };
  return (
    <Box component="form" data-live="" noValidate onSubmit={submit} sx={{ maxWidth: 980 }}>
      <Stack direction="row" spacing={1} sx={{ mb: 2, alignItems: 'center' }}>
        <Typography variant="h1" sx={{ flex: 1, overflowWrap: 'anywhere' }}>
          Intake
          <Typography component="span" color="text.secondary" sx={{ ml: 1.5 }}>
            tag {sample.tag}
          </Typography>
        </Typography>
        <Button variant="outlined" onClick={() => addUnit.mutate()} disabled={addUnit.isPending}>
          Take in another unit
        </Button>
        <Button type="submit" variant="contained" disabled={!changed || save.isPending}>
          Save
        </Button>
      </Stack>
      {changed && (
        <Alert
          severity="info"
          sx={{ mb: 2 }}
          action={
            <Button color="inherit" size="small" onClick={settle}>
              Discard
            </Button>
          }
        >
          Not saved yet. What you type is kept in this browser.
        </Alert>
      )}
      {save.error && !conflict && (
        <Alert severity="error" sx={{ mb: 2 }}>
          Not saved. {errors.length > 0 ? errors.slice(0, 4).map(formMessage).join(' · ') : save.error.message}
        </Alert>
      )}
      <SamplePlace sample={sample} />
      <IntakeFields form={form} errors={errors} onChange={change} />
      <Section title="Photos and files">
        <Attachments owner="sample" ownerId={sample.id} />
      </Section>
      <Ask
        button="Remove from the shelf"
        color="error"
        says={
          standing === ''
            ? `${gone}. This cannot be undone.`
            : `${standing} ${one ? 'stands' : 'stand'} on it: a sample something was measured on stays.`
        }
        {...(standing === '' ? { yes: 'Remove it' } : null)}
        no="Keep it"
        onYes={() => remove.mutate()}
      />
      {conflict && (
        <ConflictDialog
          sampleId={sample.id}
          mine={form}
          onTheirs={async () => {
            await refreshSample(sample.id);
            settle();
            save.reset();
          }}
          onMine={(newer) => save.mutate(newer)}
          onClose={() => save.reset()}
        />
      )}
    </Box>
  );
}
