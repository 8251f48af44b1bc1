// The frame around every page: spine, work surface, command box and key list.
import Box from '@mui/material/Box';
import { useState } from 'react';
import { Outlet, ScrollRestoration } from 'react-router';
import { useKeys } from '../state/useKeys.ts';
import { useNarrow } from '../state/useNarrow.ts';
import { CommandBox } from './CommandBox.tsx';
import { KeyList } from './KeyList.tsx';
import { LoadsOff } from './LoadsOff.tsx';
import { Spine } from './Spine.tsx';

export function Frame() {
  const narrow = useNarrow();
  const [open, setOpen] = useState<'command' | 'keys' | null>(null);
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
      {open === 'command' && <CommandBox onClose={() => setOpen(null)} onKeys={() => setOpen('keys')} />}
      {open === 'keys' && <KeyList onClose={() => setOpen(null)} />}
      <ScrollRestoration />
    </Box>
  );
}
