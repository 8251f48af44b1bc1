// The bench: instruments with their accuracy and calibration, and the rigs made of them.

import type { Lease } from '@lastmark/contract/plan';
import type { StoredDevice, StoredInstrument, StoredInstrumentProfile, StoredRig } from '@lastmark/contract/types';
import { SUPPLY_WORDS } from '@lastmark/core/pd';
import { formatPlain } from '@lastmark/core/quantity';
import { type Sees, VISIBLE_KINDS } from '@lastmark/core/read-out';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { devicesQuery, instrumentProfilesQuery, instrumentsQuery, leasesQuery, rigsQuery } from '../api/queries.ts';
import { PAGE_SIDE } from '../parts/Page.tsx';
import { Loading, QueryGate } from '../parts/QueryGate.tsx';
import { ConsoleDialog } from './ConsoleDialog.tsx';
import { DeviceDialog } from './DeviceDialog.tsx';
import { Devices } from './Devices.tsx';
import { InstrumentDialog } from './InstrumentDialog.tsx';
import { ProfileDialog } from './ProfileDialog.tsx';
import { Profiles } from './Profiles.tsx';
import { RigDialog } from './RigDialog.tsx';
import { describeSpec } from './spec.ts';
import { Heads, none } from './tables.tsx';

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
      <Box sx={{ border: 1, borderColor: 'divider', borderRadius: 1, bgcolor: 'background.paper', overflowX: 'auto' }}>
        {children}
      </Box>
    </Box>
  );
}

function Due({ due }: { readonly due: string | null }) {
  if (!due) return <Box sx={{ color: 'text.secondary' }}>not stated</Box>;
  const overdue = due < new Date().toISOString().slice(0, 10);
  return overdue ? <Box sx={{ color: 'error.main', fontWeight: 600 }}>▼ overdue since {due}</Box> : due;
}

/** What an analyser can see, by what it cannot: absent then means not visible. */
function seesWords({ supplies, signals }: Sees): string {
  const hidden = VISIBLE_KINDS.filter((kind) => !supplies.includes(kind));
  const modes = `${signals.length} modes outside PD`;
  return hidden.length === 0
    ? `sees every kind of offer, ${modes}`
    : `cannot see ${hidden.map((kind) => SUPPLY_WORDS[kind]).join(', ')}; sees ${modes}`;
}

const ratingWords = ({ volts, amps, watts }: NonNullable<StoredInstrument['ratings']>): string =>
  [
    volts === null ? '' : formatPlain(volts, 'voltage'),
    amps === null ? '' : formatPlain(amps, 'current'),
    watts === null ? '' : formatPlain(watts, 'power'),
  ]
    .filter(Boolean)
    .join(', ');

/** Whether values are read with it, so that its accuracy counts. */
const readsSomething = (one: StoredInstrument): boolean =>
  !one.sees && one.class !== 'thermometer' && one.class !== 'AC source';

/** Whose run has an instrument. */
function InUse({ lease }: { readonly lease: Lease | undefined }) {
  if (!lease) return null;
  return (
    <Box sx={{ fontSize: 13 }}>
      ◆ in use by {lease.person}:{' '}
      <Box component={Link} to={`/runs/${lease.runId}`} sx={{ color: 'text.primary' }}>
        {lease.title}
      </Box>
    </Box>
  );
}

