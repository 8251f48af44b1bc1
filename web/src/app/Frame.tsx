// The frame around every page: spine, work surface, command box and key list.
import Box from '@mui/material/Box';
import { lazy, Suspense, useEffect, useState } from 'react';
import { Outlet, ScrollRestoration } from 'react-router';
import { useKeys } from '../state/useKeys.ts';
import { useNarrow } from '../state/useNarrow.ts';
import { LoadsOff } from './LoadsOff.tsx';
import { Spine } from './Spine.tsx';

const boxOf = () => import('./CommandBox.tsx');
const CommandBox = lazy(async () => ({ default: (await boxOf()).CommandBox }));
const KeyList = lazy(async () => ({ default: (await import('./KeyList.tsx')).KeyList }));

/** Fetched once the page stands and nothing else is to do, so that the first press of its keys finds it. */
const FETCH_AFTER_MILLISECONDS = 3000;

export function Frame() {
  const narrow = useNarrow();
  const [open, setOpen] = useState<'command' | 'keys' | null>(null);
  useEffect(() => {
    const timer = setTimeout(() => void boxOf(), FETCH_AFTER_MILLISECONDS);
    return () => clearTimeout(timer);
  }, []);
  useKeys({ 'ctrl+k': () => setOpen('command'), '?': () => setOpen('keys') });
  return (
    <Box sx={{ display: 'flex', flexDirection: narrow ? 'column' : 'row', minHeight: '100vh' }}>
      <Box
        component="a"
        href="#work"
        sx={{
          position: 'absolute',
          left: -999,
          '&:focus': { left: 8, top: 8, zIndex: 10, bgcolor: 'background.paper', p: 1 },
        }}
      >
        Skip to the work surface
      </Box>
      <Spine onCommand={() => setOpen('command')} onKeys={() => setOpen('keys')} />
      <Box sx={{ flex: 1, minWidth: 0, display: 'flex', flexDirection: 'column', minHeight: narrow ? 0 : '100vh' }}>
        <Box component="main" id="work" tabIndex={-1} sx={{ flex: 1, minWidth: 0, '&:focus': { outline: 'none' } }}>
          <Outlet />
        </Box>
        <LoadsOff />
      </Box>
      <Suspense fallback={null}>
        {open === 'command' && <CommandBox onClose={() => setOpen(null)} onKeys={() => setOpen('keys')} />}
        {open === 'keys' && <KeyList onClose={() => setOpen(null)} />}
      </Suspense>
      <ScrollRestoration />
    </Box>
  );
}
