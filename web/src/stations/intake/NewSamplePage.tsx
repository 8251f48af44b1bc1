// Taking in a sample of a new model.
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
import { queryClient } from '../../api/queries.ts';
import { PlaceField } from '../../collections/PlaceField.tsx';
import { PAGE_SIDE } from '../../parts/Page.tsx';
import { useDraft } from '../../parts/useDraft.ts';
import { usePageTitle } from '../../parts/usePageTitle.ts';
import { EMPTY_FORM, formMessage, fromForm } from './form.ts';
import { IntakeFields } from './IntakeFields.tsx';
import { PackageIn } from './PackageIn.tsx';
import { SpreadsheetIn } from './SpreadsheetIn.tsx';

const DRAFT = 'new-sample';

export function NewSamplePage() {
  usePageTitle('Take in a sample');
  const navigate = useNavigate();
  const { value: form, set, clear, restored } = useDraft(DRAFT, EMPTY_FORM);
  const [place, setPlace] = useState<string | null>(null);
  const [errors, setErrors] = useState<readonly FieldError[]>([]);
  const create = useMutation({
    mutationFn: (body: unknown) => api<Sample>('/samples', { method: 'POST', body }),
    onSuccess: async ({ id }) => {
      clear();
      await queryClient.invalidateQueries({ queryKey: ['samples'] });
      void navigate(`/samples/${id}/claims`);
    },
    onError: (error) => setErrors((error instanceof ApiProblem && error.problem.errors) || []),
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const result = fromForm(form);
    setErrors('errors' in result ? result.errors : []);
    if ('input' in result) create.mutate({ ...result.input, collectionId: place });
  };
  return (
    <Box component="form" noValidate onSubmit={submit} sx={{ px: PAGE_SIDE, pt: 2.5, pb: 6, maxWidth: 1180 }}>
      <Typography variant="h1" sx={{ mb: 2 }}>
        Take in a sample
      </Typography>
      {restored && (
        <Alert
          severity="info"
          sx={{ mb: 2 }}
          action={
            <Button color="inherit" size="small" onClick={() => set(EMPTY_FORM)}>
              Start empty
            </Button>
          }
        >
          What you typed here before was kept.
        </Alert>
      )}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, alignItems: 'flex-start' }}>
        <SpreadsheetIn />
        <PackageIn />
      </Box>
      <PlaceField place={place} onPlace={setPlace} />
      <IntakeFields form={form} errors={errors} onChange={set} />
      {(errors.length > 0 || create.error) && (
        <Alert severity="error" sx={{ mb: 2 }}>
          Not saved. {errors.length > 0 ? errors.slice(0, 4).map(formMessage).join(' · ') : create.error?.message}
        </Alert>
      )}
      <Stack direction="row" spacing={1}>
        <Button type="submit" variant="contained" disabled={create.isPending}>
          Take in, then claims
        </Button>
        <Button onClick={() => void navigate('/')}>Back to the shelf</Button>
      </Stack>
    </Box>
  );
}
