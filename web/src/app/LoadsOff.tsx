// The bench line: live numbers, and Loads off, big and on every view as soon as a load has an address. Esc does the same:
// everywhere while a run is on, else outside dialogs and fields.
import type { LoadsOffAnswer } from '@lastmark/contract/types';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useEffect } from 'react';
import { api } from '../api/client.ts';
import { instrumentsQuery, leasesQuery } from '../api/queries.ts';
import { LiveNumbers } from './LiveNumbers.tsx';
import { useLive } from './useLive.ts';

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && target.closest('[role="dialog"], [role="listbox"], input, textarea') !== null;

export function LoadsOff() {
  const { data } = useQuery(instrumentsQuery);
  const there = data?.items.some(({ class: kind, address }) => kind === 'DC load' && address !== null) ?? false;
  const live = useLive(there);
  const { data: leases } = useQuery({ ...leasesQuery, enabled: there, refetchInterval: 2000 });
  const running = (leases?.items.length ?? 0) > 0;
  const off = useMutation({ mutationFn: () => api<LoadsOffAnswer>('/loads-off', { method: 'POST', body: {} }) });
  const { mutate } = off;
  useEffect(() => {
    if (!there) return;
    const onKey = (event: KeyboardEvent) => {
      if (event.key === 'Escape' && (running || !isTyping(event.target))) mutate();
    };
    // Before any dialog or field sees the key.
    window.addEventListener('keydown', onKey, true);
    return () => window.removeEventListener('keydown', onKey, true);
  }, [there, running, mutate]);
  if (!there) return null;
  const failed = off.data?.items.filter(({ sent }) => !sent) ?? [];
  const said = off.error
    ? `Not sent: ${off.error.message} Switch the loads off by hand.`
    : failed.length > 0
      ? `${failed.map(({ name, detail }) => `${name}: ${detail}`).join(' ')} Switch it off by hand.`
      : off.data
        ? 'Every load is off.'
        : live.open
          ? ''
          : 'Loads are connected; live numbers are on their way.';
  const wrong = off.error !== null || failed.length > 0;
  return (
    <Box
      component="section"
      aria-label="Bench line"
      sx={{
        position: 'sticky',
        bottom: 0,
        zIndex: 5,
        display: 'flex',
        alignItems: 'center',
        gap: 2,
        px: 3,
        py: 1,
        borderTop: 1,
        borderColor: 'divider',
        bgcolor: 'background.paper',
      }}
    >
      <Box sx={{ flex: 1 }}>
        <LiveNumbers live={live} />
      </Box>
      <Box role="status" sx={{ color: wrong ? 'error.main' : 'text.secondary', fontWeight: wrong ? 600 : 400 }}>
        {wrong && '▼ '}
        {said}
      </Box>
      <Button
        variant="contained"
        color="error"
        size="large"
        onClick={() => mutate()}
        endIcon={<kbd style={{ fontSize: 12 }}>Esc</kbd>}
      >
        Loads off
      </Button>
    </Box>
  );
}
