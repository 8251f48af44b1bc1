// Searches somebody keeps: one press away, and gone with another.
import type { StoredSearch } from '@lastmark/contract/types';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Chip from '@mui/material/Chip';
import { useMutation, useQuery } from '@tanstack/react-query';
import { api } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { useNotify } from '../state/notices.tsx';

const KEY = ['searches'];

interface Props {
  /** The search that stands now, as the address has it; empty for none. */
  readonly current: string;
  /** What it is called unless somebody says otherwise. */
  readonly title: string;
  readonly onOpen: (query: string) => void;
}

export function Searches({ current, title, onOpen }: Props) {
  const notify = useNotify();
  const { data } = useQuery({
    queryKey: KEY,
    queryFn: ({ signal }) => api<{ items: StoredSearch[] }>('/searches', { signal }),
  });
  const done = {
    onSuccess: () => queryClient.invalidateQueries({ queryKey: KEY }),
    onError: (error: Error) => notify(error.message),
  };
  const keep = useMutation({
    mutationFn: () =>
      api<StoredSearch>('/searches', { method: 'POST', body: { title: title.slice(0, 60), query: current } }),
    ...done,
  });
  const remove = useMutation({ mutationFn: (id: string) => api(`/searches/${id}`, { method: 'DELETE' }), ...done });
  const items = data?.items ?? [];
  const known = items.some(({ query }) => query === current);
  if (items.length === 0 && current === '') return null;
  return (
    <Box role="group" aria-label="Kept searches" sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75 }}>
      {items.map((one) => (
        <Chip
          key={one.id}
          label={one.title}
          variant={one.query === current ? 'filled' : 'outlined'}
          onClick={() => onOpen(one.query)}
          onDelete={() => remove.mutate(one.id)}
        />
      ))}
      {/* Behind those that are kept: it would move as they come. */}
      {data && current !== '' && !known && (
        <Button size="small" onClick={() => keep.mutate()} disabled={keep.isPending}>
          Keep this search
        </Button>
      )}
    </Box>
  );
}
