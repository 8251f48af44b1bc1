// The spine: where one is. The sample on the bench with its stations, and the places beyond it.

import { ROLE_WORDS } from '@lastmark/contract/roles';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { lazy, Suspense, useState } from 'react';
import { NavLink, useLocation, useMatch } from 'react-router';
import { useMe } from '../api/who.ts';
import { PRACTISING } from '../api/world.ts';
import { useSettings } from '../state/settings.tsx';
import { useKeys } from '../state/useKeys.ts';
import { useNarrow } from '../state/useNarrow.ts';
import { Spared } from './Spared.tsx';

const SpineSample = lazy(async () => ({ default: (await import('./SpineSample.tsx')).SpineSample }));

export const SPINE_WIDTH = 216;

/** What is worked on, and beside it what it is worked with. */
const placesOf = (admin: boolean) => [
  [
    { to: '/', title: 'Shelf' },
    { to: '/run-sheets', title: 'Run sheets' },
    { to: '/trials', title: 'Trials' },
    // Nothing of practice is reported.
    ...(PRACTISING ? [] : [{ to: '/reports', title: 'Reports' }]),
  ],
  [
    { to: '/bench', title: 'Bench' },
    { to: '/rules', title: 'Rules' },
    { to: '/log', title: 'Log' },
    ...(admin && !PRACTISING ? [{ to: '/people', title: 'People' }] : []),
  ],
];

/** A link of the spine; the one that is open carries a bar at its edge. */
export const spineLink = {
  display: 'flex',
  alignItems: 'center',
  gap: 1,
  minHeight: 30,
  px: 1.5,
  py: 0.25,
  color: 'text.primary',
  textDecoration: 'none',
  borderLeft: '4px solid transparent',
  '&:hover': { bgcolor: 'ground' },
  '&.active': { borderColor: 'primary.main', bgcolor: 'ground', fontWeight: 600 },
} as const;

interface Props {
  readonly onCommand: () => void;
  readonly onKeys: () => void;
}

function Mark() {
  return (
    <Stack direction="row" spacing={1} sx={{ alignItems: 'center' }}>
      <svg width="22" height="22" viewBox="0 0 32 32" aria-hidden="true">
        <path
          d="M5 25h22M10 25V9M16 25v-9M22 25V5"
          stroke="currentColor"
          strokeWidth="3"
          strokeLinecap="round"
          fill="none"
        />
      </svg>
      <Typography component="span" sx={{ fontWeight: 600, fontSize: 17, letterSpacing: 0.2 }}>
        Lastmark
      </Typography>
    </Stack>
  );
}

/** Beside the name, as the day begins with it. */
const TODAY = {
  color: 'text.primary',
  height: 24,
  minWidth: 24,
  lineHeight: '21px',
  fontSize: 15,
  borderBottom: '3px solid transparent',
  '&.active': { borderColor: 'primary.main', fontWeight: 600 },
} as const;

/** Side by side: a sample's stations need the height. */
const PLACE_GRID = { display: 'grid', gridTemplateColumns: '122px 1fr', alignItems: 'start', pb: 1 } as const;

/** Takes what is left, so that the foot stays where it is; a sample with more than fits scrolls in it. */
const SAMPLE_ROOM = { flex: '1 0 0', minHeight: 280, overflowY: 'auto' } as const;

function Places() {
  const me = useMe();
  const sampleId = useMatch('/samples/:sampleId/*')?.params.sampleId;
  const onBench = sampleId && sampleId !== 'new' ? sampleId : null;
  return (
    <>
      <Box sx={PLACE_GRID}>
        {placesOf(me?.role === 'admin').map((places) => (
          <div key={places[0]?.to}>
            {places.map(({ to, title }) => (
              <Box key={to} component={NavLink} to={to} end={to === '/'} sx={spineLink}>
                {title}
              </Box>
            ))}
          </div>
        ))}
      </Box>
      <Box sx={SAMPLE_ROOM}>
        {onBench && (
          <Suspense fallback={null}>
            <Spared key={onBench} what="This sample">
              <SpineSample sampleId={onBench} />
            </Spared>
          </Suspense>
        )}
      </Box>
    </>
  );
}

const SPINE = {
  width: SPINE_WIDTH,
  flexShrink: 0,
  overflowY: 'auto',
  display: 'flex',
  flexDirection: 'column',
  bgcolor: 'background.paper',
  borderRight: 1,
  borderColor: 'divider',
} as const;

export function Spine({ onCommand, onKeys }: Props) {
  const { light, change } = useSettings();
  const me = useMe();
  const narrow = useNarrow();
  const { pathname } = useLocation();
  // Where it was opened: gone somewhere, it is closed again.
  const [openAt, setOpenAt] = useState<string | null>(null);
  const open = openAt === pathname;
  useKeys(open ? { escape: () => setOpenAt(null) } : {});
  const foot = (
    <Stack
      sx={{
        p: 1,
        borderTop: 1,
        borderColor: 'divider',
        '& .MuiButton-root': { justifyContent: 'space-between', color: 'text.secondary' },
      }}
    >
      <Button size="small" onClick={onCommand} endIcon={<kbd style={{ fontSize: 12 }}>Ctrl K</kbd>}>
        Find or do
      </Button>
      {me && (
        <Button size="small" component={NavLink} to="/account">
          <Box
            component="span"
            sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}
            title={me.name}
          >
            {me.name}
          </Box>
          <Box component="span" sx={{ fontSize: 12, pl: 1 }}>
            {me.guest ? `Guest, ${ROLE_WORDS[me.role].title.toLowerCase()}` : ROLE_WORDS[me.role].title}
          </Box>
        </Button>
      )}
      <Stack direction="row" sx={{ justifyContent: 'space-between' }}>
        <Button size="small" onClick={() => change({ light: light === 'dim' ? 'light' : 'dim' })}>
          {light === 'dim' ? 'Light theme' : 'Dim theme'}
        </Button>
        <Button size="small" onClick={onKeys} endIcon={<kbd style={{ fontSize: 12 }}>?</kbd>}>
          Keys
        </Button>
      </Stack>
    </Stack>
  );
  if (!narrow) {
    return (
      <Box component="nav" aria-label="Spine" sx={{ ...SPINE, position: 'sticky', top: 0, height: '100vh' }}>
        <Box sx={{ px: 2, pt: 2, pb: 1.5, display: 'flex', justifyContent: 'space-between', alignItems: 'center' }}>
          <Mark />
          <Box component={NavLink} to="/today" sx={TODAY}>
            Today
          </Box>
        </Box>
        <Places />
        {foot}
      </Box>
    );
  }
  return (
    <Box
      component="nav"
      aria-label="Spine"
      sx={{
        position: 'sticky',
        top: 0,
        zIndex: 6,
        bgcolor: 'background.paper',
        borderBottom: 1,
        borderColor: 'divider',
      }}
    >
      <Stack direction="row" spacing={2} sx={{ px: 1.5, py: 0.75, alignItems: 'center' }}>
        <Button
          size="small"
          variant="outlined"
          aria-expanded={open}
          aria-controls="spine"
          onClick={() => setOpenAt(open ? null : pathname)}
        >
          {open ? 'Close' : 'Stations and places'}
        </Button>
        <Mark />
        <Box component={NavLink} to="/today" sx={TODAY}>
          Today
        </Box>
      </Stack>
      {open && (
        <Box id="spine" sx={{ ...SPINE, position: 'fixed', top: 46, bottom: 0, left: 0, zIndex: 7 }}>
          <Places />
          {foot}
        </Box>
      )}
    </Box>
  );
}
