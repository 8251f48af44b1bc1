// The demo says that it is one, and can be put away.
import type { DemoState } from '@lastmark/contract/types';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useMutation, useQuery } from '@tanstack/react-query';
import { api } from '../api/client.ts';
import { demoQuery, queryClient } from '../api/queries.ts';
import { useNotify } from '../state/notices.tsx';

/** Shows the demo, or puts it away; the shelf is asked for anew. */
export function useShowDemo() {
  const notify = useNotify();
  return useMutation({
    mutationFn: (shown: boolean) => api<DemoState>('/demo', { method: 'PUT', body: { shown } }),
    onError: (error) => notify(error.message),
    onSettled: () => queryClient.invalidateQueries(),
  });
}

/** Says of the demo that it is one. */
export function DemoNote() {
  const { data } = useQuery(demoQuery);
  const demo = useShowDemo();
  if (data?.demo !== 'shown') return null;
  return (
    <Box
      sx={{
        display: 'flex',
        flexWrap: 'wrap',
        columnGap: 1,
        alignItems: 'center',
        fontSize: 14,
        color: 'text.secondary',
      }}
    >
      <span title="Makers, chargers and numbers are invented.">Demo, all of it invented.</span>
      <Button size="small" disabled={demo.isPending} onClick={() => demo.mutate(false)}>
        Put it away
      </Button>
    </Box>
  );
}