function Instruments({
  items,
  leases,
  onChange,
  onConsole,
}: {
  readonly items: readonly StoredInstrument[];
  readonly leases: readonly Lease[];
  readonly onChange: (one: StoredInstrument) => void;
  readonly onConsole: (one: StoredInstrument) => void;
}) {
  if (items.length === 0) return none('No instruments yet. Readings take their uncertainty from the meters’ accuracy.');
  return (
    <Table size="small" aria-label="Instruments">
      <Heads heads={['Name', 'Class', 'Accuracy', 'Calibration due', '']} />
      <TableBody>
        {items.map((one) => (
          <TableRow key={one.id}>
            <TableCell>
              <Box sx={{ fontWeight: 600 }}>{one.name}</Box>
              <InUse lease={leases.find(({ instrumentId }) => instrumentId === one.id)} />
            </TableCell>
            <TableCell>
              {one.class}
              {one.firmware && `, firmware ${one.firmware}`}
              {one.address && <Box sx={{ color: 'text.secondary', fontSize: 13 }}>{one.address}</Box>}
            </TableCell>
            <TableCell>
              {(['power', 'voltage', 'current'] as const).map((quantity) => {
                const spec = one.specs[quantity];
                return spec && <Box key={quantity}>{`${quantity} ${describeSpec(spec, quantity)}`}</Box>;
              })}
              {readsSomething(one) && Object.keys(one.specs).length === 0 && (
                <Box sx={{ color: 'warning.main', fontWeight: 600 }}>◆ not stated: nothing can be decided with it</Box>
              )}
              {one.sees && seesWords(one.sees)}
              {one.ratings && <Box>takes at most {ratingWords(one.ratings)}</Box>}
            </TableCell>
            <TableCell>
              <Due due={one.calibrationDue} />
              {one.calibratedOn && (
                <Box sx={{ color: 'text.secondary', fontSize: 13 }}>calibrated {one.calibratedOn}</Box>
              )}
            </TableCell>
            <TableCell sx={{ whiteSpace: 'nowrap' }}>
              {one.address && (
                <Button size="small" onClick={() => onConsole(one)} aria-label={`Console of ${one.name}`}>
                  Console
                </Button>
              )}
              <Button size="small" onClick={() => onChange(one)} aria-label={`Change ${one.name}`}>
                Change
              </Button>
            </TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  );
}

function Rigs({
  items,
  instruments,
  onChange,
}: {
  readonly items: readonly StoredRig[];
  readonly instruments: readonly StoredInstrument[];
  readonly onChange: (one: StoredRig) => void;
}) {
  if (items.length === 0) return none('No rigs yet. A rig says which meter reads what, and which lead is between.');
  const nameOf = (id: string | null) =>
    id === null ? 'read at the socket only' : (instruments.find((one) => one.id === id)?.name ?? 'missing');
  return (
    <Table size="small" aria-label="Rigs">
      <Heads heads={['Name', 'Input', 'Output volts', 'Output amps', 'Sensed', '']} />
      <TableBody>
        {items.map((one) => (
          <TableRow key={one.id}>
            <TableCell>
              <Box sx={{ fontWeight: 600 }}>{one.name}</Box>
              <Box sx={{ color: 'text.secondary', fontSize: 13 }}>{one.note}</Box>
              {one.elements.length > 0 && (
                <Box sx={{ color: 'text.secondary', fontSize: 13 }}>
                  In the line: {one.elements.map(({ kind, name }) => `${kind} ${name}`).join(', ')}
                </Box>
              )}
            </TableCell>
            <TableCell>{nameOf(one.meters.mains)}</TableCell>
            <TableCell>{nameOf(one.meters.outputVolts)}</TableCell>
            <TableCell>{nameOf(one.meters.outputAmps)}</TableCell>
            <TableCell>
              {one.outputPlace === 'port'
                ? 'at the port'
                : `at the load end, lead ${formatPlain(one.leadOhms, 'resistance')}`}
            </TableCell>
            <TableCell>
              <Button size="small" onClick={() => onChange(one)} aria-label={`Change ${one.name}`}>
                Change
              </Button>
            </TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  );
}

type Open =
  | { readonly kind: 'console'; readonly one: StoredInstrument }
  | { readonly kind: 'profile'; readonly one: StoredInstrumentProfile }
  | { readonly kind: 'device'; readonly one: StoredDevice | null }
  | { readonly kind: 'instrument'; readonly one: StoredInstrument | null }
  | { readonly kind: 'rig'; readonly one: StoredRig | null };

export function BenchPage() {
  const instruments = useQuery(instrumentsQuery);
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
