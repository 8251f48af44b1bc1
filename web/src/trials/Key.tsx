// The key of a blind trial, for whoever labels: which letter is which. That it was opened is kept.
import type { Arm } from '@lastmark/core/trial';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import { useMutation } from '@tanstack/react-query';
import { api } from '../api/client.ts';
import { queryClient, trialQuery } from '../api/queries.ts';
import { Ask } from '../parts/Ask.tsx';
import { LETTERS } from './trialForm.ts';

export function Key({ trialId, arms }: { readonly trialId: string; readonly arms: readonly Arm[] }) {
  const open = useMutation({
    mutationFn: () => api<{ letters: number[] }>(`/trials/${trialId}/key`, { method: 'POST' }),
    onSuccess: () => queryClient.invalidateQueries({ queryKey: trialQuery(trialId).queryKey }),
  });
  if (open.error) return <Alert severity="error">{open.error.message}</Alert>;
  if (open.data)
    return (
      <Box
        role="status"
        sx={{ px: 1.5, py: 0.5, border: 1, borderColor: 'warning.main', borderRadius: 1, bgcolor: 'background.paper' }}
      >
        Label them, then leave this page:{' '}
        {open.data.letters.map((at, letter) => `${LETTERS[letter]} is ${arms[at]?.name ?? ''}`).join(', ')}.
      </Box>
    );
  return (
    <Ask
      button="Key for who labels"
      says="Whoever runs the trial must not see it. That it was opened, and when, stays in the record."
      yes="Show the key"
      no="Leave it closed"
      onYes={() => open.mutate()}
    />
  );
}
