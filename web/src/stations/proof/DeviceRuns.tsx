// Real devices as loads: what each took, and what that can prove.
import type { StoredRun } from '@lastmark/contract/types';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { lazy, useState } from 'react';
import { Link } from 'react-router';
import { EmptyFigure } from '../../parts/EmptyFigure.tsx';
import { barsHeight, figureHeight } from '../../parts/heights.ts';
import { Later } from '../../parts/Later.tsx';
import { useSample } from '../../state/sample.tsx';
import { DeviceRunDialog } from './DeviceRunDialog.tsx';
import { RunList } from './RunList.tsx';

const DeviceBars = lazy(async () => ({ default: (await import('./DeviceBars.tsx')).DeviceBars }));

export function DeviceRuns() {
  const { dossier, verdict } = useSample();
  const [open, setOpen] = useState(false);
  const [corrected, setCorrected] = useState<Extract<StoredRun, { kind: 'device' }> | null>(null);
  const none = dossier.devices.length === 0;
  return (
    <>
      <RunList
        kind="device"
        onCorrect={(run) => run.kind === 'device' && setCorrected(run)}
        title="Devices"
        none={
          none
            ? 'No device is on record yet. Add one at Bench, with what it takes at most.'
            : 'No device was attached yet.'
        }
        action={
          none ? (
            <Button variant="contained" component={Link} to="/bench">
              Go to Bench
            </Button>
          ) : (
            <Button variant="contained" onClick={() => setOpen(true)}>
              Enter a device run
            </Button>
          )
        }
        items={verdict.results.proof.devices.map(({ run, sentence, limiter, notes }) => ({
          run,
          sentence,
          more: [limiter, ...notes],
        }))}
      >
        {verdict.results.proof.devices.length > 0 ? (
          <Box sx={{ mb: 1.5 }}>
            <Later what="the chart" height={figureHeight(barsHeight(verdict.results.proof.devices.length))}>
              <DeviceBars />
            </Later>
          </Box>
        ) : (
          <EmptyFigure says="What each device took shows here, beside the most it takes anywhere." />
        )}
        <Typography color="text.secondary" sx={{ my: 1 }}>
          A device takes what it wants: what it took is a lower bound and never refutes a promise.
        </Typography>
      </RunList>
      {corrected && <DeviceRunDialog run={corrected} onClose={() => setCorrected(null)} />}
      {open && <DeviceRunDialog onClose={() => setOpen(false)} />}
    </>
  );
}
