// The frame around every page: spine, work surface, command box and key list.
import Box from '@mui/material/Box';
import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import { Outlet, ScrollRestoration } from 'react-router';
import { PRACTISING } from '../api/world.ts';
import { useKeys } from '../state/useKeys.ts';
import { useNarrow } from '../state/useNarrow.ts';
import { useNews } from '../together/useNews.ts';
import { LoadsOff } from './LoadsOff.tsx';
import { Spine } from './Spine.tsx';

const Band = lazy(async () => ({ default: (await import('../practice/Band.tsx')).Band }));
const KeyList = lazy(async () => ({ default: (await import('./KeyList.tsx')).KeyList }));

/** The command box is fetched when the first view stands, so that the first press of its keys finds it. */
const FETCHED_MILLISECONDS = 3000;

type CommandBoxPart = typeof import('./CommandBox.tsx').CommandBox;

/** The command box once it is here: fetched after a while, or at once when it is wanted. */
function useCommandBox(wanted: boolean): CommandBoxPart | null {
  const [box, setBox] = useState<{ readonly Command: CommandBoxPart } | null>(null);
  useEffect(() => {
    if (box) return;
    const fetchIt = () =>
      import('./CommandBox.tsx').then(
        ({ CommandBox }) => setBox({ Command: CommandBox }),
        // The server may be gone meanwhile: it is asked for again when it is wanted.
        () => undefined,
      );
    if (wanted) {
      void fetchIt();
      return;
    }
    const waiting = setTimeout(() => void fetchIt(), FETCHED_MILLISECONDS);
    return () => clearTimeout(waiting);
  }, [box, wanted]);
  return box?.Command ?? null;
}

/** Takes what is typed while the box is still on its way: nothing typed is lost. */
function EarlyBox({ onType }: { readonly onType: (text: string) => void }) {
  return (
    <Box sx={{ position: 'fixed', top: 64, left: '50%', zIndex: 1300, bgcolor: 'background.paper', p: 1.5 }}>
      {/* biome-ignore lint/a11y/noAutofocus: it was asked for by its key */}
      <input autoFocus aria-label="Sample, station or action" onChange={(event) => onType(event.target.value)} />
    </Box>
  );
}

export function Frame() {
  const narrow = useNarrow();
  useNews();
  const [open, setOpen] = useState<'command' | 'keys' | null>(null);
  const Command = useCommandBox(open === 'command');
  const early = useRef('');
  useKeys({
    'ctrl+k': () => {
      early.current = '';
      setOpen('command');
    },
    '?': () => setOpen('keys'),
  });
  return (
    <Box
      sx={{
        display: 'flex',
        flexDirection: narrow ? 'column' : 'row',
        minHeight: '100vh',
        ...(PRACTISING ? { borderLeft: '8px solid', borderColor: 'warning.main' } : {}),
      }}
    >
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
        {PRACTISING && (
          <Suspense fallback={<Box sx={{ minHeight: 52 }} />}>
            <Band />
          </Suspense>
        )}
        <Box component="main" id="work" tabIndex={-1} sx={{ flex: 1, minWidth: 0, '&:focus': { outline: 'none' } }}>
          <Outlet />
        </Box>
        <LoadsOff />
      </Box>
      {open === 'command' &&
        (Command ? (
          <Command early={early} onClose={() => setOpen(null)} onKeys={() => setOpen('keys')} />
        ) : (
          <EarlyBox onType={(text) => (early.current = text)} />
        ))}
      <Suspense fallback={null}>{open === 'keys' && <KeyList onClose={() => setOpen(null)} />}</Suspense>
      <ScrollRestoration />
    </Box>
  );
}
