// The bench: instruments with their accuracy and calibration, and the rigs made of them.

import type { StoredDevice, StoredInstrument, StoredInstrumentProfile, StoredRig } from '@lastmark/contract/types';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import {
  benchesQuery,
  devicesQuery,
  instrumentProfilesQuery,
  instrumentsQuery,
  leasesQuery,
  rigsQuery,
} from '../api/queries.ts';
import { PAGE_SIDE } from '../parts/Page.tsx';
import { Loading, QueryGate } from '../parts/QueryGate.tsx';
import { usePageTitle } from '../parts/usePageTitle.ts';
import { ConsoleDialog } from './ConsoleDialog.tsx';
import { DeviceDialog } from './DeviceDialog.tsx';
import { Devices } from './Devices.tsx';
import { InstrumentDialog } from './InstrumentDialog.tsx';
import { Instruments } from './Instruments.tsx';
import { ProfileDialog } from './ProfileDialog.tsx';
import { Profiles } from './Profiles.tsx';
import { RigDialog } from './RigDialog.tsx';
import { Rigs } from './Rigs.tsx';

function Part({
  title,
  action,
  onAction,
  children,
}: {
  readonly title: string;
  readonly action?: string;
  readonly onAction?: () => void;
  readonly children: ReactNode;
}) {
  return (
    <Box component="section" aria-label={title} sx={{ mb: 4 }}>
      <Stack direction="row" sx={{ mb: 1, alignItems: 'center' }}>
        <Typography variant="h2" sx={{ flex: 1 }}>
          {title}
        </Typography>
        {action && (
          <Button variant="outlined" onClick={onAction}>
            {action}
          </Button>
        )}
      </Stack>
      {children}
    </Box>
  );
}

type Open =
  | { readonly kind: 'console'; readonly one: StoredInstrument }
  | { readonly kind: 'profile'; readonly one: StoredInstrumentProfile }
  | { readonly kind: 'device'; readonly one: StoredDevice | null }
  | { readonly kind: 'instrument'; readonly one: StoredInstrument | null }
  | { readonly kind: 'rig'; readonly one: StoredRig | null };

export function BenchPage() {
  usePageTitle('Bench');
  const instruments = useQuery(instrumentsQuery);
  const benches = useQuery(benchesQuery);
  const rigs = useQuery(rigsQuery);
  const devices = useQuery(devicesQuery);
  const profiles = useQuery(instrumentProfilesQuery);
  const leases = useQuery({ ...leasesQuery, refetchInterval: 3000 });
  const [open, setOpen] = useState<Open | null>(null);
  const [params, setParams] = useSearchParams();
  const asked = params.get('instrument');
  const from = params.get('from');
  const one = instruments.data?.items.find(({ id }) => id === asked);
  const opened = useRef<string | null>(null);
  // Coming from what hangs on an accuracy, its dialog is open at once, and once: a saved instrument arrives anew.
  useEffect(() => {
    if (!one || opened.current === one.id) return;
    opened.current = one.id;
    setOpen({ kind: 'instrument', one });
  }, [one]);
  const close = () => {
    setOpen(null);
    if (asked) setParams(from ? { from } : {}, { replace: true });
  };
  return (
    <Box sx={{ px: PAGE_SIDE, pt: 2.5, pb: 6, maxWidth: 1400 }}>
      <Typography variant="h1" sx={{ mb: 2 }}>
        Bench
      </Typography>
      {from && (
        <Button component={Link} to={`/samples/${from}/verdict`} sx={{ mb: 1 }}>
          Back to the sample
        </Button>
      )}
      <Alert severity="warning" sx={{ mb: 3 }}>
        Mains stays closed: open no enclosure, probe no primary side. Use an isolated supply and a residual-current
        device; work on mains wiring follows local codes and is for licensed people.
      </Alert>
      {[instruments, rigs, devices, profiles].some(({ isPending }) => isPending) ? (
        // All at once: what comes later would push away what is being read.
        <Loading what="the bench" />
      ) : (
        <>
          <QueryGate query={instruments} what="the instruments">
            {({ items }) => (
              <>
                <Part
                  title="Instruments"
                  action="Add an instrument"
                  onAction={() => setOpen({ kind: 'instrument', one: null })}
                >
                  <Instruments
                    items={items}
                    benches={benches.data?.items ?? []}
                    leases={leases.data?.items ?? []}
                    onChange={(one) => setOpen({ kind: 'instrument', one })}
                    onConsole={(one) => setOpen({ kind: 'console', one })}
                  />
                </Part>
                <QueryGate query={rigs} what="the rigs">
                  {(found) => (
                    <Part title="Rigs" action="Add a rig" onAction={() => setOpen({ kind: 'rig', one: null })}>
                      <Rigs items={found.items} instruments={items} onChange={(one) => setOpen({ kind: 'rig', one })} />
                    </Part>
                  )}
                </QueryGate>
              </>
            )}
          </QueryGate>
          <QueryGate query={devices} what="the devices">
            {({ items }) => (
              <Part title="Devices" action="Add a device" onAction={() => setOpen({ kind: 'device', one: null })}>
                <Devices items={items} onChange={(one) => setOpen({ kind: 'device', one })} />
              </Part>
            )}
          </QueryGate>
          <QueryGate query={profiles} what="the profiles">
            {({ items }) => (
              <Part title="Profiles">
                <Profiles items={items} onOpen={(one) => setOpen({ kind: 'profile', one })} />
              </Part>
            )}
          </QueryGate>
        </>
      )}
      {open?.kind === 'console' && <ConsoleDialog instrument={open.one} onClose={close} />}
      {open?.kind === 'profile' && <ProfileDialog profile={open.one} onClose={close} />}
      {open?.kind === 'device' && <DeviceDialog device={open.one} onClose={close} />}
      {open?.kind === 'instrument' && <InstrumentDialog instrument={open.one} onClose={close} />}
      {open?.kind === 'rig' && <RigDialog rig={open.one} instruments={instruments.data?.items ?? []} onClose={close} />}
    </Box>
  );
}
