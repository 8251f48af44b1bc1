// The bench line: live numbers and Loads off, on every view as soon as a load has an address. A narrow line while nothing
// draws, unmistakable as soon as something does or nobody knows. Esc does the same as the button: everywhere while a run is
// on, else outside dialogs and fields.
import type { LoadsOffAnswer } from '@lastmark/contract/types';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { api } from '../api/client.ts';
import { instrumentsQuery, leasesQuery } from '../api/queries.ts';
import { NO_WORD, wordsOf } from '../parts/loadsOffWords.ts';
import { useLive } from '../state/useLive.ts';
import { isDoubt, isDrawing, LiveNumbers } from './LiveNumbers.tsx';

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && target.closest('[role="dialog"], [role="listbox"], input, textarea') !== null;

const LINE = {
  position: 'sticky',
  bottom: 0,
  zIndex: 5,
  display: 'flex',
  flexWrap: 'wrap',
  alignItems: 'center',
  columnGap: 2,
  px: 3,
  py: 0.25,
  minHeight: 36,
  boxSizing: 'border-box',
  borderTop: 1,
  borderColor: 'divider',
  bgcolor: 'background.paper',
  '&[data-loud=true]': { borderTop: 4, borderColor: 'error.main', bgcolor: 'badGround', py: 0.75 },
} as const;

export function LoadsOff() {
  const { data } = useQuery(instrumentsQuery);
  const there = data?.items.some(({ class: kind, address }) => kind === 'DC load' && address !== null) ?? false;
  const live = useLive(there);
  const { data: leases } = useQuery({ ...leasesQuery, enabled: there, refetchInterval: 2000 });
  const running = (leases?.items.length ?? 0) > 0;
  /** Loads that were in doubt since Loads off was pressed. */
  const [doubted, setDoubted] = useState<ReadonlySet<string>>(new Set());
  const off = useMutation({
    mutationFn: () => api<LoadsOffAnswer>('/loads-off', { method: 'POST', body: {} }),
    onMutate: () => setDoubted(new Set()),
  });
  const { mutate } = off;
  const doubtedNow = new Set(
    live.events.flatMap(({ instrumentId, problem }) => (problem && isDoubt(problem) ? [instrumentId] : [])),
  );
  const unseen = [...doubtedNow].filter((id) => !doubted.has(id));
  if (unseen.length > 0) setDoubted(new Set([...doubted, ...unseen]));
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
  const doubts = live.events.flatMap(({ problem }) => (problem && isDoubt(problem) ? [problem] : []));
  const settled = new Set([...doubted].filter((id) => !doubtedNow.has(id)));
  const { said, wrong } = off.error
    ? { said: NO_WORD, wrong: true }
    : doubts.length > 0
      ? { said: doubts.join(' '), wrong: true }
      : off.data
        ? wordsOf(off.data, settled)
        : { said: live.open ? '' : 'Loads are connected; live numbers are on their way.', wrong: false };
  const loud = wrong || running || live.events.some(isDrawing);
  return (
    <Box component="section" aria-label="Bench line" data-loud={loud} sx={LINE}>
      {loud && (
        <Box sx={{ fontWeight: 700, color: 'error.main', whiteSpace: 'nowrap' }}>
          <span aria-hidden>▲ </span>
          {running ? 'Run on' : wrong ? 'Not sure' : 'Drawing'}
        </Box>
      )}
      <Box sx={{ flex: 1, minWidth: 200 }}>
        <LiveNumbers live={live} loud={loud} />
      </Box>
      <Box
        role="status"
        sx={{
          fontSize: loud ? undefined : 13,
          color: wrong ? 'error.main' : 'text.secondary',
          fontWeight: wrong ? 600 : 400,
        }}
      >
        {wrong && '▼ '}
        {said}
      </Box>
      <Button
        variant={loud ? 'contained' : 'outlined'}
        color="error"
        size={loud ? 'large' : 'small'}
        onClick={() => mutate()}
        sx={{ whiteSpace: 'nowrap', flexShrink: 0 }}
        endIcon={<kbd style={{ fontSize: 12 }}>Esc</kbd>}
      >
        Loads off
      </Button>
    </Box>
  );
}
